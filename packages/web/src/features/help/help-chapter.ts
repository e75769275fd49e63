import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { cleanHelp, toldParts, toldSentences, type CanDoPart } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { settingOrigin } from '../../shared/profile/origin';

const PARTS: Readonly<Record<CanDoPart, string>> = {
  headings: 'Headings',
  words: 'Words',
  lists: 'Blocks',
  pictures: 'Pictures',
  links: 'Links',
  frames: 'Frames',
  styles: 'Styles',
  paste: 'Pasting',
  length: 'Length',
};

/** What is said to authors wherever the profile is used: a text, and what the rules say of themselves. */
@Component({
  selector: 'ty-help-chapter',
  imports: [MatButtonModule, MatCheckboxModule, MatFormFieldModule, MatInputModule],
  templateUrl: './help-chapter.html',
  styleUrl: './help-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HelpChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly text = computed(() => this.resolved()?.profile.help.text ?? '');
  protected readonly origin = computed(() => this.originOf(['help', 'text']));
  protected readonly rows = computed(() => {
    const [resolved, rules] = [this.resolved(), this.rules()];
    if (resolved === null || rules === null) return [];
    return toldParts(resolved, rules).map((told) => ({
      ...told,
      label: PARTS[told.part],
      origin: this.originOf(['help', 'parts', told.part]),
    }));
  });
  /** As it stands beside a field. */
  protected readonly shown = computed(() => ({ help: cleanHelp(this.text()), sentences: toldSentences(this.rows()) }));

  private originOf(keys: readonly string[]): { setBy: string; isHere: boolean } {
    const resolved = this.resolved();
    return resolved === null ? { setBy: 'default', isHere: false } : settingOrigin(resolved, keys, this.names());
  }

  protected setText(text: string): void {
    this.edit.set(['help', 'text'], text, 'Help for authors');
  }

  protected show(part: CanDoPart, isShown: boolean): void {
    this.edit.set(['help', 'parts', part, 'shown'], isShown, isShown ? `Show “${PARTS[part]}”` : `Hide “${PARTS[part]}”`);
  }

  protected setWords(part: CanDoPart, words: string): void {
    this.edit.set(['help', 'parts', part, 'words'], words.trim(), `Own words for “${PARTS[part]}”`);
  }

  protected reset(...keys: string[]): void {
    this.edit.reset(['help', ...keys], 'Back to what is inherited');
  }
}
