import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { RouterLink } from '@angular/router';
import { changesOfWriting, leftBehind, type Site, type WrittenWith } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';

/** Who would write with something else where, and which stored texts keep a profile that nobody may choose there any more. */
@Component({
  selector: 'ty-writing-view',
  imports: [MatTableModule, RouterLink],
  templateUrl: './writing-view.html',
  styleUrl: './reach-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WritingView {
  readonly before = input.required<Site>();
  readonly after = input.required<Site>();
  private readonly store = inject(Store);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly texts = this.store.selectSignal(libraryFeature.selectTexts);
  protected readonly columns = ['what', 'who', 'texts'];
  protected readonly rows = computed(() => {
    const labels = new Map([...this.before().roles, ...this.after().roles].map(({ id, label }) => [id, label]));
    return changesOfWriting(this.before(), this.after()).map((change) => ({
      change,
      field: `${change.fieldTitle} of ${change.typeLabel}`,
      roles: change.roles.map((id) => labels.get(id) ?? id).join(', '),
      words: `${this.wordsOf(change.before)} becomes ${this.wordsOf(change.after)}`,
      texts: this.texts()
        .filter(({ type, field }) => type === change.type && field === change.field)
        .reduce((sum, { count }) => sum + count, 0),
    }));
  });
  protected readonly same = (_: number, row: { field: string; words: string }): string => `${row.field} ${row.words}`;
  /** Fields of which somebody writes with something else. */
  protected readonly fields = computed(() => new Set(this.rows().map(({ field }) => field)).size);
  /** Texts that keep a profile which nobody may choose there once it is released, and could before. */
  protected readonly left = computed(() => {
    const known = new Set(leftBehind(this.before(), this.texts()));
    const titles = new Map(
      [...this.before().types, ...this.after().types].flatMap(({ id, label, fields }) =>
        fields.map(({ key, title }): [string, string] => [`${id} ${key}`, `${title} of ${label}`]),
      ),
    );
    return leftBehind(this.after(), this.texts())
      .filter((one) => !known.has(one))
      .map(({ type, field, profileId, count }) => ({
        key: `${type} ${field} ${profileId}`,
        type,
        profile: profileId,
        count,
        words: `${titles.get(`${type} ${field}`) ?? `${type} ${field}`}, written with “${this.nameOf(profileId)}”`,
      }));
  });
  protected readonly leftTexts = computed(() => this.left().reduce((sum, { count }) => sum + count, 0));

  private nameOf(id: string): string {
    return this.names().get(id) ?? id;
  }

  private wordsOf({ profile, choices }: WrittenWith): string {
    if (profile === null) return 'nobody’s';
    const others = choices.filter((id) => id !== profile).map((id) => this.nameOf(id));
    return others.length === 0 ? this.nameOf(profile) : `${this.nameOf(profile)} (or ${others.join(', ')})`;
  }
}
