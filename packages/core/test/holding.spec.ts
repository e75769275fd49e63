import fc from 'fast-check';
import {
  clean,
  comparePasses,
  compareRules,
  compileRules,
  holdingOf,
  resolveProfile,
  type ComparedSide,
  type JsonObject,
} from '../src/index';
import { runs } from './fixed-seed';
import { randomContent } from './random-content';
import { randomRules } from './random-rules';
import { DEMO_PROFILES, demoHouse, demoProfile } from './support';

jest.setTimeout(120_000);

function sideOf(name: string, markup: JsonObject): ComparedSide {
  const resolution = resolveProfile(name, () => ({ format: 'typikon-profile/1', name, markup }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return { profile: resolution.resolved.profile, rules: compileRules(resolution.resolved), name };
}

/** The things of a comparison that a text holds, as their lines say it up to the colon. */
function held(from: JsonObject, to: JsonObject, html: string): string[] {
  const sides = [sideOf('A', from), sideOf('B', to)] as const;
  const lines = compareRules(...sides);
  const holds = holdingOf(lines, ...sides)(html);
  return lines.flatMap(({ sentence }, at) => (holds[at] === true ? [sentence.replace(/:[^:]*$/, '').replace(/: A .*/, '')] : []));
}

describe('what a text holds of a comparison', () => {
  const P = { p: {} };
  const link = (schemes: string[]) => ({
    elements: { ...P, a: { attributes: { href: { test: 'url' } } } },
    urls: { schemes: { href: schemes } },
  });
  const style = (values: string[]) => ({
    elements: { p: { attributes: { style: { test: 'style', properties: { 'text-align': { test: 'list', values } } } } } },
  });
  const note = (values: string[]) => ({ elements: { p: { attributes: { class: { test: 'tokens', values } } } } });
  test.each<[string, JsonObject, JsonObject, string, string[]]>([
    ['an element', { elements: { ...P, table: {} } }, { elements: P }, '<table><tr><td>a</td></tr></table>', ['<table>']],
    ['an element that is not there', { elements: { ...P, table: {} } }, { elements: P }, '<p>table</p>', []],
    [
      'an element that no rule names',
      { elements: P, unlisted: 'drop' },
      { elements: P },
      '<p><x-chart>a</x-chart></p>',
      ['Elements without a rule, such as <x-other>'],
    ],
    ['an element that a rule names', { elements: P, unlisted: 'drop' }, { elements: P }, '<p>a</p>', []],
    [
      'an attribute',
      { elements: { p: { attributes: { title: { test: 'text' } } } } },
      { elements: P },
      '<p title="x">a</p>',
      ['title on <p>'],
    ],
    ['the class of a line', note(['lead', 'note']), note(['note']), '<p class="wide lead">a</p>', ['The class “lead” on <p>']],
    ['a class that both keep or neither', note(['lead', 'note']), note(['note']), '<p class="wide note">a</p>', []],
    [
      'another value than the example',
      style(['center', 'right']),
      style(['center']),
      '<p style="text-align:right">a</p>',
      ['text-align: right in the style of <p>'],
    ],
    ['a value that both keep', style(['center', 'right']), style(['center']), '<p style="text-align:center">a</p>', []],
    [
      'a demand',
      {
        elements: { ...P, img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } }, required: { alt: { otherwise: 'drop' } } } },
      },
      { elements: { ...P, img: { attributes: { src: { test: 'url' }, alt: { test: 'text' } } } } },
      '<p><img src="/a.png"></p>',
      ['<img> without alt'],
    ],
    ['a limit that is passed', { elements: P, limits: { letters: 5 } }, { elements: P }, '<p>more letters</p>', ['More than 5 letters']],
    ['a limit that is not passed', { elements: P, limits: { letters: 5 } }, { elements: P }, '<p>few</p>', []],
    ['comments', { elements: P, comments: 'keep' }, { elements: P }, '<p>a</p><!-- b -->', ['Comments']],
  ])('%s', (_what, from, to, html, things) => expect(held(from, to, html)).toEqual(things));

  test('an address of which one side leaves more, whatever its example is', () => {
    const all = held(link(['https', 'mailto', 'tel']), link(['https']), '<p><a href="tel:555">a</a></p>');
    expect(all.length).toBeGreaterThan(0);
    expect(held(link(['https', 'mailto', 'tel']), link(['https']), '<p><a href="https://a.example/">a</a></p>')).toEqual([]);
  });

  test('passes act on what is pasted: of stored texts nothing is said', () => {
    const [from, to] = [sideOf('A', { elements: P }), sideOf('B', { elements: P })];
    const passes = { ...to.profile.paste.passes, typography: { ...to.profile.paste.passes.typography, on: true } };
    const other = { ...to, profile: { ...to.profile, paste: { ...to.profile.paste, passes } } };
    const lines = comparePasses(from, other);
    expect(lines.length).toBeGreaterThan(0);
    expect(holdingOf(lines, from, other)('<p>a&nbsp;b</p>')).toEqual(lines.map(() => null));
  });
});

describe('laws', () => {
  const ofDemo = DEMO_PROFILES.map((id) => {
    const resolved = demoProfile(id);
    return { profile: resolved.profile, rules: compileRules(resolved, { house: demoHouse() }), name: id };
  });

  test('every example holds the thing of its line', () => {
    for (const from of ofDemo)
      for (const to of ofDemo) {
        const lines = compareRules(from, to, demoHouse());
        const holds = holdingOf(lines, from, to);
        lines.forEach(({ witness, sentence }, at) => expect([sentence, holds(witness)[at]]).toEqual([sentence, true]));
      }
  });

  test('every example of random rules holds the thing of its line', () =>
    fc.assert(
      fc.property(randomRules, randomRules, (one, other) => {
        const sides = [one, other].map(({ resolved }, at) => ({
          profile: resolved.profile,
          rules: compileRules(resolved, one.house && { house: one.house }),
          name: 'AB'[at]!,
        })) as [ComparedSide, ComparedSide];
        const lines = compareRules(...sides, one.house);
        const holds = holdingOf(lines, ...sides);
        lines.forEach(({ witness, sentence }, at) => expect([sentence, holds(witness)[at]]).toEqual([sentence, true]));
      }),
      { numRuns: 8 },
    ));

  test('a text that holds nothing of any line is cleaned alike by both', () => {
    let alike = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...ofDemo),
        fc.constantFrom(...ofDemo),
        fc.array(randomContent, { maxLength: 8 }),
        (from, to, contents) => {
          const holds = holdingOf(compareRules(from, to, demoHouse()), from, to);
          for (const html of contents) {
            if (holds(html).some((one) => one === true)) continue;
            alike++;
            expect([html, clean(html, from.rules).html]).toEqual([html, clean(html, to.rules).html]);
          }
        },
      ),
      { numRuns: runs(60) },
    );
    expect(alike).toBeGreaterThan(20);
  });
});
