import { inject, Injectable, InjectionToken } from '@angular/core';
import type { ComparisonLine, Move, Site, SiteFinding } from '@typikon/core';
import type { ProfilesRequest, SiteAnswer, SiteRequest } from './site-messages';

export const SITE_WORKER = new InjectionToken<() => Worker>('Makes the worker that tests the site and compares profiles');

type CheckRequest = Extract<SiteRequest, { kind: 'check' }>;
type Question = SiteRequest extends infer Request ? (Request extends { number: number } ? Omit<Request, 'number'> : never) : never;

/** Asks the worker that tests the site and compares profiles; it is made with the first question. */
@Injectable({ providedIn: 'root' })
export class SiteWorker {
  private readonly make = inject(SITE_WORKER);
  private worker: Worker | null = null;
  private number = 0;
  private readonly waiting = new Map<number, (answer: SiteAnswer) => void>();

  /** What the tests of a site find, with the pages, kinds of page and stored texts that it has. */
  async check(site: Site, by: Pick<CheckRequest, 'pages' | 'pageKinds' | 'texts'> & ProfilesRequest): Promise<SiteFinding[]> {
    const answer = await this.ask({ kind: 'check', site, ...by });
    return 'findings' in answer ? answer.findings : [];
  }

  /** Lines of what each of two profiles keeps that the other takes; none where one of them has mistakes. */
  async compare(pair: { from: string; to: string } & ProfilesRequest): Promise<ComparisonLine[]> {
    const answer = await this.ask({ kind: 'compare', ...pair });
    return 'lines' in answer ? answer.lines : [];
  }

  /** What a move of a text from one profile to another would take; null where one of them has mistakes. */
  async move(question: { html: string; from: string; to: string; role: string } & ProfilesRequest): Promise<Move | null> {
    const answer = await this.ask({ kind: 'move', ...question });
    return 'move' in answer ? answer.move : null;
  }

  private ask(question: Question): Promise<SiteAnswer> {
    if (this.worker === null) {
      this.worker = this.make();
      this.worker.onmessage = ({ data }: MessageEvent<SiteAnswer>) => {
        this.waiting.get(data.number)?.(data);
        this.waiting.delete(data.number);
      };
    }
    const number = ++this.number;
    const answer = new Promise<SiteAnswer>((done) => this.waiting.set(number, done));
    this.worker.postMessage({ ...question, number });
    return answer;
  }
}
