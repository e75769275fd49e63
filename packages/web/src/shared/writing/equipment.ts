import { computed, inject, Injectable } from '@angular/core';
import {
  cleanHelp,
  compileRules,
  fieldPlaces,
  firstPlace,
  resolveProfile,
  toldParts,
  toldSentences,
  type ContentType,
  type Field,
  type FieldPlace,
  type ResolvedProfile,
} from '@typikon/core';
import type { EditorConfiguration, EditorServices } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { Dictionary } from '../../state/dictionary';
import { EditorSurroundings, surfaceOf } from '../../state/editor-services';
import { selectReleasedHouse } from '../../state/house';
import { libraryFeature } from '../../state/library';
import { selectAsReaders } from '../../state/pages';
import { confined } from './confined';

/** How high an editor is that stands among others, in pixels. */
const AMONG_OTHERS_PX = 220;

/** What the fields of a document are written with: editors by profile, what the rules say of themselves, where a field shows. */
@Injectable({ providedIn: 'root' })
export class Equipment {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dictionary = inject(Dictionary);
  private readonly surroundings = inject(EditorSurroundings);
  private readonly library = this.store.selectSignal(selectAsReaders);
  private readonly house = this.store.selectSignal(selectReleasedHouse);
  readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly editions = this.store.selectSignal(libraryFeature.selectEditions);
  /** Every profile as it was released last, which is what authors write with; those with mistakes are left out. */
  readonly profiles = computed((): ReadonlyMap<string, ResolvedProfile> => {
    const all = new Map<string, ResolvedProfile>();
    for (const [id, { chain }] of this.editions()) {
      const resolution = resolveProfile(id, (other) => chain.find((link) => link.id === other)?.document);
      if (resolution.ok) all.set(id, resolution.resolved);
    }
    return all;
  });
  /** What each of them says, with all that it inherits, as a document of its own. */
  readonly documents = computed(() =>
    [...this.profiles()].map(([id, { profile }]) => {
      const { extends: _, ...document } = profile;
      return { id, document };
    }),
  );
  private readonly pageKinds = computed(() => new Map(this.library()?.pageKinds.map((kind) => [kind.id, kind])));

  /**
   * What an editor needs for a profile; null where the profile has mistakes or the kind of page is not there.
   *
   * @param role of the author; house limits may except it
   * @param services in the place of the usual ones
   */
  configuration(
    profileId: string,
    role: string,
    type: ContentType,
    field: Field,
    services: Partial<EditorServices> = {},
  ): EditorConfiguration | null {
    const [library, profile] = [this.library(), this.profiles().get(profileId)];
    const surface = library === null ? null : surfaceOf(library, this.placeOf(type, field.key));
    if (profile === undefined || surface === null) return null;
    return {
      profile: shorter(profile),
      house: this.house(),
      role,
      surface,
      services: { ...confined(this.surroundings.services, field), ...services },
      isWord: (word) => this.dictionary.knows(word),
      uploadPictures: (pictures) => this.api.storePictures(pictures),
    };
  }

  /** The role by which house limits judge what somebody writes: one that they except, or else the first. */
  roleOf(roles: readonly string[]): string {
    const trusted = this.house()?.trustedRoles ?? {};
    return roles.find((role) => Object.hasOwn(trusted, role)) ?? roles[0] ?? '';
  }

  /** What an author can do with a profile, in sentences that follow from its rules; empty where it has mistakes. */
  canDo(profileId: string, role: string, { letters }: Pick<Field, 'letters'>): string {
    const [profile, house] = [this.profiles().get(profileId), this.house()];
    if (profile === undefined) return '';
    const rules = compileRules(profile, house === null ? {} : { house, ...(role === '' ? {} : { role }) });
    return toldSentences(toldParts(profile, rules, letters));
  }

  /** The help that comes along with a profile, as markup that may be shown. */
  help(profileId: string): string {
    return cleanHelp(this.profiles().get(profileId)?.profile.help.text ?? '');
  }

  /** The kind of page on which a field is looked at first. */
  placeOf(type: ContentType, key: string): string {
    return firstPlace(type, key, this.pageKinds());
  }

  /** Where a field is printed. */
  places(type: ContentType, key: string): readonly FieldPlace[] {
    return fieldPlaces(type, this.pageKinds()).get(key) ?? [];
  }

  /** Where a field shows, in words. */
  where(type: ContentType, key: string): string {
    const places = this.places(type, key);
    if (places.length === 0) return 'It shows nowhere: no page prints it.';
    const own = places.some(({ isOwnPage }) => isOwnPage);
    const others = places.filter(({ isOwnPage }) => !isOwnPage).map(({ name }) => name);
    if (own) return others.length === 0 ? 'Shows on the page.' : `Shows on the page, and on ${others.join(', ')}.`;
    return `Shows only on ${others.join(', ')}, not on the page.`;
  }
}

/** A profile whose editor leaves room for what stands below it. */
function shorter(resolved: ResolvedProfile): ResolvedProfile {
  const { surface } = resolved.profile;
  return {
    ...resolved,
    profile: { ...resolved.profile, surface: { ...surface, height: 'fixed', heightPx: Math.min(surface.heightPx, AMONG_OTHERS_PX) } },
  };
}
