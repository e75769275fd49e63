import { classesIn, styleClassesOf } from '../markup/style-classes';
import { isValueKept } from '../markup/kept';
import { arrangeToolbar } from '../toolbar/arrange';
import type { Profile } from '../profile/schema';
import type { Check, Finding } from './check';

type Toolbar = Profile['toolbar'];

/** A class that pages style and documents use, and that no author can apply any more: it lives on by copying. */
export const classWithoutStyle: Check = {
  id: 'class-without-style',
  purpose: 'Finds classes in stylesheets and stored documents that no style offers.',
  run({ resolved, rules, pages = [], storedClasses = {} }) {
    if (!arrangeToolbar(resolved.profile.toolbar).some(({ buttons }) => buttons.includes('styles'))) return [];
    const known = new Set(pages.flatMap(({ sheets }) => sheets.flatMap(({ css }) => [...classesIn(css)])));
    const frame = new Set(pages.flatMap(({ wrapper }) => wrapper.flatMap(({ className = '' }) => className.split(/\s+/))));
    const offered = new Set([...styleClassesOf(resolved.profile), ...placements(resolved.profile.toolbar)]);
    const elements = Object.keys(resolved.profile.markup.elements);
    const missing = Object.entries(storedClasses).filter(
      ([name, count]) =>
        count > 0 &&
        known.has(name) &&
        !offered.has(name) &&
        !frame.has(name) &&
        // What the rules remove anyway is no matter of the menu.
        elements.some((element) => isValueKept(rules, element, 'class', name)),
    );
    if (missing.length === 0) return [];
    const told = missing.map(([name, count]) => `${name} (${count} ${count === 1 ? 'place' : 'places'})`).join(', ');
    const finding: Finding = {
      check: 'class-without-style',
      severity: 'note',
      sentence: `Stored documents use ${told}, which the pages style, but no style of this profile offers ${missing.length === 1 ? 'it' : 'them'}.`,
      pointer: '/styles',
    };
    return [finding];
  },
};

/** The classes that other buttons give. */
function placements({ options }: Toolbar): string[] {
  return [...Object.values(options.picture.placements), ...options.indent.classes].flatMap((value) => value.split(/\s+/));
}
