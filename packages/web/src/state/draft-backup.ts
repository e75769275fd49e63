import { Injectable } from '@angular/core';
import { isObject, type JsonObject } from '@typikon/core/light';

/** A draft that was edited in this browser and not saved. */
export interface Backup {
  document: JsonObject;
  /** The revision that the editing began from. */
  revision: number;
  /** ISO 8601. */
  at: string;
}

/** Keeps unsaved drafts in the browser, so that neither a reload nor a crash loses them. */
@Injectable({ providedIn: 'root' })
export class DraftBackup {
  read(id: string): Backup | null {
    try {
      const backup: unknown = JSON.parse(localStorage.getItem(key(id)) ?? 'null');
      if (isObject(backup) && isObject(backup['document']) && typeof backup['revision'] === 'number' && typeof backup['at'] === 'string')
        return backup as unknown as Backup;
    } catch {
      // What cannot be read cannot be given back.
    }
    return null;
  }

  write(id: string, document: JsonObject, revision: number): void {
    try {
      localStorage.setItem(key(id), JSON.stringify({ document, revision, at: new Date().toISOString() } satisfies Backup));
    } catch {
      // A full or closed store: leaving the page still asks.
    }
  }

  remove(id: string): void {
    localStorage.removeItem(key(id));
  }
}

const key = (id: string): string => `typikon.draft.${id}`;
