import { ELEMENT_CATALOGUE } from '../../markup/catalogue';
import { styleClassesOf } from '../../markup/style-classes';
import { valuesFor } from './values';
import type { AttributeTest, ElementRule, HouseLimits, Markup, Profile } from '../../profile/schema';

/** An element that no rule is likely to name. */
export const UNLISTED = 'x-other';

const catalogued: readonly string[] = ELEMENT_CATALOGUE.flatMap(({ elements }) => elements.map(({ name }) => name));

/** Everything that the rules of two profiles and the house limits name. */
export class Vocabulary {
  readonly elements: readonly string[];
  private readonly sides: readonly Markup[];
  private readonly classes: readonly string[];
  private readonly unlistedAlike: boolean;
  private readonly values = new Map<string, readonly string[]>();

  constructor(
    readonly from: Profile,
    readonly to: Profile,
    house: HouseLimits | undefined,
  ) {
    this.sides = [from.markup, to.markup, ...(house === undefined ? [] : [house.markup])];
    const rules = this.sides.flatMap(({ elements }) => Object.values(elements));
    this.elements = [
      ...new Set([
        ...catalogued,
        ...this.sides.flatMap(({ elements }) => Object.keys(elements)),
        ...rules.flatMap(({ to: target, parents = [] }) => (target === undefined ? parents : [target, ...parents])),
        UNLISTED,
      ]),
    ];
    this.unlistedAlike = from.markup.unlisted === to.markup.unlisted;
    this.classes = [...new Set([from, to].flatMap((profile) => [...styleClassesOf(profile)]))];
  }

  private rulesOf(element: string): readonly (ElementRule | undefined)[] {
    return this.sides.map(({ elements }) => (Object.hasOwn(elements, element) ? elements[element] : undefined));
  }

  /** Attributes that any rule names for an element. */
  attributesOf(element: string): string[] {
    return [
      ...new Set([
        ...this.rulesOf(element).flatMap((rule) => [
          ...Object.keys(rule?.attributes ?? {}),
          ...Object.keys(rule?.required ?? {}),
          ...Object.keys(rule?.forced ?? {}),
          ...(rule?.anyOf?.attributes ?? []),
        ]),
        ...this.sides.flatMap(({ attributes }) => Object.keys(attributes)),
      ]),
    ];
  }

  /** Whether only the rules for all elements name an attribute, and none of this element's own. */
  isOfAll(element: string, attribute: string): boolean {
    return this.rulesOf(element).every((rule) => rule === undefined || !JSON.stringify(rule).includes(`"${attribute}"`));
  }

  /** Attributes without which the element may not stay. */
  demandedOf(element: string): string[] {
    return [
      ...new Set(this.rulesOf(element).flatMap((rule) => [...Object.keys(rule?.required ?? {}), ...(rule?.anyOf?.attributes ?? [])])),
    ];
  }

  /** Where both profiles say the same of an attribute, in every rule that could matter for it, there is nothing to compare. */
  saySame(element: string, attribute: string): boolean {
    const said = ({ markup, styles }: Profile): string => {
      const rule = Object.hasOwn(markup.elements, element) ? markup.elements[element] : undefined;
      const tests = [rule?.attributes?.[attribute], markup.attributes[attribute]];
      const isOfStyles = tests.some((test) => test?.test === 'tokens' && test.ofStyles === true);
      return JSON.stringify([
        tests,
        rule?.forced,
        rule?.required?.[attribute],
        rule?.schemes?.[attribute],
        markup.urls.schemes[attribute],
        markup.urls.relative,
        attribute === 'target' || attribute === 'rel' || attribute === 'href' ? markup.links : null,
        attribute === 'id' ? markup.ids : null,
        isOfStyles ? [...styleClassesOf({ styles })].sort() : null,
      ]);
    };
    return said(this.from) === said(this.to);
  }

  /** Whether both profiles have the same rule for an element, or none for it. */
  hasSameRule(element: string): boolean {
    const [from, to] = this.rulesOf(element);
    // What becomes of elements without a rule is shown by one that nobody names.
    if (from === undefined && to === undefined) return element !== UNLISTED || this.unlistedAlike;
    return JSON.stringify(from) === JSON.stringify(to);
  }

  /** Values at the edges of what the rules let through. */
  valuesOf(element: string, attribute: string): readonly string[] {
    const key = `${element} ${attribute}`;
    let values = this.values.get(key);
    if (values === undefined) this.values.set(key, (values = valuesFor(attribute, this.sourcesOf(element, attribute))));
    return values;
  }

  /** What the values of an attribute may be made of. */
  sourcesOf(element: string, attribute: string): { tests: AttributeTest[]; schemes: string[]; styleClasses: readonly string[] } {
    const own = <Value>(record: Readonly<Record<string, Value>> | undefined): Value | undefined =>
      record !== undefined && Object.hasOwn(record, attribute) ? record[attribute] : undefined;
    const tests = [
      ...this.rulesOf(element).map((rule) => own(rule?.attributes)),
      ...this.sides.map(({ attributes }) => own(attributes)),
      ...this.rulesOf(element).map((rule): AttributeTest | undefined => {
        const forced = own(rule?.forced)?.value ?? own(rule?.required)?.value;
        return forced === undefined ? undefined : { test: 'list', values: [forced] };
      }),
    ].filter((test) => test !== undefined);
    const schemes = [
      ...this.rulesOf(element).flatMap((rule) => own(rule?.schemes) ?? []),
      ...this.sides.flatMap(({ urls }) => own(urls.schemes) ?? []),
    ];
    return { tests, schemes: [...new Set(schemes)], styleClasses: this.classes };
  }
}
