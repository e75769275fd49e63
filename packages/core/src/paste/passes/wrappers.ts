import { append, type ChildNode, type ElementNode, type ParentNode } from '../../html/node';
import { hasLetters } from '../../html/text';
import { transform } from '../../html/transform';
import type { Pass, Reporter } from '../pass';

/** Attributes that a reader could notice, or that something may point to. */
const CARRIES = /^(?:id|lang|dir|title|class|style|role|aria-.+|itemprop|cite|href|name)$/;
/** Formatting that two neighbours can share. */
const JOINABLE: ReadonlySet<string> = new Set([
  'strong',
  'em',
  'b',
  'i',
  'u',
  's',
  'strike',
  'sub',
  'sup',
  'small',
  'mark',
  'code',
  'del',
  'ins',
]);

/** Unwraps elements that only carry what another program needed, and joins neighbours that say the same. */
export const wrappers: Pass<'wrappers'> = {
  id: 'wrappers',
  run({ root, settings, report }) {
    const names = new Set(settings.elements);
    transform(root, {
      element(element) {
        if (!names.has(element.name)) return 'keep';
        if (settings.which === 'bare' && element.attributes.some(({ name, value }) => CARRIES.test(name) && value !== '')) return 'keep';
        return report.unwrap(element);
      },
    });
    if (settings.join) joinNeighbours(root, report);
  },
};

/** In one walk, outermost first: what is joined brings the edges of its content together, which are joined in their turn. */
function joinNeighbours(root: ParentNode, report: Reporter): void {
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop()) {
    if (parent.children.some((child) => child.type === 'element' && JOINABLE.has(child.name))) {
      const { children } = parent;
      parent.children = [];
      for (const child of children) {
        const [target, blank] = neighbour(parent, child);
        if (target === null) {
          append(parent, child);
          continue;
        }
        if (blank !== null) {
          parent.children.pop();
          append(target, blank);
        }
        for (const moved of (child as ElementNode).children) append(target, moved);
        report.unwrapped(child as ElementNode);
      }
    }
    for (const child of parent.children) if (child.type === 'element') stack.push(child);
  }
}

/** The element before a node that it can be joined to, and the white space between them. */
function neighbour({ children }: ParentNode, child: ChildNode): [ElementNode | null, ChildNode | null] {
  if (child.type !== 'element' || !JOINABLE.has(child.name) || child.attributes.length > 0) return [null, null];
  const last = children[children.length - 1];
  const isBlank = last?.type === 'text' && !hasLetters(last.value);
  const before = isBlank ? children[children.length - 2] : last;
  return before?.type === 'element' && before.name === child.name && before.attributes.length === 0
    ? [before, isBlank ? last : null]
    : [null, null];
}
