import type { Authority } from '../ledger/ledger';
import { toPointer } from '../profile/pointer';
import { originOf, type ResolvedProfile } from '../profile/resolve';
import type { AttributeTest, ElementRule, Markup } from '../profile/schema';
import { compileTest, type TestContext } from './attribute-test';
import type { CompiledTest } from './verdict';
import type {
  BoundTest,
  CompiledAttribute,
  CompiledElement,
  CompiledRules,
  CompileOptions,
  Demands,
  HeadingPolicy,
  Limit,
  Outcome,
} from './compiled';
import { isAttributeForbidden, SAFETY_FLOOR, URL_ATTRIBUTES } from './floor';
import { IMPLIED_BY } from './parts';
import { floorStyleTest } from './inline-style';
import { styleClassesOf } from './style-classes';

const floorDrops: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.drop);
const floorUnwraps: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.unwrap);
const sandboxTokens: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.sandboxTokens);
const openers: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.rel);
const NO_ATTRIBUTES: ReadonlyMap<string, CompiledAttribute> = new Map();

/** Names from the content that are remembered. */
const MOST_CACHED = 1000;

/** Attributes that hold words: what is forced on them is added to what is there. */
const WORD_ATTRIBUTES: ReadonlySet<string> = new Set(['class', 'rel', 'sandbox', 'headers', 'itemprop']);

const FRAME_SANDBOX = SAFETY_FLOOR.frame.sandbox;
const FLOOR_FRAME: Authority = { layer: 'safety-floor', rule: '/frame/sandbox' };

const HEADING_LEVELS = [1, 2, 3, 4, 5, 6] as const;

/**
 * Compiles the markup rules of a resolved profile under the house limits and the safety floor.
 *
 * @param resolved the profile with all it inherits
 * @param options the ceiling and the role it binds; without house limits only the floor stands above the profile
 */
export function compileRules(resolved: ResolvedProfile, options: CompileOptions = {}): CompiledRules {
  const compiler = new Compiler(resolved, options);
  const cache = new Map<string, CompiledElement>();
  const element = (name: string): CompiledElement => {
    let compiled = cache.get(name);
    if (compiled === undefined) {
      compiled = compiler.element(name);
      // Names that no rule mentions come from the content, so the cache must not grow with it without bound.
      if (cache.size < MOST_CACHED || compiler.isNamed(name)) cache.set(name, compiled);
    }
    return compiled;
  };
  const { markup } = resolved.profile;
  const comments = compiler.strictest(['comments'], ['keep', 'drop']);
  const hardSpaces = compiler.strictest(['text', 'hardSpaces'], ['keep', 'meaningful', 'plain']);
  const emptyParagraphs = compiler.strictest(['text', 'emptyParagraphs'], ['keep', 'one', 'remove']);
  const kept = new Set(Object.keys(markup.elements).filter((name) => element(name).outcome === 'keep' && element(name).name === name));
  return {
    element,
    foreign: { ...element('svg'), outcome: 'drop', by: { layer: 'safety-floor', rule: '/foreign' }, reason: 'element-forbidden' },
    comments: { keep: comments.value === 'keep', by: comments.by },
    nesting: compiler.limit(['limits', 'nesting'])!,
    elements: compiler.limit(['limits', 'elements']),
    letters: compiler.limit(['limits', 'letters']),
    headings: compiler.headings(element),
    ids: compiler.ids(),
    hardSpaces: hardSpaces.value === 'keep' ? null : { keep: hardSpaces.value === 'plain' ? 'none' : 'meaningful', by: hardSpaces.by },
    emptyParagraphs:
      emptyParagraphs.value === 'keep' ? null : { keep: emptyParagraphs.value === 'remove' ? 'none' : 'one', by: emptyParagraphs.by },
    seesEmpty: emptyParagraphs.value !== 'keep' || [...kept].some((name) => element(name).demands?.empty != null),
    output: compiler.output(),
    kept,
  };
}

