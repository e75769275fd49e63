import { inject, Injectable, InjectionToken } from '@angular/core';
import type { ComparisonLine, Finding, JsonObject, Move, Site, SiteFinding } from '@typikon/core';
import type { ProfileSurroundings } from './styled-pages';
import type { ProfilesRequest, SiteAnswer, SiteRequest } from './site-messages';

export const SITE_WORKER = new InjectionToken<() => Worker>('Makes the worker that tests the site and compares profiles');

type CheckRequest = Extract<SiteRequest, { kind: 'check' }>;
type Question = SiteRequest extends infer Request ? (Request extends { number: number } ? Omit<Request, 'number'> : never) : never;

/** One worker, made with the first question; it answers in order. */
class Asked {
  private worker: Worker | null = null;
  private number = 0;
  private known: ProfileSurroundings | null = null;
  private readonly waiting = new Map<number, (answer: SiteAnswer | null) => void>();

  constructor(private readonly make: () => Worker) {}

  /** Makes the worker where there is none. */
  begin(): Worker {
    if (this.worker === null) {
      this.worker = this.make();
      this.worker.onmessage = ({ data }: MessageEvent<SiteAnswer>) => {
        this.waiting.get(data.number)?.(data);
        this.waiting.delete(data.number);
      };
      this.worker.onerror = () => this.stop();
    }
    return this.worker;
  }

  /** @returns null where the worker was stopped before, or broke off */
  ask(question: Question): Promise<SiteAnswer | null> {
    const worker = this.begin();
    const number = ++this.number;
    const answer = new Promise<SiteAnswer | null>((done) => this.waiting.set(number, done));
    worker.postMessage({ ...question, number });
    return answer;
  }

  /** Asks about a profile; what stands around it is sent where the worker has another. */
  askAbout(profileId: string, documents: Record<string, JsonObject>, surroundings: ProfileSurroundings): Promise<SiteAnswer | null> {
    const isKnown = this.worker !== null && this.known === surroundings;
    const answer = this.ask({ kind: 'check-profile', profileId, documents, surroundings: isKnown ? null : surroundings });
    this.known = surroundings;
    return answer;
  }

  /** Ends what is under way; the next question gets a worker of its own. */
  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    for (const answer of this.waiting.values()) answer(null);
    this.waiting.clear();
  }
}

/** Asks the workers that test the site, compare profiles and work out moves of texts. */
@Injectable({ providedIn: 'root' })
export class SiteWorker {
  private readonly make = inject(SITE_WORKER);
  private readonly site = new Asked(this.make);
  private readonly profiles = new Asked(this.make);
  /** A move may take long and be stopped; nothing else waits for it. */
  private readonly moves = new Asked(this.make);

  /** What the tests of a site find, with the pages, kinds of page and stored texts that it has. */
  async check(site: Site, by: Pick<CheckRequest, 'pages' | 'pageKinds' | 'texts'> & ProfilesRequest): Promise<SiteFinding[]> {
    const answer = await this.site.ask({ kind: 'check', site, ...by });
    return answer !== null && 'findings' in answer ? answer.findings : [];
  }

  /** Gets the worker that tests profiles ready for the first question. */
  begin(): void {
    this.profiles.begin();
  }

  /** What the tests of a profile find; null where the worker broke off. */
  async checkProfile(id: string, documents: Record<string, JsonObject>, surroundings: ProfileSurroundings): Promise<Finding[] | null> {
    const answer = await this.profiles.askAbout(id, documents, surroundings);
    return answer !== null && 'profileFindings' in answer ? answer.profileFindings : null;
  }

  /** Lines of what each of two profiles keeps that the other takes; none where one of them has mistakes. */
  async compare(pair: { from: string; to: string } & ProfilesRequest): Promise<ComparisonLine[]> {
    const answer = await this.site.ask({ kind: 'compare', ...pair });
    return answer !== null && 'lines' in answer ? answer.lines : [];
  }

  /** What a move of a text from one profile to another would take; null where one of them has mistakes, or it was stopped. */
  async move(question: { html: string; from: string; to: string; role: string } & ProfilesRequest): Promise<Move | null> {
    const answer = await this.moves.ask({ kind: 'move', ...question });
    return answer !== null && 'move' in answer ? answer.move : null;
  }

  stopMoves(): void {
    this.moves.stop();
  }
}
