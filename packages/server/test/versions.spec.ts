import { takenLines, type TakenLine } from '@typikon/core';
import { useDemoApp } from './demo-app';

jest.setTimeout(120_000);

interface Told {
  revision: number;
  title: string;
  how: string;
  savedBy: string;
  fields: { key: string; profile: string | null; edition: number | null; isChanged: boolean; bytes: number }[];
}
interface Taken {
  id: number;
  document: string;
  title: string;
  field: string;
  step: string;
  profile: string | null;
  edition: number | null;
  revision: number;
  by: string;
  severity: string;
  line: TakenLine | null;
  sentence: string;
  words: string;
}
interface Stored {
  revision: number;
  fields: { key: string; value: string }[];
}

const ask = useDemoApp('versions', 0);
const as = (person: string, revision?: number) => ({
  'typikon-person': person,
  ...(revision === undefined ? {} : { 'if-match': `"${revision}"` }),
});
const read = async (id: string) => (await ask<Stored>('GET', `/documents/${id}`)).body;
const save = async (id: string, fields: object, person = 'may-carrow') =>
  ask<Stored>('PUT', `/documents/${id}`, { fields }, as(person, (await read(id)).revision));
const versions = async (id: string) => (await ask<Told[]>('GET', `/documents/${id}/versions`)).body;
const taken = async (query: Record<string, string>) => (await ask<Taken[]>('GET', `/taken?${new URLSearchParams(query).toString()}`)).body;

/** What an editor would tell of a paste. */
function pastedLines(): TakenLine[] {
  const input = '<aside>Pontoon three is shut</aside>';
  return takenLines(input, [
    {
      stage: 'paste',
      layer: 'profile',
      rule: '/paste/passes/boxes',
      origin: 'notices-desk',
      action: 'removed',
      subject: { kind: 'element', element: 'aside' },
      start: 0,
      end: input.length,
      line: 1,
      column: 1,
      path: 'aside',
      before: input,
      after: '',
      textLost: 20,
      severity: 'loss',
      reason: 'element-not-allowed',
    },
  ]);
}

describe('every save is a version', () => {
  test('a document that was never saved since has one: as it is', async () => {
    const [only, ...others] = await versions('notice-017');
    expect(others).toEqual([]);
    expect(only).toMatchObject({ revision: 1, how: 'written' });
    const body = only!.fields.find(({ key }) => key === 'body');
    expect(body).toMatchObject({ profile: 'notices-desk', isChanged: true });
    expect(body!.bytes).toBeGreaterThan(100);
    const { body: whole } = await ask<Stored>('GET', '/documents/notice-017/versions/1');
    expect(whole.fields).toEqual(
      (await read('notice-017')).fields.map(({ key, value }) => expect.objectContaining({ key, value }) as object),
    );
  });

  test('tells who, how, by which edition, and which fields are other than before', async () => {
    await save('notice-017', { body: { value: '<p>First</p>' } });
    await save('notice-017', { body: { value: '<p>Second</p>' } }, 'isa-wren');
    const [second, first, kept] = await versions('notice-017');
    expect(second).toMatchObject({ revision: 3, how: 'written', savedBy: 'isa-wren' });
    expect(first).toMatchObject({ revision: 2, savedBy: 'may-carrow' });
    expect(kept).toMatchObject({ revision: 1 });
    const changed = second!.fields.filter(({ isChanged }) => isChanged);
    expect(changed).toEqual([{ key: 'body', profile: 'notices-desk', edition: 1, isChanged: true, bytes: 13 }]);
    expect(kept!.fields.every(({ isChanged }) => isChanged)).toBe(true);
    const { body: then } = await ask<Stored>('GET', '/documents/notice-017/versions/2');
    expect(then.fields.find(({ key }) => key === 'body')?.value).toBe('<p>First</p>');
  });

  test('come in pages; what is not there is said', async () => {
    const first = await ask<Told[]>('GET', '/documents/notice-017/versions?limit=2');
    expect(first.body.map(({ revision }) => revision)).toEqual([3, 2]);
    const rest = await ask<Told[]>('GET', first.next!);
    expect(rest.body.map(({ revision }) => revision)).toEqual([1]);
    expect(rest.next).toBeUndefined();
    expect((await ask('GET', '/documents/nothing/versions')).status).toBe(404);
    expect((await ask('GET', '/documents/notice-017/versions/9')).body.detail).toBe('There is no version 9 of the document "notice-017".');
  });

  test('an earlier one is taken back to as a new one', async () => {
    const back = await ask<Stored>('POST', '/documents/notice-017/restore', { revision: 2 }, as('may-carrow', 3));
    expect(back.status).toBe(200);
    const [now] = await versions('notice-017');
    expect(now).toMatchObject({ revision: 4, how: 'restored' });
    expect((await read('notice-017')).fields.find(({ key }) => key === 'body')?.value).toBe('<p>First</p>');
    expect((await taken({ document: 'notice-017', words: 'second' }))[0]).toMatchObject({ step: 'restored', line: null, words: 'Second' });
  });
});