class Compiler {
  private readonly markup: Markup;
  private readonly house: Markup | undefined;
  private readonly exceptions: readonly string[];
  private readonly unlisted: CompiledElement;
  private readonly styleClasses: ReadonlySet<string>;

  constructor(
    private readonly resolved: ResolvedProfile,
    { house, role }: CompileOptions,
  ) {
    this.markup = resolved.profile.markup;
    this.house = house?.markup;
    this.exceptions = (role === undefined ? undefined : house?.trustedRoles[role]?.except) ?? [];
    this.unlisted = this.gone(this.markup.unlisted, this.byProfile(['unlisted']), 'element-not-allowed');
    this.styleClasses = styleClassesOf(resolved.profile);
  }

  isNamed(name: string): boolean {
    return Object.hasOwn(this.markup.elements, name) || floorDrops.has(name) || floorUnwraps.has(name);
  }

  private isExcepted(pointer: string): boolean {
    return this.exceptions.some((exception) => pointer === exception || pointer.startsWith(`${exception}/`));
  }

  private byProfile(keys: readonly string[]): Authority {
    const rule = toPointer(['markup', ...keys]);
    const origin = originOf(this.resolved.chain, rule) ?? this.resolved.id;
    return { layer: origin === this.resolved.id ? 'profile' : 'parent-profile', rule, origin };
  }

  private byHouse(keys: readonly string[]): Authority {
    return { layer: 'house-limits', rule: toPointer(['markup', ...keys]) };
  }

  /** The house limits as far as they bind at a path; undefined where they do not. */
  private houseAt(keys: readonly string[]): Markup | undefined {
    return this.house === undefined || this.isExcepted(toPointer(keys)) ? undefined : this.house;
  }

  /** Of a setting with grades, from the most lenient to the strictest, the stricter one of the profile's and the house's. */
  strictest<Grade extends string>(keys: readonly string[], grades: readonly Grade[]): { value: Grade; by: Authority } {
    const own = read(this.markup, keys) as Grade;
    const house = this.houseAt(keys);
    const ceiling = house === undefined ? undefined : (read(house, keys) as Grade);
    return ceiling !== undefined && grades.indexOf(ceiling) > grades.indexOf(own)
      ? { value: ceiling, by: this.byHouse(keys) }
      : { value: own, by: this.byProfile(keys) };
  }

  /** The smaller one of two limits; null where there is none. */
  limit(keys: readonly string[]): Limit | null {
    const own = read(this.markup, keys) as number | undefined;
    const house = this.houseAt(keys);
    const ceiling = house === undefined ? undefined : (read(house, keys) as number | undefined);
    if (ceiling !== undefined && (own === undefined || ceiling < own)) return { limit: ceiling, by: this.byHouse(keys) };
    return own === undefined ? null : { limit: own, by: this.byProfile(keys) };
  }

  ids(): CompiledRules['ids'] {
    const keys = ['ids', 'prefix'];
    const ceiling = this.houseAt(keys)?.ids.prefix ?? '';
    if (ceiling !== '' && !this.markup.ids.prefix.startsWith(ceiling)) return { prefix: ceiling, by: this.byHouse(keys) };
    return this.markup.ids.prefix === '' ? null : { prefix: this.markup.ids.prefix, by: this.byProfile(keys) };
  }

  output(): CompiledRules['output'] {
    const { characters, layout } = this.markup.output;
    const house = this.house?.output;
    return {
      characters: house === undefined || house.characters === 'raw' ? characters : house.characters,
      layout: house === undefined || house.layout === 'as-is' ? layout : house.layout,
    };
  }

  headings(element: (name: string) => CompiledElement): HeadingPolicy | null {
    const keys = ['headings', 'others'];
    const house = this.houseAt(keys)?.headings;
    const isHouses = house !== undefined && house.others !== 'by-element';
    const { others, top } = isHouses ? house : this.markup.headings;
    if (others === 'by-element') return null;
    const levels = HEADING_LEVELS.filter((level) => {
      const rule = element(`h${level}`);
      return rule.outcome === 'keep' && rule.name === `h${level}`;
    });
    if (levels.length === 0 && others !== 'paragraph') return null;
    const by = isHouses ? this.byHouse(keys) : this.byProfile(keys);
    if (others === 'paragraph' && element('p').outcome !== 'keep') return null;
    return { others, top: levels.length === 0 ? top : nearestLevel(levels, top), by, levels };
  }

