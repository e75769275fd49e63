import { RE2JS } from 're2js';
import { escapeText } from '../../html/serialize';
import { textInPlaceOf, type FragmentNode } from '../../html/node';
import { countLetters, visibleLetters, visibleText } from '../../html/text';
import { transform } from '../../html/transform';
import type { Replacement } from '../../profile/paste-schema';
import { setAttribute } from '../declarations';
import { replaceInRun, textRuns, type Replaced } from '../text-runs';
import type { Pass, Reporter } from '../pass';

/** Replaces words, attribute values or whole elements. */
export const findReplace: Pass<'find-replace'> = {
  id: 'find-replace',
  run({ root, settings, report }) {
    for (const replacement of settings.rules) {
      const search = compileSearch(replacement);
      // What cannot be read replaces nothing; the profile's own check says why.
      if (search === null) continue;
      if (replacement.in === 'text') inText(root, search, report);
      else if (replacement.in === 'attributes') inAttributes(root, search, replacement.name, report);
      else inElements(root, search, replacement, report);
    }
  },
};

/** Finds every stretch that a replacement is about, with what takes its place. */
export type Search = (text: string) => Replaced[];

/** Makes the search of a replacement; null where its pattern cannot be used. Linear in the text whatever the pattern says. */
export function compileSearch({ find, as, replace, matchCase }: Pick<Replacement, 'find' | 'as' | 'replace' | 'matchCase'>): Search | null {
  let pattern: RE2JS;
  try {
    pattern = RE2JS.compile(as === 'text' ? RE2JS.quote(find) : find, matchCase ? 0 : RE2JS.CASE_INSENSITIVE);
  } catch {
    return null;
  }
  return (text) => {
    const found: Replaced[] = [];
    const matcher = pattern.matcher(text);
    while (matcher.find()) {
      const [start, end] = [matcher.start(), matcher.end()];
      // Nothing is not worth replacing, and would be found everywhere.
      if (end === start) continue;
      const instead =
        as === 'text' ? replace : replace.replace(/\$(?:(\d)|\$)/g, (whole, number?: string) => groupOf(matcher, whole, number));
      found.push({ start, end, text: instead });
    }
    return found;
  };
}

function groupOf(matcher: { groupCount(): number; group(index: number): string | null }, whole: string, number?: string): string {
  if (number === undefined) return '$';
  const index = Number(number);
  return index <= matcher.groupCount() ? (matcher.group(index) ?? '') : whole;
}

function inText(root: FragmentNode, search: Search, report: Reporter): void {
  for (const run of textRuns(root)) {
    const changes = differing(run.text, search);
    if (changes.length === 0) continue;
    const places = replaceInRun(run, changes);
    changes.forEach(({ start, end, text }, i) =>
      report.characters(places[i]!, text, 'change', countLetters(run.text.slice(start, end)) - countLetters(text)),
    );
  }
}

/** The hits of a search that what is put instead differs from. */
function differing(text: string, search: Search): Replaced[] {
  const hits = search(text);
  return hits.filter((hit) => text.slice(hit.start, hit.end) !== hit.text);
}

function inAttributes(root: FragmentNode, search: Search, name: string | undefined, report: Reporter): void {
  transform(root, {
    element(element) {
      for (const attribute of [...element.attributes]) {
        if (name !== undefined && attribute.name !== name) continue;
        const changes = search(attribute.value);
        if (changes.length === 0) continue;
        const after = replaced(attribute.value, changes);
        if (after === attribute.value) continue;
        report.attribute(element, attribute.name, `${attribute.name}="${after}"`, 'change');
        setAttribute(element, attribute.name, after);
      }
      return 'keep';
    },
  });
}

/** Elements whose whole text matches: they go with all they hold, or other words stand in their place. */
function inElements(root: FragmentNode, search: Search, { name, replace }: Replacement, report: Reporter): void {
  transform(root, {
    element(element) {
      if (name !== undefined && element.name !== name) return 'keep';
      const text = visibleText(element).replace(/\s+/g, ' ').trim();
      // Long elements are containers; to look through the text of each again and again would cost too much.
      if (text === '' || text.length > LONGEST_ELEMENT) return 'keep';
      const [hit] = search(text);
      if (hit?.start !== 0 || hit.end !== text.length) return 'keep';
      if (replace === '') {
        report.removed(element, 'change');
        return 'drop';
      }
      report.changed(element, escapeText(hit.text), 'change', visibleLetters(element) - countLetters(hit.text));
      return [textInPlaceOf(element, hit.text)];
    },
  });
}

const LONGEST_ELEMENT = 10_000;

function replaced(text: string, changes: readonly Replaced[]): string {
  let out = '';
  let at = 0;
  for (const change of changes) {
    out += text.slice(at, change.start) + change.text;
    at = change.end;
  }
  return out + text.slice(at);
}
