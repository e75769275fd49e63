import assert from 'node:assert/strict';
import { after, before, describe, test } from 'node:test';
import { Installation } from './support';

let typikon: Installation;

before(async () => {
  typikon = await Installation.start();
});
after(() => typikon?.stop());

interface Stored {
  revision: number;
  document: Record<string, unknown>;
}

const api = (path: string, init?: RequestInit) => fetch(`http://127.0.0.1:${typikon.port}/api/v1${path}`, init);
const read = async (): Promise<Stored> => (await (await api('/profiles/house')).json()) as Stored;

/** Saves again and again until the server is gone; tells the last save that was acknowledged. */
async function saveUntilItBreaks(onSaved: () => void): Promise<{ acknowledged: number; attempted: number; ended: string }> {
  let { document, revision } = await read();
  let acknowledged = revision;
  for (;;) {
    const attempted = acknowledged + 1;
    document = { ...document, purpose: `Save number ${attempted}` };
    try {
      const response = await api('/profiles/house/draft', {
        method: 'PUT',
        headers: { 'content-type': 'application/json', 'if-match': `"${acknowledged}"` },
        body: JSON.stringify(document),
      });
      if (!response.ok) return { acknowledged, attempted, ended: `${response.status} ${await response.text()}` };
      ({ revision } = (await response.json()) as Stored);
      acknowledged = revision;
      onSaved();
    } catch (error) {
      return { acknowledged, attempted, ended: String(error) };
    }
  }
}

describe('a kill during saves', () => {
  for (const [what, crash] of [
    ['of the server', () => typikon.crashServer()],
    ['of the database', () => typikon.crashDatabase()],
  ] as const)
    test(`${what} loses nothing that was acknowledged`, async () => {
      for (let round = 0; round < 2; round++) {
        let onSaved!: () => void;
        const isSaved = new Promise<void>((done) => {
          onSaved = done;
        });
        const saving = saveUntilItBreaks(() => onSaved());
        const early = await Promise.race([isSaved, saving]);
        assert.equal(early?.ended, undefined, 'the first save did not go through');
        await new Promise((done) => setTimeout(done, 60 + round * 250));
        const [, { acknowledged, attempted }] = await Promise.all([crash(), saving]);
        const { revision, document } = await read();
        assert.ok(acknowledged > 1, 'no save went through before the kill');
        // The save that was under way may have got through without its answer.
        assert.ok(revision === acknowledged || revision === attempted, `acknowledged ${acknowledged}, found ${revision}`);
        assert.equal(document['purpose'], `Save number ${revision}`);
      }
    });
});