  element(name: string, renamedFrom: readonly string[] = []): CompiledElement {
    if (floorDrops.has(name)) return this.gone('drop', { layer: 'safety-floor', rule: '/elements/drop' }, 'element-forbidden');
    if (floorUnwraps.has(name)) return this.gone('unwrap', { layer: 'safety-floor', rule: '/elements/unwrap' }, 'element-forbidden');
    const rule = Object.hasOwn(this.markup.elements, name) ? this.markup.elements[name] : undefined;
    const outcome = rule?.outcome ?? 'keep';
    const isHouseOk = this.houseAllows(name);
    // What both refuse is said to be refused by the house: allowing it here alone would change nothing.
    const unlistedByHouse = this.byHouse(Object.hasOwn(this.house?.elements ?? {}, name) ? ['elements', name] : ['unlisted']);
    if (rule === undefined) {
      const needer = IMPLIED_BY[name];
      if (needer !== undefined && !renamedFrom.includes(needer)) {
        const rule = this.element(needer, [...renamedFrom, name]);
        if (rule.outcome === 'keep' && rule.name === needer) return { ...rule, name, attributes: NO_ATTRIBUTES, demands: null };
      }
      return isHouseOk ? this.unlisted : { ...this.unlisted, by: unlistedByHouse };
    }
    const by = this.byProfile(['elements', name]);
    if (outcome === 'rename') return this.renamed(name, rule, by, renamedFrom);
    if (outcome !== 'keep')
      return this.gone(
        outcome,
        by,
        outcome === 'drop' ? 'element-dropped' : outcome === 'text' ? 'element-shown-as-text' : 'element-not-allowed',
      );
    if (!isHouseOk) return this.gone(this.houseOutcome(name), unlistedByHouse, 'element-not-allowed');
    const attributes = this.attributes(name, rule);
    return {
      outcome: 'keep',
      name,
      by,
      reason: 'element-renamed',
      attributes,
      otherAttributes: this.blame(name),
      alternativeText: this.alternativeText(name, rule),
      demands: this.demands(name, attributes, this.forced(name, attributes)),
    };
  }

  private alternativeText(name: string, rule: ElementRule): Authority | null {
    const house = this.houseAt(['elements', name])?.elements[name]?.withoutSource;
    if (house === 'drop') return null;
    return rule.withoutSource === 'alternative-text' ? this.byProfile(['elements', name, 'withoutSource']) : null;
  }

  private houseAllows(name: string): boolean {
    const house = this.houseAt(['elements', name]);
    if (house === undefined) return true;
    const rule = Object.hasOwn(house.elements, name) ? house.elements[name] : undefined;
    return rule !== undefined && (rule.outcome ?? 'keep') === 'keep';
  }

  private houseOutcome(name: string): Exclude<Outcome, 'keep'> {
    const rule = Object.hasOwn(this.house!.elements, name) ? this.house!.elements[name] : undefined;
    const outcome = rule?.outcome ?? this.house!.unlisted;
    return outcome === 'rename' || outcome === 'keep' ? 'unwrap' : outcome;
  }

  private renamed(name: string, rule: ElementRule, by: Authority, renamedFrom: readonly string[]): CompiledElement {
    const { to } = rule;
    // A circle, a missing name or a target that is not kept leaves nothing to become: the content stays, as for any unlisted element.
    if (to === undefined || to === name || renamedFrom.includes(name)) return this.gone('unwrap', by, 'element-not-allowed');
    const target = this.element(to, [...renamedFrom, name]);
    if (target.outcome !== 'keep') return this.gone('unwrap', by, 'element-not-allowed');
    const forced = this.forcedBy(this.markup, name, (keys) => this.byProfile(keys), target.attributes);
    return {
      ...target,
      by,
      reason: 'element-renamed',
      demands:
        forced.length === 0
          ? target.demands
          : { ...(target.demands ?? NO_DEMANDS), forced: [...(target.demands?.forced ?? []), ...forced] },
    };
  }

