import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { clean, compileRules, readHouseLimits, resolveProfile, type JsonObject } from '../packages/core/src/index';
import { randomContent } from '../packages/core/test/random-content';
import { tangledMarkup } from '../packages/core/test/tangled-markup';
import { at } from '../scripts/lib/paths.mjs';
import { openPage, useTypikon } from './support';

const json = (...path: string[]): JsonObject => JSON.parse(readFileSync(at('demo', ...path), 'utf8')) as JsonObject;
const PROFILE = 'story-desk';
const DOCUMENT = 'brackwater-quay';
const FIELD = 'introduction';
/** Somebody whom the house limits bind. */
const WRITER = { 'typikon-person': 'tom-hallow' };
const REFERENCES = '<p>&lt;&amp;&nbsp;&copy;&hellip;&NotEqualTilde;&fjlig;&apos;&euro;&#128512;&notit;&Aacute x&bne;</p>';

/** References by name, and whatever markup. */
const CONTENTS = [REFERENCES, ...fc.sample(fc.oneof(randomContent, tangledMarkup), { numRuns: 99, seed: 8 })];

const used = useTypikon();

describe('a hundred contents become the same bytes', () => {
  const resolution = resolveProfile(PROFILE, (id) => json('profiles', `${id}.json`));
  const house = readHouseLimits(json('house-limits.json'));
  if (!resolution.ok || !house.ok) throw new Error('The demo cannot be read.');
  const rules = compileRules(resolution.resolved, { house: house.house });
  const wanted = CONTENTS.map((html) => clean(html, rules).html);

  test('on the command line that is built', () => {
    const { stdout, status } = spawnSync(
      process.execPath,
      [
        at('packages/cli/bin/typikon.mjs'),
        'clean',
        '--profile',
        at(`demo/profiles/${PROFILE}.json`),
        '--house',
        at('demo/house-limits.json'),
        '--jsonl',
      ],
      { input: CONTENTS.map((html) => JSON.stringify({ html })).join('\n'), encoding: 'utf8', maxBuffer: 1 << 28 },
    );
    assert.equal(status, 0);
    const results = stdout
      .trim()
      .split('\n')
      .map((line) => (JSON.parse(line) as { html: string }).html);
    assert.deepEqual(results, wanted);
  });

  test('on the server that runs', async () => {
    const address = `${used.typikon.address}/api/v1/documents/${DOCUMENT}`;
    let tag = (await fetch(address)).headers.get('etag')!;
    const results: string[] = [];
    for (const html of CONTENTS) {
      const stored = await fetch(address, {
        method: 'PUT',
        headers: { 'content-type': 'application/json', 'if-match': tag, ...WRITER },
        body: JSON.stringify({ fields: { [FIELD]: { value: html, profile: PROFILE } } }),
      });
      assert.equal(stored.status, 200);
      tag = stored.headers.get('etag')!;
      const { fields } = (await (await fetch(address)).json()) as { fields: { key: string; value: string }[] };
      results.push(fields.find(({ key }) => key === FIELD)?.value ?? '');
    }
    assert.deepEqual(results, wanted);
  });

  test('in the worker of the application', async () => {
    const { page, mishaps } = await openPage(used.browser);
    await page.evaluateOnNewDocument(`
      window.Worker = class extends Worker { constructor(...given) { super(...given); window.given ??= given; } };
    `);
    await page.goto(`${used.typikon.address}/profiles/${PROFILE}`);
    await page.waitForFunction('window.given !== undefined');
    const requests = CONTENTS.map((html) => ({
      profileId: PROFILE,
      documents: Object.fromEntries(resolution.resolved.chain.map(({ id, document }) => [id, document])),
      house: house.house,
      role: '',
      html,
      arrival: { way: 'stored' },
      expectations: [],
    }));
    const results = await page.evaluate(`(async () => {
      // One of the same kind: the application ends its own where it waits too long for it.
      const worker = new Worker(...window.given);
      const results = [];
      for (const [n, request] of ${JSON.stringify(requests)}.entries())
        results.push(await new Promise((done) => {
          const id = 1e6 + n;
          const hear = ({ data }) => {
            if (data.id !== id || 'progress' in data) return;
            worker.removeEventListener('message', hear);
            done(data.result?.html ?? data.failure);
          };
          worker.addEventListener('message', hear);
          worker.postMessage({ id, task: { kind: 'prove', request } });
        }));
      return results;
    })()`);
    assert.deepEqual(results, wanted);
    assert.deepEqual(mishaps, []);
  });
});
