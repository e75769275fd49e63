import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { TextChange } from '@typikon/core';

/** Two texts told as one: what went, what came, and what both share. */
@Component({
  selector: 'ty-text-changes',
  template: `
    @for (change of changes(); track $index) {
      @switch (change.kind) {
        @case ('gone') {
          <del>{{ change.text }}</del>
        }
        @case ('new') {
          <ins>{{ change.text }}</ins>
        }
        @default {
          <span>{{ change.text }}</span>
        }
      }
    }
  `,
  styles: `
    del {
      background: var(--ty-rubric-wash);
      color: var(--ty-rubric);
      text-decoration-thickness: 1.5px;
    }
    ins {
      background: var(--ty-verdigris-wash);
      color: var(--ty-verdigris);
      text-decoration: underline 1.5px;
      text-underline-offset: 3px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextChanges {
  readonly changes = input.required<readonly TextChange[]>();
}
