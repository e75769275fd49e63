import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { TakenLine } from '@typikon/core';
import { Acting, asActingPerson } from '../../state/acting';
import { DeskStore, type OpenDocument } from './desk-store';

const DOCUMENT: OpenDocument = {
  id: 'note-1',
  title: 'A note',
  type: 'note',
  pageKind: 'article',
  createdAt: '2026-09-01T09:00:00.000Z',
  changedAt: '2026-09-02T09:00:00.000Z',
  changedBy: 'ned-orr',
  revision: 3,
  publicRevision: 3,
  askedRevision: null,
  fields: [
    { key: 'text', value: '<p>Noon</p>', profile: 'ferry-note', revision: 2, shownBy: null },
    { key: 'ferry', value: 'Dunlin', profile: null, revision: 1, shownBy: null },
  ],
};

let server: HttpTestingController;
type Store = InstanceType<typeof DeskStore>;

const settle = () => new Promise((done) => setTimeout(done));
async function opened(document: OpenDocument = DOCUMENT): Promise<Store> {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [provideHttpClient(withInterceptors([asActingPerson])), provideHttpClientTesting(), DeskStore],
  });
  server = TestBed.inject(HttpTestingController);
  const store = TestBed.inject(DeskStore);
  void store.load('note-1');
  server.expectOne('/api/v1/documents/note-1').flush(document, { headers: { ETag: `"${document.revision}"` } });
  await settle();
  return store;
}
const put = () => server.expectOne({ method: 'PUT', url: '/api/v1/documents/note-1' });
const after = (change: Partial<OpenDocument>) => ({ ...DOCUMENT, revision: 4, ...change, changes: { text: 2 }, notes: [] });

beforeEach(() => localStorage.clear());

