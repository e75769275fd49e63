import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { TestBed } from '@angular/core/testing';
import { clean, compileRules, lessonsOf, patchToLearn, readHouseLimits, resolveProfile } from '@typikon/core';
import { of } from 'rxjs';
import { LetThroughDialog } from '../src/features/bench/let-through-dialog';
import { FilesDialog } from '../src/features/workshop/files-dialog';
import { LibraryActions } from '../src/state/library';
import { FindingsChapter } from '../src/features/workshop/findings-chapter';
import { LearnDialog } from '../src/features/workshop/learn-dialog';
import { libraryFeature } from '../src/state/library';
import { ProofRunner } from '../src/state/proof-runner';
import type { ProofRequest } from '../src/state/types';
import { workshopFeature } from '../src/state/workshop';
import { demoLibrary, Screen } from './support';

const closing = () => {
  const close = jest.fn();
  TestBed.configureTestingModule({ providers: [{ provide: MatDialogRef, useValue: { close } }] });
  return close;
};

describe('learning from a sample', () => {
  /** Does at once what the worker does. */
  const context = ({ profileId, documents, house, role }: ProofRequest) => {
    const resolution = resolveProfile(profileId, (id) => documents[id]);
    if (!resolution.ok) throw new Error('unexpected');
    return [resolution.resolved, { ...(house === null ? {} : { house }), ...(role === '' ? {} : { role }) }] as const;
  };
  const runner = {
    lessons: (request: ProofRequest) => of(lessonsOf(request.html, ...context(request))),
    learn: (request: ProofRequest, chosen: readonly string[]) => {
      const [resolved, options] = context(request);
      return of(patchToLearn(request.html, resolved, new Set(chosen), options));
    },
  };
  const open = async () => {
    const close = closing();
    TestBed.overrideComponent(LearnDialog, { set: { providers: [{ provide: ProofRunner, useValue: runner }] } });
    const screen = await Screen.of(LearnDialog, { profile: 'reply' });
    await screen.set('textarea', '<p lang="en">a <u>b</u></p><ul><li>c</li></ul><iframe src="https://x.example/"></iframe>', 'input');
    await screen.set('textarea', '<p lang="en">a <u>b</u></p><ul><li>c</li></ul><iframe src="https://x.example/"></iframe>');
    return { screen, close };
  };

  test('lists what would be taken with its risk, and what cannot be learnt', async () => {
    const { screen } = await open();
    expect(screen.texts('.lessons code')).toEqual(expect.arrayContaining(['<u>', '<ul>', '<li>', 'lang on <p>']));
    expect(screen.texts('.lessons .risk')).toEqual(['look: reads as a link']);
    expect(screen.texts('.cannot')).toEqual(['The house limits would have to allow first: <iframe>.']);
  });

  test('shows the change, and takes it as one step', async () => {
    const { screen, close } = await open();
    const boxes = screen.texts('.lessons code');
    await screen.click(`.lessons li:nth-child(${boxes.indexOf('<u>') + 1}) input`);
    expect(screen.texts('ty-changes-table tbody [role=rowheader]')).toEqual(['/markup/elements/u']);
    expect(screen.has('.go[disabled]')).toBe(false);
    await screen.click('mat-dialog-actions .go, [mat-dialog-actions] .go, .go');
    expect(screen.profile.markup.elements['u']).toEqual({ outcome: 'keep' });
    expect(screen.store.selectSignal(workshopFeature.selectPast)()).toHaveLength(1);
    expect(close).toHaveBeenCalled();
  });

  test('unticking takes the rule back', async () => {
    const { screen } = await open();
    await screen.click('.head .ty-quiet');
    expect(screen.texts('ty-changes-table tbody [role=rowheader]').length).toBeGreaterThan(2);
    await screen.click('.head .ty-quiet:last-child');
    expect(screen.has('ty-changes-table')).toBe(false);
    expect(screen.has('.go[disabled]')).toBe(true);
  });
});

describe('letting through what the house limits took', () => {
  const input = '<iframe src="https://cams.orrenstrand.example/slip"></iframe><iframe src="https://other.example/"></iframe>';
  const open = async () => {
    const close = closing();
    const library = demoLibrary();
    const read = readHouseLimits(library.house);
    const resolution = resolveProfile('story-desk', (id) => library.profiles.find((profile) => profile.id === id)?.document);
    if (!read.ok || !resolution.ok) throw new Error('unexpected');
    const { ledger } = clean(input, compileRules(resolution.resolved, { house: read.house }));
    TestBed.configureTestingModule({
      providers: [{ provide: MAT_DIALOG_DATA, useValue: { sentence: '2 frames went', entries: ledger, input } }],
    });
    const screen = await Screen.of(LetThroughDialog, { profile: 'story-desk' });
    return { screen, close };
  };

  test('one host alone, in the house limits and in the draft', async () => {
    const { screen, close } = await open();
    expect(screen.texts('ty-changes-table tbody [role=rowheader]')).toEqual(['/markup/elements/iframe', '/markup/elements/iframe']);
    await screen.click('.go');
    const request = screen.http.expectOne('/api/v1/house-limits');
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    expect(JSON.stringify(request.request.body)).toContain('"hosts":["cams.orrenstrand.example"]');
    expect(JSON.stringify(request.request.body)).not.toContain('other.example');
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    expect(screen.profile.markup.elements['iframe']?.attributes?.['src']).toEqual({ test: 'url', hosts: ['cams.orrenstrand.example'] });
    expect(screen.store.selectSignal(libraryFeature.selectHouseRevision)()).toBe(2);
    expect(close).toHaveBeenCalled();
  });

  test('for one role: an exception, and the bench tries that role', async () => {
    const { screen } = await open();
    const labels = screen.texts('.roles mat-radio-button');
    await screen.click(`.roles mat-radio-button:nth-of-type(${labels.indexOf('Duty office alone') + 1}) input`);
    expect(screen.texts('ty-changes-table tbody [role=rowheader]')[0]).toBe('/trustedRoles/duty-office');
    await screen.click('.go');
    const request = screen.http.expectOne('/api/v1/house-limits');
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    expect(screen.store.selectSignal(workshopFeature.selectRole)()).toBe('duty-office');
  });

  test('a failure is said, and nothing is half done', async () => {
    const { screen, close } = await open();
    await screen.click('.go');
    screen.http
      .expectOne('/api/v1/house-limits')
      .flush({ detail: 'Somebody else has changed the house limits.' }, { status: 409, statusText: 'Conflict' });
    await screen.settle();
    expect(screen.texts('.bad').join('')).toMatch(/Somebody else has changed/);
    expect(screen.profile.markup.elements['iframe']).toBeUndefined();
    expect(close).not.toHaveBeenCalled();
  });
});

