import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatExpansionModule } from '@angular/material/expansion';
import { RouterLink } from '@angular/router';
import type { Json } from '@typikon/core/settings';
import { ChangesTable, differencesOf } from '../../shared/profile/changes-table';
import { unmetOf } from './reach-words';
import { ReleaseStore } from './release-store';

/** What a release changes, rule by rule, and what its proof says: specimens and findings. */
@Component({
  selector: 'ty-what-changes',
  imports: [ChangesTable, MatExpansionModule, RouterLink],
  templateUrl: './what-changes.html',
  styleUrl: './what-changes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhatChanges {
  /** The number of the last edition. */
  readonly edition = input.required<number>();
  /** Settings beside the markup rules, as they are and as they would be. */
  readonly one = input.required<Json>();
  readonly other = input.required<Json>();
  /** What is said where no specimen says what must come out of it. */
  readonly noSpecimen = input.required<string>();
  protected readonly release = inject(ReleaseStore);
  protected readonly differences = computed(() => ({
    before: this.one(),
    after: this.other(),
    count: differencesOf(this.one(), this.other()).length,
  }));
  protected readonly unmet = computed(() => unmetOf(this.release.proved()));
  protected readonly met = computed(
    () => (this.release.proved() ?? []).filter(({ after }) => after.expectationsMet === after.expectations).length,
  );
}
