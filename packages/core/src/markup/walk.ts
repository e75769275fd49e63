import { Boundaries, Boundary, type Means } from '../html/boundary';
import { partingOf, type Parting } from '../html/display';
import { AS_WRITTEN } from '../html/elements';
import { append, type ChildNode, type CommentNode, type ElementNode, type ParentNode, TextNode } from '../html/node';
import type { ParsedFragment } from '../html/parse';
import { steps } from '../html/steps';
import { countLetters, hasLetters, offsetAfterLetters } from '../html/text';
import { placeOfText, replaceText } from '../html/text-place';
import type { Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { OF_CONTENT, ofText } from '../ledger/subject';
import type { CompiledElement, CompiledRules } from './compiled';
import { headingRules } from './headings';
import { collectIds, type IdNames } from './ids';
import { isMakeable } from './makeable';
import { Notes, type Cause, type Frame } from './notes';

/** A walk over a tree with a stack of its own: each node of the source is taken off its parent, and put into the result or not. */
export abstract class Walk {
  protected readonly frames: Frame[] = [];
  protected readonly notes: Notes;
  protected readonly headings: ReadonlyMap<string, CompiledElement> | null;
  protected readonly ids: IdNames | null;
  protected readonly seesEmpty: boolean;
  protected elementsKept = 0;
  private lettersKept = 0;
  protected isFull = false;
  /** How many elements are open of each name whose depth is limited. */
  protected readonly openOf = new Map<string, number>();
  /** Whether any text of the result holds a hard space. */
  hasHardSpaces = false;
  protected readonly boundaries = new Boundaries();
  /** Lists that were made for items without one, by where they stand, until that is complete. */
  protected readonly wholes = new Map<ParentNode, Set<ElementNode>>();

  constructor(
    protected readonly fragment: ParsedFragment,
    protected readonly rules: CompiledRules,
    protected readonly ledger: Ledger | null,
    protected readonly stage: Stage,
  ) {
    this.notes = new Notes(fragment, ledger, stage, this.frames);
    this.headings = rules.headings === null ? null : headingRules(fragment.root, rules);
    this.ids = rules.ids === null ? null : collectIds(fragment.root, fragment.input, rules.ids);
    this.seesEmpty = rules.seesEmpty;
  }

  /** What becomes of an element that a frame is at. */
  protected abstract element(element: ElementNode, frame: Frame): void;
  protected abstract comment(comment: CommentNode, frame: Frame): void;
  /** What becomes of an element that shows nothing, now that all in it is done. */
  protected abstract closeEmpty(element: ElementNode, rule: CompiledElement, parent: Frame): void;

  run(): void {
    const { root } = this.fragment;
    this.open(root, root, 0, '', 0, null, false);
    while (this.frames.length > 0) {
      const frame = this.frames[this.frames.length - 1]!;
      if (frame.next === frame.children.length) {
        this.close(frame);
        continue;
      }
      const child = frame.children[frame.next++]!;
      steps.taken++;
      if (child.type === 'text') this.text(child, frame);
      else if (child.type === 'comment') this.comment(child, frame);
      else {
        frame.elementsSeen++;
        this.element(child, frame);
      }
    }
  }

  /** Takes the children off a source element and begins to walk them into `target`; the last two are those of `Frame`. */
  protected open(
    source: ParentNode,
    target: ParentNode,
    depth: number,
    endText: string,
    nth: number,
    fills: CompiledElement | null,
    isHidden: boolean,
    after: Boundary | null = null,
    lines: Frame['lines'] = this.frames[this.frames.length - 1]?.lines ?? null,
  ): void {
    const { children } = source;
    source.children = [];
    this.frames.push({
      source,
      children,
      next: 0,
      elementsSeen: 0,
      elementsInAll: -1,
      target,
      depth,
      endText,
      nth,
      path: null,
      fills,
      shows: false,
      isHidden,
      after,
      lines,
    });
  }

  /** Whose doing it is that lines are no longer seen as such in an element that kept them and goes: unless another around it does. */
  protected linesWithout(name: string, frame: Frame, by: Authority): Frame['lines'] {
    return AS_WRITTEN.has(name) && frame.lines !== 'kept' ? this.causeOf(name, frame, by) : frame.lines;
  }

  private causeOf(name: string, frame: Frame, by: Authority): Cause {
    return { by, path: this.ledger === null ? '' : this.notes.pathOf(name, frame) };
  }

  /** The same for an element that goes while its content stays. What parted its words from those beside it still does. */
  protected openInto(element: ElementNode, frame: Frame, by: Authority, endText = '', parting = partingOf(element)): void {
    const boundary = this.mark(frame, parting, element.name, by);
    const lines = this.linesWithout(element.name, frame, by);
    this.open(element, frame.target, frame.depth, endText, frame.elementsSeen, null, frame.isHidden, boundary, lines);
  }

  /** Notes that words on the two sides of the place that a frame is at are apart, by whom and since what went. */
  protected mark(frame: Frame, parting: Parting | null, name: string, by: Authority): Boundary | null {
    if (parting === null) return null;
    return this.boundaries.mark(frame.target, parting, this.causeOf(name, frame, by));
  }

  /** Puts what is needed in the place of the boundaries of a target that is complete. */
  private settle(target: ParentNode, depth: number, holder: Frame | undefined): void {
    this.dropEmptyWholes(target);
    if (!this.boundaries.isBounded(target)) return;
    const { nesting, elements } = this.rules;
    // As many as there could be; where not all of them may stay, a space does.
    const isRoom = depth < nesting.limit && (elements === null || elements.limit - this.elementsKept >= target.children.length);
    this.boundaries.settle(target, holder === undefined, {
      paragraph: isRoom && this.canMake('p'),
      lineBreak: isRoom && this.canMake('br'),
      onMade: this.onMade,
    });
  }

  /** Takes out the lists that were made and have lost all their items since; what stands between those stays. */
  private dropEmptyWholes(target: ParentNode): void {
    const made = this.wholes.get(target);
    if (made === undefined) return;
    this.wholes.delete(target);
    const empty = new Set<ChildNode>([...made].filter(({ children }) => children.every(({ type }) => type !== 'element')));
    if (empty.size === 0) return;
    this.elementsKept -= empty.size;
    const { children } = target;
    target.children = [];
    for (const child of children) {
      if (child instanceof Boundary || !empty.has(child)) {
        target.children.push(child);
        child.parent = target;
      } else for (const inner of (child as ElementNode).children) target.children.push(Object.assign(inner, { parent: target }));
    }
  }

  private readonly onMade: NonNullable<Means['onMade']> = (made, place, cause) => {
    if (made !== ' ') this.elementsKept++;
    const { by, path } = cause as Cause;
    const { start, end } = place ?? { start: 0, end: this.fragment.input.length };
    this.ledger?.add(this.stage, {
      by,
      action: 'changed',
      subject: OF_CONTENT,
      reason: 'words-apart',
      severity: 'tidy',
      start,
      end,
      beforeEnd: end,
      path,
      after: made === ' ' ? ' ' : `<${made}>`,
      textLost: 0,
    });
  };

  /** Whether an element that is put there stays as it is. */
  protected canMake(name: string): boolean {
    return isMakeable(this.rules, name);
  }

  private close(frame: Frame): void {
    if (frame.endText !== '') this.text(new TextNode(frame.endText), frame);
    this.frames.pop();
    const parent = this.frames[this.frames.length - 1];
    if (frame.fills !== null || parent === undefined) this.settle(frame.target, frame.depth, parent);
    if (parent === undefined) return;
    this.closeInto(frame, parent);
    this.boundaries.markAgain(frame.fills === null ? frame.target : parent.target, frame.after);
  }

  private closeInto(frame: Frame, parent: Frame): void {
    const { fills } = frame;
    if (fills !== null) {
      if (fills.demands?.depth != null) this.openOf.set(fills.name, this.openOf.get(fills.name)! - 1);
      if (this.seesEmpty && !frame.shows) this.closeEmpty(frame.target as ElementNode, fills, parent);
    }
    if (frame.shows) parent.shows = true;
  }

  protected text(text: TextNode, frame: Frame): void {
    const { letters } = this.rules;
    if (letters === null || frame.isHidden) {
      this.put(text, frame);
      return;
    }
    const all = countLetters(text.value);
    if (!this.isFull && this.lettersKept + all <= letters.limit) {
      this.lettersKept += all;
      this.put(text, frame);
      return;
    }
    const kept = this.isFull ? 0 : offsetAfterLetters(text.value, letters.limit - this.lettersKept);
    const before = countLetters(text.value.slice(0, kept));
    this.lettersKept += before;
    this.isFull = true;
    if (all > before) {
      const { start, end } = placeOfText(text, kept) ?? this.notes.placeIn(frame);
      this.notes.add(frame, ofText(nameIn(frame)), letters.by, 'removed', 'letter-limit', 'loss', start, end, end, '', all - before);
    }
    replaceText(text, kept, text.value.length, '');
    this.put(text, frame);
  }

  private put(text: TextNode, frame: Frame): void {
    if (this.seesEmpty && !frame.shows && hasLetters(text.value)) frame.shows = true;
    if (frame.lines === null || frame.lines === 'kept') append(frame.target, text);
    else this.boundaries.putLines(frame.target, text, frame.lines);
    if (!this.hasHardSpaces && this.rules.hardSpaces !== null && text.value.includes('\u00a0')) this.hasHardSpaces = true;
  }
}

/** The name of the element whose children a frame walks; empty at the top. */
export const nameIn = ({ source }: Frame): string => parentName(source);

export const parentName = (parent: ParentNode | string): string =>
  typeof parent === 'string' ? parent : parent.type === 'element' ? parent.name : '';
