import { isBlock } from '../../html/elements';
import { append, ElementNode, HTML_NAMESPACE, TextNode, type ChildNode } from '../../html/node';
import { hasLetters } from '../../html/text';
import { transform, type Fate } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass, Reporter } from '../pass';

/** Elements that say the same: who keeps one of them keeps what it says. */
const SYNONYMS: readonly (readonly string[])[] = [
  ['strong', 'b'],
  ['em', 'i'],
  ['s', 'strike', 'del'],
];

/** Takes named elements and attributes away, or all but those named. Event attributes always go. */
export const elements: Pass<'elements'> = {
  id: 'elements',
  label: 'Elements and attributes',
  effect: 'Named elements and attributes go; event handlers always.',
  unit: ['place', 'places'],
  run({ root, settings, report }) {
    const [unwrapped, dropped, attributes] = [new Set(settings.unwrap), new Set(settings.drop), new Set(settings.attributes)];
    const only = settings.only === undefined ? null : withSynonyms(settings.only);
    const hasParagraphs = !unwrapped.has('p') && !dropped.has('p') && only?.has('p') !== false;
    const onlyAttributes = settings.onlyAttributes === undefined ? null : new Set(settings.onlyAttributes);
    transform(root, {
      element(element) {
        if (dropped.has(element.name)) {
          report.removed(element, 'change');
          return 'drop';
        }
        if (unwrapped.has(element.name) || only?.has(element.name) === false) return unwrap(element, hasParagraphs, report);
        for (const { name } of [...element.attributes])
          if (attributes.has(name) || name.startsWith('on') || onlyAttributes?.has(name) === false) {
            report.attribute(element, name);
            setAttribute(element, name, null);
          }
        return 'keep';
      },
    });
  },
};

function withSynonyms(names: readonly string[]): ReadonlySet<string> {
  return new Set(names.flatMap((name) => SYNONYMS.find((same) => same.includes(name)) ?? [name]));
}

/** Takes the tags of an element away so that its words do not run into those beside it. */
function unwrap(element: ElementNode, hasParagraphs: boolean, report: Reporter): Fate {
  const isLine = isBlock(element.name) && element.children.length > 0 && element.name !== 'p';
  const holdsBlocks = element.children.some((child) => child.type === 'element' && isBlock(child.name));
  if (isLine && hasParagraphs && !holdsBlocks) {
    const before = element.name;
    element.name = 'p';
    element.attributes = element.attributes.filter(({ name }) => name === 'id');
    report.renamed(element, before);
    return 'keep';
  }
  if (isLine && hasParagraphs) element.children = inParagraphs(element);
  // Where there is nothing else to part them, a space does.
  else if (isBlock(element.name) && element.children.length > 0) {
    element.children.unshift(new TextNode(' '));
    append(element, new TextNode(' '));
  }
  report.unwrapped(element);
  return 'unwrap';
}

/** What an element holds, with the words beside its blocks in paragraphs. */
function inParagraphs(element: ElementNode): ChildNode[] {
  const parts: ChildNode[] = [];
  let line: ElementNode | null = null;
  for (const child of element.children) {
    if ((child.type === 'element' && isBlock(child.name)) || (line === null && child.type === 'text' && !hasLetters(child.value))) {
      line = null;
      parts.push(child);
      continue;
    }
    if (line === null) {
      line = new ElementNode('p', HTML_NAMESPACE, []);
      line.parent = element;
      line.start = line.startTagEnd = element.start;
      line.endTagStart = line.end = element.end;
      parts.push(line);
    }
    append(line, child);
  }
  return parts;
}