  private demands(name: string, attributes: Map<string, CompiledAttribute>, forced: Demands['forced']): Demands | null {
    const sides: { markup: Markup; by: (keys: readonly string[]) => Authority }[] = [
      ...(this.houseAt(['elements', name]) === undefined
        ? []
        : [{ markup: this.house!, by: (keys: readonly string[]) => this.byHouse(keys) }]),
      { markup: this.markup, by: (keys) => this.byProfile(keys) },
    ];
    const required: Demands['required'][number][] = [];
    const anyOf: Demands['anyOf'][number][] = [];
    const parents: Demands['parents'][number][] = [];
    let empty: Demands['empty'] = null;
    let depth: Demands['depth'] = null;
    let ratio: Demands['ratio'] = null;
    for (const { markup, by } of sides) {
      const rule = Object.hasOwn(markup.elements, name) ? markup.elements[name]! : {};
      const at = (...keys: string[]): Authority => by(['elements', name, ...keys]);
      for (const [attribute, { otherwise, value = '' }] of Object.entries(rule.required ?? {}))
        // Nothing can be added that would be taken away again, and nothing asked for that is never let through.
        if (passes(attributes, attribute, otherwise === 'add' ? value : null) && !required.some((other) => other.name === attribute))
          required.push({ name: attribute, otherwise, value, by: at('required', attribute) });
      if (rule.anyOf !== undefined) {
        // What is never let through cannot be asked for.
        const names = rule.anyOf.attributes.filter((attribute) => passes(attributes, attribute, null));
        if (names.length > 0) anyOf.push({ names, otherwise: rule.anyOf.otherwise, by: at('anyOf') });
      }
      if (rule.parents !== undefined) parents.push({ names: new Set(rule.parents), by: at('parents') });
      if (rule.depth !== undefined && (depth === null || rule.depth < depth.limit)) depth = { limit: rule.depth, by: at('depth') };
      if (rule.empty !== undefined && rule.empty !== 'keep' && (empty === null || rule.empty === 'remove'))
        empty ??= { outcome: rule.empty, by: at('empty') };
      if (rule.ratio !== undefined && ratio === null) ratio = { ...rule.ratio, by: at('ratio') };
    }
    const newWindow = name === 'a' || name === 'area' ? this.newWindow(attributes) : null;
    const ownFrame = name === 'iframe' ? { ownHosts: new Set(this.markup.links.ownHosts) } : null;
    const demands: Demands = { anyOf, required, forced, empty, parents, depth, ratio, newWindow, ownFrame };
    return anyOf.length + required.length + forced.length + parents.length > 0 ||
      ownFrame !== null ||
      empty !== null ||
      depth !== null ||
      ratio !== null ||
      newWindow !== null
      ? demands
      : null;
  }

  /** The policy for new windows; it needs `target` and `rel` to pass, and where the house refuses those no link opens a window. */
  private newWindow(attributes: Map<string, CompiledAttribute>): Demands['newWindow'] {
    const { value, by } = this.strictest(['links', 'newWindow'], ['as-written', 'other-sites', 'never']);
    if (value === 'as-written') return null;
    const ownHosts = new Set(this.markup.links.ownHosts);
    if (value === 'never') return { policy: 'never', ownHosts, by };
    const house = this.houseAt(['links', 'newWindow']);
    if (house !== undefined && house.links.newWindow !== 'other-sites' && !passesTests(this.houseTests('a', 'target'), '_blank'))
      return { policy: 'never', ownHosts, by: this.byHouse(['elements', 'a']) };
    this.letThrough(attributes, 'target', '_blank', by);
    this.letThrough(attributes, 'rel', 'noopener', by);
    return { policy: 'other-sites', ownHosts, by };
  }

