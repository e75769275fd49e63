import assert from 'node:assert/strict';
import { test } from 'node:test';
import { attack, linesOf } from './attack';

/** More memory than this a server never holds, in MB; `npm run attack` tells how much it is on a machine of its own. */
const MOST_MB = 1000;

test('the server answers, whatever comes', async (t) => {
  const figures = await attack({
    seed: 20261129,
    requests: 70,
    races: 1,
    kills: 1,
    commands: 3,
    isTimed: false,
    every: 5,
    calmS: 0,
    say: () => undefined,
  });
  for (const line of linesOf(figures)) t.diagnostic(line);
  assert.equal(figures.voice.unanswered, 0);
  assert.deepEqual(figures.requests.failed, []);
  assert.deepEqual(figures.races.wrong, []);
  for (const { wrong } of [figures.kills, figures.lost, figures.styles, figures.files, figures.commands]) assert.deepEqual(wrong, []);
  assert.ok(figures.memory.peakMb < MOST_MB, `${figures.memory.peakMb} MB at the most`);
});
