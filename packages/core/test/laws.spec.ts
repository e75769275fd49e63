import fc from 'fast-check';
import {
  clean,
  cleanWithoutLedger,
  compileRules,
  firstDifference,
  fromPointer,
  isSurelyStable,
  parseFragment,
  SAFETY_FLOOR,
  serialize,
  valueAt,
  visibleLetters,
  type CompiledRules,
  type Json,
  type LedgerEntry,
} from '../src/index';
import { excesses } from './excesses';
import { HOSTILE_MARKUP } from './hostile-markup';
import { mostPermissive } from './most-permissive';
import { randomRules } from './random-rules';
import { replay } from './replay';
import { tangledMarkup, wellFormedMarkup } from './tangled-markup';
import { DEMO_MARKUP, DEMO_PROFILES, demoHouse, demoProfile, demoRules } from './support';
import { runs } from './fixed-seed';

const house = demoHouse();
const RULES: [string, CompiledRules][] = [
  ...DEMO_PROFILES.map((id): [string, CompiledRules] => [id, demoRules(id, { house })]),
  ['most permissive', mostPermissive()],
];

const FORBIDDEN = new Set<string>(SAFETY_FLOOR.elements.drop);

/** Everything that no output may hold, whatever the rules say. */
function violations(html: string): string[] {
  const found: string[] = [];
  const visit = (nodes: ReturnType<typeof parseFragment>['root']['children']): void => {
    for (const node of nodes) {
      if (node.type !== 'element') continue;
      if (FORBIDDEN.has(node.name) || node.namespace !== 'http://www.w3.org/1999/xhtml') found.push(node.name);
      for (const { name, value } of node.attributes) {
        if (name.startsWith('on') || name === 'srcdoc' || name === 'formaction') found.push(`${node.name}[${name}]`);
        if (name === 'style' && /url|expression|position:fixed|[\\@{}]|\/\*/i.test(value)) found.push(`${node.name}[style=${value}]`);
        if (
          ['href', 'src', 'action'].includes(name) &&
          /^[\s\0-\x20]*(javascript|vbscript|data:text)/i.test(value.replace(/[\t\n\r]/g, ''))
        )
          found.push(`${node.name}[${name}=${value}]`);
      }
      visit(node.children);
    }
  };
  visit(parseFragment(html).root.children);
  return found;
}

function holdsLaws(html: string, rules: CompiledRules): void {
  const once = clean(html, rules);
  const parsedAgain = parseFragment(once.html).root;
  expect(firstDifference(once.root, parsedAgain)).toBeNull();
  const twice = clean(once.html, rules);
  expect(twice.html).toBe(once.html);
  expect(twice.ledger).toEqual([]);
  expect(violations(once.html)).toEqual([]);
  expect(cleanWithoutLedger(html, rules)).toBe(once.html);
  const lost = once.ledger.reduce((sum, { textLost }) => sum + textLost, 0);
  const shownTags = once.ledger.filter(({ action }) => action === 'shown-as-text').length;
  if (shownTags === 0) expect(visibleLetters(once.root) + lost).toBe(visibleLetters(parseFragment(html).root));
}

describe.each(RULES)('%s', (_id, rules) => {
  test.each(DEMO_MARKUP.map(({ name, html }): [string, string] => [name, html]))('%s', (_name, html) => holdsLaws(html, rules));

  test('hostile markup', () => {
    for (const html of HOSTILE_MARKUP) holdsLaws(html, rules);
  });

  test('tangled markup', () => {
    fc.assert(
      fc.property(tangledMarkup, (html) => holdsLaws(html, rules)),
      { numRuns: runs(120) },
    );
  });
});

describe('the ledger replayed on the input gives the output', () => {
  const isPlain = ({ stage, reason, action, before }: LedgerEntry): boolean =>
    (stage === 'markup' || reason === 'attribute-repeated') &&
    // What is left of a style is written anew.
    reason !== 'style-forbidden' &&
    action !== 'shown-as-text' &&
    action !== 'restructured' &&
    !before.endsWith('…');
  const holds = (html: string, rules: CompiledRules): boolean => {
    const { root, ledger } = clean(html, rules);
    // What the parser itself left out or put in order has no edit of its own.
    if (!ledger.every(isPlain)) return false;
    expect(firstDifference(root, parseFragment(replay(html, ledger)).root)).toBeNull();
    return true;
  };
  test('for the demo', () => {
    let held = 0;
    for (const [, rules] of RULES) for (const { html } of DEMO_MARKUP) if (holds(html, rules)) held++;
    expect(held).toBeGreaterThan(100);
  });
  test('for markup that is well formed', () => {
    let held = 0;
    fc.assert(
      fc.property(wellFormedMarkup, fc.integer({ min: 0, max: RULES.length - 2 }), (html, index) => {
        if (holds(html, RULES[index]![1])) held++;
      }),
      { numRuns: runs(800) },
    );
    expect(held).toBeGreaterThan(runs(500));
  });
});

test('any rules, tangled markup', () => {
  fc.assert(
    fc.property(randomRules, tangledMarkup, ({ resolved, house }, html) => {
      const rules = compileRules(resolved, house === undefined ? {} : { house });
      holdsLaws(html, rules);
      expect(excesses(clean(html, rules).html, resolved, house)).toEqual([]);
    }),
    { numRuns: runs(900) },
  );
});

test('every entry points at a rule that is there', () => {
  const inputs = [...DEMO_MARKUP.map(({ html }) => html), ...HOSTILE_MARKUP];
  for (const id of DEMO_PROFILES) {
    const { profile } = demoProfile(id);
    const documents: Record<string, Json> = {
      'safety-floor': SAFETY_FLOOR as unknown as Json,
      'house-limits': house,
      'parent-profile': profile,
      profile,
    };
    const rules = demoRules(id, { house });
    const named = new Set(inputs.flatMap((html) => clean(html, rules).ledger.map(({ layer, rule }) => `${layer} ${rule}`)));
    for (const one of named) {
      const [layer, rule] = [one.slice(0, one.indexOf(' ')), one.slice(one.indexOf(' ') + 1)];
      if (layer === 'html-standard') expect(rule).toBe('');
      else expect([layer, rule, valueAt(documents[layer], fromPointer(rule))]).not.toContain(undefined);
    }
  }
});

test('a tree that is called stable is read back as it was written', () => {
  fc.assert(
    fc.property(tangledMarkup, (html) => {
      const { root } = parseFragment(html);
      if (isSurelyStable(root)) expect(firstDifference(root, parseFragment(serialize(root)).root)).toBeNull();
    }),
    { numRuns: runs(800) },
  );
});

test('every entry lies inside the input', () => {
  fc.assert(
    fc.property(tangledMarkup, (html) => {
      for (const { start, end, line, column } of clean(html, RULES[0]![1]).ledger) {
        expect(start).toBeGreaterThanOrEqual(0);
        expect(end).toBeGreaterThanOrEqual(start);
        expect(end).toBeLessThanOrEqual(html.length);
        expect(line).toBeGreaterThan(0);
        expect(column).toBeGreaterThan(0);
      }
    }),
    { numRuns: runs(500) },
  );
});
