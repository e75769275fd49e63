import { ChangeDetectionStrategy, Component } from '@angular/core';
import { markupSchema } from '@typikon/core/settings';
import { ProfileSettings } from '../../shared/form/profile-settings';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { AttributesOfAll } from '../../shared/rules/attributes-of-all';
import { SchemesField } from '../../shared/form/schemes-field';

/** The rules that are not about one element: attributes of every element, addresses, links, headings, spaces, limits, output. */
@Component({
  selector: 'ty-rest-of-markup',
  imports: [SettingsForm],
  template: `<ty-settings-form [schema]="schema" [at]="['markup']" />`,
  styles: `
    :host {
      display: block;
      padding-bottom: 24px;
    }
  `,
  providers: [
    { provide: SettingsSource, useExisting: ProfileSettings },
    { provide: SPECIAL_EDITORS, useValue: { attributes: AttributesOfAll, schemes: SchemesField } },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RestOfMarkup {
  protected readonly schema = markupSchema;
}
