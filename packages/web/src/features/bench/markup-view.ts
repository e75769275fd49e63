import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { passOrder, PASS_WORDS, utf8Length } from '@typikon/core/settings';
import { keyOfThing, passNumber } from '../../state/paste-words';
import { ProofRunner } from '../../state/proof-runner';
import { workshopFeature } from '../../state/workshop';
import { MarkupEditor } from '../../shared/markup/markup-editor';
import { newParts, removedParts, type Mark } from '../../shared/markup/differences';

/** The markup that came in beside the markup that is stored, with what was taken, what was changed and what is new marked. */
@Component({
  selector: 'ty-markup-view',
  imports: [MatButtonModule],
  template: `
    @if (view(); as view) {
      <div class="which">
        <span
          >Step <b>{{ number() }} {{ passName() }}</b
          >{{ view.before === view.after ? ' changes nothing here' : '' }}</span
        >
        <span class="ways" role="group" aria-label="How it is shown">
          <button mat-button type="button" class="ty-quiet" [attr.aria-pressed]="look() === 'source'" (click)="look.set('source')">
            Source
          </button>
          <button mat-button type="button" class="ty-quiet" [attr.aria-pressed]="look() === 'page'" (click)="look.set('page')">Look</button>
          <button mat-button type="button" class="ty-quiet" (click)="leave()">Whole way</button>
        </span>
      </div>
    }
    <div class="sides" [class.unseen]="view() !== null && look() === 'page'">
      <div class="side">
        <h2>
          {{
            view() !== null
              ? 'Before ' + number() + ' ' + passName()
              : showing() === 'typed'
                ? 'Comes from the editor'
                : arrives() === 'paste'
                  ? 'Came in by paste'
                  : 'Came in'
          }}<span class="ty-num">{{ sizeOf(bytes()?.before) }}</span>
        </h2>
        <div class="editor" #source></div>
      </div>
      <div class="side">
        <h2>
          {{ view() !== null ? 'After' : 'Is stored' }}<span class="ty-num">{{ sizeOf(bytes()?.after) }}</span>
        </h2>
        <div class="editor" #result></div>
      </div>
    </div>
    @if (view() !== null && look() === 'page') {
      <div class="sides">
        <iframe class="side" title="How it looks before the step" sandbox="" [srcdoc]="looks().before"></iframe>
        <iframe class="side" title="How it looks after the step" sandbox="" [srcdoc]="looks().after"></iframe>
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    .which {
      display: flex;
      justify-content: space-between;
      align-items: center;
      padding: 3px 12px;
      border-bottom: 1px solid var(--ty-hair);
      background: var(--ty-rubric-wash);
      font-size: 12.5px;
    }
    .ways {
      display: flex;
      gap: 12px;
    }
    .ways [aria-pressed='true'] {
      color: var(--ty-ink);
      text-decoration: underline;
      text-underline-offset: 4px;
    }
    .sides {
      display: grid;
      grid-template-columns: 1fr 1fr;
      flex: 1;
      min-height: 0;
    }
    .sides.unseen {
      display: none;
    }
    iframe {
      width: 100%;
      height: 100%;
      border: 0;
      background: #fff;
    }
    .side {
      display: flex;
      flex-direction: column;
      min-width: 0;
      min-height: 0;
    }
    .side + .side {
      border-left: 1px solid var(--ty-line);
    }
    h2 {
      padding: 7px 12px 4px;
      color: var(--ty-soft);
      font: 500 11.5px/16px var(--ty-sans);
    }
    .editor {
      flex: 1;
      min-height: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkupView implements OnDestroy {
  private readonly store = inject(Store);
  private readonly sourceHost = viewChild.required<ElementRef<HTMLElement>>('source');
  private readonly resultHost = viewChild.required<ElementRef<HTMLElement>>('result');
  private readonly input = this.store.selectSignal(benchFeature.selectInput);
  protected readonly showing = this.store.selectSignal(benchFeature.selectShowing);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly entry = this.store.selectSignal(benchFeature.selectEntry);
  private readonly element = this.store.selectSignal(workshopFeature.selectElement);
  protected readonly arrives = this.store.selectSignal(benchFeature.selectArrives);
  private readonly pass = this.store.selectSignal(benchFeature.selectPass);
  private readonly thing = this.store.selectSignal(benchFeature.selectThing);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly runner = inject(ProofRunner);
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly look = signal<'source' | 'page'>('source');
  /** The markup before and after the chosen pass; null where the whole way is shown. */
  protected readonly view = computed(() => {
    const view = this.proof()?.paste?.view ?? null;
    return view !== null && view.pass === this.pass() ? view : null;
  });
  protected readonly passName = computed(() => {
    const pass = this.view()?.pass;
    return pass === undefined ? '' : PASS_WORDS[pass].label;
  });
  protected readonly number = computed(() => {
    const [view, resolved] = [this.view(), this.resolved()];
    return view === null || resolved === null ? '' : passNumber(passOrder(resolved), view.pass);
  });
  /** Frames that run nothing: what is pasted is never trusted. */
  protected readonly looks = computed(() => {
    const view = this.view();
    const framed = (html: string): SafeHtml =>
      this.sanitizer.bypassSecurityTrustHtml(`<!doctype html><meta charset="utf-8"><style>body{margin:12px}</style>${html}`);
    return { before: framed(view?.before ?? ''), after: framed(view?.after ?? '') };
  });
  protected readonly bytes = computed(() => {
    const view = this.view();
    if (view !== null) return { before: utf8Length(view.before), after: utf8Length(view.after) };
    const measures = this.proof()?.measures;
    return measures === undefined ? null : { before: measures.bytesBefore, after: measures.bytesAfter };
  });
  private sourceEditor: MarkupEditor | null = null;
  private resultEditor: MarkupEditor | null = null;

  constructor() {
    effect(() => {
      const input = this.view()?.before ?? this.input() ?? '';
      const isEditable = this.showing() === 'source' && this.view() === null;
      this.sourceEditor ??= new MarkupEditor(this.sourceHost().nativeElement, {
        label: 'Markup that came in',
        text: input,
        onEdit: (html) => this.store.dispatch(BenchActions.sourceEdited({ html })),
      });
      this.sourceEditor.setText(input);
      this.sourceEditor.setEditable(isEditable);
    });
    effect(() => {
      const html = this.view()?.after ?? this.proof()?.html ?? '';
      this.resultEditor ??= new MarkupEditor(this.resultHost().nativeElement, { label: 'Markup that is stored', text: html });
      this.resultEditor.setText(html);
    });
    effect(() => {
      const view = this.view();
      if (view !== null) {
        // Between two steps there is no ledger to go by: the tags of both sides are compared.
        const gone = newParts(view.after, view.before, []).map((mark): Mark => ({ ...mark, kind: 'removed' }));
        this.sourceEditor?.setMarks(gone);
        this.resultEditor?.setMarks(newParts(view.before, view.after, []));
        return;
      }
      const proof = this.proof();
      const input = this.input();
      // Marks belong to the markup that they were computed for.
      if (proof === null || proof.input !== input) return;
      const removed = removedParts(proof.input, proof.ledger);
      this.sourceEditor?.setMarks(removed);
      this.resultEditor?.setMarks(newParts(proof.input, proof.html, removed));
    });
    effect(() => {
      const index = this.entry();
      const element = this.element();
      const proof = untracked(this.proof);
      if (this.view() !== null || proof === null || proof.input !== untracked(this.input)) return;
      const entry = index === null ? undefined : proof.ledger[index];
      if (entry !== undefined) this.sourceEditor?.select([{ start: entry.start, end: entry.end }]);
      else if (element !== null)
        this.sourceEditor?.select(
          proof.ledger.filter(({ subject }) => subject.element === element).map(({ start, end }) => ({ start, end })),
        );
      else this.sourceEditor?.select([]);
    });
    effect((onCleanup) => {
      const key = this.thing();
      const proof = this.proof();
      if (this.view() !== null || proof === null) return;
      if (key === null) {
        this.resultEditor?.select([]);
        return;
      }
      const asked = this.runner.inventories(proof.html).subscribe({
        next: ([things]) => this.resultEditor?.select(things?.find((thing) => keyOfThing(thing) === key)?.places ?? []),
        // The list below tells what stands in the way.
        error: () => undefined,
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  protected leave(): void {
    this.store.dispatch(BenchActions.passChosen({ pass: null }));
  }

  ngOnDestroy(): void {
    this.sourceEditor?.destroy();
    this.resultEditor?.destroy();
  }

  /** What is said behind what it is the size of; nothing where none is known yet. */
  protected sizeOf(bytes: number | null | undefined): string {
    if (bytes === undefined || bytes === null) return '';
    return bytes < 1000 ? `, ${bytes} bytes` : bytes < 1e6 ? `, ${(bytes / 1000).toFixed(1)} kB` : `, ${(bytes / 1e6).toFixed(1)} MB`;
  }
}