describe('files', () => {
  const file = (content: string) => {
    const list = [Object.assign(new File([content], 'mine.json'), { text: () => Promise.resolve(content) })];
    return list as unknown as FileList;
  };
  const open = async (content: string) => {
    const close = closing();
    const screen = await Screen.of(FilesDialog, { profile: 'story-desk' });
    const field = screen.find<HTMLInputElement>('input[type=file]');
    Object.defineProperty(field, 'files', { value: file(content) });
    field.dispatchEvent(new Event('change'));
    await new Promise((done) => setTimeout(done));
    await screen.settle();
    return { screen, close };
  };

  test('an incoming file shows what it would change, before it does', async () => {
    const { screen, close } = await open(
      JSON.stringify({ ...demoLibrary().profiles.find(({ id }) => id === 'story-desk')!.document, purpose: 'New' }),
    );
    expect(screen.texts('ty-changes-table tbody [role=rowheader]')).toEqual(['/purpose']);
    expect(screen.profile.purpose).not.toBe('New');
    await screen.click('.go');
    expect(screen.profile.purpose).toBe('New');
    expect(close).toHaveBeenCalled();
  });
  test.each([
    ['{ not json', /mine\.json is not JSON/],
    ['[]', /holds no profile/],
    [
      JSON.stringify({ format: 'typikon-profile/1', name: 'X', markup: { elemnts: {} } }),
      /mine\.json at \/markup\/elemnts: The key "elemnts" is not known/,
    ],
  ])('a file that cannot be taken says why: %s', async (content, message) => {
    const { screen } = await open(content);
    expect(screen.texts('.bad').join(' ')).toMatch(message);
    expect(screen.has('.go[disabled]')).toBe(true);
  });
  test('says what a configuration for browsers’ sanitizers cannot express', async () => {
    const { screen } = await open('{}');
    expect(screen.texts('.limits li').join(' ')).toMatch(/Values are not tested.*Nothing is reported/);
  });
});

describe('findings', () => {
  test('say when the stored documents could not be counted, and count them again', async () => {
    const screen = await Screen.of(FindingsChapter, { profile: 'story-desk' });
    expect(screen.has('[role=alert]')).toBe(false);
    screen.store.dispatch(LibraryActions.censusFailed({ message: 'The server does not answer.' }));
    await screen.settle();
    expect(screen.texts('[role=alert]')[0]).toMatch(/could not be counted.*The server does not answer\./s);
    await screen.click('[role=alert] button');
    expect(screen.has('[role=alert]')).toBe(false);
  });
  test('are listed by gravity with their rule; a fix is one step', async () => {
    const screen = await Screen.of(FindingsChapter, { profile: 'story-desk' });
    expect(screen.texts('[role=status]')[0]).toMatch(/^Testing …/);
    expect(screen.find<HTMLElement>('.none').hidden).toBe(true);
    screen.test();
    await screen.settle();
    expect(screen.find<HTMLElement>('.none').hidden).toBe(false);
    expect(screen.texts('.none')).toEqual(['Nothing is wrong with this profile, as far as the checks can tell.']);
    screen.edit(['markup', 'elements', 'h1'], {});
    screen.edit(['markup', 'elements', 'iframe'], {});
    await screen.settle();
    // What was found before does not speak of this draft.
    expect(screen.texts('[role=status]')[0]).toMatch(/^Testing …/);
    screen.test();
    await screen.settle();
    expect(screen.texts('[role=status]')[0]).toMatch(/^2 findings/);
    expect(screen.texts('[data-check]').map((text) => text.slice(0, 40))).toEqual(
      expect.arrayContaining([expect.stringMatching(/iframe is allowed/)]),
    );
    expect(screen.texts('[data-check=above-house] .ty-cite')).toEqual(['§2 Markup, h1', '§2 Markup, iframe']);
    await screen.click('[data-check=above-house] [mat-stroked-button]');
    expect(screen.profile.markup.elements['h1']).toBeUndefined();
    // The mend of a draft that is gone mends nothing.
    const mended = screen.profile;
    await screen.click('[data-check=above-house] [mat-stroked-button]');
    expect(screen.profile).toBe(mended);
    screen.test();
    await screen.settle();
    await screen.click('[data-check=above-house] .ty-cite');
    expect(screen.store.selectSignal(workshopFeature.selectElement)()).toBe('iframe');
  });
});
