import { pino } from 'pino';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { DocumentFieldModel } from '../src/db/document-models';
import { migrate } from '../src/db/migrate';
import { JobModel, LikenessCountModel, LikenessFigureModel, SettingModel } from '../src/db/models';
import { ALL_FIGURES, areFiguresBy, engineOf, likenessJobs, ONE_FIGURE } from '../src/jobs/likeness';
import { countLikeness, likenessInputs, type CountTask } from '../src/jobs/likeness-count';
import { JobQueue, MOST_ATTEMPTS, type ClaimedJob } from '../src/jobs/queue';
import { JobRunner } from '../src/jobs/runner';
import { LaneFailure } from '../src/lanes/lane';
import { seedDemo } from '../src/seed/demo';
import { freshDatabase } from './database';
import { join } from 'node:path';

jest.setTimeout(120_000);

const DEMO = join(__dirname, '..', '..', '..', 'demo');
let sequelize: Sequelize;
let drop: () => Promise<void>;
let queue: JobQueue;

beforeAll(async () => {
  ({ sequelize, drop } = await freshDatabase('jobs'));
  await migrate(sequelize);
  queue = new JobQueue(sequelize);
});
beforeEach(() => JobModel.destroy({ where: {} }));
afterAll(() => drop());

const passLease = (id: number) => sequelize.query(`UPDATE jobs SET leased_until = NOW(3) - INTERVAL 1 SECOND WHERE id = ${id}`);
const due = () => sequelize.query('UPDATE jobs SET due_at = NOW(3) - INTERVAL 1 SECOND');

describe('the queue', () => {
  test('the same asked for many times is done once', async () => {
    await Promise.all(Array.from({ length: 20 }, () => queue.ask('x', 'one')));
    const job = await queue.claim();
    expect(job).toMatchObject({ kind: 'x', subject: 'one', attempts: 1 });
    expect(await queue.claim()).toBeNull();
    await queue.done(job!);
    expect(await JobModel.count()).toBe(0);
  });

  test('what is asked for while it is done is done once more', async () => {
    await queue.ask('x', 'one');
    const job = (await queue.claim())!;
    await queue.ask('x', 'one');
    expect(await queue.claim()).toBeNull();
    await queue.done(job);
    expect(await queue.claim()).toMatchObject({ subject: 'one', attempts: 1 });
  });

  test('many who claim at once get different jobs, and each job goes to one', async () => {
    for (let n = 0; n < 12; n++) await queue.ask('x', `job ${n}`);
    const claimed: ClaimedJob[] = [];
    const claimAll = async (): Promise<void> => {
      for (let job = await queue.claim(); job !== null; job = await queue.claim()) claimed.push(job);
    };
    await Promise.all([claimAll(), claimAll(), claimAll(), claimAll()]);
    expect(claimed.map(({ subject }) => subject).sort()).toEqual(Array.from({ length: 12 }, (_unused, n) => `job ${n}`).sort());
  });

  test('a job whose process was killed is taken by another one, and the first has no say in it any more', async () => {
    await queue.ask('x', 'one');
    const lost = (await queue.claim())!;
    for (let times = 0; times < 20; times++) expect(await queue.extend(lost)).toBe(true);
    await passLease(lost.id);
    const taken = (await queue.claim())!;
    expect(taken).toMatchObject({ id: lost.id, attempts: 2 });
    expect(await queue.extend(lost)).toBe(false);
    await queue.done(lost);
    await queue.failed(lost, 'late');
    expect(await JobModel.findAll({ raw: true })).toMatchObject([{ lease: taken.lease, failure: '' }]);
  });

  test('what fails is tried a few times, each later than before, and then rests until it is asked for again', async () => {
    await queue.ask('x', 'one');
    const waits: number[] = [];
    for (let attempt = 1; attempt <= MOST_ATTEMPTS; attempt++) {
      const job = (await queue.claim())!;
      expect(job.attempts).toBe(attempt);
      await queue.failed(job, `failed ${attempt}`);
      const [row] = await sequelize.query<{ wait: string }>('SELECT TIMESTAMPDIFF(MICROSECOND, NOW(3), due_at) / 1e6 AS wait FROM jobs', {
        type: QueryTypes.SELECT,
      });
      waits.push(Math.round(Number(row!.wait)));
      expect(await queue.claim()).toBeNull();
      await due();
    }
    expect(waits).toEqual([2, 4, 8, 16, 32]);
    expect(await queue.claim()).toBeNull();
    expect(await queue.waiting()).toBe(0);
    expect(await JobModel.findAll({ raw: true })).toMatchObject([{ failure: 'failed 5' }]);
    await queue.ask('x', 'one');
    expect(await queue.claim()).toMatchObject({ attempts: 1 });
  });

  test('what is given back counts as not tried', async () => {
    await queue.ask('x', 'one');
    await queue.giveBack((await queue.claim())!);
    expect(await queue.claim()).toMatchObject({ attempts: 1 });
  });
});