  /** The attributes that the rules of both layers force on an element, as far as they can stay. */
  private forced(name: string, attributes: Map<string, CompiledAttribute>): Demands['forced'] {
    const house = this.houseAt(['elements', name]);
    const all = [
      ...(house === undefined ? [] : this.forcedBy(house, name, (keys) => this.byHouse(keys), attributes)),
      ...this.forcedBy(this.markup, name, (keys) => this.byProfile(keys), attributes),
    ];
    const forced = all.filter(({ name: attribute, isWords }, i) => isWords || all.findIndex((other) => other.name === attribute) === i);
    // Whether a link opens a window must be known before what is forced on links that do.
    forced.sort((a, b) => Number(b.name === 'target') - Number(a.name === 'target'));
    for (const { name: attribute, value, by } of forced) this.letThrough(attributes, attribute, value, by);
    return name === 'iframe' ? [...forced, this.forcedSandbox(attributes)] : forced;
  }

  /** A frame that comes without `sandbox` gets as much of the safety floor's as its rule allows. */
  private forcedSandbox(attributes: ReadonlyMap<string, CompiledAttribute>): Demands['forced'][number] {
    const value = attributes.get('sandbox')!.tests.reduce<string>((kept, { judge }) => {
      const verdict = judge(kept);
      return 'keep' in verdict ? verdict.keep : '';
    }, FRAME_SANDBOX);
    return { name: 'sandbox', value, isWords: true, when: 'absent', by: FLOOR_FRAME };
  }

  private forcedBy(
    markup: Markup,
    name: string,
    by: (keys: readonly string[]) => Authority,
    attributes: ReadonlyMap<string, CompiledAttribute>,
  ): Demands['forced'] {
    const rule = Object.hasOwn(markup.elements, name) ? markup.elements[name] : undefined;
    return Object.entries(rule?.forced ?? {}).flatMap(([attribute, { value, when }]) => {
      if (isAttributeForbidden(attribute, name) || !this.couldStay(name, attribute, value)) return [];
      // A renamed element's attribute must pass the rules of the element that it becomes.
      if (rule?.outcome === 'rename' && !passes(attributes, attribute, value)) return [];
      const isWords = WORD_ATTRIBUTES.has(attribute);
      return [{ name: attribute, value, isWords, when, by: by(['elements', name, 'forced', attribute]) }];
    });
  }

  /** Whether a value passes what stands above the profile. */
  private couldStay(element: string, attribute: string, value: string): boolean {
    if (!passesTests(this.floorTests(element, attribute), value)) return false;
    if (this.house === undefined || Object.hasOwn(this.house.elements[element]?.forced ?? {}, attribute)) return true;
    const ceiling = this.houseTests(element, attribute);
    return ceiling !== null && passesTests(ceiling, value);
  }

  /** Makes the tests of an attribute pass a value (or its words) that another rule puts there. */
  private letThrough(attributes: Map<string, CompiledAttribute>, name: string, value: string, by: Authority): void {
    const isWords = WORD_ATTRIBUTES.has(name);
    const words = new Set(isWords ? value.split(/\s+/) : [value]);
    const before = attributes.get(name);
    const wrap = (judge: CompiledTest | null): CompiledTest => {
      return (given) => {
        if (given === value) return { keep: given };
        if (!isWords) return judge === null ? { refuse: 'attribute-not-allowed' } : judge(given);
        const verdict = judge === null ? null : judge(given);
        if (verdict !== null && 'keep' in verdict && verdict.keep === given) return verdict;
        const passed = new Set(verdict !== null && 'keep' in verdict ? verdict.keep.split(/\s+/) : []);
        const kept = given.split(/[\t\n\f\r ]+/).filter((word) => word !== '' && (words.has(word) || passed.has(word)));
        if (kept.length === 0) return { refuse: verdict !== null && 'refuse' in verdict ? verdict.refuse : 'attribute-not-allowed' };
        return { keep: kept.join(' ') };
      };
    };
    attributes.set(name, {
      tests:
        before === undefined
          ? [{ judge: wrap(null), by, madeFrom: ['let through', value, null] }]
          : before.tests.map((test) => ({ ...test, judge: wrap(test.judge), madeFrom: ['let through', value, test.madeFrom] })),
    });
  }

