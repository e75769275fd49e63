import { computed, inject } from '@angular/core';
import { getState, patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { mergeTexts, type TakenLine } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import type { ApiFailure } from '../../state/api-failure';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

export type OpenDocument = AnswerOf<'get', '/documents/{id}'>;

/** What is written in a field and not stored yet. */
interface Written {
  value: string;
  /** Another profile than the one it was stored with. */
  profile?: string;
}

interface DeskState {
  status: 'idle' | 'loading' | 'ready' | 'failed';
  message: string;
  document: OpenDocument | null;
  written: Readonly<Record<string, Written | undefined>>;
  /** What the rules took of a field's text since it was stored last, by what it is called. */
  lost: Readonly<Record<string, readonly string[] | undefined>>;
  /** What was taken of what was pasted into a field since it was stored last, paste by paste. */
  pasted: Readonly<Record<string, readonly (readonly TakenLine[])[] | undefined>>;
  /** What was taken of fields whose text is offered back, for when it is taken back. */
  waiting: Readonly<Record<string, Taken | undefined>>;
  /** The title of a document whose type has no field for it; null where it was not changed. */
  title: string | null;
  /** Counts, for each field, how often something else was put into it. */
  editions: Readonly<Record<string, number | undefined>>;
  isSaving: boolean;
  refusal: string;
  /** Whether what is missing is told although nobody was there yet. */
  isTold: boolean;
  /** What the rules changed of what was stored last, in all; null before anything was stored. */
  changes: number | null;
  notes: readonly { field: string; sentence: string }[];
  /** The state before what was stored last, to go back to. */
  before: number | null;
  /** What somebody else stored meanwhile. */
  theirs: OpenDocument | null;
}

/** What was taken of one field's text since it was stored. */
interface Taken {
  lost: readonly string[];
  pasted: readonly (readonly TakenLine[])[];
}

const initial: DeskState = {
  status: 'idle',
  message: '',
  document: null,
  written: {},
  lost: {},
  pasted: {},
  waiting: {},
  title: null,
  editions: {},
  isSaving: false,
  refusal: '',
  isTold: false,
  changes: null,
  notes: [],
  before: null,
  theirs: null,
};

/** So much is told of pastes with one save: what is beyond it must not keep a text from being stored. */
const MOST_PASTES = 50;
const MOST_LETTERS = 300_000;
/** Beside texts of more letters than this nothing of it is told. */
const LONGEST_WITH_PASTES = 1_000_000;

/** The last pastes that can be told together; what readers miss stands first in each. */
function fitting(pastes: readonly (readonly TakenLine[])[]): readonly (readonly TakenLine[])[] {
  let letters = 0;
  const kept: (readonly TakenLine[])[] = [];
  for (const lines of pastes.slice(-MOST_PASTES).reverse()) {
    const told = lines.filter((line) => (letters += JSON.stringify(line).length) <= MOST_LETTERS);
    if (told.length > 0) kept.unshift(told);
  }
  return kept;
}

const keptAs = (id: string): string => `typikon.document:${id}`;

/** What was written in a document and not stored, as the browser keeps it. */
interface Backup {
  revision: number;
  /** The editors keep rich text themselves. */
  written: Record<string, Written>;
  title: string | null;
  taken?: DeskState['waiting'];
}

function readBackup(id: string): Backup | null {
  try {
    return JSON.parse(localStorage.getItem(keptAs(id)) ?? 'null') as Backup | null;
  } catch {
    return null;
  }
}

function writeBackup(id: string, kept: Backup | null): void {
  const isNothing = ({ written, title, taken = {} }: Backup): boolean =>
    Object.keys(written).length === 0 && Object.keys(taken).length === 0 && title === null;
  try {
    if (kept === null || isNothing(kept)) localStorage.removeItem(keptAs(id));
    else localStorage.setItem(keptAs(id), JSON.stringify(kept));
  } catch {
    // A full or forbidden storage loses only the offer to go on after a reload.
  }
}

/** What was taken of each field's text, of one that is written and of one that is offered back. */
function takenByField({ lost, pasted, waiting }: Pick<DeskState, 'lost' | 'pasted' | 'waiting'>): DeskState['waiting'] {
  const taken: Record<string, Taken> = {};
  for (const key of new Set([lost, pasted, waiting].flatMap((one) => Object.keys(one))))
    taken[key] = {
      lost: [...new Set([...(waiting[key]?.lost ?? []), ...(lost[key] ?? [])])],
      pasted: fitting([...(waiting[key]?.pasted ?? []), ...(pasted[key] ?? [])]),
    };
  return taken;
}

/** What is written, on top of what somebody else stored meanwhile; null where both wrote in one place. */
function putTogether(
  base: OpenDocument,
  theirs: OpenDocument,
  written: DeskState['written'],
  title: string | null,
): Record<string, Written> | null {
  if (title !== null && base.title !== theirs.title) return null;
  const together: Record<string, Written> = {};
  const of = ({ fields }: OpenDocument, key: string) => fields.find((field) => field.key === key);
  for (const [key, mine] of Object.entries(written)) {
    if (mine === undefined) continue;
    const [was, now] = [of(base, key), of(theirs, key)];
    if (was?.value === now?.value && was?.profile === now?.profile) together[key] = mine;
    else if (mine.value !== now?.value) {
      // What is plain has no parts; and a text of another profile is another matter.
      const isRich = was?.profile != null && was.profile === now?.profile && mine.profile === undefined;
      const value = isRich ? mergeTexts(was.value, mine.value, now?.value ?? '') : null;
      if (value === null) return null;
      together[key] = { value };
    }
  }
  return together;
}

/** One document as its author works on it: what is stored, what is written, and how both come together. */
export const DeskStore = signalStore(
  withState(initial),
  withComputed(({ document, written, title, theirs }) => ({
    isChanged: computed(() => Object.values(written()).some((one) => one !== undefined) || title() !== null),
    stored: computed(() => new Map(document()?.fields.map((field) => [field.key, field]))),
    /** What is written with what somebody else stored meanwhile, put together; null where both wrote in one place. */
    together: computed(() => (theirs() === null ? null : putTogether(document()!, theirs()!, written(), title()))),
  })),
  withMethods((store, client = inject(ContractClient)) => {
    /** @param isPlain whether a field's text is not kept by an editor */
    function keep(isPlain: (key: string) => boolean): void {
      const document = store.document();
      if (document === null) return;
      const written: Record<string, Written> = {};
      for (const [key, one] of Object.entries(store.written())) if (one !== undefined && isPlain(key)) written[key] = one;
      writeBackup(document.id, { revision: document.revision, written, title: store.title(), taken: takenByField(getState(store)) });
    }

    function show(document: OpenDocument, rest: Partial<DeskState> = {}): void {
      const editions = { ...store.editions() };
      for (const { key } of document.fields) editions[key] = (editions[key] ?? 0) + 1;
      for (const key of Object.keys(store.written())) editions[key] = (editions[key] ?? 0) + 1;
      patchState(store, {
        status: 'ready',
        document,
        written: {},
        lost: {},
        pasted: {},
        waiting: {},
        title: null,
        editions,
        refusal: '',
        theirs: null,
        isTold: false,
        ...rest,
      });
    }

    async function load(id: string): Promise<void> {
      patchState(store, { ...initial, status: 'loading', editions: store.editions() });
      try {
        const { body } = await firstValueFrom(client.get('/documents/{id}', {}, { id }));
        const kept = readBackup(id);
        show(body, kept?.revision === body.revision ? { written: kept.written, title: kept.title, waiting: kept.taken ?? {} } : {});
      } catch (error) {
        patchState(store, { status: 'failed', message: (error as Error).message });
      }
    }

    /**
     * Stores what is written.
     *
     * @param over whether it goes over what somebody else stored meanwhile
     * @returns whether it is stored
     */
    async function save(over = false): Promise<boolean> {
      const document = store.document();
      if (document === null || store.isSaving()) return false;
      const [written, title] = [store.written(), store.title()];
      const revision = over ? (store.theirs()?.revision ?? document.revision) : document.revision;
      patchState(store, { isSaving: true, refusal: '', isTold: true });
      const lost = store.lost();
      // Where a text itself is nearly as long as can be sent, it goes alone.
      const letters = Object.values(written).reduce((sum, one) => sum + (one?.value.length ?? 0), 0);
      const pasted = letters > LONGEST_WITH_PASTES ? {} : store.pasted();
      const fields = Object.fromEntries(
        Object.entries(written).flatMap(([key, one]) =>
          one === undefined ? [] : [[key, { ...one, ...(lost[key] && { taken: lost[key] }), ...(pasted[key] && { pasted: pasted[key] }) }]],
        ),
      );
      const body = { fields, ...(title === null ? {} : { title }) };
      try {
        const answer = await firstValueFrom(client.put('/documents/{id}', body, revision, { id: document.id }));
        taken(answer.body, written, title, revision);
        return true;
      } catch (error) {
        const failure = error as ApiFailure<OpenDocument>;
        if (failure.isUnknown && (await isStored(document.id, revision, written, title))) return true;
        patchState(store, {
          isSaving: false,
          refusal: `Not saved. ${failure.message}`,
          theirs: failure.status === 412 ? (failure.current ?? null) : null,
        });
        return false;
      }
    }

    /** What is stored now; what was written meanwhile stays. */
    function taken(stored: AnswerOf<'put', '/documents/{id}'>, sent: DeskState['written'], title: string | null, before: number): void {
      const { changes, notes, ...document } = stored;
      const written = Object.fromEntries(Object.entries(store.written()).filter(([key, one]) => one !== sent[key]));
      patchState(store, {
        document,
        written,
        lost: {},
        pasted: {},
        waiting: {},
        title: store.title() === title ? null : store.title(),
        isSaving: false,
        isTold: false,
        changes: Object.values(changes).reduce((sum, count) => sum + count, 0),
        notes,
        before,
        theirs: null,
      });
      writeBackup(document.id, null);
    }

    /** Looks whether a save of which nobody knows what became is there. */
    async function isStored(id: string, revision: number, sent: DeskState['written'], title: string | null): Promise<boolean> {
      try {
        const { body } = await firstValueFrom(client.get('/documents/{id}', {}, { id }));
        if (body.revision !== revision + 1) return false;
        taken({ ...body, changes: {}, notes: [] }, sent, title, revision);
        return true;
      } catch {
        return false;
      }
    }

    return {
      load,
      save,
      keep,
      write(key: string, value: string): void {
        const known = store.written()[key];
        const stored = store.stored().get(key);
        if (known === undefined && (stored?.value ?? '') === value) return;
        const profile = known?.profile;
        const next = { value, ...(profile === undefined ? {} : { profile }) };
        patchState(store, { written: { ...store.written(), [key]: next }, refusal: '', changes: null, before: null });
      },
      /** Notes what the rules took of a field's text. */
      lose(key: string, names: readonly string[]): void {
        if (names.length === 0) return;
        patchState(store, { lost: { ...store.lost(), [key]: [...new Set([...(store.lost()[key] ?? []), ...names])] } });
      },
      /** Notes what was taken of something that was pasted into a field. */
      losePasted(key: string, lines: readonly TakenLine[]): void {
        if (lines.length === 0) return;
        patchState(store, { pasted: { ...store.pasted(), [key]: fitting([...(store.pasted()[key] ?? []), lines]) } });
      },
      /** A text that was offered back stands in its field again: what was taken of it then is told with the next save, too. */
      recall(key: string): void {
        const { [key]: taken, ...waiting } = store.waiting();
        if (taken === undefined) return;
        patchState(store, {
          waiting,
          lost: { ...store.lost(), [key]: [...new Set([...taken.lost, ...(store.lost()[key] ?? [])])] },
          pasted: { ...store.pasted(), [key]: fitting([...taken.pasted, ...(store.pasted()[key] ?? [])]) },
        });
      },
      /** What is missing is told from now on. */
      tell(): void {
        patchState(store, { isTold: true });
      },
      writeTitle(title: string): void {
        patchState(store, { title: title === store.document()?.title ? null : title, refusal: '' });
      },
      /** Puts another text into a field, to be written with another profile; nothing is stored yet. */
      move(key: string, value: string, profile: string): void {
        patchState(store, {
          written: { ...store.written(), [key]: { value, profile } },
          editions: { ...store.editions(), [key]: (store.editions()[key] ?? 0) + 1 },
          refusal: '',
          changes: null,
          before: null,
        });
      },
      /** Puts back what was in a field before a move. */
      moveBack(key: string, was: Written | null): void {
        const written = { ...store.written() };
        if (was === null) delete written[key];
        else written[key] = was;
        patchState(store, { written, editions: { ...store.editions(), [key]: (store.editions()[key] ?? 0) + 1 } });
      },
      /** Stores an earlier state again. */
      async goBack(): Promise<void> {
        const [document, revision] = [store.document(), store.before()];
        if (document === null || revision === null || store.isSaving()) return;
        patchState(store, { isSaving: true, refusal: '' });
        try {
          const { body } = await firstValueFrom(
            client.post('/documents/{id}/restore', { revision }, document.revision, { id: document.id }),
          );
          const { changes: _changes, notes, ...now } = body;
          show(now, { isSaving: false, changes: null, before: null, notes });
        } catch (error) {
          patchState(store, { isSaving: false, refusal: `Not taken back. ${(error as Error).message}` });
        }
      },
      /** Goes on with what both wrote, put together; it is looked at and saved by its author. */
      takeBoth(): void {
        const [theirs, together, title] = [store.theirs(), store.together(), store.title()];
        if (theirs === null || together === null) return;
        const editions = { ...store.editions() };
        for (const key of [...theirs.fields.map((field) => field.key), ...Object.keys(together)]) editions[key] = (editions[key] ?? 0) + 1;
        patchState(store, { document: theirs, written: together, title, editions, theirs: null, refusal: '', changes: null, before: null });
      },
      /** Gives up what is written, in favour of what somebody else stored. */
      takeTheirs(): void {
        const theirs = store.theirs();
        if (theirs === null) return;
        writeBackup(theirs.id, null);
        show(theirs, { changes: null, before: null });
      },
    };
  }),
);
