import { TestBed } from '@angular/core/testing';
import { signal } from '@angular/core';
import { PublishingStrip } from '../src/features/desk/publishing-strip';
import type { Publishing } from '../src/features/desk/publishing-store';
import { notSeen } from '../src/shared/page/not-seen';
import { Acting } from '../src/state/acting';
import { Screen } from './support';

const STATE: Publishing = {
  revision: 4,
  publicRevision: 2,
  askedRevision: null,
  publishing: 'two-steps',
  mayAsk: true,
  mayApprove: false,
  mayHide: false,
  steps: [],
};
const step = (named: Publishing['steps'][number]['step'], by: string, note = ''): Publishing['steps'][number] => ({
  step: named,
  revision: 4,
  note,
  at: `2026-11-0${note.length % 9 || 1}T09:00:00.000Z`,
  by,
});
const wait = () => new Promise((done) => setTimeout(done));
const PATH = '/api/v1/documents/tender-1/publishing';

async function open(state: Publishing, inputs: Record<string, unknown> = {}, person = 'una-pell'): Promise<Screen<PublishingStrip>> {
  const people = [
    { id: 'una-pell', label: 'Una Pell', roles: [] },
    { id: 'isa-wren', label: 'Isa Wren', roles: [] },
  ];
  TestBed.resetTestingModule();
  TestBed.overrideProvider(Acting, {
    useValue: { person: signal(people.find(({ id }) => id === person)), people: signal(people), isKnown: signal(true) },
  });
  const screen = await Screen.of(PublishingStrip, { inputs: { document: 'tender-1', revision: state.revision, ...inputs } });
  screen.http.expectOne(PATH).flush(state);
  await wait();
  await screen.settle();
  return screen;
}
const told = (screen: Screen<PublishingStrip>, selector = 'section'): string =>
  screen.texts(selector).join(' ').replace(/\s+/g, ' ').trim();
const button = (screen: Screen<PublishingStrip>, words: string): HTMLButtonElement | undefined =>
  [...(screen.fixture.nativeElement as HTMLElement).querySelectorAll('button')].find(({ textContent }) => textContent.includes(words));

describe('what readers see', () => {
  test('is taken from them by whoever may, with a reason, and what was done is told', async () => {
    const seen = { ...STATE, publicRevision: 4, mayAsk: false };
    expect((await open(seen)).has('.seen')).toBe(false);
    const screen = await open({ ...seen, mayHide: true });
    expect(told(screen, '.seen span')).toContain('Readers see this.');
    button(screen, 'Take it from readers…')!.click();
    await screen.settle();
    button(screen, 'Take it from readers')!.click();
    const asked = screen.http.expectOne({ method: 'POST', url: PATH });
    expect(asked.request.body).toEqual({ step: 'hidden', revision: 4, note: '' });
    asked.flush({ detail: 'Say why it is taken from readers.' }, { status: 422, statusText: 'No' });
    await wait();
    await screen.settle();
    expect(screen.texts('[role=alert]')).toEqual(['Say why it is taken from readers.']);
    await screen.set('.seen input', 'It names somebody.', 'input');
    button(screen, 'Take it from readers')!.click();
    const again = screen.http.expectOne({ method: 'POST', url: PATH });
    expect(again.request.body).toEqual({ step: 'hidden', revision: 4, note: 'It names somebody.' });
    again.flush({ ...seen, publicRevision: null, mayAsk: true, steps: [step('hidden', 'isa-wren', 'It names somebody.')] });
    await wait();
    await screen.settle();
    expect(told(screen, 'header b')).toBe('Version 4 is not public. Readers see nothing any more.');
    expect(told(screen, 'li')).toContain('Isa Wren took version 4 from readers:');
    expect(screen.has('.seen')).toBe(false);
  });
});

