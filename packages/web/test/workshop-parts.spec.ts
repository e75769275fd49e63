import { ChangeDetectionStrategy, Component, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { WORKSHOP_PARTS, type WorkshopParts } from '../src/features/workshop/parts';
import { Workshop } from '../src/features/workshop/workshop';
import type { Chapter } from '../src/state/workshop.actions';
import { Screen } from './support';

@Component({ selector: 'ty-some-bench', template: 'bench', changeDetection: ChangeDetectionStrategy.OnPush })
class SomeBench {}
@Component({ selector: 'ty-some-chapter', template: 'the rules', changeDetection: ChangeDetectionStrategy.OnPush })
class SomeChapter {}

/** The workshop with chapters that come when they are asked for, or do not. */
async function open() {
  const asked: Chapter[] = [];
  const down = new Set<Chapter>();
  const load = (chapter: Chapter) => (): Promise<Type<unknown>> => {
    asked.push(chapter);
    return down.has(chapter) ? Promise.reject(new TypeError('Failed to fetch')) : Promise.resolve(SomeChapter);
  };
  const names: Chapter[] = ['toolbar', 'markup', 'paste', 'styles', 'surface', 'help', 'findings'];
  const parts: WorkshopParts = {
    bench: SomeBench,
    chapters: Object.fromEntries(names.map((name) => [name, load(name)])) as unknown as WorkshopParts['chapters'],
  };
  TestBed.configureTestingModule({ providers: [{ provide: WORKSHOP_PARTS, useValue: parts }] });
  const screen = await Screen.of(Workshop, { inputs: { id: 'story-desk' } });
  const settled = async () => {
    await new Promise((done) => setTimeout(done));
    await screen.settle();
  };
  await settled();
  return { screen, asked, down, settled };
}

test('a chapter is loaded once, when it is first opened', async () => {
  const { screen, asked, settled } = await open();
  expect(screen.texts('#chapter-panel ty-some-chapter')).toEqual(['the rules']);
  expect(screen.texts('ty-some-bench')).toEqual(['bench']);
  for (const chapter of ['paste', 'markup', 'paste']) {
    await screen.click(`#chapter-tab-${chapter}`);
    await settled();
  }
  expect(asked).toEqual(['markup', 'paste']);
  expect(screen.find('#chapter-panel').getAttribute('aria-busy')).toBe('false');
});

test('one that does not come is told, and asked for again', async () => {
  const { screen, asked, down, settled } = await open();
  down.add('styles');
  await screen.click('#chapter-tab-styles');
  await settled();
  expect(screen.texts('#chapter-panel [role=alert]')[0]).toMatch(/^This chapter could not be loaded/);
  expect(screen.has('ty-some-chapter')).toBe(false);
  down.delete('styles');
  await screen.click('#chapter-panel [role=alert] button');
  await settled();
  expect(screen.has('#chapter-panel [role=alert]')).toBe(false);
  expect(screen.texts('#chapter-panel ty-some-chapter')).toEqual(['the rules']);
  expect(asked).toEqual(['markup', 'styles', 'styles']);
});
