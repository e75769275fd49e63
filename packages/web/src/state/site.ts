import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { ContentType, Field, Json, Problem, Site, Statement } from '@typikon/core';
import { Assignments, isSameJson } from '@typikon/core/light';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import type { ApiFailure } from './api-failure';
import { ContractClient } from './contract-client';
import { LibraryActions, libraryFeature } from './library';

interface SiteState {
  status: 'idle' | 'loading' | 'ready' | 'failed';
  message: string;
  /** What is worked on; null before it was read. */
  draft: Site | null;
  /** The draft as it is saved. */
  saved: Site | null;
  revision: number;
  past: readonly Site[];
  future: readonly Site[];
  /** What the last step changed: further steps of the same are one. */
  lastStep: string;
  isSaving: boolean;
  /** Why it was not saved; empty where it was, or was not tried. */
  refusal: string;
  problems: readonly Problem[];
  /** What somebody else has saved meanwhile. */
  theirs: { site: Site; revision: number } | null;
}

const initial: SiteState = {
  status: 'idle',
  message: '',
  draft: null,
  saved: null,
  revision: 0,
  past: [],
  future: [],
  lastStep: '',
  isSaving: false,
  refusal: '',
  problems: [],
  theirs: null,
};

const asJson = (value: unknown): Json => value as Json;

/** So many steps can be taken back. */
const MOST_STEPS = 200;
const BACKUP = 'typikon.site-draft';

/** Work on the site that was not saved, as the browser keeps it. */
async function readBackup(): Promise<{ revision: number; site: Site } | null> {
  try {
    const kept = JSON.parse(localStorage.getItem(BACKUP) ?? 'null') as { revision: number; site: unknown } | null;
    if (kept === null) return null;
    const { siteSchema } = await import('./site-schema');
    const read = siteSchema.safeParse(kept.site);
    return read.success ? { revision: kept.revision, site: read.data } : null;
  } catch {
    return null;
  }
}

function writeBackup(revision: number, site: Site | null): void {
  try {
    if (site === null) localStorage.removeItem(BACKUP);
    else localStorage.setItem(BACKUP, JSON.stringify({ revision, site }));
  } catch {
    // A full or forbidden storage loses only the offer to go on after a reload.
  }
}

