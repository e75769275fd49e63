import { compileRules } from '../markup/compile';
import { compileTest } from '../markup/attribute-test';
import type { CompiledTest } from '../markup/verdict';
import { isObject, type JsonObject } from '../profile/merge-patch';
import { toPointer } from '../profile/pointer';
import type { AttributeTest, HouseLimits } from '../profile/schema';
import { attributeTests, keptRules, patchAt, type Check, type CheckContext, type Finding } from './check';

/** Rules that allow more than the house limits do: they look as if they had an effect, and have none. */
export const aboveHouse: Check = {
  id: 'above-house',
  purpose: 'Finds rules that allow more than the house limits.',
  run(context) {
    const { house } = context;
    return house === undefined ? [] : [...elementsAbove(context), ...attributesAbove(context, house), ...settingsAbove(context, house)];
  },
};

function finding(sentence: string, keys: string[], fix?: Finding['fix']): Finding {
  return { check: 'above-house', severity: 'warning', sentence, pointer: toPointer(keys), ...(fix === undefined ? {} : { fix }) };
}

function elementsAbove(context: CheckContext): Finding[] {
  return keptRules(context).flatMap(([name]) => {
    const rule = context.rules.element(name);
    if (rule.outcome === 'keep' || rule.by.layer !== 'house-limits') return [];
    const keys = ['markup', 'elements', name];
    return [
      finding(`${name} is allowed here, but not by the house limits: what authors make of it goes all the same.`, keys, {
        label: `Take the rule for ${name} out`,
        patch: patchAt(keys, null),
      }),
    ];
  });
}

function attributesAbove(context: CheckContext, house: HouseLimits): Finding[] {
  return attributeTests(context).flatMap(({ element, attribute, test, keys }) => {
    if (element === null || context.rules.element(element).outcome !== 'keep') return [];
    const limit = house.markup.elements[element]?.attributes?.[attribute] ?? house.markup.attributes[attribute];
    if (limit === undefined)
      return context.rules.element(element).attributes.has(attribute)
        ? []
        : [
            finding(`${attribute} on ${element} is allowed here, but not by the house limits: it goes all the same.`, keys, {
              label: `Take ${attribute} on ${element} out`,
              patch: patchAt(keys, null),
            }),
          ];
    const beyond = valuesBeyond(test, limit, judgeOf(limit, attribute, house));
    return beyond === null
      ? []
      : [
          finding(`${attribute} on ${element} may be ${beyond.what} here, but the house limits refuse that.`, [...keys, ...beyond.keys], {
            label: `Hold ${attribute} on ${element} to the house limits`,
            patch: patchAt(keys, beyond.capped),
          }),
        ];
  });
}

function judgeOf(test: AttributeTest, attribute: string, { markup }: HouseLimits): CompiledTest {
  return compileTest(test, {
    urls: { schemes: new Set(markup.urls.schemes[attribute] ?? ['https', 'http']), relative: markup.urls.relative },
    styleClasses: new Set(),
  });
}

interface Beyond {
  what: string;
  keys: string[];
  /** What of the test to change. */
  capped: JsonObject;
}

