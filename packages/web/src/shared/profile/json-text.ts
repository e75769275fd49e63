import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  input,
  output,
  signal,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { isObject, isSameJson, type Json, type JsonObject } from '@typikon/core/settings';
import { JsonEditor, type JsonProblem } from './json-editor';

/** A document as text, checked at the line while it is typed and taken over by a button. */
@Component({
  selector: 'ty-json-text',
  imports: [MatButtonModule],
  template: `
    <h2 class="ty-unseen">{{ heading() }}</h2>
    <div class="bar">
      <p class="ty-soft"><ng-content /></p>
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
export class JsonText implements OnDestroy {
  readonly heading = input.required<string>();
  /** What the field is called. */
  readonly label = input.required<string>();
  readonly document = input.required<JsonObject>();
  /** What is wrong with another document in its place. */
  readonly check = input.required<(document: JsonObject) => readonly JsonProblem[]>();
  readonly taken = output<JsonObject>();
  readonly closed = output();
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly text = signal('');
  private editor: JsonEditor | null = null;

  private readonly written = computed(() => `${JSON.stringify(this.document(), null, 2)}\n`);
  private readonly parsed = computed(() => parse(this.text()));
  private readonly problems = computed(() => this.problemsIn(this.text()));
  protected readonly isChanged = computed(() => {
    const parsed = this.parsed();
    return parsed === undefined || !isSameJson(parsed, this.document());
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
          label: this.label(),
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

  private problemsIn(text: string): readonly JsonProblem[] {
    const document = parse(text);
    if (document === undefined) return [];
    return isObject(document) ? this.check()(document) : [{ pointer: '', message: 'This is a JSON object.' }];
  }

  protected apply(): void {
    this.taken.emit(this.parsed() as JsonObject);
  }

  protected putBack(): void {
    this.editor?.setText(this.written());
  }
}

function parse(text: string): Json | undefined {
  try {
    return JSON.parse(text) as Json;
  } catch {
    return undefined;
  }
}
