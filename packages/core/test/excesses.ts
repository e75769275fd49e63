import { parseFragment, SAFETY_FLOOR, type HouseLimits, type Markup, type ResolvedProfile } from '../src/index';

/**
 * What a result holds that the rules do not allow, told without the compiler: each element must have a rule that keeps it
 * (in the profile and in the house limits), each attribute a rule that names it. Elements that a parser adds by itself,
 * and attributes that a rule puts there, are let through.
 */
export function excesses(html: string, { profile }: ResolvedProfile, house: HouseLimits | undefined): string[] {
  const found: string[] = [];
  const stack = [...parseFragment(html).root.children];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    if (node.type !== 'element') continue;
    const { name } = node;
    if ((SAFETY_FLOOR.elements.drop as readonly string[]).includes(name)) found.push(`floor ${name}`);
    const layers = layersOf(profile.markup, house);
    const forced = layers.map(([, markup]) => markup.elements[name]?.forced ?? {});
    for (const [layer, markup] of layers) {
      if (!keeps(markup, name) && !(name === 'tbody' && markup.elements['tbody'] === undefined)) found.push(`${layer} <${name}>`);
      for (const attribute of node.attributes)
        if (!mayHave(markup, profile.markup, name, attribute.name) && !forced.some((names) => Object.hasOwn(names, attribute.name)))
          found.push(`${layer} ${attribute.name} on <${name}>`);
    }
    stack.push(...node.children);
  }
  return found;
}

function layersOf(markup: Markup, house: HouseLimits | undefined): [string, Markup][] {
  return house === undefined
    ? [['profile', markup]]
    : [
        ['profile', markup],
        ['house', house.markup],
      ];
}

function keeps({ elements }: Markup, name: string): boolean {
  return Object.hasOwn(elements, name) && (elements[name]!.outcome ?? 'keep') === 'keep';
}

function mayHave(markup: Markup, own: Markup, element: string, attribute: string): boolean {
  const named = [markup.attributes, markup.elements[element]?.attributes ?? {}];
  if (named.some((names) => Object.hasOwn(names, attribute))) return true;
  if (element === 'iframe' && attribute === 'sandbox') return true;
  // A policy for new windows puts these there itself.
  return (attribute === 'target' || attribute === 'rel') && [markup, own].some(({ links }) => links.newWindow === 'other-sites');
}
