import { Injectable, computed, inject, signal } from '@angular/core';
import {
  addedTo,
  compileRules,
  DESK,
  EDITING_SHEET,
  fileNameOf,
  isSameJson,
  overridesOf,
  resolveProfile,
  proveSpecimen,
  settingsFor,
  takenOut,
  type JsonObject,
  type LikenessInput,
  type PageKind,
  type Repair,
  type ResolvedProfile,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../state/api';
import { selectHouse } from '../../state/house';
import { LibraryActions, libraryFeature } from '../../state/library';
import type { PublishedText, StoredPageKind, StoredProfile, StyleChanges, StyleFiles } from '../../state/types';
import { WorkshopActions } from '../../state/workshop.actions';

/** A repair that was taken, and how it is taken back. */
export interface TakenRepair {
  label: string;
  undo: () => Promise<void>;
}

/** What a profile and a page kind are compared with: their settings and documents; and the repairs that were taken. */
@Injectable({ providedIn: 'root' })
export class LikenessDesk {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  readonly pageKinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  readonly stylesheets = this.store.selectSignal(libraryFeature.selectStylesheets);
  readonly texts = this.store.selectSignal(libraryFeature.selectTexts);
  private readonly specimens = this.store.selectSignal(libraryFeature.selectSpecimens);
  private readonly house = this.store.selectSignal(selectHouse);
  readonly taken = signal<readonly TakenRepair[]>([]);

  /** Each profile with each page kind on which its texts show first. */
  readonly pairs = computed(() => {
    const pairs = new Map<string, { profileId: string; pageKindId: string; documents: number }>();
    for (const { profileId, pageKindId, count } of this.texts()) {
      const key = `${profileId} ${pageKindId}`;
      const known = pairs.get(key);
      if (known === undefined) pairs.set(key, { profileId, pageKindId, documents: count });
      else known.documents += count;
    }
    return [...pairs.values()];
  });

  resolved(profileId: string): ResolvedProfile | null {
    const documents = new Map(this.profiles().map(({ id, document }) => [id, document]));
    const resolution = resolveProfile(profileId, (id) => documents.get(id));
    return resolution.ok ? resolution.resolved : null;
  }

  /** The two settings in a window of a width. */
  settings(resolved: ResolvedProfile, page: PageKind, widthPx: number): LikenessInput {
    const { surface } = resolved.profile;
    const surfaceKind = this.pageKinds().find(({ id }) => id === surface.pageKind) ?? page;
    return settingsFor(surface, surfaceKind, page, (id) => this.stylesheets().find((sheet) => sheet.id === id), { ...DESK, widthPx });
  }

  /**
   * The stored documents of the pair as they are published. Where none is a page of this kind, those of the profile's other
   * kinds, as if they were.
   *
   * @param withSpecimens whether the profile's specimens come too, as its passes and rules leave them
   */
  async contents(
    resolved: ResolvedProfile,
    pageKindId: string,
    withSpecimens: boolean,
  ): Promise<{ documents: PublishedText[]; isBorrowed: boolean }> {
    const own = await firstValueFrom(this.api.published({ profile: resolved.id, pageKind: pageKindId }));
    const stored = own.length > 0 ? own : await firstValueFrom(this.api.published({ profile: resolved.id }));
    if (!withSpecimens && stored.length > 0) return { documents: stored, isBorrowed: own.length === 0 };
    const house = this.house();
    const options = { ...(house === null ? {} : { house }), rules: compileRules(resolved, house === null ? {} : { house }) };
    const specimens = this.specimens()
      .filter(({ profileId }) => profileId === resolved.id)
      .map(({ id, name, payload, arrives }) => ({
        id: `specimen-${id}`,
        title: `${name} (specimen)`,
        profileId: resolved.id,
        pageKindId,
        html: proveSpecimen({ payload, arrives, expectations: [] }, resolved, options).html,
      }));
    return { documents: [...stored, ...specimens], isBorrowed: own.length === 0 };
  }

  /** Takes a repair: into the stylesheets of the page, or into the profile's surface. Errors where somebody else was faster. */
  async take(repair: Repair, resolved: ResolvedProfile, page: StoredPageKind, label: string): Promise<void> {
    const undo = repair.side === 'page' ? await this.takeOnPage(repair, page, label) : await this.takeInEditor(repair, resolved);
    this.taken.update((all) => [...all, { label, undo }]);
  }

  /** Takes the last repair back. */
  async undo(): Promise<void> {
    const last = this.taken().at(-1);
    if (last === undefined) return;
    await last.undo();
    this.taken.update((all) => all.slice(0, -1));
  }

  private async takeOnPage(repair: Repair, page: StoredPageKind, label: string): Promise<() => Promise<void>> {
    const { revision: _revision, ...definition } = page;
    if (repair.kind === 'add-rule') {
      const id = overridesOf(page);
      const old = this.stylesheets().find((sheet) => sheet.id === id);
      const sheet = {
        id,
        purpose: old?.purpose ?? `Repairs for the kind “${page.name}”, loaded last.`,
        media: '',
        css: addedTo(old?.css ?? '', repair.css),
      };
      // Last, so that it needs no more weight than what it outweighs.
      const stylesheets = [...page.stylesheets.filter((one) => one !== id), id];
      await this.change({
        note: label,
        stylesheets: [{ ...sheet, revision: old?.revision ?? null }],
        pageKinds: isSameJson(stylesheets, page.stylesheets) ? [] : [{ ...definition, stylesheets, revision: page.revision }],
      });
      return async () => {
        const now = this.now(page.id, id);
        await this.change({
          note: `Taken back: ${label}`,
          stylesheets: old === undefined ? [] : [{ id, purpose: old.purpose, media: old.media, css: old.css, revision: now.sheetRevision }],
          pageKinds: [{ ...definition, revision: now.kindRevision }],
          removed: old === undefined ? { stylesheets: [{ id, revision: now.sheetRevision }] } : {},
        });
      };
    }
    if (repair.kind !== 'load-file' && repair.kind !== 'move-file') throw new Error('This repair is none of the page.');
    const id = this.stylesheets().find((sheet) => fileNameOf(sheet.id) === repair.sheet)?.id;
    if (id === undefined) throw new Error(`There is no stylesheet ${repair.sheet} any more.`);
    const rest = page.stylesheets.filter((one) => one !== id);
    const at = rest.findIndex((one) => fileNameOf(one) === repair.after);
    await this.change({
      note: label,
      pageKinds: [{ ...definition, stylesheets: [...rest.slice(0, at + 1), id, ...rest.slice(at + 1)], revision: page.revision }],
    });
    return () =>
      this.change({ note: `Taken back: ${label}`, pageKinds: [{ ...definition, revision: this.now(page.id, id).kindRevision }] });
  }

  private async takeInEditor(repair: Repair, resolved: ResolvedProfile): Promise<() => Promise<void>> {
    const { surface } = resolved.profile;
    const stored = this.profile(resolved.id);
    const before = stored.document;
    const own = (before['surface'] ?? {}) as JsonObject;
    const css =
      repair.kind === 'add-rule'
        ? addedTo(surface.editingCss, repair.css)
        : repair.kind === 'take-out' && repair.sheet === EDITING_SHEET
          ? takenOut(surface.editingCss, repair.selector, repair.line)
          : null;
    if (css === null) throw new Error('This repair is none of the editing surface.');
    const changed: JsonObject = {
      ...before,
      surface: { ...own, editingCss: css, ...(surface.stylesheets === 'page' ? { stylesheets: 'both' } : {}) },
    };
    await this.save(stored, changed);
    return async () => this.save(this.profile(resolved.id), before);
  }

  private profile(id: string): StoredProfile {
    const stored = this.profiles().find((profile) => profile.id === id);
    if (stored === undefined) throw new Error(`There is no profile “${id}” any more.`);
    return stored;
  }

  private async save({ id, revision }: StoredProfile, document: JsonObject): Promise<void> {
    const profile = await firstValueFrom(this.api.saveDraft(id, document, revision));
    this.store.dispatch(WorkshopActions.saved({ profile }));
  }

  private now(pageKindId: string, sheetId: string): { kindRevision: number; sheetRevision: number } {
    return {
      kindRevision: this.pageKinds().find(({ id }) => id === pageKindId)?.revision ?? 0,
      sheetRevision: this.stylesheets().find(({ id }) => id === sheetId)?.revision ?? 0,
    };
  }

  /** Stores stylesheets and page kinds, and shows them as they are now. */
  async change(changes: StyleChanges): Promise<void> {
    const styleFiles: StyleFiles = await firstValueFrom(this.api.changeStyleFiles(changes));
    this.store.dispatch(LibraryActions.styleFilesChanged({ styleFiles }));
  }
}
