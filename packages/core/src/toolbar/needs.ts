import type { CompiledRules } from '../markup/compiled';
import type { JsonObject } from '../profile/merge-patch';
import { isObject } from '../profile/merge-patch';
import type { ResolvedProfile } from '../profile/resolve';
import type { ToolbarOptions } from '../profile/toolbar-schema';
import type { ButtonId } from '../profile/button-ids';
import { BUTTONS, buttonOf, type ButtonDeclaration, type Need } from './buttons';

/** What of a button's markup the rules would take away again. */
export function missingMarkup(button: ButtonDeclaration, rules: CompiledRules, options: ToolbarOptions): readonly Need[] {
  return button.needs(options).flatMap((need) => {
    const { element, attribute, values } = need;
    const rule = rules.element(element);
    if (rule.outcome !== 'keep' || rule.name !== element) return [need];
    if (attribute === undefined) return [];
    const compiled = rule.attributes.get(attribute);
    if (compiled === undefined) return [need];
    const refused = (values ?? []).filter((value) => {
      let kept: string | null = value;
      for (const { judge } of compiled.tests) {
        const verdict: ReturnType<typeof judge> | null = kept === null ? null : judge(kept);
        kept = verdict !== null && 'keep' in verdict ? verdict.keep : null;
      }
      return kept === null || !isSameValue(kept, value);
    });
    return refused.length === 0 ? [] : [{ ...need, values: refused }];
  });
}

function isSameValue(kept: string, wanted: string): boolean {
  const plain = (value: string): string => value.replace(/[\s;]+/g, '').toLowerCase();
  return plain(kept) === plain(wanted);
}

/** A need in words: "class on p (align-left)". */
export function needInWords({ element, attribute, values }: Need): string {
  if (attribute === undefined) return element;
  const shown = attribute === 'class' && values !== undefined && values.length > 0 ? ` (${values.join(', ')})` : '';
  return `${attribute} on ${element}${shown}`;
}

/**
 * The smallest merge patch that lets a button's markup through.
 *
 * @param resolved the profile, whose lists of values are added to; without it the attributes' rules are begun anew
 */
export function patchToAllow(missing: readonly Need[], resolved?: ResolvedProfile): JsonObject {
  const elements: JsonObject = {};
  for (const { element, attribute, values = [], test = { test: 'text' } } of missing) {
    const rule = (elements[element] ??= { outcome: 'keep' }) as JsonObject;
    if (attribute === undefined) continue;
    const old = resolved?.profile.markup.elements[element]?.attributes?.[attribute];
    const attributes = (rule['attributes'] ??= {}) as JsonObject;
    const begun = attributes[attribute];
    const before =
      isObject(begun) && Array.isArray(begun['values']) ? begun['values'] : old !== undefined && 'values' in old ? (old.values ?? []) : [];
    if ((old?.test === 'tokens' || old?.test === 'list') && values.length > 0)
      attributes[attribute] = { values: [...new Set([...before, ...values])] as string[] };
    else attributes[attribute] = test as JsonObject;
  }
  return { markup: { elements } };
}

/**
 * What the rules keep for the sake of a button alone: its elements that no other shown button makes or needs.
 *
 * @param shown the buttons that stay on the toolbar
 */
export function markupOnlyFor(id: ButtonId, shown: readonly ButtonId[], resolved: ResolvedProfile, rules: CompiledRules): string[] {
  const { options } = resolved.profile.toolbar;
  const elementsOf = (button: ButtonId): string[] =>
    buttonOf(button)
      .needs(options)
      .map(({ element }) => element);
  const others = new Set(shown.filter((other) => other !== id).flatMap(elementsOf));
  for (const { element } of SHARED) others.add(element);
  return [...new Set(elementsOf(id))].filter(
    (element) => !others.has(element) && rules.element(element).outcome === 'keep' && rules.element(element).name === element,
  );
}

/** What documents need whatever the toolbar has. */
const SHARED: readonly Need[] = [{ element: 'p' }, { element: 'br' }];

/** The merge patch that makes elements go while their words stay. */
export function patchToTakeBack(elements: readonly string[]): JsonObject {
  return { markup: { elements: Object.fromEntries(elements.map((element) => [element, { outcome: 'unwrap' }])) } };
}

/** The buttons whose element is in none of the stored documents. */
export function unusedButtons(elements: Readonly<Record<string, number>>): ReadonlySet<ButtonId> {
  return new Set(BUTTONS.filter(({ makes }) => makes !== null && (elements[makes] ?? 0) === 0).map(({ id }) => id));
}
