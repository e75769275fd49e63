import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { MatCheckboxHarness } from '@angular/material/checkbox/testing';
import { MatSelectHarness } from '@angular/material/select/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { siteSchema, type ContentType, type Field, type Site } from '@typikon/core';
import { FieldForm } from '../src/features/types/field-form';
import { TypeDialog, type TypeQuestion } from '../src/features/types/type-dialog';
import { IconSet } from '../src/ui/icon-set';
import { SiteStore } from '../src/state/site';
import { SPELLING_WORKER } from '../src/state/spelling';
import { Screen } from './support';

const ICONS = new Map(['file', 'ship', 'ship-wheel'].map((name) => [name, []]));

const SITE: Site = siteSchema.parse({
  format: 'typikon-site/1',
  types: [
    {
      id: 'notice',
      label: 'Notice',
      pageKind: 'notice',
      fields: [
        { key: 'text', title: 'Text', kind: 'rich', help: { short: 'What happened.' } },
        { key: 'how', title: 'How urgent', kind: 'choice', choices: ['low', 'high'] },
      ],
    },
  ],
});

async function readSite(screen: Screen<unknown>): Promise<InstanceType<typeof SiteStore>> {
  for (const request of screen.http.match('/api/v1/site/draft')) request.flush(SITE, { headers: { etag: '"1"' } });
  const store = TestBed.inject(SiteStore);
  while (store.status() === 'loading') await new Promise((done) => setTimeout(done));
  await screen.settle();
  return store;
}

describe('the settings of a field', () => {
  const typeOf = (store: { draft: () => Site | null }): ContentType => store.draft()!.types[0]!;

  async function open(key: string) {
    const type = SITE.types[0]!;
    TestBed.configureTestingModule({ providers: [{ provide: SPELLING_WORKER, useValue: () => new EventTarget() }] });
    const screen = await Screen.of(FieldForm, { inputs: { type, field: type.fields.find((field) => field.key === key) } });
    const store = await readSite(screen);
    const now = (): Field => typeOf(store).fields.find((field) => field.key === key)!;
    /** What was changed comes back as the page hands it down. */
    const back = async () => {
      screen.fixture.componentRef.setInput('type', typeOf(store));
      screen.fixture.componentRef.setInput('field', now());
      await screen.settle();
    };
    const set = async (selector: string, value: string, type?: string) => {
      await screen.set(selector, value, type);
      await back();
    };
    return { screen, store, now, set, back, harness: TestbedHarnessEnvironment.loader(screen.fixture) };
  }
  const mistakes = (screen: Screen<unknown>) => screen.texts('.mistake').filter((words) => words !== '');

  test('are taken with every letter, and a space that was just typed stays in its place', async () => {
    const { screen, now, set } = await open('text');
    expect(screen.find<HTMLInputElement>('#field-title').value).toBe('Text');
    await set('#field-title', 'What happened ', 'input');
    expect(now().title).toBe('What happened');
    expect(screen.find<HTMLInputElement>('#field-title').value).toBe('What happened ');
    await set('#field-title', 'What happened there', 'input');
    expect(now().title).toBe('What happened there');
  });

  test('what cannot be is told once it is left, and the field stays as it was', async () => {
    const { screen, now, set } = await open('text');
    await set('#field-title', '', 'input');
    expect(mistakes(screen)).toEqual([]);
    await set('#field-title', '');
    expect(mistakes(screen)).toEqual(['Title that authors see: it must not be empty.']);
    expect(now().title).toBe('Text');
    await set('#field-title', 'Words', 'input');
    await set('#field-letters-from', '90');
    await set('#field-letters-to', '20');
    expect(mistakes(screen)).toEqual(['The shortest must not be above the longest.']);
    expect(now().letters).toEqual({ from: 90 });
    await set('#field-letters-to', '200');
    expect(mistakes(screen)).toEqual([]);
    expect(now().letters).toEqual({ from: 90, to: 200 });
    await set('#field-letters-from', '');
    expect(now().letters).toEqual({ to: 200 });
  });

  test('help that is longer than is read is told with its letters', async () => {
    const { screen, now, set } = await open('text');
    expect(screen.texts('.letters')).toEqual(['14 of 140 letters']);
    await set('#field-help-short', 'x'.repeat(150), 'input');
    expect(screen.texts('.letters.many')).toEqual(['150 of 140 letters']);
    expect(now().help.short).toHaveLength(150);
  });

  test('only what the kind of field has a use for is asked', async () => {
    const { screen, now, back, harness } = await open('how');
    expect(screen.has('#field-choices')).toBe(true);
    expect(screen.has('#field-letters-from')).toBe(false);
    expect(screen.find<HTMLTextAreaElement>('#field-choices').value).toBe('low\nhigh');
    const kind = await harness.getHarness(MatSelectHarness.with({ selector: '#field-kind' }));
    await kind.open();
    expect(await Promise.all((await kind.getOptions()).map((option) => option.getText()))).toContain('rich text');
    await kind.clickOptions({ text: 'one line' });
    await back();
    expect(now().kind).toBe('line');
    expect(screen.has('#field-choices')).toBe(false);
    expect(screen.has('#field-letters-from')).toBe(true);
    // What it had before is still there, for whoever goes back.
    expect(now().choices).toEqual(['low', 'high']);
  });

  test('what is ticked is taken, and a hidden title is said to be one', async () => {
    const { screen, now, back, harness } = await open('text');
    for (const label of ['needed', 'hide the title']) await (await harness.getHarness(MatCheckboxHarness.with({ label }))).check();
    await back();
    expect(now()).toMatchObject({ needed: true, titleHidden: true });
    expect(screen.texts('.effect')).toEqual(['for screen readers alone']);
  });

  test('folders of the library are offered, and one without pictures is told of', async () => {
    const { screen, now, set } = await open('text');
    for (const request of screen.http.match('/api/v1/assets/folders')) request.flush(['/quays/', '/boats/']);
    await screen.settle();
    const from = '[id="folder-picturesFrom"]';
    await set(from, '/boats/');
    expect(now().picturesFrom).toBe('/boats/');
    expect(screen.texts('mat-hint')).toEqual([]);
    await set(from, '/birds/');
    expect(screen.texts('mat-hint')).toEqual(['The library has no picture there.']);
    await set(from, 'x'.repeat(201));
    expect(mistakes(screen)[0]).toMatch(/^Pictures come from: /);
    expect(now().picturesFrom).toBe('/birds/');
  });
});

