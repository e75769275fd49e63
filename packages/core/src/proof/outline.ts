import type { ParentNode } from '../html/node';
import { visibleText } from '../html/text';
import { elementsOf } from '../html/transform';
import { textRuns } from '../paste/text-runs';

/** Text with every run of white space as one space. */
export const inOneLine = (text: string): string => text.replace(/[\s\u00a0]+/g, ' ').trim();

/** The headings of a tree, each as its level and its words: `2 Tides`. */
export function outlineOf(root: ParentNode): string[] {
  return elementsOf(root)
    .filter(({ name }) => /^h[1-6]$/.test(name))
    .map((heading) => `${heading.name.slice(1)} ${inOneLine(visibleText(heading))}`);
}

/** Every value that an attribute has in a tree, in document order. */
export function attributesOf(root: ParentNode, name: string): string[] {
  return elementsOf(root).flatMap((element) => element.attribute(name) ?? []);
}

/** The lines of text that a reader sees, each without white space around it. */
export function linesOf(root: ParentNode): string[] {
  return textRuns(root)
    .map(({ text }) => inOneLine(text))
    .filter((line) => line !== '');
}

/** All that a reader sees, in one line. */
export const textInLines = (root: ParentNode): string => inOneLine(linesOf(root).join(' '));

/** How often a tree has an element (`li`), a class (`.note`) or an attribute (`@style`). */
export function countOf(root: ParentNode, of: string): number {
  if (of.startsWith('@')) return attributesOf(root, of.slice(1)).length;
  const elements = elementsOf(root);
  if (of.startsWith('.')) return elements.filter((element) => element.attribute('class')?.split(/\s+/).includes(of.slice(1))).length;
  return elements.filter(({ name }) => name === of).length;
}
