import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { FormField, Json } from '@typikon/core';
import type { SpecialEditor } from '../../shared/form/settings-source';
import { CssField } from '../../shared/markup/css-field';

/** The editing stylesheet of a profile. */
@Component({
  selector: 'ty-editing-css',
  imports: [CssField],
  template: `
    <p class="ty-soft">The editing stylesheet of this profile. It is never part of the page.</p>
    <ty-css-field [label]="field().title" [css]="text()" (changed)="take()($event)" />
  `,
  styles: `
    :host {
      display: block;
      padding: 8px 20px 12px;
      border-bottom: 1px solid var(--ty-hair);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EditingCss implements SpecialEditor {
  readonly field = input.required<FormField>();
  readonly keys = input.required<readonly string[]>();
  readonly value = input.required<Json | undefined>();
  readonly take = input.required<(value: Json | undefined) => string>();

  protected text(): string {
    const value = this.value();
    return typeof value === 'string' ? value : '';
  }
}
