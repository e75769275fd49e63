import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { BenchActions, benchFeature } from '../../state/bench';
import { elementOf } from '@typikon/core';
import { workshopFeature } from '../../state/workshop';
import { MarkupEditor } from './markup-editor';
import { newParts, removedParts } from './differences';

/** The markup that came in beside the markup that is stored, with what was taken, what was changed and what is new marked. */
@Component({
  selector: 'ty-markup-view',
  template: `
    <div class="side">
      <h3>
        {{ showing() === 'source' ? 'Came in' : showing() === 'pasted' ? 'Came in by paste' : 'Comes from the editor' }},
        <span class="ty-num">{{ sizeOf(bytes()?.before) }}</span>
      </h3>
      <div class="editor" #source></div>
    </div>
    <div class="side">
      <h3>
        Is stored, <span class="ty-num">{{ sizeOf(bytes()?.after) }}</span>
      </h3>
      <div class="editor" #result></div>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
      flex: 1;
      min-height: 0;
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
    h3 {
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
  protected readonly bytes = computed(() => {
    const measures = this.proof()?.measures;
    return measures === undefined ? null : { before: measures.bytesBefore, after: measures.bytesAfter };
  });
  private sourceEditor: MarkupEditor | null = null;
  private resultEditor: MarkupEditor | null = null;

  constructor() {
    effect(() => {
      const input = this.input();
      const showing = this.showing();
      this.sourceEditor ??= new MarkupEditor(this.sourceHost().nativeElement, {
        label: 'Markup that came in',
        text: input,
        onEdit: (html) => this.store.dispatch(BenchActions.sourceEdited({ html })),
      });
      this.sourceEditor.setText(input);
      this.sourceEditor.setEditable(showing === 'source');
    });
    effect(() => {
      const html = this.proof()?.html ?? '';
      this.resultEditor ??= new MarkupEditor(this.resultHost().nativeElement, { label: 'Markup that is stored', text: html });
      this.resultEditor.setText(html);
    });
    effect(() => {
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
      if (proof === null || proof.input !== untracked(this.input)) return;
      const entry = index === null ? undefined : proof.ledger[index];
      if (entry !== undefined) this.sourceEditor?.select([{ start: entry.start, end: entry.end }]);
      else if (element !== null)
        this.sourceEditor?.select(
          proof.ledger.filter((candidate) => elementOf(candidate) === element).map(({ start, end }) => ({ start, end })),
        );
      else this.sourceEditor?.select([]);
    });
  }

  ngOnDestroy(): void {
    this.sourceEditor?.destroy();
    this.resultEditor?.destroy();
  }

  protected sizeOf(bytes: number | undefined): string {
    if (bytes === undefined) return '';
    return bytes < 1000 ? `${bytes} bytes` : bytes < 1e6 ? `${(bytes / 1000).toFixed(1)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
  }
}
