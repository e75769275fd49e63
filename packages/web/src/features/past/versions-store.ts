import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';

export type ToldVersion = AnswerOf<'get', '/documents/{id}/versions'>[number];
export type Version = AnswerOf<'get', '/documents/{id}/versions/{revision}'>;
type OpenDocument = AnswerOf<'get', '/documents/{id}'>;

const PAGE = 50;

interface VersionsState {
  status: 'loading' | 'ready' | 'failed';
  message: string;
  document: OpenDocument | null;
  /** The latest first. */
  versions: readonly ToldVersion[];
  /** What `after` is for the earlier ones; null where all are there. */
  next: string | null;
  /** The versions that are compared: the later one, and the one that it is held against; null for none. */
  shown: number | null;
  against: number | null;
  /** What stood in the fields of versions that were asked for. */
  read: Readonly<Record<number, Version | undefined>>;
  readFailure: string;
  isBusy: boolean;
  refusal: string;
}

const initial: VersionsState = {
  status: 'loading',
  message: '',
  document: null,
  versions: [],
  next: null,
  shown: null,
  against: null,
  read: {},
  readFailure: '',
  isBusy: false,
  refusal: '',
};

/** The versions of one document that were stored, two of them beside each other, and the way back to one. */
export const VersionsStore = signalStore(
  withState(initial),
  withComputed(({ shown, against, read }) => ({
    later: computed(() => read()[shown() ?? 0] ?? null),
    earlier: computed(() => read()[against() ?? 0] ?? null),
  })),
  withMethods((store, client = inject(ContractClient)) => {
    async function readVersion(id: string, revision: number | null): Promise<void> {
      if (revision === null || store.read()[revision] !== undefined) return;
      try {
        const { body } = await firstValueFrom(client.get('/documents/{id}/versions/{revision}', {}, { id, revision: String(revision) }));
        if (store.document()?.id === id) patchState(store, { read: { ...store.read(), [revision]: body }, readFailure: '' });
      } catch (error) {
        patchState(store, { readFailure: (error as Error).message });
      }
    }

    async function show(revision: number, against?: number | null): Promise<void> {
      const { versions, document } = { versions: store.versions(), document: store.document() };
      if (document === null) return;
      const before = versions.find((version) => version.revision < revision)?.revision ?? null;
      patchState(store, { shown: revision, against: against === undefined ? before : against, refusal: '' });
      await Promise.all([readVersion(document.id, revision), readVersion(document.id, store.against())]);
    }

    /** @param held the version that it is held against; the one before where it is not given */
    async function load(id: string, wanted: number | null = null, held?: number): Promise<void> {
      patchState(store, { ...initial });
      try {
        const [{ body: document }, { body: versions, next }] = await Promise.all([
          firstValueFrom(client.get('/documents/{id}', {}, { id })),
          firstValueFrom(client.get('/documents/{id}/versions', { limit: PAGE }, { id })),
        ]);
        patchState(store, { status: 'ready', document, versions, next });
        const first = versions.find(({ revision }) => revision === wanted) ?? versions[0];
        if (first !== undefined) await show(first.revision, held);
      } catch (error) {
        patchState(store, { status: 'failed', message: (error as Error).message });
      }
    }

    return {
      load,
      show,
      /** Reads the versions before those that are there. */
      async more(): Promise<void> {
        const [document, after] = [store.document(), store.next()];
        if (document === null || after === null || store.isBusy()) return;
        patchState(store, { isBusy: true });
        try {
          const { body, next } = await firstValueFrom(client.get('/documents/{id}/versions', { limit: PAGE, after }, { id: document.id }));
          patchState(store, { versions: [...store.versions(), ...body], next, isBusy: false });
        } catch (error) {
          patchState(store, { isBusy: false, refusal: `The earlier ones cannot be read. ${(error as Error).message}` });
        }
      },
      /** Stores an earlier version again, as a new one. */
      async goBack(revision: number): Promise<boolean> {
        const document = store.document();
        if (document === null || store.isBusy()) return false;
        patchState(store, { isBusy: true, refusal: '' });
        try {
          await firstValueFrom(client.post('/documents/{id}/restore', { revision }, document.revision, { id: document.id }));
          await load(document.id);
          return true;
        } catch (error) {
          patchState(store, { isBusy: false, refusal: `Not taken back. ${(error as Error).message}` });
          return false;
        }
      },
    };
  }),
);