describe('what is written and not public', () => {
  test('is told with what readers see instead; where they see the last version nothing is', async () => {
    const screen = await open(STATE);
    expect(told(screen, 'header b')).toBe('Version 4 is not public. Readers see version 2.');
    expect(screen.has('.answer')).toBe(false);
    const seen = await open({ ...STATE, publicRevision: 4, mayAsk: false });
    expect(seen.has('section')).toBe(false);
  });

  test.each([
    [{ publicRevision: null }, 'Version 4 is not public. Readers see nothing yet.'],
    [{ askedRevision: 4 }, 'Version 4 waits for approval. Readers see version 2.'],
    [{ askedRevision: 3 }, 'Version 3 waits for approval. Readers see version 2. Version 4 was written since.'],
  ])('how it stands: %j', async (more, sentence) => {
    const screen = await open({ ...STATE, mayAsk: false, ...more });
    expect(told(screen, 'header b')).toBe(sentence);
  });

  test('whoever wrote it asks; what is not saved is no part of that', async () => {
    const changed = await open(STATE, { isChanged: true });
    expect(button(changed, 'Ask for approval')!.disabled).toBe(true);
    const screen = await open(STATE);
    button(screen, 'Ask for approval')!.click();
    const asked = screen.http.expectOne({ method: 'POST', url: PATH });
    expect(asked.request.body).toEqual({ step: 'asked', revision: 4, note: '' });
    asked.flush({ ...STATE, askedRevision: 4, mayAsk: false, steps: [step('asked', 'una-pell')] });
    await wait();
    await screen.settle();
    expect(told(screen, 'li')).toContain('Una Pell asked for approval of version 4.');
    expect(button(screen, 'Withdraw it')).toBeDefined();
  });

  test('whoever decides says why; what is refused is told, and what they wrote stays', async () => {
    const waiting = { ...STATE, askedRevision: 4, mayAsk: false, mayApprove: true, steps: [step('asked', 'una-pell')] };
    const screen = await open(waiting, {}, 'isa-wren');
    expect(button(screen, 'Withdraw it')).toBeUndefined();
    const field = (screen.fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>('.answer input')!;
    button(screen, 'Send it back')!.click();
    screen.http
      .expectOne({ method: 'POST', url: PATH })
      .flush({ title: 'No', status: 422, detail: 'Say why it is sent back.' }, { status: 422, statusText: 'No' });
    await wait();
    await screen.settle();
    expect(told(screen, '[role=alert]')).toBe('Say why it is sent back.');
    field.value = 'Too long.';
    button(screen, 'Send it back')!.click();
    const sent = screen.http.expectOne({ method: 'POST', url: PATH });
    expect(sent.request.body).toEqual({ step: 'sent-back', revision: 4, note: 'Too long.' });
    sent.flush({ ...STATE, mayAsk: false, steps: [step('sent-back', 'isa-wren', 'Too long.'), step('asked', 'una-pell')] });
    await wait();
    await screen.settle();
    expect([field.value, told(screen, 'li')]).toEqual(['', expect.stringContaining('Isa Wren sent back version 4: Too long.')]);
  });

  test('a preview is made of the version that is spoken of', async () => {
    const screen = await open({ ...STATE, askedRevision: 3, mayAsk: false });
    button(screen, 'A preview to send')!.click();
    const asked = screen.http.expectOne('/api/v1/documents/tender-1/previews');
    expect(asked.request.body).toEqual({ revision: 3 });
    asked.flush({ address: 'http://site.example/previews/x', until: '2026-12-02T09:00:00.000Z' });
    await wait();
    await screen.settle();
    expect(told(screen, '.preview')).toMatch(/^Version 3 can be looked at by whoever has its address, until 2 Dec, /);
    expect((screen.fixture.nativeElement as HTMLElement).querySelector('.preview a')!.getAttribute('rel')).toBe('noopener noreferrer');
  });

  test.each([
    [{ revision: 2, publicRevision: 2, askedRevision: null }, ''],
    [{ revision: 2, publicRevision: 1, askedRevision: null }, 'last version not public'],
    [{ revision: 2, publicRevision: null, askedRevision: null }, 'not public'],
    [{ revision: 2, publicRevision: 1, askedRevision: 2 }, 'waits for approval'],
  ])('in lists: %j', (document, words) => expect(notSeen(document)).toBe(words));
});