/** What a test lets through that the limit would refuse, as far as the two can be compared. */
function valuesBeyond(test: AttributeTest, limit: AttributeTest, judge: CompiledTest): Beyond | null {
  if ((test.test === 'list' || test.test === 'tokens') && test.values !== undefined) {
    const passes = (value: string): boolean => {
      const verdict = judge(value);
      return 'keep' in verdict && verdict.keep === value;
    };
    const refused = test.values.filter((value) => !passes(value));
    const kept = test.values.filter(passes);
    return refused.length === 0
      ? null
      : { what: refused.join(', '), keys: ['values'], capped: kept.length === 0 ? asJson(limit) : { values: kept } };
  }
  if (test.test === 'integer' && limit.test === 'integer') {
    const min = Math.max(test.min ?? -Infinity, limit.min ?? -Infinity);
    const max = Math.min(test.max ?? Infinity, limit.max ?? Infinity);
    const isLow = (test.min ?? -Infinity) < min;
    const isHigh = (test.max ?? Infinity) > max;
    if (!isLow && !isHigh) return null;
    return {
      what: isHigh ? `more than ${max}` : `less than ${min}`,
      keys: [],
      capped: { ...(isLow ? { min } : {}), ...(isHigh ? { max } : {}) },
    };
  }
  if (test.test === 'text' && limit.test === 'text' && limit.maxLength !== undefined && (test.maxLength ?? Infinity) > limit.maxLength)
    return { what: `longer than ${limit.maxLength} characters`, keys: [], capped: { maxLength: limit.maxLength } };
  if (test.test === 'text' && limit.test !== 'text')
    return { what: 'any text', keys: ['test'], capped: { ...asJson(limit), maxLength: null } };
  if (test.test === 'url' && limit.test === 'url' && limit.hosts !== undefined) {
    const allowed = new Set(limit.hosts);
    const refused = test.hosts === undefined ? ['any host'] : test.hosts.filter((host) => !allowed.has(host) && !judgeHost(judge, host));
    if (refused.length > 0) return { what: `from ${refused.join(', ')}`, keys: ['hosts'], capped: { hosts: limit.hosts } };
  }
  return null;
}

function judgeHost(judge: CompiledTest, host: string): boolean {
  return 'keep' in judge(`https://${host.replace(/^\*\./, 'any.')}`);
}

function asJson(test: AttributeTest): JsonObject {
  return JSON.parse(JSON.stringify(test)) as JsonObject;
}

/** Settings with grades and limits: what the compiled rules say beside what the profile says. */
function settingsAbove({ resolved, house }: CheckContext, limits: HouseLimits): Finding[] {
  const { markup } = resolved.profile;
  const found: Finding[] = [];
  for (const name of ['nesting', 'elements', 'letters'] as const) {
    const [own, most] = [markup.limits[name], limits.markup.limits[name]];
    if (most !== undefined && own !== undefined && own > most) {
      const keys = ['markup', 'limits', name];
      found.push(
        finding(`The limit on ${name} is ${own} here and ${most} in the house limits, which hold.`, keys, {
          label: `Set it to ${most}`,
          patch: patchAt(keys, most),
        }),
      );
    }
  }
  if (markup.comments === 'keep' && limits.markup.comments === 'drop')
    found.push(
      finding('Comments may stay here, but the house limits take them away.', ['markup', 'comments'], {
        label: 'Let comments go',
        patch: patchAt(['markup', 'comments'], 'drop'),
      }),
    );
  for (const [attribute, schemes] of Object.entries(markup.urls.schemes)) {
    const allowed = limits.markup.urls.schemes[attribute] ?? ['https', 'http'];
    const beyond = schemes.filter((scheme) => !allowed.includes(scheme));
    const keys = ['markup', 'urls', 'schemes', attribute];
    if (beyond.length > 0)
      found.push(
        finding(`${attribute} may have ${beyond.join(', ')} here, but not by the house limits.`, keys, {
          label: `Hold the schemes of ${attribute} to the house limits`,
          patch: patchAt(
            keys,
            schemes.filter((scheme) => allowed.includes(scheme)),
          ),
        }),
      );
  }
  if (
    house !== undefined &&
    isObject(markup) &&
    compileRules(resolved, { house }).ids?.by.layer === 'house-limits' &&
    markup.ids.prefix !== ''
  )
    found.push(
      finding(
        `Ids begin with ${markup.ids.prefix} here, but the house limits ask for ${limits.markup.ids.prefix}.`,
        ['markup', 'ids', 'prefix'],
        {
          label: `Use ${limits.markup.ids.prefix}`,
          patch: patchAt(['markup', 'ids', 'prefix'], limits.markup.ids.prefix),
        },
      ),
    );
  return found;
}
