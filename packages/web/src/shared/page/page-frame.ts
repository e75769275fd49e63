import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
  DestroyRef,
  inject,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { contentElements } from './frame-html';

/** A number beside an element that looks different. */
export interface PlaceMark {
  number: number;
  index: number;
  /** Whether its cause is the chosen one. */
  isChosen: boolean;
}

interface Outline extends PlaceMark {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Room beside the column that is shown too, in CSS pixels of the page. */
const MARGIN_PX = 26;
const MOST_MARKS = 300;

/** Content in a sandboxed frame without scripts, as wide as a window, shown so that its column fits; differences are outlined. */
@Component({
  selector: 'ty-page-frame',
  imports: [MatButtonModule],
  template: `
    <div #place class="place">
      <iframe
        #frame
        [title]="label()"
        sandbox="allow-same-origin"
        referrerpolicy="no-referrer"
        [style.width.px]="widthPx()"
        [style.height.px]="heightPx()"
        [style.transform]="transform()"
        (load)="loaded()"
      ></iframe>
      @for (outline of outlines(); track outline.number + ' ' + outline.index) {
        <div
          class="outline"
          [class.chosen]="outline.isChosen"
          [style.left.px]="outline.left"
          [style.top.px]="outline.top"
          [style.width.px]="outline.width"
          [style.height.px]="outline.height"
        >
          <button
            mat-button
            type="button"
            class="ty-plain"
            tabindex="-1"
            [attr.aria-label]="'Difference ' + outline.number + ' on ' + label()"
            (click)="markChosen.emit(outline)"
          >
            {{ outline.number }}
          </button>
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      min-width: 0;
      min-height: 0;
    }
    .place {
      position: relative;
      flex: 1;
      overflow: hidden;
      background: #fff;
    }
    iframe {
      position: absolute;
      top: 0;
      left: 0;
      border: 0;
      background: #fff;
      transform-origin: 0 0;
    }
    .outline {
      position: absolute;
      border: 1px dashed var(--ty-rubric);
      pointer-events: none;
    }
    .outline.chosen {
      border-style: solid;
      border-width: 2px;
    }
    button {
      position: absolute;
      top: -9px;
      left: -9px;
      min-width: 18px;
      height: 18px;
      padding: 0 4px;
      border: 1px solid #a6301f;
      border-radius: 9px;
      background: #fff;
      color: #a6301f;
      font: 600 11px/15px var(--ty-serif);
      cursor: pointer;
      pointer-events: auto;
    }
    .chosen button {
      background: #a6301f;
      color: #fff;
      z-index: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageFrame {
  readonly label = input.required<string>();
  /** The whole page, without scripts. */
  readonly html = input.required<string>();
  /** How wide the window is, in CSS pixels. */
  readonly widthPx = input.required<number>();
  readonly marks = input<readonly PlaceMark[]>([]);
  /** The content is there and laid out. */
  readonly ready = output<readonly HTMLElement[]>();
  readonly scrolled = output<void>();
  readonly markChosen = output<PlaceMark>();
  private readonly frame = viewChild.required<ElementRef<HTMLIFrameElement>>('frame');
  private readonly place = viewChild.required<ElementRef<HTMLElement>>('place');
  private readonly size = signal({ width: 400, height: 300 });
  /** Where the column is, in CSS pixels of the page. */
  private readonly column = signal({ left: 0, width: 700 });
  private elements: readonly HTMLElement[] = [];
  private readonly moment = signal(0);

  protected readonly scale = computed(() => Math.min(1, this.size().width / (this.column().width + 2 * MARGIN_PX)));
  protected readonly heightPx = computed(() => this.size().height / this.scale());
  private readonly shift = computed(() => Math.max(0, this.column().left - MARGIN_PX));
  protected readonly transform = computed(() => `scale(${this.scale()}) translateX(${-this.shift()}px)`);
  protected readonly outlines = computed((): Outline[] => {
    this.moment();
    const scale = this.scale();
    const shift = this.shift();
    const { height } = this.size();
    const taken = new Set<number>();
    return this.marks()
      .slice()
      .sort((a, b) => Number(b.isChosen) - Number(a.isChosen))
      .flatMap((mark) => {
        const element = this.elements[mark.index];
        if (element === undefined || taken.has(mark.index) || taken.size >= MOST_MARKS) return [];
        taken.add(mark.index);
        const box = element.getBoundingClientRect();
        const outline = {
          ...mark,
          left: (box.left - shift) * scale - 3,
          top: box.top * scale - 3,
          width: box.width * scale + 6,
          height: box.height * scale + 6,
        };
        return box.width === 0 || outline.top > height || outline.top + outline.height < 0 ? [] : [outline];
      });
  });

  constructor() {
    effect(() => {
      this.frame().nativeElement.srcdoc = this.html();
    });
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) this.size.set({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    effect(() => observer.observe(this.place().nativeElement));
    effect(() => {
      // The column lies elsewhere in a window of another width.
      this.widthPx();
      requestAnimationFrame(() => this.look());
    });
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  protected loaded(): void {
    const { contentDocument } = this.frame().nativeElement;
    if (contentDocument === null || contentDocument.querySelector('[data-mount]') === null) return;
    this.elements = contentElements(contentDocument);
    contentDocument.addEventListener('scroll', () => {
      this.moment.update((moment) => moment + 1);
      this.scrolled.emit();
    });
    contentDocument.addEventListener('click', (event) => {
      event.preventDefault();
      const at = this.elements.indexOf(event.target as HTMLElement);
      const mark = this.marks().find(({ index }) => index === at);
      if (mark !== undefined) this.markChosen.emit(mark);
    });
    this.look();
    const pending = [...contentDocument.images].filter((image) => !image.complete);
    const done = (): void => {
      this.look();
      this.ready.emit(this.elements);
    };
    // Pictures give their size when they are there; until then boxes are not what they will be.
    if (pending.length === 0) done();
    else
      void Promise.all(
        pending.map(
          (image) =>
            new Promise<void>((resolve) => {
              image.addEventListener('load', () => resolve(), { once: true });
              image.addEventListener('error', () => resolve(), { once: true });
            }),
        ),
      ).then(done);
  }

  /** Where the first element is that one sees, and how far down it is; to show another frame at the same place. */
  topElement(): { index: number; top: number } | null {
    for (const [index, element] of this.elements.entries()) {
      const box = element.getBoundingClientRect();
      if (box.height > 0 && box.bottom > 0) return { index, top: box.top };
    }
    return null;
  }

  /** Scrolls so that an element is as far down as told. */
  scrollTo({ index, top }: { index: number; top: number }): void {
    const element = this.elements[index];
    const view = this.frame().nativeElement.contentWindow;
    if (element === undefined || view === null) return;
    view.scrollBy({ top: element.getBoundingClientRect().top - top, behavior: 'instant' });
  }

  /** Whether the frame itself is what the person scrolls. */
  isHovered(): boolean {
    return this.place().nativeElement.matches(':hover');
  }

  private look(): void {
    const mount = this.frame().nativeElement.contentDocument?.querySelector('[data-mount]');
    if (mount == null) return;
    const box = mount.getBoundingClientRect();
    if (box.width > 0) this.column.set({ left: box.left, width: box.width });
    this.moment.update((moment) => moment + 1);
  }
}
