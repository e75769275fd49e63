import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { AskDialog, type AskQuestion } from '../src/features/release/ask-dialog';
import { AskedList } from '../src/features/release/asked-list';
import { ConversionStrip } from '../src/features/release/conversion-strip';
import { ConvertDialog, type ConvertQuestion } from '../src/features/release/convert-dialog';
import { ConversionsStore, type ToldConversion } from '../src/state/conversions';
import type { Question } from '../src/state/questions';
import { Screen } from './support';

const wait = (ms = 0) => new Promise((done) => setTimeout(done, ms));
const TEXTS = [1, 2, 3, 4].map((at) => ({ document: `note-${at}`, field: 'body', title: `Note ${at}` }));
const closed = jest.fn();
const withData = (data: unknown) => {
  closed.mockReset();
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      { provide: MAT_DIALOG_DATA, useValue: data },
      { provide: MatDialogRef, useValue: { close: closed, disableClose: false } },
    ],
  });
};
const told = (more: Partial<ToldConversion> = {}): ToldConversion => ({
  id: 7,
  profile: 'notices-desk',
  conversion: {},
  sentence: '<b> becomes <strong>',
  note: '',
  state: 'running',
  askedAt: '2026-09-01T08:00:00.000Z',
  askedBy: 'isa-wren',
  texts: {},
  ...more,
});

describe('a prepared replacement', () => {
  const TRY = '/api/v1/profiles/notices-desk/conversions/try';
  async function open(more: Partial<ConvertQuestion> = {}): Promise<Screen<ConvertDialog>> {
    withData({ profile: 'notices-desk', name: 'Notices desk', element: 'b', attribute: '', property: '', texts: TEXTS, ...more });
    return Screen.of(ConvertDialog);
  }
  const settled = async (screen: Screen<ConvertDialog>) => {
    await wait(300);
    await screen.settle();
  };

  test('begins with what the group is about, and is tried on three texts before it runs over all', async () => {
    const screen = await open();
    expect(screen.find<HTMLInputElement>('#convert-element').value).toBe('b');
    expect(screen.texts('.sentence')).toEqual(['Fill in what it is to become.']);
    await screen.set('#convert-to', 'strong', 'input');
    await settled(screen);
    const tried = screen.http.expectOne(TRY);
    expect(tried.request.body).toEqual({
      conversion: { do: 'rename-element', element: 'b', to: 'strong' },
      texts: TEXTS.slice(0, 3).map(({ document, field }) => ({ document, field })),
    });
    const long = 'long '.repeat(60);
    tried.flush([
      {
        ...TEXTS[0],
        places: 1,
        before: `<p>${long}<b>one</b></p>`,
        after: `<p>${long}<strong>one</strong></p>`,
        besides: ['The class taken off a <p>, the content stays'],
        lost: ['two words'],
      },
      { ...TEXTS[1], places: 0, before: '', after: '', besides: [], lost: [] },
    ]);
    await wait();
    await screen.settle();
    expect(screen.texts('.sentence')).toEqual(['<b> becomes <strong>, wherever it fits.']);
    expect([screen.texts('del'), screen.texts('ins')]).toEqual([
      ['<b>', '</b>'],
      ['<strong>', '</strong>'],
    ]);
    expect(screen.texts('.source')[0]!.length).toBeLessThan(140);
    expect(screen.texts('li .ty-soft')).toEqual(['in one place', 'nothing that fits']);
    expect(screen.texts('li .bad')).toEqual([
      'The rules that authors write by do more: The class taken off a <p>, the content stays.',
      'Readers would miss: two words',
    ]);
    await screen.set('#convert-note', 'Because', 'input');
    await screen.click('[type=submit]');
    const asked = screen.http.expectOne('/api/v1/profiles/notices-desk/conversions');
    expect(asked.request.body).toMatchObject({ note: 'Because', texts: TEXTS.map(({ document, field }) => ({ document, field })) });
    asked.flush(told());
    await wait();
    expect(closed).toHaveBeenCalledWith(told());
  });

  test('what cannot be is told at its field, and cannot be run; a failure is told, too', async () => {
    const screen = await open();
    await screen.set('#convert-to', 'br', 'input');
    await settled(screen);
    screen.http.expectNone(TRY);
    expect(screen.texts('.sentence')).toEqual(['“Becomes” must be an element that can hold content.']);
    expect(screen.find<HTMLButtonElement>('[type=submit]').disabled).toBe(true);
    await screen.set('#convert-to', 'em', 'input');
    await settled(screen);
    screen.http.expectOne(TRY).flush({ detail: 'Not now.' }, { status: 503, statusText: 'x' });
    await wait();
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['It cannot be tried. Not now.']);
    await screen.click('[type=submit]');
    screen.http.expectOne('/api/v1/profiles/notices-desk/conversions').flush({ detail: 'Full.' }, { status: 503, statusText: 'x' });
    await wait();
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Nothing was converted. Full.']);
    expect(closed).not.toHaveBeenCalled();
  });

  test.each([
    [{ attribute: 'class', element: 'p' }, 'rename-class', ['#convert-element', '#convert-class', '#convert-to']],
    [{ property: 'color', element: 'p' }, 'style-to-class', ['#convert-element', '#convert-property', '#convert-value', '#convert-to']],
    [{ element: 'table' }, 'rename-element', ['#convert-element', '#convert-class', '#convert-to']],
  ])('of %j it offers %s with its own fields', async (group, kind, fields) => {
    const screen = await open(group);
    expect(screen.fixture.componentInstance['form'].controls.do.value).toBe(kind);
    expect([...(screen.fixture.nativeElement as HTMLElement).querySelectorAll('.row input')].map((input) => `#${input.id}`)).toEqual(
      fields,
    );
  });
});

