import { styleClassesOf } from '../markup/style-classes';
import type { ResolvedProfile } from '../profile/resolve';
import type { AttributeTest } from '../profile/schema';
import type { Need } from './needs';

/** Rules for every element stand under this name. */
const EVERY = '*';

/**
 * What a profile allows, as needs are told: what it keeps of elements, attributes, classes, properties, schemes and hosts, each once. What
 * it allows for every element is told once, of `*`. A test that lets any word or property pass is one.
 */
export function grantsOf({ profile }: ResolvedProfile): Need[] {
  const { markup } = profile;
  const classes = [...styleClassesOf(profile)];
  const grants: Need[] = [];
  for (const [element, rule] of Object.entries(markup.elements)) {
    if ((rule.outcome ?? 'keep') !== 'keep') continue;
    grants.push({ kind: 'element', element });
    for (const [attribute, test] of Object.entries(rule.attributes ?? {}))
      grants.push(...grantsOfTest(element, attribute, test, rule.schemes?.[attribute] ?? markup.urls.schemes[attribute] ?? [], classes));
  }
  for (const [attribute, test] of Object.entries(markup.attributes))
    grants.push(...grantsOfTest(EVERY, attribute, test, markup.urls.schemes[attribute] ?? [], classes));
  if (markup.urls.relative) grants.push({ kind: 'relative' });
  return grants;
}

function grantsOfTest(
  element: string,
  attribute: string,
  test: AttributeTest,
  schemes: readonly string[],
  styles: readonly string[],
): Need[] {
  switch (test.test) {
    case 'tokens':
      if (attribute !== 'class') break;
      return [
        ...new Set([
          ...(test.values ?? []),
          ...(test.prefixes ?? []).map((prefix) => `${prefix}*`),
          ...(test.ofStyles === true ? styles : []),
        ]),
      ].map((word) => ({ kind: 'class', element, word }));
    case 'style':
      return Object.keys(test.properties ?? {}).map((property) => ({ kind: 'property', element, property }));
    case 'url':
      return [
        { kind: 'attribute', element, attribute },
        ...schemes.map((scheme): Need => ({ kind: 'scheme', element, attribute, scheme })),
        ...(test.hosts ?? []).map((host): Need => ({ kind: 'host', element, host })),
      ];
  }
  return [{ kind: 'attribute', element, attribute }];
}
