import { blankAtBegin, blankAtEnd } from '../../html/blank';
import { isBlock, REPLACED_ELEMENTS } from '../../html/elements';
import { append, copyPlace, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode } from '../../html/node';
import { countLetters, hasLetters } from '../../html/text';
import { replaceText } from '../../html/text-place';
import { transform } from '../../html/transform';
import { isMeaningful } from '../../markup/hard-spaces';
import type { PastePasses } from '../../profile/paste-schema';
import type { Reason } from '../../ledger/entry';
import type { Pass, Reporter } from '../pass';
import { firstCharacter, lastCharacter, nameOfInvisible, worksBetween } from '../scripts';
import { replaceInRun, textRuns, type Replaced, type TextRun } from '../text-runs';
import { linesAsEnterMakes } from './lines-as-enter';

/** Characters that show nothing: zero-width ones, soft hyphens, byte order marks, controls other than white space. */
// eslint-disable-next-line no-control-regex -- these are the characters meant
const INVISIBLE = /[\u0001-\u0008\u000e-\u001f\u007f\u00ad\u200b-\u200d\u2060\ufeff]+/g;

/** White space that readers see as one space. */
const BLANKS = /[\t\n\f\r ]{2,}|[\t\n\f\r]/g;

/** As far as this on either side a hard space is judged by. */
const CONTEXT = 16;

/** Makes hard spaces plain, takes invisible characters and empty paragraphs away, and brings lines and breaks into the form that the Enter key makes. */
export const spaces: Pass<'spaces'> = {
  id: 'spaces',
  run({ root, settings, enter, report }) {
    for (const run of textRuns(root)) tidyText(run, settings, report);
    if (settings.breaks === 'paragraphs') breaksToParagraphs(root, report);
    if (settings.emptyParagraphs !== 'keep') takeEmpties(root, settings.emptyParagraphs, report);
    if (settings.emptyParagraphs === 'remove') takeLooseBreaks(root, report);
    if (settings.lines === 'enter-key') linesAsEnterMakes(root, enter, report);
    if (settings.whiteSpace === 'collapse') trimBlocks(root, report);
  },
};

/** Invisible characters, hard spaces and runs of white space in one line of text. */
function tidyText(run: TextRun, settings: PastePasses['spaces'], report: Reporter): void {
  if (settings.invisible) takeInvisible(run, report);
  if (settings.hardSpaces !== 'keep' && run.text.includes('\u00a0'))
    change(
      run,
      matches(run.text, /\u00a0+/g, (hard, start) => (isKept(run.text, hard, start, settings.hardSpaces) ? hard : ' ')),
      report,
      'paste-space',
    );
  if (settings.whiteSpace === 'collapse') {
    // Readers see one space whatever stands there, so that one entry for a line says enough.
    const changes = run.text.search(BLANKS) === -1 || isBetweenBlocks(run) ? [] : matches(run.text, BLANKS, () => ' ');
    if (changes.length > 0) {
      const [first] = replaceInRun(run, changes);
      run.text = run.nodes.map(({ value }) => value).join('');
      report.characters(first!, ' ', 'tidy', 0, 'paste-blank');
    }
  }
}

/** Invisible characters go where they do nothing; of several in a row that do something the first stays. */
function takeInvisible(run: TextRun, report: Reporter): void {
  const { text } = run;
  if (text.search(INVISIBLE) === -1) return;
  const changes: (Replaced & { name: string })[] = [];
  for (const { 0: found, index } of text.matchAll(INVISIBLE)) {
    const before = lastCharacter(text.slice(Math.max(0, index - 2), index));
    const after = firstCharacter(text.slice(index + found.length, index + found.length + 2));
    const working = [...found].findIndex((character) => worksBetween(character, before, after));
    for (let i = 0; i < found.length; i++) {
      if (i === working) continue;
      const name = nameOfInvisible(found[i]!);
      const last = changes[changes.length - 1];
      if (last?.end === index + i && last.name === name) last.end++;
      else changes.push({ start: index + i, end: index + i + 1, text: '', name });
    }
  }
  if (changes.length === 0) return;
  const places = replaceInRun(run, changes);
  changes.forEach(({ start, end, name }, i) =>
    report.characters(places[i]!, '', 'tidy', countLetters(text.slice(start, end)), 'paste-invisible', name),
  );
  run.text = run.nodes.map(({ value }) => value).join('');
}

