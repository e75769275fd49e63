import assert from 'node:assert/strict';
import { test } from 'node:test';
import { attack, linesOf } from './attack';

/** Memory that a server may hold at the most, in MB. */
const MOST_MB = 700;

test('the server answers, whatever comes', async (t) => {
  const figures = await attack({ seed: 20261129, requests: 300, races: 2, kills: 1, calmS: 12, say: () => undefined });
  for (const line of linesOf(figures)) t.diagnostic(line);
  assert.equal(figures.voice.unanswered, 0);
  assert.deepEqual(figures.requests.failed, []);
  assert.deepEqual(figures.races.wrong, []);
  assert.deepEqual(figures.kills.wrong, []);
  assert.ok(figures.memory.peakMb < MOST_MB, `${figures.memory.peakMb} MB at the most`);
});