describe('a document on the desk', () => {
  test('nothing is told of pastes beside a text that is nearly as long as can be sent', async () => {
    const store = await opened();
    store.losePasted('text', [{ key: 'k', severity: 'loss', words: 'one' } as unknown as TakenLine]);
    const value = `<p>${'long '.repeat(210_000)}</p>`;
    store.write('text', value);
    void store.save();
    expect(put().request.body).toEqual({ fields: { text: { value } } });
  });

  test('what was taken of pastes goes along with the next save, as much of it as can be sent', async () => {
    const store = await opened();
    const line = (words: string) => ({ key: 'k', severity: 'loss', words }) as unknown as TakenLine;
    store.losePasted('text', []);
    store.losePasted('text', [line('one')]);
    store.losePasted('text', [line('two'), line('x'.repeat(290_000))]);
    store.losePasted('text', [line('y'.repeat(20_000))]);
    store.write('text', '<p>Two</p>');
    void store.save();
    const first = put();
    const { fields } = first.request.body as { fields: { text: { pasted: TakenLine[][] } } };
    expect(fields.text.pasted.map((lines) => lines.map(({ words }) => words.slice(0, 3)))).toEqual([['two'], ['yyy']]);
    first.flush(after({ fields: [{ key: 'text', value: '<p>Two</p>', profile: 'ferry-note', revision: 3, shownBy: null }] }));
    await settle();
    store.write('text', '<p>Three</p>');
    void store.save();
    expect(put().request.body).toEqual({ fields: { text: { value: '<p>Three</p>' } } });
  });

  test('what was taken of a text that is offered back after a reload goes along once that text stands there again', async () => {
    const store = await opened();
    const line = (words: string) => ({ key: 'k', severity: 'loss', words }) as unknown as TakenLine;
    store.losePasted('text', [line('one')]);
    store.lose('text', ['tables']);
    store.write('text', '<p>Two</p>');
    store.keep(() => false);
    const again = await opened();
    expect([again.isChanged(), again.pasted(), again.lost()]).toEqual([false, {}, {}]);
    expect(again.waiting()).toEqual({ text: { lost: ['tables'], pasted: [[line('one')]] } });
    again.losePasted('text', [line('two')]);
    // Reloaded once more before it was taken back, both are there.
    again.keep(() => false);
    const third = await opened();
    third.recall('ferry');
    third.recall('text');
    third.recall('text');
    third.write('text', '<p>Two</p>');
    void third.save();
    const sent = put();
    expect(sent.request.body).toEqual({
      fields: { text: { value: '<p>Two</p>', taken: ['tables'], pasted: [[line('one')], [line('two')]] } },
    });
    sent.flush(after({ fields: [{ key: 'text', value: '<p>Two</p>', profile: 'ferry-note', revision: 3, shownBy: null }] }));
    await settle();
    expect(localStorage.length).toBe(0);
  });

  test('of a text that is not taken back nothing is told, nor of one that somebody else stored meanwhile', async () => {
    const store = await opened();
    store.lose('text', ['tables']);
    store.write('text', '<p>Two</p>');
    store.keep(() => false);
    const again = await opened();
    again.write('text', '<p>Three</p>');
    void again.save();
    expect(put().request.body).toEqual({ fields: { text: { value: '<p>Three</p>' } } });
    expect((await opened({ ...DOCUMENT, revision: 9 })).waiting()).toEqual({});
  });

  test('what the rules took of a text goes along with it, once', async () => {
    const store = await opened();
    store.lose('text', ['tables']);
    store.lose('text', []);
    store.lose('text', ['pictures', 'tables']);
    store.lose('ferry', ['links']);
    store.write('text', '<p>Two</p>');
    void store.save();
    const first = put();
    expect(first.request.body).toEqual({ fields: { text: { value: '<p>Two</p>', taken: ['tables', 'pictures'] } } });
    first.flush(after({ fields: [{ key: 'text', value: '<p>Two</p>', profile: 'ferry-note', revision: 3, shownBy: null }] }));
    await settle();
    store.write('text', '<p>Three</p>');
    void store.save();
    expect(put().request.body).toEqual({ fields: { text: { value: '<p>Three</p>' } } });
  });

  test('is read, and is as it is stored until something is written', async () => {
    const store = await opened();
    expect([store.status(), store.isChanged()]).toEqual(['ready', false]);
    store.write('text', '<p>Noon</p>');
    expect(store.isChanged()).toBe(false);
    store.write('text', '<p>Two</p>');
    expect(store.isChanged()).toBe(true);
  });

  test('one that is not there is told', async () => {
    const store = await opened();
    void store.load('gone');
    server.expectOne('/api/v1/documents/gone').flush({ detail: 'There is no document "gone".' }, { status: 404, statusText: 'Not Found' });
    await settle();
    expect([store.status(), store.message(), store.document()]).toEqual(['failed', 'There is no document "gone".', null]);
  });

  test('stores what is written, and that alone, from the revision it was begun from', async () => {
    const store = await opened();
    store.write('text', '<p>Two</p>');
    store.writeTitle('Another');
    const saving = store.save();
    const request = put();
    expect(request.request.headers.get('If-Match')).toBe('"3"');
    expect(request.request.body).toEqual({ fields: { text: { value: '<p>Two</p>' } }, title: 'Another' });
    // What is written while it is stored stays.
    store.write('ferry', 'Marram');
    request.flush(after({ title: 'Another' }), { headers: { ETag: '"4"' } });
    expect(await saving).toBe(true);
    expect([store.document()?.revision, store.changes(), store.before()]).toEqual([4, 2, 3]);
    expect(store.written()).toEqual({ ferry: { value: 'Marram' } });
    expect([store.title(), store.isChanged()]).toEqual([null, true]);
  });

  test('what the server refuses is told, and nothing that was written is lost', async () => {
    const store = await opened();
    store.write('text', '<p>Two</p>');
    const saving = store.save();
    put().flush({ detail: 'Too much.' }, { status: 422, statusText: 'No' });
    expect(await saving).toBe(false);
    expect([store.refusal(), store.written()['text']?.value, store.isSaving()]).toEqual(['Not saved. Too much.', '<p>Two</p>', false]);
  });

  test('what somebody else stored can be taken, or written over', async () => {
    const theirs = { ...DOCUMENT, revision: 9, title: 'Theirs' };
    for (const over of [true, false]) {
      const store = await opened();
      store.write('text', '<p>Mine</p>');
      const saving = store.save();
      put().flush({ detail: 'Somebody.', current: theirs }, { status: 412, statusText: 'No' });
      await saving;
      expect(store.theirs()?.title).toBe('Theirs');
      if (over) {
        const again = store.save(true);
        const request = put();
        expect(request.request.headers.get('If-Match')).toBe('"9"');
        request.flush({ ...after({}), revision: 10 });
        expect(await again).toBe(true);
      } else {
        store.takeTheirs();
        expect([store.document()?.title, store.isChanged(), store.theirs()]).toEqual(['Theirs', false, null]);
      }
    }
  });

  test('what both wrote in different parts is put together, to be looked at and saved; else nothing is', async () => {
    const text = (...words: string[]): string => words.map((word) => `<p>${word}</p>`).join('');
    const of = (body: string, more: Partial<OpenDocument> = {}): OpenDocument => ({
      ...DOCUMENT,
      ...more,
      fields: [{ ...DOCUMENT.fields[0]!, value: body }, DOCUMENT.fields[1]!],
    });
    const refused = async (mine: string, theirs: OpenDocument, title?: string): Promise<Store> => {
      const store = await opened(of(text('one', 'two', 'three')));
      store.write('text', mine);
      store.write('ferry', 'Marram');
      if (title !== undefined) store.writeTitle(title);
      const saving = store.save();
      put().flush({ detail: 'Somebody.', current: theirs }, { status: 412, statusText: 'No' });
      await saving;
      return store;
    };
    const store = await refused(text('ONE', 'two', 'three'), of(text('one', 'two', 'THREE'), { revision: 9 }));
    expect(store.together()).toEqual({ text: { value: text('ONE', 'two', 'THREE') }, ferry: { value: 'Marram' } });
    store.takeBoth();
    expect([store.theirs(), store.refusal(), store.isChanged()]).toEqual([null, '', true]);
    void store.save();
    const request = put();
    expect(request.request.headers.get('If-Match')).toBe('"9"');
    expect((request.request.body as { fields: object }).fields).toEqual({
      text: { value: text('ONE', 'two', 'THREE') },
      ferry: { value: 'Marram' },
    });
    // Both wrote the same block; both gave it a title; another profile has it now.
    const clash = of(text('1', 'two', 'three'), { revision: 9 });
    expect((await refused(text('ONE', 'two', 'three'), clash)).together()).toBeNull();
    expect(
      (await refused(text('one'), { ...of(text('one', 'two', 'three')), revision: 9, title: 'Theirs' }, 'Mine')).together(),
    ).toBeNull();
    const moved = { ...clash, fields: [{ ...clash.fields[0]!, value: text('one', 'two', '3'), profile: 'diary' }, DOCUMENT.fields[1]!] };
    expect((await refused(text('ONE', 'two', 'three'), moved)).together()).toBeNull();
  });

  test('a save of which nobody knows what became is looked up', async () => {
    for (const [revision, isThere] of [
      [4, true],
      [3, false],
    ] as const) {
      const store = await opened();
      store.write('text', '<p>Two</p>');
      const saving = store.save();
      put().flush({ detail: 'Lost.', outcome: 'unknown' }, { status: 503, statusText: 'No' });
      await settle();
      server.expectOne('/api/v1/documents/note-1').flush({ ...DOCUMENT, revision });
      expect(await saving).toBe(isThere);
      expect(store.isChanged()).toBe(!isThere);
    }
  });

  test('plain fields are found again after a reload, unless the document was stored since', async () => {
    const first = await opened();
    first.write('ferry', 'Marram');
    first.write('text', '<p>Two</p>');
    first.writeTitle('Another');
    first.keep((key) => key !== 'text');
    const again = await opened();
    expect([again.written(), again.title()]).toEqual([{ ferry: { value: 'Marram' } }, 'Another']);
    const later = await opened({ ...DOCUMENT, revision: 5 });
    expect([later.written(), later.title()]).toEqual([{}, null]);
  });

  test('a move to another profile goes with the next save, and can be put back before', async () => {
    const store = await opened();
    const edition = store.editions()['text'];
    store.move('text', '<p>Noon, cut</p>', 'reply');
    expect(store.editions()['text']).not.toBe(edition);
    store.moveBack('text', null);
    expect([store.isChanged(), store.written()['text']]).toEqual([false, undefined]);
    store.move('text', '<p>Noon, cut</p>', 'reply');
    store.write('text', '<p>Noon, cut more</p>');
    void store.save();
    expect((put().request.body as { fields: object }).fields).toEqual({ text: { value: '<p>Noon, cut more</p>', profile: 'reply' } });
  });

  test('what was stored last can be taken back', async () => {
    const store = await opened();
    store.write('text', '<p>Two</p>');
    const saving = store.save();
    put().flush(after({ fields: [{ key: 'text', value: '<p>Two</p>', profile: 'ferry-note', revision: 3, shownBy: null }] }));
    await saving;
    const back = store.goBack();
    const request = server.expectOne({ method: 'POST', url: '/api/v1/documents/note-1/restore' });
    expect([request.request.headers.get('If-Match'), request.request.body]).toEqual(['"4"', { revision: 3 }]);
    request.flush({ ...DOCUMENT, revision: 5, changes: {}, notes: [] });
    await back;
    expect([store.stored().get('text')?.value, store.document()?.revision, store.before()]).toEqual(['<p>Noon</p>', 5, null]);
  });
});