function isKept(text: string, hard: string, start: number, which: PastePasses['spaces']['hardSpaces']): boolean {
  if (which === 'runs') return hard.length === 1;
  const after = start + hard.length;
  return (
    which === 'meaningless' &&
    hard.length === 1 &&
    isMeaningful(text.slice(Math.max(0, start - CONTEXT), start), text.slice(after, after + CONTEXT))
  );
}

function matches(text: string, pattern: RegExp, instead: (found: string, start: number) => string): Replaced[] {
  const changes: Replaced[] = [];
  for (const match of text.matchAll(pattern)) {
    const replacement = instead(match[0], match.index);
    if (replacement !== match[0]) changes.push({ start: match.index, end: match.index + match[0].length, text: replacement });
  }
  return changes;
}

function change(run: TextRun, changes: readonly Replaced[], report: Reporter, reason: Reason): void {
  if (changes.length === 0) return;
  const places = replaceInRun(run, changes);
  changes.forEach(({ start, end, text }, i) =>
    report.characters(places[i]!, text, 'tidy', countLetters(run.text.slice(start, end)) - countLetters(text), reason),
  );
  run.text = run.nodes.map(({ value }) => value).join('');
}

/** White space between blocks lays out the source and is no text. */
function isBetweenBlocks({ text }: TextRun): boolean {
  return !hasLetters(text) && !text.includes('\u00a0');
}

/** White space at the edges of blocks, and more than a line end between them: no reader sees it. */
function trimBlocks(root: ParentNode, report: Reporter): void {
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop()) {
    if (parent.type === 'element' && (parent.name === 'pre' || parent.name === 'textarea')) continue;
    if (parent.type === 'fragment' || isBlock(parent.name)) parent.children = trimmed(parent, report);
    for (const child of parent.children) if (child.type === 'element') stack.push(child);
  }
}

function trimmed({ type, children }: ParentNode, report: Reporter): ChildNode[] {
  const isBreak = (child: ChildNode | undefined): boolean => child?.type === 'element' && child.name === 'br';
  const isEdge = (child: ChildNode | undefined): boolean =>
    child === undefined || isBreak(child) || (child.type === 'element' && isBlock(child.name));
  const kept: ChildNode[] = [];
  children.forEach((child, i) => {
    if (child.type !== 'text') {
      kept.push(child);
      return;
    }
    const [before, after] = [kept[kept.length - 1], children[i + 1]];
    if (isEdge(before) && isEdge(after) && !hasLetters(child.value) && !child.value.includes('\u00a0')) {
      // Between blocks one line end lays out the source; beside breaks and at the ends of a line there is nothing to lay out.
      const isBetween = before !== undefined && after !== undefined && !isBreak(before) && !isBreak(after);
      const isInside =
        type === 'element' && children.length > 1 && (before !== undefined || after !== undefined) && !isBreak(before ?? after);
      const stays = (isBetween || isInside) && child.value.includes('\n') ? '\n' : '';
      if (stays !== child.value) replaceText(child, 0, child.value.length, stays);
    } else {
      const lead = isEdge(before) ? blankAtBegin(child.value) : 0;
      if (lead > 0) replaceText(child, 0, lead, '');
      const trail = isEdge(after) ? blankAtEnd(child.value) : 0;
      if (trail > 0) replaceText(child, child.value.length - trail, child.value.length, '');
    }
    if (child.value !== '') kept.push(child);
  });
  // A break at the end of a line of text shows nothing.
  const last = kept[kept.length - 1];
  if (last !== undefined && isBreak(last) && kept.length > 1 && !isEdge(kept[kept.length - 2]) && type === 'element') {
    report.removed(last, 'tidy', 'paste-blank');
    kept.pop();
  }
  return kept;
}

const INLINE_FORMATTING: ReadonlySet<string> = new Set('b i u s em strong sub sup small mark code span font strike big tt'.split(' '));

