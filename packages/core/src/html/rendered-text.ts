import { isHidden, partingOf } from './display';
import { AS_WRITTEN } from './elements';
import type { Node } from './node';
import { steps } from './steps';

/**
 * The text of a tree as a reader sees it (HTML, section 3.2.7 "The innerText getter", rendered text), worked out without
 * layout: blocks and line breaks part lines, paragraphs an empty line, cells a tab; white space is collapsed; what is
 * hidden is left out. Controls and readings of ruby are parted by a space. In time linear to the tree, without recursion.
 */
export function renderedText(root: Node): string {
  const lines = new Lines();
  type Step = { node: Node; leaving: boolean; isAsWritten: boolean; follows: boolean };
  const stack: Step[] = [{ node: root, leaving: false, isAsWritten: false, follows: false }];
  for (let step = stack.pop(); step !== undefined; step = stack.pop()) {
    const { node, leaving, isAsWritten, follows } = step;
    steps.taken++;
    if (node.type === 'text') {
      lines.text(node.value, isAsWritten);
      continue;
    }
    if (node.type === 'comment') continue;
    let within = isAsWritten;
    if (node.type === 'element') {
      if (!leaving && isHidden(node)) continue;
      const parting = partingOf(node);
      if (node.name === 'br') {
        if (!leaving) lines.lineBreak();
        continue;
      }
      if (parting === 'line') lines.need(node.name === 'p' ? 2 : 1);
      else if (parting === 'box') lines.space();
      else if (parting === 'cell' && !leaving && follows) lines.tab();
      if (leaving) continue;
      within ||= AS_WRITTEN.has(node.name);
      stack.push({ node, leaving: true, isAsWritten, follows });
    }
    const { children } = node;
    let cellsBehind = false;
    const from = stack.length;
    for (const child of children) {
      const isCell = child.type === 'element' && partingOf(child) === 'cell' && !isHidden(child);
      stack.push({ node: child, leaving: false, isAsWritten: within, follows: isCell && cellsBehind });
      cellsBehind ||= isCell;
    }
    reverse(stack, from);
  }
  return lines.end();
}

/** The words of a tree as a reader sees them, in order: what white space parts in its rendered text. */
export function renderedWords(root: Node): string[] {
  return renderedText(root)
    .split(/[\s\u00a0]+/)
    .filter((word) => word !== '');
}

function reverse<T>(list: T[], from: number): void {
  for (let i = from, j = list.length - 1; i < j; i++, j--) [list[i], list[j]] = [list[j]!, list[i]!];
}

/** Text that grows by lines, with white space as CSS collapses it (CSS Text 3, section 4.1). */
class Lines {
  private readonly parts: string[] = [];
  /** The last character that was written; a newline at the begin. */
  private last = '\n';
  /** Line ends that are needed before more text comes. */
  private needed = 0;
  /** Whether a collapsed space waits for what it parts. */
  private hasSpace = false;

  text(value: string, isAsWritten: boolean): void {
    if (value === '') return;
    if (isAsWritten) {
      this.write(value);
      return;
    }
    const text = value.replace(/[\t\n\f\r ]+/g, ' ');
    const begins = text.startsWith(' ') ? 1 : 0;
    if (begins === 1) this.space();
    if (text.length === begins) return;
    const ends = text.endsWith(' ');
    this.write(text.slice(begins, ends ? -1 : undefined));
    if (ends) this.space();
  }

  space(): void {
    this.hasSpace = true;
  }

  lineBreak(): void {
    this.flush();
    this.hasSpace = false;
    this.put('\n');
  }

  tab(): void {
    this.flush();
    this.hasSpace = false;
    this.put('\t');
  }

  need(lineEnds: number): void {
    this.needed = Math.max(this.needed, lineEnds);
  }

  end(): string {
    return this.parts.join('');
  }

  private write(text: string): void {
    this.flush();
    if (this.hasSpace && this.last !== '\n' && this.last !== '\t' && this.last !== ' ') this.put(' ');
    this.hasSpace = false;
    this.put(text);
  }

  private flush(): void {
    if (this.needed === 0) return;
    if (this.parts.length > 0) this.put('\n'.repeat(this.needed));
    this.needed = 0;
    this.hasSpace = false;
  }

  private put(text: string): void {
    this.parts.push(text);
    this.last = text[text.length - 1]!;
  }
}