describe('who acts', () => {
  const told = (id: string) => {
    const person = { id, label: id, roles: [{ id: 'desk', label: 'Desk' }], rights: ['read', 'write'] };
    return { acting: person, people: [person] };
  };

  test('is told to the server with every request from then on, and after a reload', async () => {
    await opened();
    const acting = TestBed.inject(Acting);
    const choosing = acting.choose('ned-orr');
    const request = server.expectOne('/api/v1/acting');
    expect(request.request.headers.get('typikon-person')).toBe('ned-orr');
    request.flush(told('ned-orr'));
    await choosing;
    expect([acting.person()?.id, acting.roles(), acting.may('write'), acting.may('design')]).toEqual(['ned-orr', ['desk'], true, false]);
    expect(localStorage.getItem('typikon.acting')).toBe('ned-orr');
  });

  test('somebody who is not there any more is forgotten', async () => {
    await opened();
    const acting = TestBed.inject(Acting);
    const choosing = acting.choose('gone');
    server.expectOne('/api/v1/acting').flush({ detail: 'There is nobody.' }, { status: 403, statusText: 'No' });
    await settle();
    const again = server.expectOne('/api/v1/acting');
    expect(again.request.headers.has('typikon-person')).toBe(false);
    again.flush(told('isa-wren'));
    await choosing;
    expect([acting.person()?.id, localStorage.getItem('typikon.acting')]).toEqual(['isa-wren', '']);
  });
});