/** Paragraphs with nothing to see, and formatting around nothing. */
function takeEmpties(root: ParentNode, become: 'remove' | 'breaks', report: Reporter): void {
  /** What was found to show something: from the inside out, so that each element is looked at once. */
  const showing = new Set<ChildNode>();
  const shows = (node: ChildNode): boolean => (node.type === 'text' ? hasLetters(node.value) : showing.has(node));
  const remove = (element: ElementNode): boolean => {
    report.removed(element, 'tidy', 'paste-empty');
    return false;
  };
  transform(root, {
    done(element) {
      const { name, children } = element;
      if (SHOWS_ALWAYS.has(name) || REPLACED_ELEMENTS.has(name) || children.some(shows)) showing.add(element);
      if (INLINE_FORMATTING.has(name) && element.attributes.every((attribute) => attribute.name !== 'id') && children.length === 0)
        return remove(element);
      if (showing.has(element)) return true;
      if (name === 'div' && element.attributes.length === 0) return remove(element);
      if (name !== 'p') return true;
      if (become === 'remove') return remove(element);
      element.name = 'br';
      element.children = [];
      element.attributes = [];
      report.renamed(element, 'p', 0, 'paste-empty');
      return true;
    },
  });
}

const SHOWS_ALWAYS: ReadonlySet<string> = new Set(['hr', 'table']);

/** Breaks that stand between blocks, where they make an empty line of their own. */
function takeLooseBreaks(root: ParentNode, report: Reporter): void {
  const stack: ParentNode[] = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop()) {
    const { children } = parent;
    if (
      children.some((child) => child.type === 'element' && child.name === 'br') &&
      children.some((child) => child.type === 'element' && isBlock(child.name))
    ) {
      const isBreak = (child: ChildNode): boolean => child.type === 'element' && child.name === 'br';
      const tells = (child: ChildNode): boolean =>
        !isBreak(child) && (child.type === 'element' || (child.type === 'text' && hasLetters(child.value)));
      // What tells before each place, and behind it.
      let before: ChildNode | null = null;
      const behind: (ChildNode | null)[] = [];
      for (let i = children.length - 1, next: ChildNode | null = null; i >= 0; i--) {
        behind[i] = next;
        if (tells(children[i]!)) next = children[i]!;
      }
      const isEdge = (child: ChildNode | null): boolean => child === null || (child.type === 'element' && isBlock(child.name));
      parent.children = children.filter((child, i) => {
        if (tells(child)) before = child;
        if (!isBreak(child) || !isEdge(before) || !isEdge(behind[i] ?? null)) return true;
        report.removed(child, 'tidy', 'paste-empty');
        return false;
      });
    }
    for (const child of parent.children) if (child.type === 'element') stack.push(child);
  }
}

/** A paragraph with two or more breaks in a row becomes as many paragraphs. */
function breaksToParagraphs(root: ParentNode, report: Reporter): void {
  transform(root, {
    element(element) {
      if (element.name !== 'p' || !hasRun(element.children)) return 'keep';
      const parts: ElementNode[] = [];
      let current: ElementNode | null = null;
      let pending: ChildNode[] = [];
      let breaks = 0;
      for (const child of element.children) {
        if (child.type === 'element' && child.name === 'br') {
          breaks++;
          pending.push(child);
          continue;
        }
        const isBlank = child.type === 'text' && countLetters(child.value) === 0;
        if (isBlank && breaks > 0) {
          pending.push(child);
          continue;
        }
        if (current === null || breaks > 1) {
          current = new ElementNode(
            'p',
            HTML_NAMESPACE,
            element.attributes.filter(({ name }) => name !== 'id' || parts.length === 0),
          );
          copyPlace(element, current);
          parts.push(current);
        } else for (const kept of pending) append(current, kept);
        pending = [];
        breaks = 0;
        append(current, child);
      }
      report.changed(element, `${parts.length} paragraphs`, 'tidy', 0, 'paste-lines');
      return parts.length === 0 ? 'keep' : parts;
    },
  });
}

function hasRun(children: readonly ChildNode[]): boolean {
  let breaks = 0;
  for (const child of children) {
    if (child.type === 'element' && child.name === 'br') {
      if (++breaks > 1) return true;
    } else if (child.type === 'element' && isBlock(child.name)) return false;
    else if (child.type !== 'text' || hasLetters(child.value)) breaks = 0;
  }
  return false;
}