  private attributes(element: string, rule: ElementRule): Map<string, CompiledAttribute> {
    const attributes = new Map<string, CompiledAttribute>();
    const add = (name: string, test: AttributeTest, keys: string[]): void => {
      if (isAttributeForbidden(name, element)) return;
      const own = { ...this.test(name, test, this.markup, element), by: this.byProfile(keys) };
      const ceiling = this.houseTests(element, name);
      if (ceiling === null) return;
      // From the top down: what several layers refuse is said to be refused by the highest.
      attributes.set(name, { tests: [...this.floorTests(element, name), ...ceiling, own] });
    };
    for (const [name, test] of Object.entries(this.markup.attributes)) add(name, test, ['attributes', name]);
    for (const [name, test] of Object.entries(rule.attributes ?? {})) add(name, test, ['elements', element, 'attributes', name]);
    if (element === 'iframe') this.closeIn(attributes);
    return attributes;
  }

  /** A frame is never without `sandbox`: what its rule refuses of it is taken out, and the strictest is what is left. */
  private closeIn(attributes: Map<string, CompiledAttribute>): void {
    const { tests } = attributes.get('sandbox') ?? {
      tests: [{ ...this.test('sandbox', { test: 'tokens', values: FRAME_SANDBOX.split(' ') }, this.markup), by: FLOOR_FRAME }],
    };
    const reduced = ({ judge, by, madeFrom }: BoundTest): BoundTest => ({
      judge: (value) => {
        const verdict = value.trim() === '' ? { keep: value } : judge(value);
        return 'refuse' in verdict ? { keep: '' } : verdict;
      },
      by,
      madeFrom: ['closed in', madeFrom],
    });
    attributes.set('sandbox', { tests: tests.map(reduced) });
  }

  /** The tests that the safety floor puts before every other. */
  private floorTests(element: string, name: string): BoundTest[] {
    if (name === 'style') return [{ judge: floorStyleTest, by: { layer: 'safety-floor', rule: '/style' }, madeFrom: 'floor of style' }];
    if (name === 'rel') return [{ judge: withoutOpener, by: { layer: 'safety-floor', rule: '/rel' }, madeFrom: 'floor of rel' }];
    if (name === 'sandbox' && element === 'iframe')
      return [{ judge: closedIn, by: { layer: 'safety-floor', rule: '/sandboxTokens' }, madeFrom: 'floor of sandbox' }];
    return [];
  }

  /** The tests of the house limits, none where they do not bind; null where they refuse the attribute altogether. */
  private houseTests(element: string, name: string): BoundTest[] | null {
    if (this.house === undefined || this.isExcepted(`/elements/${element}/attributes/${name}`) || this.isExcepted(`/attributes/${name}`))
      return [];
    const own = Object.hasOwn(this.house.elements, element) ? this.house.elements[element]!.attributes : undefined;
    if (own !== undefined && Object.hasOwn(own, name))
      return [{ ...this.test(name, own[name]!, this.house, element), by: this.byHouse(['elements', element, 'attributes', name]) }];
    if (Object.hasOwn(this.house.attributes, name))
      return [{ ...this.test(name, this.house.attributes[name]!, this.house, element), by: this.byHouse(['attributes', name]) }];
    return null;
  }

  /** Who answers for attributes of an element that no rule names: the house where it would refuse them too, else the element's own rule. */
  private blame(element: string): (attribute: string) => Authority {
    const byRule = this.byProfile(['elements', element]);
    if (this.house === undefined) return () => byRule;
    const isListed = Object.hasOwn(this.house.elements, element);
    const byHouse = this.byHouse(isListed ? ['elements', element] : ['attributes']);
    return (attribute) => (this.isRefusedByHouse(element, attribute) ? byHouse : byRule);
  }

