import { giveBack, Rest } from '../src/at-rest';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('memory is given back once after many requests, when none has come for a while', () => {
  const act = jest.fn();
  const rest = new Rest(act, 2000, 3);
  rest.touch();
  rest.touch();
  jest.advanceTimersByTime(10_000);
  expect(act).not.toHaveBeenCalled();
  rest.touch();
  jest.advanceTimersByTime(1900);
  rest.touch();
  jest.advanceTimersByTime(1900);
  expect(act).not.toHaveBeenCalled();
  jest.advanceTimersByTime(200);
  expect(act).toHaveBeenCalledTimes(1);
  rest.touch();
  jest.advanceTimersByTime(10_000);
  expect(act).toHaveBeenCalledTimes(1);
});

test('what nobody holds is collected', async () => {
  jest.useRealTimers();
  let held: object | null = { of: 'memory' };
  const seen = new WeakRef(held);
  held = null;
  // A reference lives at least until the turn in which it was made ends.
  await new Promise((done) => setTimeout(done, 10));
  giveBack();
  expect(seen.deref()).toBeUndefined();
});
