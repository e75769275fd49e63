import { walk } from 'css-tree';
import { parseCss } from '../css/parse';
import type { Profile } from '../profile/schema';

/** The classes that a stylesheet names; what cannot be read is left out. */
export function classesIn(css: string): ReadonlySet<string> {
  const classes = new Set<string>();
  walk(parseCss(css, { parseValue: false }), (node) => {
    if (node.type === 'ClassSelector') classes.add(node.name);
  });
  return classes;
}

/** The classes that a profile's styles use; a selector that cannot be read has none. */
export function styleClassesOf({ styles }: Pick<Profile, 'styles'>): ReadonlySet<string> {
  const classes = new Set<string>();
  for (const { selector } of Object.values(styles))
    try {
      walk(parseCss(selector, { context: 'selectorList' }), ({ type, ...node }) => {
        if (type === 'ClassSelector' && 'name' in node) classes.add(node.name as string);
      });
    } catch {
      // What is wrong with the selector is for a check to say.
    }
  return classes;
}