describe('where did it go', () => {
  const id = 'notice-016';

  test('what the rules took at a save is kept, with the words, the rule, the person and the edition', async () => {
    await save(id, { body: { value: '<p>Beacon lit</p><script>alert(1)</script><p style="color:red">Red text</p>' } });
    const found = await taken({ document: id, field: 'body' });
    const colour = found.find(({ line }) => line?.property === 'color' || line?.attribute === 'style');
    expect(colour).toMatchObject({ step: 'save', profile: 'notices-desk', edition: 1, by: 'may-carrow', revision: 2, words: '' });
    expect(found.find(({ line }) => line?.element === 'script')).toMatchObject({ sentence: 'A script went, with its content' });
  });

  test('what a paste took is kept with the save that follows it', async () => {
    const lines = pastedLines();
    expect((await save(id, { body: { value: '<p>Beacon lit</p>', pasted: [lines] } })).status).toBe(200);
    const [found, ...others] = await taken({ words: 'pontoon shut' });
    expect(others).toEqual([]);
    expect(found).toMatchObject({
      document: id,
      step: 'paste',
      severity: 'loss',
      sentence: 'A <aside> went, with its content, and 20 letters of text with it',
      words: 'Pontoon three is shut',
      line: { rule: '/paste/passes/boxes', origin: 'notices-desk' },
    });
  });

  test('what is no such line is refused, and nothing of it is stored', async () => {
    const before = await read(id);
    for (const pasted of [[[{ reason: 'because' }]], [[{ ...pastedLines()[0], words: 'x'.repeat(30_000) }]], [pastedLines()[0]]])
      expect((await save(id, { body: { value: '<p>Other</p>', pasted } })).status).toBe(422);
    expect(await read(id)).toEqual(before);
  });

  test('words that somebody takes out are found by what was taken out, as they stood', async () => {
    await save(id, { body: { value: '<p>Beacon lit. The north channel is dredged on Monday.</p>' } });
    await save(id, { body: { value: '<p>Beacon lit.</p>' } }, 'isa-wren');
    const [found] = await taken({ words: 'dredged' });
    expect(found).toMatchObject({
      step: 'written',
      line: null,
      by: 'isa-wren',
      words: 'The north channel is dredged on Monday.',
      sentence: 'Words were taken out by hand',
    });
    // A correction is no loss.
    await save(id, { body: { value: '<p>Beacon is lit.</p>' } });
    await save(id, { body: { value: '<p>Beacon was lit.</p>' } });
    expect((await taken({ document: id }))[0]).toMatchObject({ line: null, severity: 'change', words: 'is' });
    // A word that MariaDB does not index, and one that was never there.
    expect((await taken({ words: 'is dredged on' }))[0]?.id).toBe(found!.id);
    expect(await taken({ words: 'dredged zeppelin' })).toEqual([]);
  });

  test('a move to another profile tells what that one took', async () => {
    const story = 'old-tansy-back';
    const text = '<p>Times</p><h2>Noon</h2><blockquote><p>Ferry brimful</p></blockquote><p class="lead">Lead</p>';
    expect((await save(story, { body: { value: text, profile: 'story-desk' } }, 'tom-hallow')).status).toBe(200);
    expect((await save(story, { body: { value: '<p>Times</p><p>Noon</p>', profile: 'diary' } }, 'tom-hallow')).status).toBe(200);
    const moves = (await taken({ document: story })).filter(({ step }) => step === 'move');
    expect(moves.map(({ line }) => line?.element)).toContain('h2');
    for (const move of moves) expect(move).toMatchObject({ profile: 'diary', edition: 1, by: 'tom-hallow', revision: 3 });
    expect(await taken({ document: story, words: 'brimful' })).toMatchObject([{ step: 'written', profile: 'diary' }]);
  });

  test('what the site leaves out by the rules that hold now is told, too', async () => {
    expect((await ask('GET', '/documents/old-tansy-back/left-out')).body).toEqual([]);
    const { body: draft } = await ask<{ document: { markup: { elements: object } }; revision: number }>('GET', '/profiles/diary');
    const elements = { ...draft.document.markup.elements, p: { outcome: 'drop' } };
    const stricter = { ...draft.document, markup: { ...draft.document.markup, elements } };
    const put = await ask('PUT', '/profiles/diary/draft', stricter, { 'if-match': `"${draft.revision}"` });
    expect(put.status).toBe(200);
    expect((await ask('POST', '/profiles/diary/editions', { note: 'Stricter' }, { 'if-match': put.etag })).status).toBe(201);
    const { body: left } = await ask<{ field: string; words: string; sentence: string; edition: number; line: { rule: string } }[]>(
      'GET',
      '/documents/old-tansy-back/left-out',
    );
    expect(left.find(({ words }) => words !== '')).toMatchObject({
      field: 'body',
      edition: 2,
      words: 'Times\nNoon',
      line: { rule: '/markup/elements/p' },
    });
    expect((await ask('GET', '/documents/nothing/left-out')).status).toBe(404);
  });

  test('comes in pages, the latest first, and by how much it hurts', async () => {
    const all = await taken({ document: id });
    expect(all.map(({ id: number }) => number)).toEqual(all.map(({ id: number }) => number).sort((one, other) => other - one));
    const first = await ask<Taken[]>('GET', `/taken?document=${id}&limit=2`);
    const next = await ask<Taken[]>('GET', first.next!);
    expect([...first.body, ...next.body].map(({ id: number }) => number)).toEqual(all.slice(0, 4).map(({ id: number }) => number));
    const losses = await taken({ document: id, severity: 'loss' });
    expect(losses.length).toBeGreaterThan(0);
    expect(losses.length).toBeLessThan(all.length);
    expect(losses.every(({ severity }) => severity === 'loss')).toBe(true);
    expect(await taken({ document: 'nothing' })).toEqual([]);
  });

  test('an answer holds no more than can be sent at once, and names the next', async () => {
    const many = 'wader '.repeat(15_000);
    for (let at = 0; at < 14; at++) {
      await save('notice-014', { body: { value: `<p>Kept</p><p>${many} ${at}</p>` } });
      await save('notice-014', { body: { value: '<p>Kept</p>' } });
    }
    const first = await ask<Taken[]>('GET', '/taken?words=wader&limit=200');
    expect(first.body.length).toBeLessThan(14);
    const rest = await ask<Taken[]>('GET', first.next!);
    expect(first.body.length + rest.body.length).toBe(14);
    expect(rest.next).toBeUndefined();
  });

  test('a search is words, whatever signs are among them', async () => {
    for (const words of ['"dredged', '+dredged -x* (', "dredged' OR 1=1 --", '@5 ~<>', '%', '   '])
      expect((await ask('GET', `/taken?words=${encodeURIComponent(words)}`)).status).toBe(200);
    expect((await taken({ words: '+"dredged"(' }))[0]?.words).toMatch(/dredged/);
  });
});
