import { TestBed } from '@angular/core/testing';
import { siteSchema } from '@typikon/core';
import { SITE_WORKER, SiteWorker } from '../src/state/site-worker';
import type { SiteAnswer, SiteRequest } from '../src/state/site-messages';

/** A worker that answers when it is told to. */
class Slow {
  onmessage: ((event: MessageEvent<SiteAnswer>) => void) | null = null;
  onerror: (() => void) | null = null;
  readonly asked: SiteRequest[] = [];
  isEnded = false;
  postMessage(request: SiteRequest): void {
    this.asked.push(request);
  }
  answer(answer: object): void {
    this.onmessage?.({ data: { number: this.asked[this.asked.length - 1]!.number, ...answer } } as MessageEvent<SiteAnswer>);
  }
  terminate(): void {
    this.isEnded = true;
  }
}

const MOVE = { html: '<p>a</p>', from: 'one', to: 'other', role: '', profiles: [], house: null };
const SITE = siteSchema.parse({ format: 'typikon-site/1' });
let made: Slow[];
let worker: SiteWorker;

beforeEach(() => {
  made = [];
  TestBed.configureTestingModule({
    providers: [
      {
        provide: SITE_WORKER,
        useValue: () => {
          made.push(new Slow());
          return made[made.length - 1];
        },
      },
    ],
  });
  worker = TestBed.inject(SiteWorker);
});

test('a move that is stopped answers nothing, and the next is worked out by another worker', async () => {
  const stopped = worker.move(MOVE);
  worker.stopMoves();
  expect(await stopped).toBeNull();
  expect(made[0]!.isEnded).toBe(true);
  const move = { before: '<p>a</p>', after: '<p>a</p>', ledger: [], wordsLost: [], fitting: '<p>a</p>', wordsLostFitting: [] };
  const next = worker.move(MOVE);
  made[1]!.answer({ move });
  expect(await next).toEqual(move);
});

test('what the checks find does not wait for a move, nor end with it', async () => {
  const move = worker.move(MOVE);
  const findings = worker.check(SITE, { pages: [], pageKinds: [], texts: [], profiles: [], house: null });
  worker.stopMoves();
  made[1]!.answer({ findings: [{ check: 'a' }] });
  expect([await move, await findings]).toEqual([null, [{ check: 'a' }]]);
});

test('a worker that breaks off answers nothing instead of never', async () => {
  const lines = worker.compare({ from: 'one', to: 'other', profiles: [], house: null });
  made[0]!.onerror!();
  expect(await lines).toEqual([]);
});

test('what stands around a profile is sent once, and again to a worker that is new or where it changed', async () => {
  const surroundings = { house: null, publishedOn: [], census: null };
  const documents = { desk: { format: 'typikon-profile/1', name: 'Desk' } };
  const sent = () => made[made.length - 1]!.asked.map((request) => 'surroundings' in request && request.surroundings);
  const first = worker.checkProfile('desk', documents, surroundings);
  made[0]!.answer({ profileFindings: [{ check: 'a' }] });
  expect(await first).toEqual([{ check: 'a' }]);
  void worker.checkProfile('desk', documents, surroundings);
  const changed = { ...surroundings };
  const broken = worker.checkProfile('desk', documents, changed);
  expect(sent()).toEqual([surroundings, null, changed]);
  made[0]!.onerror!();
  expect(await broken).toBeNull();
  void worker.checkProfile('desk', documents, changed);
  expect(made).toHaveLength(2);
  expect(sent()).toEqual([changed]);
});
