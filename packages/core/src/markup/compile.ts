import type { Authority } from '../ledger/ledger';
import { toPointer } from '../profile/pointer';
import { originOf, type ResolvedProfile } from '../profile/resolve';
import type { AttributeTest, ElementRule, HouseLimits, Markup } from '../profile/schema';
import { compileTest, type CompiledTest } from './attribute-test';
import { SAFETY_FLOOR, URL_ATTRIBUTES } from './floor';

/** The judgement of one attribute: every test that binds it, each with the layer and rule it comes from. */
export interface CompiledAttribute {
  tests: readonly { judge: CompiledTest; by: Authority }[];
}

export type Outcome = 'keep' | 'unwrap' | 'drop' | 'text';

/** What becomes of one element. */
export interface CompiledElement {
  outcome: Outcome;
  /** The name under which it is kept; differs from its own where the rules rename it. */
  name: string;
  by: Authority;
  /** Why, where it does not stay as it is. */
  reason: 'element-forbidden' | 'element-not-allowed' | 'element-dropped' | 'element-renamed' | 'element-shown-as-text';
  attributes: ReadonlyMap<string, CompiledAttribute>;
  /** Who answers for an attribute that is not in `attributes`. */
  otherAttributes(name: string): Authority;
}

/** A profile's markup rules with the house limits and the safety floor worked in: made once, then asked for every node. */
export interface CompiledRules {
  element(name: string): CompiledElement;
  /** Elements of SVG and MathML. */
  foreign: CompiledElement;
  comments: { keep: boolean; by: Authority };
  nesting: { limit: number; by: Authority };
  /** Every element that is kept under its own name. */
  kept: ReadonlySet<string>;
}

export interface CompileOptions {
  house?: HouseLimits;
  /** The role of the person whose content is cleaned; house limits may except it. */
  role?: string;
}

const floorDrops: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.drop);
const floorUnwraps: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.elements.unwrap);
const floorAttributes: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.attributes.names);
const NO_ATTRIBUTES: ReadonlyMap<string, CompiledAttribute> = new Map();

/** Names from the content that are remembered. */
const MOST_CACHED = 1000;

/** Elements that the parser adds by itself around others (HTML, section 13.2.6.4.9 "in table"): where those are kept, these are too. */
const IMPLIED_BY: Readonly<Record<string, string | undefined>> = Object.assign(Object.create(null) as object, {
  tbody: 'tr',
  colgroup: 'col',
});

/** Whether the safety floor takes an attribute away whatever the rules say. */
export function isAttributeForbidden(name: string): boolean {
  return (
    name.startsWith(SAFETY_FLOOR.attributes.prefix) ||
    floorAttributes.has(name) ||
    name.startsWith('xmlns:') ||
    name.startsWith('formaction')
  );
}

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
  const houseMarkup = options.house?.markup;
  const foreign = element('svg');
  return {
    element,
    foreign: { ...foreign, outcome: 'drop', by: { layer: 'safety-floor', rule: '/foreign' }, reason: 'element-forbidden' },
    comments: {
      keep:
        markup.comments === 'keep' && (houseMarkup === undefined || houseMarkup.comments === 'keep' || compiler.isExcepted('/comments')),
      by: compiler.commentsBy(),
    },
    nesting:
      houseMarkup !== undefined && houseMarkup.limits.nesting < markup.limits.nesting && !compiler.isExcepted('/limits/nesting')
        ? { limit: houseMarkup.limits.nesting, by: { layer: 'house-limits', rule: '/markup/limits/nesting' } }
        : { limit: markup.limits.nesting, by: compiler.byProfile(['limits', 'nesting']) },
    kept: new Set(Object.keys(markup.elements).filter((name) => element(name).outcome === 'keep' && element(name).name === name)),
  };
}

class Compiler {
  private readonly markup: Markup;
  private readonly house: Markup | undefined;
  private readonly exceptions: readonly string[];
  private readonly unlisted: CompiledElement;

  constructor(
    private readonly resolved: ResolvedProfile,
    { house, role }: CompileOptions,
  ) {
    this.markup = resolved.profile.markup;
    this.house = house?.markup;
    this.exceptions = (role === undefined ? undefined : house?.trustedRoles[role]?.except) ?? [];
    this.unlisted = this.gone(this.markup.unlisted, this.byProfile(['unlisted']), 'element-not-allowed');
  }

  isNamed(name: string): boolean {
    return Object.hasOwn(this.markup.elements, name) || floorDrops.has(name) || floorUnwraps.has(name);
  }

  isExcepted(pointer: string): boolean {
    return this.exceptions.some((exception) => pointer === exception || pointer.startsWith(`${exception}/`));
  }

  byProfile(keys: string[]): Authority {
    const rule = toPointer(['markup', ...keys]);
    const origin = originOf(this.resolved.chain, rule) ?? this.resolved.id;
    return { layer: origin === this.resolved.id ? 'profile' : 'parent-profile', rule, origin };
  }

  commentsBy(): Authority {
    if (this.markup.comments === 'keep' && this.house?.comments === 'drop') return { layer: 'house-limits', rule: '/markup/comments' };
    return this.byProfile(['comments']);
  }

