import { isHidden } from '../../html/display';
import { ElementNode } from '../../html/node';
import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Elements that say the same: who keeps one of them keeps what it says. */
const SYNONYMS: readonly (readonly string[])[] = [
  ['strong', 'b'],
  ['em', 'i'],
  ['s', 'strike', 'del'],
];

/** Takes named elements and attributes away, or all but those named. Event attributes always go. */
export const elements: Pass<'elements'> = {
  id: 'elements',
  run({ root, settings, report }) {
    const [unwrapped, dropped, attributes] = [new Set(settings.unwrap), new Set(settings.drop), new Set(settings.attributes)];
    const only = settings.only === undefined ? null : withSynonyms(settings.only);
    const isTaken = (name: string): boolean => unwrapped.has(name) || dropped.has(name) || only?.has(name) === false;
    const hasParagraphs = !isTaken('p');
    const onlyAttributes = settings.onlyAttributes === undefined ? null : new Set(settings.onlyAttributes);
    transform(root, {
      element(element) {
        if (dropped.has(element.name)) {
          report.removed(element, 'change');
          return 'drop';
        }
        if (unwrapped.has(element.name) || only?.has(element.name) === false) return report.unwrap(element);
        const going = element.attributes
          .map(({ name }) => name)
          .filter((name) => attributes.has(name) || name.startsWith('on') || onlyAttributes?.has(name) === false);
        if (going.length > 0 && isHidden(element) && !isHidden(withoutAttributes(element, going))) {
          // Without what hid it, it would turn up on the page.
          report.removed(element, 'change');
          return 'drop';
        }
        for (const name of going) {
          report.attribute(element, name);
          setAttribute(element, name, null);
        }
        return 'keep';
      },
      apart: { paragraph: hasParagraphs, lineBreak: !isTaken('br') },
    });
  },
};

function withSynonyms(names: readonly string[]): ReadonlySet<string> {
  return new Set(names.flatMap((name) => SYNONYMS.find((same) => same.includes(name)) ?? [name]));
}

function withoutAttributes({ name, namespace, attributes }: ElementNode, names: readonly string[]): ElementNode {
  return new ElementNode(
    name,
    namespace,
    attributes.filter((attribute) => !names.includes(attribute.name)),
  );
}
