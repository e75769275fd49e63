import type { ParentNode } from '../html/node';
import { visibleText } from '../html/text';
import { elementsOf } from '../html/transform';
import { textRuns } from './text-runs';

/** The headings of a tree, each as its level and its words: `2 Tides`. */
export function outlineOf(root: ParentNode): string[] {
  return elementsOf(root)
    .filter(({ name }) => /^h[1-6]$/.test(name))
    .map(
      (heading) =>
        `${heading.name.slice(1)} ${visibleText(heading)
          .replace(/[\s\u00a0]+/g, ' ')
          .trim()}`,
    );
}

/** Every value that an attribute has in a tree, in document order. */
export function attributesOf(root: ParentNode, name: string): string[] {
  return elementsOf(root).flatMap((element) => element.attribute(name) ?? []);
}

/** The lines of text that a reader sees, each without white space around it. */
export function linesOf(root: ParentNode): string[] {
  return textRuns(root)
    .map(({ text }) => text.replace(/[\s\u00a0]+/g, ' ').trim())
    .filter((line) => line !== '');
}
