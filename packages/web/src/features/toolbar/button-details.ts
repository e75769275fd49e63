import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { buttonOf, missingMarkup, needInWords, PURPOSES, toolbarOptionsSchema } from '@typikon/core';
import { EDITOR_BUTTONS, keyLabel } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { selectRules } from '../../state/rules';
import { ProfileSettings } from '../../shared/form/profile-settings';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { Icon } from '../../ui/icon';
import { ColoursField } from './colours-field';
import { ToolbarDesign } from './toolbar-design';

/** All about one button: what it does, what it needs of the rules, where it stands, and what can be chosen of it. */
@Component({
  selector: 'ty-button-details',
  imports: [MatSelectModule, MatFormFieldModule, MatButtonModule, Icon, SettingsForm],
  templateUrl: './button-details.html',
  styleUrl: './button-details.scss',
  providers: [
    { provide: SettingsSource, useExisting: ProfileSettings },
    { provide: SPECIAL_EDITORS, useValue: { colours: ColoursField } },
  ],
  host: { role: 'region', '[attr.aria-label]': "'About ' + button().label" },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ButtonDetails {
  private readonly store = inject(Store);
  protected readonly design = inject(ToolbarDesign);
  private readonly rules = this.store.selectSignal(selectRules);

  protected readonly button = computed(() => {
    const declaration = buttonOf(this.design.chosen());
    return {
      ...declaration,
      icon: EDITOR_BUTTONS.get(declaration.id)!.icon,
      keyLabel: declaration.key === null ? '' : keyLabel(declaration.key),
      purposeLabel: PURPOSES[declaration.purpose],
      group: this.design.groupOf(declaration.id) ?? null,
      descent: this.design.descentOf(declaration.id),
    };
  });
  protected readonly needs = computed(() => {
    const [options, rules] = [this.design.options(), this.rules()];
    const declaration = buttonOf(this.design.chosen());
    if (options === null || rules === null) return [];
    const missing = missingMarkup(declaration, rules, options);
    return declaration.needs(options).map((need) => {
      const lacking = missing.find(({ element, attribute }) => element === need.element && attribute === need.attribute);
      return { words: needInWords(lacking ?? need), isKept: lacking === undefined };
    });
  });
  protected readonly lacks = computed(() => this.design.lacks().get(this.design.chosen()) ?? '');
  protected readonly isCapped = computed(() => this.design.capped().has(this.design.chosen()));
  protected readonly onlyFor = computed(() => this.design.onlyFor(this.design.chosen()));
  /** The settings of the button, where it has some. */
  protected readonly settings = computed(() => {
    const part = buttonOf(this.design.chosen()).options;
    return part === undefined
      ? null
      : { schema: toolbarOptionsSchema.shape[part], at: ['toolbar', 'options', part], prefix: `option-${part}-` };
  });
}
