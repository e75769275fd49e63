import {
  clean,
  cloneFragment,
  compileRules,
  parseFragment,
  PASS_IDS,
  renderedText,
  runPaste,
  type ParsedFragment,
  type PassId,
  type ResolvedProfile,
} from '../src/index';
import { cleanParsed } from '../src/markup/clean';
import { steps } from '../src/html/steps';
import { LONG_SHAPES, NESTED_SHAPES } from './long-shapes';
import { demoProfile, demoRules } from './support';

/* Counted in nodes looked at, so that it does not depend on the clock or the machine. */

/** How often the piece of a shape is repeated; of nested ones to more levels than any limit, so that both contents meet the same rules. */
const SHORT = 40;
const SHORT_NESTED = 110;
const FACTOR = 8;
const MOST_GROWTH = 10;

const desk = demoProfile('notices-desk');
const rules = compileRules(desk);

/** The profile with one pass alone, for every source. */
function onlyWith(pass: PassId): ResolvedProfile {
  const profile = structuredClone(desk.profile);
  for (const id of PASS_IDS) {
    profile.paste.passes[id].on = id === pass;
    delete profile.paste.passes[id].sources;
  }
  profile.paste.passes.headings.boldOnly = true;
  profile.paste.passes.elements.unwrap = ['div', 'section', 'li'];
  return { ...desk, profile };
}

function countOf(work: () => void): number {
  const before = steps.taken;
  work();
  return steps.taken - before;
}

/** Every shape, short and long, read once for all tests. */
const CONTENTS = Object.entries(LONG_SHAPES).map(([name, make]) => {
  const n = NESTED_SHAPES.includes(name) ? SHORT_NESTED : SHORT;
  return { name, short: parseFragment(make(n)), long: parseFragment(make(n * FACTOR)) };
});

/** What grows more than the content does, of some shapes. */
function growing(work: (content: ParsedFragment) => void, contents = CONTENTS): string[] {
  return contents.flatMap(({ name, short, long }) => {
    const growth =
      countOf(() => work(long)) /
      Math.max(
        1,
        countOf(() => work(short)),
      );
    return growth > MOST_GROWTH ? [`${name}: ${growth.toFixed(1)} times`] : [];
  });
}

describe('eight times the content takes at most ten times as long', () => {
  test.each(PASS_IDS)('the pass %s', (id) => {
    const resolved = onlyWith(id);
    expect(growing((parsed) => void runPaste({ types: {} }, resolved, { rules, parsed, source: 'pdf-viewer' }))).toEqual([]);
  });
  test.each(['headings', 'office-leftovers'] as const)('the pass %s, for a word processor', (id) => {
    const resolved = onlyWith(id);
    expect(growing((parsed) => void runPaste({ types: {} }, resolved, { rules, parsed, source: 'word-processor' }))).toEqual([]);
  });
  test.each(['story-desk', 'reply', 'ferry-note'])('the rules of %s', (id) => {
    const compiled = demoRules(id);
    expect(growing((parsed) => void cleanParsed(cloneFragment(parsed), compiled))).toEqual([]);
  });
  test('rendered text', () => expect(growing(({ root }) => void renderedText(root))).toEqual([]));
  test('a square would be seen', () => {
    const square = ({ root }: ParsedFragment): void => {
      for (let i = 0; i < root.children.length; i++) for (const child of root.children) renderedText(child);
    };
    expect(growing(square, [CONTENTS.find(({ short }) => short.root.children.length > 20)!])).toHaveLength(1);
  });
});

describe('nesting of any depth', () => {
  const AS_DEEP_AS_CAN_BE = ['div in div', 'deletion in deletion'];
  test.each([
    ...NESTED_SHAPES.map((name): [string, number] => [name, 5000]),
    ...AS_DEEP_AS_CAN_BE.map((name): [string, number] => [name, 40_000]),
  ])('%s, %i deep', (name, deep) => {
    const html = LONG_SHAPES[name]!(deep);
    const { html: out } = runPaste({ types: { 'text/html': html } }, desk, { rules });
    expect(clean(out, rules).html).toBe(out);
  });
});
