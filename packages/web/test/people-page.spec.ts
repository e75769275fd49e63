import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { RIGHTS, siteSchema, type Site } from '@typikon/core';
import { of } from 'rxjs';
import { PeoplePage } from '../src/features/people/people-page';
import { SiteStore } from '../src/state/site';
import { Screen } from './support';

const EMPTY: Site = siteSchema.parse({ format: 'typikon-site/1' });
const SMALL: Site = siteSchema.parse({
  format: 'typikon-site/1',
  roles: [
    { id: 'web-team', label: 'Web team', rights: [...RIGHTS] },
    { id: 'desk', label: 'Story desk' },
  ],
  people: [
    { id: 'isa', label: 'Isa', roles: ['web-team'] },
    { id: 'tom', label: 'Tom', roles: ['desk'] },
  ],
  assignments: [
    { roles: ['desk'], types: '*', fields: '*', profiles: ['house'] },
    { roles: ['desk', 'web-team'], types: '*', fields: '*', profiles: ['reply'] },
  ],
});

async function open(site: Site): Promise<{ screen: Screen<PeoplePage>; draft: () => Site }> {
  const screen = await Screen.of(PeoplePage);
  screen.http.expectOne('/api/v1/site/draft').flush(site, { headers: { etag: '"1"' } });
  const store = TestBed.inject(SiteStore);
  // What is read goes through promises that the screen does not wait for.
  while (store.status() === 'loading') await new Promise((done) => setTimeout(done));
  await screen.settle();
  return { screen, draft: () => store.draft()! };
}
const add = async (screen: Screen<PeoplePage>, what: 'role' | 'person', name: string): Promise<void> => {
  await screen.set(`input[aria-label="Name of a new ${what}"]`, name, 'input');
  await screen.click(`form.new:has([aria-label="Name of a new ${what}"]) button`);
};

test('before the site was read nothing is said to be missing, and nothing can be typed that would be lost', async () => {
  const screen = await Screen.of(PeoplePage);
  expect(screen.texts('ty-site-opening')).toEqual(['Opening the site …']);
  expect(screen.texts('.none, input, ty-site-state [role=status]').filter((words) => words !== '')).toEqual([]);
  screen.http.expectOne('/api/v1/site/draft').error(new ProgressEvent('error'));
  const store = TestBed.inject(SiteStore);
  while (store.status() === 'loading') await new Promise((done) => setTimeout(done));
  await screen.settle();
  expect(screen.texts('ty-site-opening [role=alert]')[0]).toMatch(/^The site cannot be read\./);
  await screen.click('ty-site-opening button');
  screen.http.expectOne('/api/v1/site/draft').flush(SMALL, { headers: { etag: '"1"' } });
  while (store.status() === 'loading') await new Promise((done) => setTimeout(done));
  await screen.settle();
  expect(screen.texts('ty-site-opening')).toEqual([]);
  expect(screen.texts('mat-panel-title')).toEqual(['Web team', 'Story desk']);
});

test('the first role may do everything, and the first person has it', async () => {
  const { screen, draft } = await open(EMPTY);
  await add(screen, 'role', 'Web team');
  await add(screen, 'person', 'Isa Wren');
  expect(draft().roles).toEqual([{ id: 'web-team', label: 'Web team', description: '', rights: [...RIGHTS] }]);
  expect(draft().people).toEqual([{ id: 'isa-wren', label: 'Isa Wren', roles: ['web-team'] }]);
  await add(screen, 'role', 'Story desk');
  expect(draft().roles[1]!.rights).toEqual(['read', 'write']);
  expect(screen.texts('.warning')).toEqual([]);
});

test('a second one of a name has a key of its own, and one without letters is refused', async () => {
  const { screen, draft } = await open(SMALL);
  await add(screen, 'person', 'Tom');
  await add(screen, 'person', '…');
  expect(draft().people.map(({ id }) => id)).toEqual(['isa', 'tom', 'tom-2']);
  expect(screen.texts('.ty-failure')).toEqual(['A name needs letters in it, at most 120 of them.']);
});

test('a site that nobody could change again is told before it is saved', async () => {
  const { screen, draft } = await open(SMALL);
  await screen.click('tbody tr:first-child .mat-column-more button');
  expect(draft().people.map(({ id }) => id)).toEqual(['tom']);
  expect(screen.texts('.warning')[0]).toMatch(/Nobody here could change this again/);
});

test('people are found by name and by role', async () => {
  const { screen } = await open(SMALL);
  await screen.set('.find input', 'story', 'input');
  expect(screen.texts('header [role=status]')).toEqual(['1 of 2']);
  await screen.set('.find input', 'nobody at all', 'input');
  expect(screen.texts('.people .none')).toEqual(['Nobody is called so, or has such a role.']);
});

test('a name is changed, and an empty one is not taken', async () => {
  const { screen, draft } = await open(SMALL);
  await screen.set('input[aria-label="Name of Tom"]', 'Tom Hallow', 'change');
  expect(draft().people[1]!.label).toBe('Tom Hallow');
  await screen.set('input[aria-label="Name of Tom Hallow"]', '   ', 'change');
  expect(draft().people[1]!.label).toBe('Tom Hallow');
});

test('a role that is taken away is had by nobody, and statements that named it alone go', async () => {
  const { screen, draft } = await open(SMALL);
  const asked = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({ afterClosed: () => of('yes') } as never);
  await screen.click('mat-expansion-panel:nth-of-type(2) mat-expansion-panel-header');
  await screen.click('mat-expansion-panel:nth-of-type(2) button');
  expect((asked.mock.calls[0]![1] as { data: { text: string } }).data.text).toMatch(/^One person has it, and 2 statements name it\./);
  expect(draft().roles.map(({ id }) => id)).toEqual(['web-team']);
  expect(draft().assignments.map(({ roles }) => roles)).toEqual([['web-team']]);
  expect(draft().people[1]!.roles).toEqual([]);
});

test('what a role is called and may do is changed in its form; a role without a name is not', async () => {
  const { screen, draft } = await open(SMALL);
  await screen.click('mat-expansion-panel:nth-of-type(2) mat-expansion-panel-header');
  await screen.set('#role-desk-label', 'News desk', 'input');
  await screen.click('mat-checkbox:nth-of-type(3) input');
  expect(draft().roles[1]).toEqual({ id: 'desk', label: 'News desk', description: '', rights: ['read', 'write', 'design'] });
  await screen.set('#role-desk-label', '');
  expect(draft().roles[1]!.label).toBe('News desk');
  expect(screen.texts('#role-desk-label ~ .mistake, .line:has(#role-desk-label) .mistake')).toEqual(['Name: it must not be empty.']);
});