describe('how far a conversion is', () => {
  const strip = async (more: Partial<ToldConversion>): Promise<[string, string[]]> => {
    TestBed.resetTestingModule();
    const screen = await Screen.of(ConversionStrip, { inputs: { latest: told(more) } });
    return [screen.texts('[role=status]')[0]!, screen.texts('button')];
  };

  test.each([
    ['running', { waiting: 3, done: 2 }, /2 of 5 texts done/, ['Stop']],
    ['stopped', { waiting: 3, done: 2 }, /was stopped after 2 of 5 texts/, ['Go on', 'Undo it']],
    [
      'done',
      { done: 1, same: 2, gone: 1, refused: 1 },
      /was done in one text; 2 texts had nothing that fits; one text had gone; one text had too many tags/,
      ['Undo it'],
    ],
    ['undoing', { done: 4, undone: 1 }, /is being undone, 4 texts left/, []],
    ['undone', { undone: 5, kept: 1 }, /was undone in 5 texts; one text changed since and stayed so/, []],
  ] as const)('%s is told, with what can be done', async (state, texts, words, buttons) => {
    const [said, offered] = await strip({ state, texts });
    expect(said).toMatch(words);
    expect(offered).toEqual(buttons);
  });

  test('is followed until it ends; then whoever looks is told', async () => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [ConversionsStore] });
    const screen = await Screen.of(AskedList, { inputs: { questions: [] } });
    const store = TestBed.inject(ConversionsStore);
    void store.load('notices-desk');
    screen.http.expectOne('/api/v1/profiles/notices-desk/conversions?limit=1').flush([told({ texts: { waiting: 2 } })]);
    await wait(600);
    screen.http.expectOne('/api/v1/conversions/7').flush({ detail: 'Away.' }, { status: 503, statusText: 'x' });
    await wait();
    expect(store.failure()).toBe('Nobody knows how far it is. Away.');
    await wait(2100);
    screen.http.expectOne('/api/v1/conversions/7').flush(told({ state: 'done', texts: { done: 2 } }));
    await wait();
    expect([store.ended(), store.failure(), store.latest()?.state]).toEqual([1, '', 'done']);
    void store.act('undo');
    screen.http.expectOne('/api/v1/conversions/7/undo').flush({ detail: 'It is not done.' }, { status: 409, statusText: 'x' });
    await wait();
    expect(store.failure()).toBe('It is not done.');
  });
});

describe('asking authors', () => {
  test('sends the texts and what one wants to know', async () => {
    withData({ profile: 'notices-desk', writers: 'Ned Orr and May Carrow', texts: TEXTS } satisfies AskQuestion);
    const screen = await Screen.of(AskDialog);
    expect(screen.texts('h2')).toEqual(['Ask Ned Orr and May Carrow?']);
    await screen.set('#ask-note', 'May it go?', 'input');
    await screen.click('[type=submit]');
    const request = screen.http.expectOne('/api/v1/profiles/notices-desk/questions');
    expect(request.request.body).toEqual({ note: 'May it go?', texts: TEXTS.map(({ document, field }) => ({ document, field })) });
    request.flush({ asked: 4, untouched: 0, missing: 0 });
    await wait();
    expect(closed).toHaveBeenCalledWith({ asked: 4, untouched: 0, missing: 0 });
  });

  test('answers are listed with what was said', async () => {
    const question = (id: number, more: Partial<Question>): Question => ({
      id,
      document: `note-${id}`,
      title: `Note ${id}`,
      field: 'body',
      profile: 'notices-desk',
      edition: 1,
      revision: 1,
      person: '',
      note: '',
      before: '',
      after: '',
      askedAt: '2026-09-01T08:00:00.000Z',
      askedBy: '',
      answer: '',
      answeredAt: null,
      answeredBy: '',
      reply: '',
      ...more,
    });
    TestBed.resetTestingModule();
    const questions = [question(1, {}), question(2, { answer: 'stays', reply: 'It is needed.' })];
    const screen = await Screen.of(AskedList, { inputs: { questions } });
    expect(screen.texts('header .ty-soft')).toEqual(['1 without an answer']);
    expect(screen.texts('li')).toEqual([
      expect.stringMatching(/Note 1\s*anybody:\s*no answer yet/),
      expect.stringMatching(/Note 2\s*anybody:\s*it must stay as it is\s*“It is needed\.”/),
    ]);
  });
});
