import { Injectable, InjectionToken, inject } from '@angular/core';
import type { Spelling } from '@typikon/editor';
import { firstValueFrom } from 'rxjs';
import { Api } from './api';
import type { SpellingAnswer, SpellingQuestion, SpellingTask } from './types';

/** Makes the worker that holds the dictionary. A token, so that tests can put something else in its place. */
export const SPELLING_WORKER = new InjectionToken<() => Worker>('spelling worker');

/** The dictionary in its worker, with the site's own words. It is loaded at the first question. */
@Injectable({ providedIn: 'root' })
export class SpellingDesk implements Spelling {
  private readonly makeWorker = inject(SPELLING_WORKER);
  private readonly api = inject(Api);
  private ready: Promise<Worker> | null = null;
  private count = 0;

  async wrong(words: readonly string[]): Promise<readonly string[]> {
    return this.ask(await this.worker(), { kind: 'wrong', words });
  }

  async suggest(word: string): Promise<readonly string[]> {
    return this.ask(await this.worker(), { kind: 'suggest', word });
  }

  async add(word: string): Promise<void> {
    await firstValueFrom(this.api.addSiteWord(word));
    await this.ask(await this.worker(), { kind: 'add', word });
  }

  private worker(): Promise<Worker> {
    return (this.ready ??= this.load().catch((error: unknown) => {
      this.ready = null;
      throw error;
    }));
  }

  private async load(): Promise<Worker> {
    const words = await firstValueFrom(this.api.siteWords());
    const worker = this.makeWorker();
    await this.ask(worker, { kind: 'words', words });
    return worker;
  }

  private ask(worker: Worker, task: SpellingTask): Promise<readonly string[]> {
    const id = ++this.count;
    return new Promise((resolve, reject) => {
      const hear = ({ data }: MessageEvent<SpellingAnswer>): void => {
        if (data.id !== id) return;
        worker.removeEventListener('message', hear);
        if ('words' in data) resolve(data.words);
        else reject(new Error(data.failure));
      };
      worker.addEventListener('message', hear);
      worker.postMessage({ id, task } satisfies SpellingQuestion);
    });
  }
}
