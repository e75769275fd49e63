import { isBlock, REPLACED_ELEMENTS } from '../../html/elements';
import { append, ElementNode, HTML_NAMESPACE, type ChildNode } from '../../html/node';
import { countLetters, hasLetters } from '../../html/text';
import { transform } from '../../html/transform';
import { isMeaningful } from '../../markup/hard-spaces';
import type { Pass } from '../pass';

/** Characters that show nothing: zero-width ones, soft hyphens, byte order marks, controls other than white space. */
// eslint-disable-next-line no-control-regex -- these are the characters meant
const INVISIBLE = /[\u0001-\u0008\u000e-\u001f\u007f\u00ad\u200b\u200c\u2060\ufeff]/g;

/** Makes hard spaces plain, takes invisible characters and empty paragraphs away, and turns runs of breaks into paragraphs. */
export const spaces: Pass<'spaces'> = {
  id: 'spaces',
  label: 'Spaces and empties',
  effect: 'Hard spaces that bind nothing become plain; empty paragraphs go; runs of breaks become paragraphs.',
  run({ root, settings, report }) {
    transform(root, {
      text(text) {
        let value = text.value;
        if (settings.invisible) {
          const bare = value.replace(INVISIBLE, '');
          if (bare !== value) report.changed(text, '', 'tidy', countLetters(value) - countLetters(bare));
          value = bare;
        }
        if (settings.hardSpaces !== 'keep' && value.includes('\u00a0')) {
          const before = value;
          value = value.replace(/\u00a0+/g, (run, at: number) => {
            if (settings.hardSpaces === 'runs') return run.length > 1 ? ' ' : run;
            if (
              settings.hardSpaces === 'meaningless' &&
              run.length === 1 &&
              isMeaningful(before.slice(Math.max(0, at - 16), at), before.slice(at + 1, at + 17))
            )
              return run;
            return ' ';
          });
          if (value !== before) report.changed(text, ' ');
        }
        text.value = value;
        return 'keep';
      },
    });
    if (settings.breaks === 'paragraphs') breaksToParagraphs(root, report);
    if (settings.emptyParagraphs === 'remove')
      transform(root, {
        done(element) {
          if (element.name !== 'p' || element.children.some(shows)) return true;
          report.removed(element, 'change');
          return false;
        },
      });
  },
};

/** Whether anything in a node shows: letters, pictures and the like. */
function shows(node: ChildNode): boolean {
  const stack: ChildNode[] = [node];
  for (let next = stack.pop(); next !== undefined; next = stack.pop()) {
    if (next.type === 'text' && hasLetters(next.value)) return true;
    if (next.type !== 'element') continue;
    if (next.name === 'hr' || next.name === 'table' || REPLACED_ELEMENTS.has(next.name)) return true;
    for (const child of next.children) stack.push(child);
  }
  return false;
}

/** A paragraph with two or more breaks in a row becomes as many paragraphs. */
function breaksToParagraphs(root: Parameters<typeof transform>[0], report: { changed(node: ElementNode, after: string): void }): void {
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
          current = new ElementNode('p', HTML_NAMESPACE, element.attributes.slice());
          current.start = element.start;
          current.startTagEnd = element.startTagEnd;
          current.endTagStart = element.endTagStart;
          current.end = element.end;
          parts.push(current);
        } else for (const kept of pending) append(current, kept);
        pending = [];
        breaks = 0;
        append(current, child);
      }
      report.changed(element, `${parts.length} paragraphs`);
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
    else if (child.type !== 'text' || countLetters(child.value) > 0) breaks = 0;
  }
  return false;
}