  element(name: string, renamedFrom: readonly string[] = []): CompiledElement {
    if (floorDrops.has(name)) return this.gone('drop', { layer: 'safety-floor', rule: '/elements/drop' }, 'element-forbidden');
    if (floorUnwraps.has(name)) return this.gone('unwrap', { layer: 'safety-floor', rule: '/elements/unwrap' }, 'element-forbidden');
    const rule = Object.hasOwn(this.markup.elements, name) ? this.markup.elements[name] : undefined;
    const outcome = rule?.outcome ?? 'keep';
    const isHouseOk = this.houseAllows(name);
    // What both refuse is said to be refused by the house: allowing it here alone would change nothing.
    const unlistedByHouse: Authority = {
      layer: 'house-limits',
      rule: Object.hasOwn(this.house?.elements ?? {}, name) ? toPointer(['markup', 'elements', name]) : '/markup/unlisted',
    };
    if (rule === undefined) {
      const needer = IMPLIED_BY[name];
      if (needer !== undefined && this.element(needer).outcome === 'keep')
        return { ...this.element(needer), name, attributes: NO_ATTRIBUTES };
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
    return {
      outcome: 'keep',
      name,
      by,
      reason: 'element-renamed',
      attributes: this.attributes(name, rule),
      otherAttributes: this.blame(name),
    };
  }

  private houseAllows(name: string): boolean {
    if (this.house === undefined || this.isExcepted(`/elements/${name}`)) return true;
    const rule = Object.hasOwn(this.house.elements, name) ? this.house.elements[name] : undefined;
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
    return { ...target, by, reason: 'element-renamed' };
  }

  private attributes(element: string, rule: ElementRule): ReadonlyMap<string, CompiledAttribute> {
    const attributes = new Map<string, CompiledAttribute>();
    const add = (name: string, test: AttributeTest, keys: string[]): void => {
      if (isAttributeForbidden(name)) return;
      const own = { judge: this.test(name, test, this.markup), by: this.byProfile(keys) };
      const ceiling = this.houseAttribute(element, name);
      if (ceiling === 'refused') return;
      // The house first: what both refuse is said to be refused by the house.
      attributes.set(name, { tests: ceiling === 'free' ? [own] : [ceiling, own] });
    };
    for (const [name, test] of Object.entries(this.markup.attributes)) add(name, test, ['attributes', name]);
    for (const [name, test] of Object.entries(rule.attributes ?? {})) add(name, test, ['elements', element, 'attributes', name]);
    // A frame that is closed in already stays as it is.
    if (element === 'iframe' && !attributes.has('sandbox'))
      attributes.set('sandbox', {
        tests: [
          {
            judge: this.test('sandbox', { test: 'list', values: [SAFETY_FLOOR.frame.sandbox] }, this.markup),
            by: { layer: 'safety-floor', rule: '/frame/sandbox' },
          },
        ],
      });
    return attributes;
  }

  private houseAttribute(element: string, name: string): 'free' | 'refused' | { judge: CompiledTest; by: Authority } {
    if (this.house === undefined || this.isExcepted(`/elements/${element}/attributes/${name}`) || this.isExcepted(`/attributes/${name}`))
      return 'free';
    const own = this.house.elements[element]?.attributes;
    if (own !== undefined && Object.hasOwn(own, name))
      return {
        judge: this.test(name, own[name]!, this.house),
        by: { layer: 'house-limits', rule: toPointer(['markup', 'elements', element, 'attributes', name]) },
      };
    if (Object.hasOwn(this.house.attributes, name))
      return {
        judge: this.test(name, this.house.attributes[name]!, this.house),
        by: { layer: 'house-limits', rule: toPointer(['markup', 'attributes', name]) },
      };
    return 'refused';
  }

  private isRefusedByHouse(element: string, name: string): boolean {
    const { house } = this;
    if (house === undefined || Object.hasOwn(house.attributes, name) || Object.hasOwn(house.elements[element]?.attributes ?? {}, name))
      return false;
    return (
      this.exceptions.length === 0 ||
      !(this.isExcepted(`/elements/${element}/attributes/${name}`) || this.isExcepted(`/attributes/${name}`))
    );
  }

  /** Who answers for attributes of an element that no rule names: the house where it would refuse them too, else the element's own rule. */
  private blame(element: string): (attribute: string) => Authority {
    const byRule = this.byProfile(['elements', element]);
    const { house } = this;
    if (house === undefined) return () => byRule;
    const isListed = Object.hasOwn(house.elements, element);
    const byHouse: Authority = {
      layer: 'house-limits',
      rule: toPointer(isListed ? ['markup', 'elements', element] : ['markup', 'attributes']),
    };
    return (attribute) => (this.isRefusedByHouse(element, attribute) ? byHouse : byRule);
  }

  private test(attribute: string, test: AttributeTest, markup: Markup): CompiledTest {
    const schemes = Object.hasOwn(markup.urls.schemes, attribute) ? markup.urls.schemes[attribute]! : ['https', 'http'];
    const urls = { schemes: new Set(schemes), relative: markup.urls.relative };
    const judge = compileTest(test, urls);
    if (test.test === 'url' || !URL_ATTRIBUTES.has(attribute)) return judge;
    // An attribute that browsers read as an address is tested as one, whatever test the rule gives it.
    const asAddress = compileTest({ test: 'url' }, urls);
    return (value) => {
      const verdict = judge(value);
      return 'refuse' in verdict ? verdict : asAddress(verdict.keep);
    };
  }

  private gone(outcome: Exclude<Outcome, 'keep'>, by: Authority, reason: CompiledElement['reason']): CompiledElement {
    return { outcome, name: '', by, reason, attributes: NO_ATTRIBUTES, otherAttributes: () => by };
  }
}
