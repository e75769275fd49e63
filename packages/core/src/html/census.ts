import type { ParentNode } from './node';

/** How often each element and each of its attributes occurs. */
export interface Census {
  elements: Record<string, number>;
  /** By element, then by attribute. */
  attributes: Record<string, Record<string, number>>;
}

/** Counts the elements and attributes of a tree. */
export function takeCensus(root: ParentNode): Census {
  const elements = new Map<string, number>();
  const attributes = new Map<string, Map<string, number>>();
  const stack: ParentNode[] = [root];
  for (let node = stack.pop(); node !== undefined; node = stack.pop()) {
    for (const child of node.children) {
      if (child.type !== 'element') continue;
      elements.set(child.name, (elements.get(child.name) ?? 0) + 1);
      let counts = attributes.get(child.name);
      if (counts === undefined) attributes.set(child.name, (counts = new Map<string, number>()));
      for (const { name } of child.attributes) counts.set(name, (counts.get(name) ?? 0) + 1);
      stack.push(child);
    }
  }
  return {
    elements: Object.fromEntries(elements),
    attributes: Object.fromEntries([...attributes].map(([name, counts]) => [name, Object.fromEntries(counts)])),
  };
}
