import type { ElementNode, Node, ParentNode } from './node';

/**
 * Compares two trees: names, attributes, text, order. Places are not compared.
 *
 * @returns the first node of `one`, in document order, that differs from its counterpart (where children are missing or too
 * many, the first that has none, or else the parent); null where the trees are the same
 */
export function firstDifference(one: ParentNode, other: ParentNode): Node | null {
  const ones: Node[] = [one];
  const others: (Node | null)[] = [other];
  for (let a = ones.pop(); a !== undefined; a = ones.pop()) {
    const b = others.pop() ?? null;
    if (b === null || !isSameNode(a, b)) return a;
    if (a.type === 'text' || a.type === 'comment' || b.type === 'text' || b.type === 'comment') continue;
    const shared = Math.min(a.children.length, b.children.length);
    if (a.children.length !== b.children.length) {
      ones.push(a.children[shared] ?? a);
      others.push(null);
    }
    for (let i = shared - 1; i >= 0; i--) {
      ones.push(a.children[i]!);
      others.push(b.children[i]!);
    }
  }
  return null;
}

function isSameNode(a: Node, b: Node): boolean {
  if (a.type === 'text') return b.type === 'text' && a.value === b.value;
  if (a.type === 'comment') return b.type === 'comment' && a.data === b.data;
  if (a.type === 'fragment') return b.type === 'fragment';
  return b.type === 'element' && a.name === b.name && a.namespace === b.namespace && hasSameAttributes(a, b);
}

function hasSameAttributes(a: ElementNode, b: ElementNode): boolean {
  if (a.attributes.length !== b.attributes.length) return false;
  for (let i = 0; i < a.attributes.length; i++) {
    const one = a.attributes[i]!;
    const other = b.attributes[i]!;
    if (one.name !== other.name || one.value !== other.value) return false;
  }
  return true;
}
