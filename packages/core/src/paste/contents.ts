import type { ParentNode } from '../html/node';
import { steps } from '../html/steps';

/** What stands in a tree, as far as a pass can tell by it that there is nothing to do. */
export interface Contents {
  elements: ReadonlySet<string>;
  attributes: ReadonlySet<string>;
  hasComments: boolean;
}

/** Looks through a tree once. */
export function contentsOf(root: ParentNode): Contents {
  const elements = new Set<string>();
  const attributes = new Set<string>();
  let hasComments = false;
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop())
    for (const child of parent.children) {
      steps.taken++;
      if (child.type === 'comment') hasComments = true;
      if (child.type !== 'element') continue;
      elements.add(child.name);
      for (const { name } of child.attributes) attributes.add(name);
      if (child.children.length > 0) stack.push(child);
    }
  return { elements, attributes, hasComments };
}