describe('the runner', () => {
  test('does one job after another, tells what failed, and stops with the one it has', async () => {
    const done: string[] = [];
    let release: () => void = () => undefined;
    const runner = new JobRunner(
      queue,
      {
        good: (subject) => {
          done.push(subject);
          return Promise.resolve();
        },
        bad: () => Promise.reject(new Error('It is broken.')),
        long: async (_subject, goesOn) => {
          await new Promise<void>((go) => (release = go));
          done.push(`goes on: ${await goesOn()}`);
        },
      },
      pino({ level: 'silent' }),
    );
    for (const [kind, subject] of [
      ['good', 'one'],
      ['bad', 'two'],
      ['unknown', 'three'],
      ['good', 'four'],
      ['long', 'five'],
    ] as const)
      await queue.ask(kind, subject);
    runner.start();
    const seen = async (check: () => Promise<boolean> | boolean): Promise<void> => {
      for (let tries = 0; !(await check()); tries++) {
        if (tries > 600) throw new Error('It never came.');
        await new Promise((go) => setTimeout(go, 25));
      }
    };
    await seen(async () => done.length === 2 && (await JobModel.count({ where: { kind: 'long', attempts: 1 } })) === 1);
    const failures = await JobModel.findAll({ where: { attempts: 1 }, order: ['id'], raw: true });
    expect(failures.map(({ failure }) => failure)).toEqual(['It is broken.', 'Nobody knows how to do “unknown”.', '']);
    const stopped = runner.stop();
    release();
    await stopped;
    expect(done).toEqual(['one', 'four', 'goes on: false']);
    // What was broken off waits for the next process.
    expect(await JobModel.findOne({ where: { kind: 'long' }, raw: true })).toMatchObject({ attempts: 0, lease: '' });
  });
});

