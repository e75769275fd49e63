import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  output,
  signal,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { isObject, isSameJson, resolveProfile, type Json, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { JsonEditor, type JsonProblem } from '../../shared/profile/json-editor';

/** The markup section of the profile's own document as text, checked at the line while it is typed and taken over by a button. */
@Component({
  selector: 'ty-markup-text',
  imports: [MatButtonModule],
  template: `
    <h2 class="ty-unseen">Markup rules as text</h2>
    <div class="bar">
      <p class="ty-soft">What this profile itself says; what it inherits is not repeated. A key set to null takes out what is inherited.</p>
      <span class="ty-soft" role="status">{{ state() }}</span>
      <button mat-stroked-button type="button" [disabled]="!isChanged()" (click)="putBack()">Put back</button>
      <button mat-flat-button type="button" class="go" [disabled]="!canApply()" (click)="apply()">Take over</button>
      <button mat-stroked-button type="button" (click)="closed.emit()">As a table</button>
    </div>
    <div class="editor" #host></div>
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    .bar {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 10px 20px;
      border-bottom: 1px solid var(--ty-line);
      font-size: 12px;
    }
    .bar p {
      flex: 1;
    }
    [mat-stroked-button] {
      height: 30px;
      padding: 0 10px;
      font-size: 12.5px;
    }
    .editor {
      flex: 1;
      min-height: 0;
      overflow: hidden;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkupText implements OnDestroy {
  readonly closed = output();
  private readonly edit = inject(ProfileEdit);
  private readonly store = inject(Store);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  private readonly profileId = this.store.selectSignal(workshopFeature.selectProfileId);
  private readonly documents = this.store.selectSignal(workshopFeature.selectDocuments);
  private readonly text = signal('');
  private editor: JsonEditor | null = null;

  private readonly written = computed(() => `${JSON.stringify(this.draft()['markup'] ?? {}, null, 2)}\n`);
  private readonly parsed = computed((): Json | undefined => {
    try {
      return JSON.parse(this.text()) as Json;
    } catch {
      return undefined;
    }
  });
  private readonly problems = computed(() => this.problemsIn(this.text()));
  protected readonly isChanged = computed(() => {
    const parsed = this.parsed();
    return parsed === undefined || !isSameJson(parsed, this.draft()['markup'] ?? {});
  });
  protected readonly canApply = computed(() => this.isChanged() && this.parsed() !== undefined && this.problems().length === 0);
  protected readonly state = computed(() => {
    if (this.parsed() === undefined) return 'Not JSON yet';
    const { length } = this.problems();
    return length > 0 ? (length === 1 ? 'One mistake' : `${length} mistakes`) : this.isChanged() ? 'Sound, not taken over yet' : '';
  });

  constructor() {
    effect(() => {
      const text = this.written();
      if (this.editor === null) {
        this.text.set(text);
        this.editor = new JsonEditor(this.host().nativeElement, {
          label: 'Markup rules as JSON',
          text,
          check: (typed) => this.problemsIn(typed),
          onEdit: (typed) => this.text.set(typed),
        });
      } else this.editor.setText(text);
    });
  }

  ngOnDestroy(): void {
    this.editor?.destroy();
  }

  private problemsIn(text: string): JsonProblem[] {
    const id = this.profileId();
    let markup: Json;
    try {
      markup = JSON.parse(text) as Json;
    } catch {
      return [];
    }
    if (id === null) return [];
    if (!isObject(markup)) return [{ pointer: '', message: 'The markup section is a JSON object.' }];
    const documents = { ...this.documents(), [id]: { ...this.draft(), markup } };
    const resolution = resolveProfile(id, (other) => documents[other]);
    return resolution.ok ? [] : resolution.problems.map(({ pointer, message }) => ({ pointer: pointer.replace(/^\/markup/, ''), message }));
  }

  protected apply(): void {
    const markup = this.parsed() as JsonObject;
    const { markup: _old, ...rest } = this.draft();
    this.edit.replace(Object.keys(markup).length === 0 ? rest : { ...rest, markup }, 'Editing the markup rules as text');
  }

  protected putBack(): void {
    this.editor?.setText(this.written());
  }
}