  private isRefusedByHouse(element: string, name: string): boolean {
    const house = this.house!;
    if (Object.hasOwn(house.attributes, name) || Object.hasOwn(house.elements[element]?.attributes ?? {}, name)) return false;
    return (
      this.exceptions.length === 0 ||
      !(this.isExcepted(`/elements/${element}/attributes/${name}`) || this.isExcepted(`/attributes/${name}`))
    );
  }

  private test(attribute: string, test: AttributeTest, markup: Markup, element = ''): Pick<BoundTest, 'judge' | 'madeFrom'> {
    const ofElement = (Object.hasOwn(markup.elements, element) ? markup.elements[element]!.schemes : undefined) ?? {};
    const schemes = Object.hasOwn(ofElement, attribute)
      ? ofElement[attribute]!
      : Object.hasOwn(markup.urls.schemes, attribute)
        ? markup.urls.schemes[attribute]!
        : ['https', 'http'];
    const context: TestContext = {
      urls: { schemes: new Set(schemes), relative: markup.urls.relative },
      styleClasses: this.styleClasses,
    };
    const judge = compileTest(test, context);
    const isAddress = test.test === 'url' || URL_ATTRIBUTES.has(attribute);
    const madeFrom = [
      test,
      isAddress ? [schemes, markup.urls.relative] : null,
      test.test === 'tokens' && test.ofStyles === true ? [...this.styleClasses] : null,
    ];
    if (test.test === 'url' || !isAddress) return { judge, madeFrom };
    // An attribute that browsers read as an address is tested as one, whatever test the rule gives it.
    const asAddress = compileTest({ test: 'url' }, context);
    const both: CompiledTest = (value) => {
      const verdict = judge(value);
      return 'refuse' in verdict ? verdict : asAddress(verdict.keep);
    };
    return { judge: both, madeFrom };
  }

  private gone(outcome: Exclude<Outcome, 'keep'>, by: Authority, reason: CompiledElement['reason']): CompiledElement {
    return { outcome, name: '', by, reason, attributes: NO_ATTRIBUTES, otherAttributes: () => by, alternativeText: null, demands: null };
  }
}

const NO_DEMANDS: Demands = {
  anyOf: [],
  required: [],
  forced: [],
  empty: null,
  parents: [],
  depth: null,
  ratio: null,
  newWindow: null,
  ownFrame: null,
};

/** The kept level that is nearest to another; of two the deeper one. */
export function nearestLevel(levels: readonly number[], level: number): number {
  return levels.reduce((best, next) => (Math.abs(next - level) <= Math.abs(best - level) ? next : best), levels[0]!);
}

const closedIn: CompiledTest = (value) => {
  const words = value.split(/[\t\n\f\r ]+/).filter((word) => word !== '');
  const kept = words.filter((word) => !sandboxTokens.has(word.toLowerCase()));
  return { keep: kept.length === words.length ? value : kept.join(' ') };
};

const withoutOpener: CompiledTest = (value) => {
  const words = value.split(/[\t\n\f\r ]+/).filter((word) => word !== '');
  const kept = words.filter((word) => !openers.has(word.toLowerCase()));
  if (kept.length === words.length) return { keep: value };
  return kept.length === 0 ? { refuse: 'value-not-allowed' } : { keep: kept.join(' ') };
};

function passesTests(tests: readonly BoundTest[] | null, value: string): boolean {
  return (
    tests !== null &&
    tests.every(({ judge }) => {
      const verdict = judge(value);
      return 'keep' in verdict && verdict.keep === value;
    })
  );
}

/** Whether an attribute can stay at all, and with a value where one is given. */
function passes(attributes: ReadonlyMap<string, CompiledAttribute>, name: string, value: string | null): boolean {
  const attribute = attributes.get(name);
  return attribute !== undefined && (value === null || passesTests(attribute.tests, value));
}

function read(markup: Markup, keys: readonly string[]): unknown {
  return keys.reduce<unknown>((value, key) => (value as Record<string, unknown>)[key], markup);
}