describe('figures of likeness', () => {
  /** Does all that is due, in this thread. */
  async function work(run: (name: string, task: CountTask) => Promise<unknown>): Promise<string[]> {
    const handlers = likenessJobs(sequelize, queue, { run: run as never }, { engine: 'as-tested' });
    const done: string[] = [];
    for (let job = await queue.claim(); job !== null; job = await queue.claim()) {
      await handlers[job.kind]!(job.subject, () => Promise.resolve(true));
      await queue.done(job);
      if (job.kind === ONE_FIGURE) done.push(job.subject);
    }
    return done;
  }
  const nameOf = ({ documentId, fieldKey }: DocumentFieldModel): string => `${documentId}/${fieldKey}`;
  const texts = ({ where = {}, order = ['documentId', 'fieldKey'] }: { where?: object; order?: string[] } = {}) =>
    DocumentFieldModel.findAll({ where: { profileId: { [Op.ne]: null }, ...where }, order });
  let counted: string[] = [];
  const usual = async (name: string, task: CountTask): Promise<unknown> => {
    if (name === 'inputs') return likenessInputs(task);
    counted.push(`${task.documentId}/${task.fieldKey}`);
    return countLikeness(task);
  };
  beforeAll(() => seedDemo(sequelize, DEMO, 0));
  beforeEach(() => {
    counted = [];
  });

  test('each document is counted once, and one that was changed once more', async () => {
    await queue.ask(ALL_FIGURES, 'all');
    const pairs = await work(usual);
    expect(pairs.length).toBeGreaterThan(3);
    expect(counted.sort()).toEqual((await texts()).map(nameOf).sort());
    const figures = await LikenessFigureModel.count();
    counted = [];
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect(counted).toEqual([]);
    const [text] = (await texts()) as [DocumentFieldModel];
    await text.update({ value: `${text.value}<p>More</p>`, revision: text.revision + 1 });
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect(counted).toEqual([nameOf(text)]);
    expect(await LikenessFigureModel.count()).toBe(figures + 1);
  });

  test('what took them is noted once all were asked for: another engine takes them anew', async () => {
    await SettingModel.destroy({ where: { name: 'likeness-engine' } });
    const [one, other] = ['some code', 'other code'].map((code) => engineOf(Buffer.from(code)));
    expect(one).not.toBe(other);
    expect(await areFiguresBy('as-tested')).toBe(false);
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect([await areFiguresBy('as-tested'), await areFiguresBy(other!)]).toEqual([true, false]);
  });

  test('a document that is too much is left out with the reason, and harms no other', async () => {
    const [one] = (await texts()) as [DocumentFieldModel];
    const [profileId, pageKindId] = [one.profileId!, one.pageKindId];
    await one.update({ revision: one.revision + 1 });
    await queue.ask(ONE_FIGURE, `${profileId} ${pageKindId}`);
    await work(async (name, task) => {
      if (name === 'count' && task.documentId === one.documentId && task.fieldKey === one.fieldKey)
        throw new LaneFailure('deadline', 'It took longer than 20 seconds and was ended.');
      return usual(name, task);
    });
    expect(await LikenessCountModel.findOne({ where: { documentId: one.documentId, fieldKey: one.fieldKey }, raw: true })).toMatchObject({
      elements: 0,
      revision: one.revision,
      failure: 'It took longer than 20 seconds and was ended.',
    });
    const others = await LikenessCountModel.sum('elements', { where: { profileId, pageKindId } });
    expect(await LikenessFigureModel.findOne({ where: { profileId, pageKindId }, order: [['id', 'DESC']], raw: true })).toMatchObject({
      elements: others,
    });
    // It is not tried again before it changes.
    counted = [];
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect(counted).toEqual([]);
  });

  test('where the shortest three cannot be compared, the longer ones are told so without being tried', async () => {
    const of = { profileId: 'notices-desk', pageKindId: 'notice' };
    const all = await texts({ where: of, order: ['size', 'documentId', 'fieldKey'] });
    expect(all.length).toBeGreaterThan(4);
    for (const text of all) await text.update({ revision: text.revision + 1 });
    await queue.ask(ONE_FIGURE, `${of.profileId} ${of.pageKindId}`);
    await work((name, task) => {
      if (name === 'inputs') return usual(name, task);
      counted.push(`${task.documentId}/${task.fieldKey}`);
      throw new LaneFailure('deadline', 'It took longer than 20 seconds and was ended.');
    });
    expect(counted).toEqual(all.slice(0, 3).map(nameOf));
    const rows = await LikenessCountModel.findAll({ where: of, raw: true });
    expect(rows.filter(({ failure }) => failure === 'Shorter texts could not be compared, 3 in a row.')).toHaveLength(all.length - 3);
    expect(await LikenessFigureModel.findOne({ where: of, order: [['id', 'DESC']], raw: true })).toMatchObject({ elements: 0, alike: 0 });
    // One that was changed is tried by itself, and tells nothing of the others.
    counted = [];
    const fifth = all[4]!;
    await fifth.update({ revision: fifth.revision + 1 });
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect(counted).toEqual([nameOf(fifth)]);
    expect((await LikenessCountModel.findOne({ where: { documentId: fifth.documentId, fieldKey: fifth.fieldKey } }))!.failure).toBe('');
  });

  test('one that is nested deeper than browsers nest it is compared as its profile flattens it', async () => {
    const [one] = (await texts()) as [DocumentFieldModel];
    await one.update({ value: '<blockquote>'.repeat(600), revision: one.revision + 1, profileId: 'story-desk' });
    await queue.ask(ALL_FIGURES, 'all');
    await work(usual);
    expect((await LikenessCountModel.findOne({ where: { documentId: one.documentId, fieldKey: one.fieldKey } }))!.failure).toBe('');
  });
});
