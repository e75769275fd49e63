import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { FitChart } from '../src/shared/chart/fit-chart';
import { FitPage } from '../src/features/fit/fit-page';
import type { Fit, FitStep } from '../src/features/fit/fit-store';
import { Screen } from './support';

const step = (at: number, more: Partial<FitStep> = {}): FitStep => ({
  allows: at === 0 ? [] : [`<e${at}>`, `class c${at} on <e${at}>`],
  risk: at * 4,
  rules: at * 2,
  whole: at * 30,
  kept: at * 0.3,
  isLeast: at !== 2,
  samples: at === 0 ? [] : [{ document: `doc-${at}`, field: 'body', title: `A text ${at}` }],
  ...more,
});
const FIT: Fit = {
  texts: 100,
  most: 90,
  steps: [step(0), step(1), step(2), step(3)],
  present: { profile: 'story-desk', edition: 4, risk: 20, rules: 11, whole: 55, kept: 0.55, estimate: null },
};
/** The chart draws in a browser only; the table says the same. */
beforeEach(() => TestBed.overrideComponent(FitChart, { set: { template: '', imports: [], providers: [] } }));

const wait = () => new Promise((done) => setTimeout(done));

async function open(inputs: Record<string, string> = {}, fit: Fit = FIT, query = 'profile=story-desk'): Promise<Screen<FitPage>> {
  const screen = await Screen.of(FitPage, { inputs: { id: 'story-desk', ...inputs } });
  screen.http.expectOne(`/api/v1/fit?${query}`).flush(fit);
  await wait();
  await screen.settle();
  return screen;
}
async function press(screen: Screen<FitPage>, selector: string, text: string): Promise<void> {
  const buttons = [...(screen.fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>(selector)];
  buttons.find((button) => button.textContent.includes(text))!.click();
  await screen.settle();
}
const words = (screen: Screen<FitPage>, selector: string): string => screen.texts(selector).join(' ').replace(/\s+/g, ' ');

describe('the least rules', () => {
  test('are told beside the profile: what it keeps, and what could be spared', async () => {
    const screen = await open();
    expect(words(screen, '.state')).toBe('100 texts90 can be whole under the house limits');
    expect(words(screen, '.right section:first-child')).toMatch(
      /Story desk, edition 4 It keeps 55\.0% whole with 11 rules of risk 20 ?\. Counted: 55 of 100 texts\. The same is possible with 7 rules fewer\./,
    );
    // The first step that keeps as many is open.
    expect(words(screen, '#step-heading')).toBe('Step 2: 60.0% whole');
    expect(words(screen, '.right')).toContain('Something of less risk may keep as many.');
    expect(screen.texts('.allows li')).toEqual(['<e2>', 'class c2 on <e2>']);
    expect(screen.texts('.samples a')).toEqual(['A text 2']);
    expect(screen.texts('td.mat-column-kept')).toEqual(['0.0%', '30.0%', '60.0%', '90.0%']);
    expect(screen.texts('td button')[0]).toBe('Nothing but text');
  });

  test('a number that could not be counted in time is told with its limits', async () => {
    const estimate = { least: 40, most: 80, cleaned: 20, open: 60 };
    const screen = await open({}, { ...FIT, present: { ...FIT.present!, estimate } });
    expect(words(screen, '.right section:first-child')).toMatch(
      /It keeps about 55\.0% whole .* Estimated: 20 of 60 texts were cleaned that what they hold cannot decide\. Between 40 and 80 are whole\./,
    );
  });

  test.each([
    ['As many need 4 rules more, told one by one.', { rules: 0 }],
    ['No fewer rules keep as many.', { rules: 4 }],
  ])('what cannot be spared is not said to be: %s', async (sentence, present) => {
    const screen = await open({}, { ...FIT, present: { ...FIT.present!, ...present } });
    expect(words(screen, '.spared')).toContain(sentence);
  });

  test('a step that is named in the address is open; another is gone to by its row', async () => {
    const screen = await open({ step: '3' });
    expect(words(screen, '#step-heading')).toBe('Step 3: 90.0% whole');
    const navigate = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    await press(screen, 'td button', '<e1>');
    expect(navigate).toHaveBeenCalledWith([], expect.objectContaining({ queryParams: { step: '1' } }));
  });

  test('texts of others, of a type, a field or a role are asked for as the address says', async () => {
    const screen = await open(
      { of: 'all', type: 'notice', field: 'body', role: 'editor' },
      { ...FIT, texts: 0, most: 0, steps: [step(0)] },
      'beside=story-desk&type=notice&field=body&role=editor',
    );
    expect(words(screen, '.empty')).toBe('There are no such texts. Choose others above.');
  });

  test('what fails is told', async () => {
    const screen = await Screen.of(FitPage, { inputs: { id: 'story-desk' } });
    screen.http
      .expectOne('/api/v1/fit?profile=story-desk')
      .flush({ title: 'No', status: 503, detail: 'It took too long.' }, { status: 503, statusText: 'No' });
    await wait();
    await screen.settle();
    expect(words(screen, '[role=alert]')).toContain('What texts need cannot be counted. It took too long.');
  });

  test('a step becomes a profile under a name of its own', async () => {
    const screen = await open();
    await press(screen, 'button', 'Make a profile of it');
    const dialog = TestBed.inject(MatDialog).openDialogs[0]!;
    const form = dialog.componentInstance as {
      form: { setValue(value: { name: string }): void };
      make(): Promise<void>;
      failure(): string;
    };
    form.form.setValue({ name: 'Story desk' });
    await form.make();
    expect(form.failure()).toMatch(/already a profile that would be called “story-desk”/);
    form.form.setValue({ name: 'Least' });
    const made = form.make();
    screen.http
      .expectOne('/api/v1/fit/profile?profile=story-desk&step=2&name=Least')
      .flush({ document: { format: 'typikon-profile/1', name: 'Least' }, whole: 60, texts: 100 });
    await wait();
    const navigate = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    const asked = screen.http.expectOne({ method: 'POST', url: '/api/v1/profiles' });
    const { document } = asked.request.body as { document: object };
    expect(asked.request.body).toEqual({ id: 'least', document: { format: 'typikon-profile/1', name: 'Least' } });
    asked.flush({ id: 'least', document, revision: 1, updatedAt: '2026-11-01T09:00:00.000Z' }, { headers: { ETag: '"1"' } });
    await made;
    expect(navigate).toHaveBeenCalledWith(['/profiles', 'least']);
  });
});
