import { firstValueFrom } from 'rxjs';
import { LATE_MS, WorkerClient } from '../src/state/worker-client';

/** A worker that answers as it is told: by its task. */
class FakeWorker extends EventTarget {
  static made: FakeWorker[] = [];
  isEnded = false;
  readonly asked: { id: number; task: string }[] = [];
  constructor(private readonly behave: (task: string, nth: number) => 'answer' | 'hang' | 'crash' | 'fail' | 'slowly') {
    super();
    FakeWorker.made.push(this);
  }
  postMessage(message: { id: number; task: string }): void {
    this.asked.push(message);
    const { id, task } = message;
    queueMicrotask(() => {
      if (this.isEnded) return;
      switch (this.behave(task, FakeWorker.made.length)) {
        case 'answer':
          return this.say({ id, result: `${task}!` });
        case 'fail':
          return this.say({ id, failure: 'It cannot be done.' });
        case 'slowly':
          return this.say({ id, progress: { done: 1, steps: 2 } });
        case 'crash':
          return void this.dispatchEvent(Object.assign(new Event('error'), { message: 'It broke' }));
        case 'hang':
      }
    });
  }
  say(data: object): void {
    if (!this.isEnded) this.dispatchEvent(new MessageEvent('message', { data }));
  }
  terminate(): void {
    this.isEnded = true;
  }
}

type Behaviour = ConstructorParameters<typeof FakeWorker>[0];
const clientOf = (behave: Behaviour, onProgress?: (progress: unknown) => void) =>
  new WorkerClient<string, unknown>(() => new FakeWorker(behave) as unknown as Worker, onProgress);

describe('a worker that is asked', () => {
  beforeEach(() => {
    FakeWorker.made = [];
    jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
  });
  afterEach(() => jest.useRealTimers());

  test('answers, one request after another, in one worker', async () => {
    const client = clientOf(() => 'answer');
    await expect(firstValueFrom(client.ask('a'))).resolves.toBe('a!');
    await expect(firstValueFrom(client.ask('b'))).resolves.toBe('b!');
    expect(FakeWorker.made).toHaveLength(1);
  });

  test('is made before it is asked, once', async () => {
    const client = clientOf(() => 'answer');
    client.begin();
    client.begin();
    expect(FakeWorker.made).toHaveLength(1);
    await expect(firstValueFrom(client.ask('a'))).resolves.toBe('a!');
    expect(FakeWorker.made).toHaveLength(1);
    client.begin();
    client.end();
    expect(FakeWorker.made.map(({ isEnded }) => isEnded)).toEqual([true]);
  });

  test('gives the sentence of a computation that fails, and goes on', async () => {
    const client = clientOf((task) => (task === 'bad' ? 'fail' : 'answer'));
    await expect(firstValueFrom(client.ask('bad'))).rejects.toThrow('It cannot be done.');
    await expect(firstValueFrom(client.ask('good'))).resolves.toBe('good!');
  });

  test('is started anew when it hangs, and asked again', async () => {
    const client = clientOf((_task, nth) => (nth === 1 ? 'hang' : 'answer'));
    const answer = firstValueFrom(client.ask('a'));
    await jest.advanceTimersByTimeAsync(LATE_MS + 1);
    await expect(answer).resolves.toBe('a!');
    expect(FakeWorker.made).toHaveLength(2);
    expect(FakeWorker.made[0]!.isEnded).toBe(true);
  });

  test('is started anew when it ends by itself', async () => {
    const client = clientOf((_task, nth) => (nth === 1 ? 'crash' : 'answer'));
    await expect(firstValueFrom(client.ask('a'))).resolves.toBe('a!');
  });

  test('fails after the second time, and the next request finds a fresh one', async () => {
    let isHanging = true;
    const client = clientOf(() => (isHanging ? 'hang' : 'answer'));
    const answer = firstValueFrom(client.ask('a'));
    const failure = expect(answer).rejects.toThrow(/did not answer, twice.*try again/);
    await jest.advanceTimersByTimeAsync(2 * LATE_MS + 2);
    await failure;
    isHanging = false;
    await expect(firstValueFrom(client.ask('b'))).resolves.toBe('b!');
  });

  test('that breaks on one request answers the others', async () => {
    const client = clientOf((task) => (task === 'bad' ? 'crash' : 'answer'));
    const bad = expect(firstValueFrom(client.ask('bad'))).rejects.toThrow(/It broke, twice/);
    const good = expect(firstValueFrom(client.ask('good'))).resolves.toBe('good!');
    await Promise.all([bad, good]);
  });

  test('may take long as long as it says how far it is', async () => {
    const told: unknown[] = [];
    const client = clientOf(
      () => 'slowly',
      (progress) => told.push(progress),
    );
    let result = '';
    client.ask<string>('a').subscribe((answer) => (result = answer));
    for (let i = 0; i < 5; i++) {
      await jest.advanceTimersByTimeAsync(LATE_MS - 1000);
      FakeWorker.made[0]!.say({ id: 1, progress: { done: i, steps: 9 } });
    }
    FakeWorker.made[0]!.say({ id: 1, result: 'done' });
    expect(result).toBe('done');
    expect(FakeWorker.made).toHaveLength(1);
    expect(told).toContainEqual({ done: 4, steps: 9 });
    expect(told[told.length - 1]).toBeNull();
  });

  test('is not waited for by what nobody wants any more', async () => {
    const client = clientOf((task) => (task === 'old' ? 'hang' : 'answer'));
    client.ask('old').subscribe().unsubscribe();
    jest.setSystemTime(Date.now() + 1000);
    await jest.advanceTimersByTimeAsync(300);
    await expect(firstValueFrom(client.ask('new'))).resolves.toBe('new!');
    expect(FakeWorker.made).toHaveLength(2);
  });

  test('that is ended says nothing any more', async () => {
    const client = clientOf(() => 'hang');
    const answers: unknown[] = [];
    client.ask('a').subscribe({ next: (answer) => answers.push(answer), error: (error) => answers.push(error) });
    client.end();
    await jest.advanceTimersByTimeAsync(10 * LATE_MS);
    expect(answers).toEqual([]);
    expect(FakeWorker.made).toHaveLength(1);
  });
});