/** The site as it is worked on: content types, fields, roles, people, statements; with undo, saved as a whole, released apart from that. */
export const SiteStore = signalStore(
  { providedIn: 'root' },
  withState(initial),
  withComputed(({ saved }, store = inject(Store)) => {
    const library = store.selectSignal(libraryFeature.selectLibrary);
    const edition = store.selectSignal(libraryFeature.selectSiteEdition);
    return {
      /** The site that holds: roles and people as they are saved, the rest as it was released last; null before it is known. */
      held: computed((): Site | null => {
        const [site, released] = [saved(), edition()];
        if (site === null || library() === null) return null;
        // What was never released holds as it is saved.
        return released === null ? site : { ...site, ...released.document };
      }),
    };
  }),
  withComputed(({ draft, saved, held, past, future }) => ({
    types: computed((): readonly ContentType[] => draft()?.types ?? []),
    roles: computed(() => draft()?.roles ?? []),
    people: computed(() => draft()?.people ?? []),
    statements: computed((): readonly Statement[] => draft()?.assignments ?? []),
    isChanged: computed(() => !isSameJson(asJson(draft()), asJson(saved()))),
    canUndo: computed(() => past().length > 0),
    canRedo: computed(() => future().length > 0),
    /** Whether what is saved is another site than the one that holds. */
    isAhead: computed(() => held() !== null && !isSameJson(asJson(held()), asJson(saved()))),
    /** Answers who writes with what, as it holds. */
    heldAssignments: computed(() => new Assignments(held() ?? { assignments: [] })),
    /** Answers who writes with what, as the draft says it. */
    assignments: computed(() => new Assignments(draft() ?? { assignments: [] })),
  })),
  withMethods((store, client = inject(ContractClient), global = inject(Store)) => {
    const isReleased = global.selectSignal(libraryFeature.selectSiteEdition);
    const keep = (): void => writeBackup(store.revision(), store.isChanged() ? store.draft() : null);

    /** One step of work, which can be taken back. Steps with the same name in a row are one. */
    function change(step: string, act: (site: Site) => Site): void {
      const before = store.draft();
      if (before === null) return;
      const draft = act(before);
      if (isSameJson(asJson(draft), asJson(before))) return;
      const goesOn = step !== '' && step === store.lastStep();
      patchState(store, {
        draft,
        past: goesOn ? store.past() : [...store.past(), before].slice(-MOST_STEPS),
        future: [],
        lastStep: step,
        refusal: '',
        problems: [],
      });
      keep();
    }

    async function load(isAgain = false): Promise<void> {
      if (store.status() === 'loading' || (store.status() === 'ready' && !isAgain)) return;
      patchState(store, { status: 'loading' });
      try {
        const { body: saved, revision } = await firstValueFrom(client.get('/site/draft', {}, {}));
        const kept = await readBackup();
        patchState(store, { status: 'ready', saved, revision, draft: kept?.revision === revision ? kept.site : saved, lastStep: '' });
        keep();
      } catch (error) {
        patchState(store, { status: 'failed', message: (error as Error).message });
      }
    }

    /** @returns whether it is saved */
    async function save(): Promise<boolean> {
      const draft = store.draft();
      if (draft === null || store.isSaving()) return false;
      patchState(store, { isSaving: true, refusal: '', problems: [] });
      try {
        const { body: saved, revision } = await firstValueFrom(client.put('/site/draft', draft, store.revision(), {}));
        patchState(store, { isSaving: false, saved, revision, lastStep: '', theirs: null });
        keep();
        // What is saved for the first time holds at once, as a first edition.
        if (isReleased() === null) global.dispatch(LibraryActions.sharedRequested());
        return true;
      } catch (error) {
        const failure = error as ApiFailure<{ site: Site; revision: number }>;
        if (failure.isUnknown && (await isStored(draft))) return true;
        patchState(store, {
          isSaving: false,
          refusal: failure.message,
          problems: failure.problems ?? [],
          theirs: failure.status === 412 ? (failure.current ?? null) : null,
        });
        return false;
      }
    }

    /** Looks whether a save of which nobody knows what became is there. */
    async function isStored(draft: Site): Promise<boolean> {
      try {
        const { body: saved, revision } = await firstValueFrom(client.get('/site/draft', {}, {}));
        if (!isSameJson(asJson(saved), asJson(draft))) return false;
        patchState(store, { isSaving: false, saved, revision, lastStep: '', theirs: null });
        keep();
        return true;
      } catch {
        return false;
      }
    }

    return {
      load,
      save,
      change,
      undo(): void {
        const past = store.past();
        const [draft, before] = [store.draft(), past[past.length - 1]];
        if (draft === null || before === undefined) return;
        patchState(store, { draft: before, past: past.slice(0, -1), future: [draft, ...store.future()], lastStep: '' });
        keep();
      },
      redo(): void {
        const [next, ...future] = store.future();
        const draft = store.draft();
        if (draft === null || next === undefined) return;
        patchState(store, { draft: next, past: [...store.past(), draft], future, lastStep: '' });
        keep();
      },
      /** Gives up what was not saved, in favour of what somebody else saved. */
      takeTheirs(): void {
        const theirs = store.theirs();
        if (theirs === null) return;
        patchState(store, { saved: theirs.site, revision: theirs.revision, theirs: null, refusal: '' });
        change('', () => theirs.site);
        keep();
      },
      /** Keeps what is worked on, as if it had been begun from what somebody else saved. */
      keepMine(): void {
        const theirs = store.theirs();
        if (theirs === null) return;
        patchState(store, { saved: theirs.site, revision: theirs.revision, theirs: null, refusal: '' });
        keep();
      },
      abandon(): void {
        const saved = store.saved();
        if (saved !== null) change('', () => saved);
      },
      changeType(step: string, id: string, act: (type: ContentType) => ContentType): void {
        change(step, (site) => ({ ...site, types: site.types.map((type) => (type.id === id ? act(type) : type)) }));
      },
      changeField(step: string, id: string, key: string, act: (field: Field) => Field): void {
        change(step, (site) => ({
          ...site,
          types: site.types.map((type) =>
            type.id === id ? { ...type, fields: type.fields.map((field) => (field.key === key ? act(field) : field)) } : type,
          ),
        }));
      },
    };
  }),
  withHooks({ onInit: ({ load }) => void load() }),
);