describe('a content type', () => {
  async function ask(question: TypeQuestion) {
    const answers: (ContentType | undefined)[] = [];
    TestBed.configureTestingModule({
      providers: [
        { provide: MAT_DIALOG_DATA, useValue: question },
        { provide: MatDialogRef, useValue: { close: (answer?: ContentType) => answers.push(answer) } },
        { provide: IconSet, useValue: { all: () => Promise.resolve(ICONS), named: () => Promise.resolve([]) } },
      ],
    });
    const screen = await Screen.of(TypeDialog);
    await readSite(screen);
    const submit = async () => {
      screen.find('form').dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }));
      await screen.settle();
    };
    return { screen, answers, submit, harness: TestbedHarnessEnvironment.loader(screen.fixture) };
  }

  test('is made with a key of its name, which is told while it is typed', async () => {
    const { screen, answers, submit, harness } = await ask({ from: null });
    await submit();
    expect(screen.texts('.failure')).toEqual(['Give it a name with letters in it, such as “News story”.']);
    await screen.set('#type-label', 'Berth log', 'input');
    expect(screen.texts('.effect')).toEqual(['Its key: berth-log']);
    const kind = await harness.getHarness(MatSelectHarness.with({ selector: '#type-pageKind' }));
    await kind.open();
    await kind.clickOptions({ text: 'News page' });
    await screen.set('#type-icon', 'wheel', 'input');
    await submit();
    expect(answers).toEqual([expect.objectContaining({ id: 'berth-log', label: 'Berth log', icon: 'wheel', fields: [] })]);
  });

  test('a name typed faster than the screen is drawn loses no letter, wherever it catches up', async () => {
    const name = 'Bc d ef';
    const begins = [...name].map((_, at) => name.slice(0, at + 1));
    for (let caught = 0; caught < begins.length; caught++) {
      const { screen } = await ask({ from: null });
      const input = screen.find<HTMLInputElement>('#type-label');
      for (const [at, letter] of [...name].entries()) {
        input.value += letter;
        input.dispatchEvent(new Event('input', { bubbles: true }));
        if (at === caught) await screen.settle();
      }
      await screen.settle();
      expect([caught, input.value, screen.texts('.effect')]).toEqual([caught, name, ['Its key: bc-d-ef']]);
      TestBed.resetTestingModule();
    }
  });

  test('is not made twice, and a copy has the fields', async () => {
    const { screen, answers, submit } = await ask({ from: SITE.types[0]! });
    expect(screen.find<HTMLInputElement>('#type-label').value).toBe('Notice, a copy');
    await screen.set('#type-label', 'Notice', 'input');
    await submit();
    expect(screen.texts('.failure')[0]).toMatch(/There is already a content type that would be called “notice”/);
    await screen.set('#type-label', 'Warning', 'input');
    await submit();
    expect(answers[0]!.fields.map(({ key }) => key)).toEqual(['text', 'how']);
  });

  test('what a limit of versions would delete is told before anything is saved', async () => {
    const { screen, answers, submit } = await ask({ from: null, changed: SITE.types[0]! });
    screen.http.expectNone(({ url }) => url.includes('outdated-versions'));
    await screen.set('#type-versions-last', '5', 'input');
    screen.http.expectOne('/api/v1/types/notice/outdated-versions?last=5&public=true').flush({ versions: 1200, documents: 31 });
    await screen.settle();
    expect(screen.texts('.deleted')).toEqual(['1,200 earlier versions of 31 documents are deleted for good once the site is saved.']);
    await screen.set('#type-versions-days', '30', 'input');
    screen.http.expectOne('/api/v1/types/notice/outdated-versions?last=5&days=30&public=true').flush({ versions: 0, documents: 0 });
    await screen.settle();
    expect(screen.texts('.deleted')).toEqual(['Nothing is deleted by that now.']);
    await submit();
    expect(answers[0]!.versions).toEqual({ last: 5, days: 30, public: true });
  });

  test('keeps its key whatever it is called later, and does not show parts where it is published', async () => {
    const { screen, answers, submit, harness } = await ask({ from: null, changed: SITE.types[0]! });
    await screen.set('#type-label', 'News of the day', 'input');
    expect(screen.texts('.effect')).toEqual(['Its key: notice']);
    const parts = await harness.getAllHarnesses(MatCheckboxHarness);
    const labels = await Promise.all(parts.map((part) => part.getLabelText()));
    expect(labels.length).toBeGreaterThan(0);
    await parts[0]!.check();
    await submit();
    expect(answers[0]).toMatchObject({ id: 'notice', label: 'News of the day' });
    expect(answers[0]!.alsoOn).toHaveLength(1);
  });
});
