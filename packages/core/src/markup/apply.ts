import { Boundaries, Boundary, type Means } from '../html/boundary';
import { isHidden, partingAround, partingOf, type Parting } from '../html/display';
import { AS_WRITTEN, HIDDEN_ELEMENTS, NOTHING_WITHOUT_SOURCE, REPLACED_ELEMENTS, VOID_ELEMENTS } from '../html/elements';
import {
  append,
  type ChildNode,
  type CommentNode,
  ElementNode,
  HTML_NAMESPACE,
  type ParentNode,
  takeOff,
  textInPlaceOf,
  TextNode,
} from '../html/node';
import type { ParsedFragment } from '../html/parse';
import { steps } from '../html/steps';
import { countLetters, hasLetters, offsetAfterLetters, visibleLetters } from '../html/text';
import { placeOfText, replaceText } from '../html/text-place';
import type { Reason, Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { OF_CONTENT, ofComment, ofElement, ofElementBy, ofText, type Subject } from '../ledger/subject';
import { hostOf } from './address';
import { judgeAttributes } from './attributes';
import type { CompiledElement, CompiledRules, Demands } from './compiled';
import { tidyHardSpaces } from './hard-spaces';
import { headingRules, shiftOf } from './headings';
import { collectIds, type IdNames } from './ids';
import { Notes, type Cause, type Frame } from './notes';
import { MADE_WHOLES, wholesOf } from './parts';
import { endOf, isCopy } from './place';

const FLOOR_COMMENTS: Authority = { layer: 'safety-floor', rule: '/comments' };
const FLOOR_DROP: Authority = { layer: 'safety-floor', rule: '/elements/drop' };
const HTML_STANDARD: Authority = { layer: 'html-standard', rule: '' };

/** Headings have six levels, so that after as many rounds all are where they belong. */
const MOST_SHIFTS = 6;

/**
 * Applies compiled markup rules to a tree, in one walk with a stack of its own.
 * The tree is changed in place: kept nodes stay the same objects.
 *
 * @param fragment what the parser returned
 * @param rules what may stay
 * @param ledger gets one entry for each thing changed or removed; null does the same work without a record
 * @param stage the stage to name in the entries
 */
export function applyRules(fragment: ParsedFragment, rules: CompiledRules, ledger: Ledger | null, stage: Stage = 'markup'): void {
  let walk = new Walk(fragment, rules, ledger, stage);
  walk.run();
  // Where the highest heading itself went, the others move once more.
  for (let round = 0; round < MOST_SHIFTS && shiftOf(fragment.root, rules) !== 0; round++) {
    walk = new Walk(fragment, rules, ledger, stage);
    walk.run();
  }
  if (rules.hardSpaces !== null && walk.hasHardSpaces) tidyHardSpaces(fragment.root, rules.hardSpaces, ledger, stage);
}

class Walk {
  private readonly frames: Frame[] = [];
  private readonly notes: Notes;
  private readonly headings: ReadonlyMap<string, CompiledElement> | null;
  private readonly ids: IdNames | null;
  private readonly seesEmpty: boolean;
  private elementsKept = 0;
  private lettersKept = 0;
  private isFull = false;
  /** How many elements are open of each name whose depth is limited. */
  private readonly openOf = new Map<string, number>();
  /** Empty paragraphs that stay, of which only one in a row does. */
  private readonly emptyKept = new Set<ChildNode>();
  /** Whether any text of the result holds a hard space. */
  hasHardSpaces = false;
  private readonly boundaries = new Boundaries();
  /** Lists that were made for items without one, by where they stand, until that is complete. */
  private readonly wholes = new Map<ParentNode, Set<ElementNode>>();

  constructor(
    private readonly fragment: ParsedFragment,
    private readonly rules: CompiledRules,
    private readonly ledger: Ledger | null,
    private readonly stage: Stage,
  ) {
    this.notes = new Notes(fragment, ledger, stage, this.frames);
    this.headings = rules.headings === null ? null : headingRules(fragment.root, rules);
    this.ids = rules.ids === null ? null : collectIds(fragment.root, fragment.input, rules.ids);
    this.seesEmpty = rules.seesEmpty;
  }

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

  /** Takes the children off a source element and begins to walk them into `target`. */
  private open(
    source: ParentNode,
    target: ParentNode,
    depth: number,
    endText: string,
    nth: number,
    fills: CompiledElement | null,
    isHidden: boolean,
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
      after: null,
      lines: this.frames[this.frames.length - 1]?.lines ?? null,
    });
  }

  /** Whose doing it is that lines are no longer seen as such in an element that kept them and goes: unless another around it does. */
  private linesWithout(name: string, frame: Frame, by: Authority): Frame['lines'] {
    return AS_WRITTEN.has(name) && frame.lines !== 'kept' ? this.causeOf(name, frame, by) : frame.lines;
  }

  private causeOf(name: string, frame: Frame, by: Authority): Cause {
    return { by, path: this.ledger === null ? '' : this.notes.pathOf(name, frame) };
  }

  /** The same for an element that goes while its content stays. What parted its words from those beside it still does. */
  private openInto(element: ElementNode, frame: Frame, by: Authority, endText = '', parting = partingOf(element)): void {
    const boundary = this.mark(frame, parting, element.name, by);
    const lines = this.linesWithout(element.name, frame, by);
    this.open(element, frame.target, frame.depth, endText, frame.elementsSeen, null, frame.isHidden);
    Object.assign(this.frames[this.frames.length - 1]!, { after: boundary, lines });
  }

  /** Notes that words on the two sides of the place that a frame is at are apart, by whom and since what went. */
  private mark(frame: Frame, parting: Parting | null, name: string, by: Authority): Boundary | null {
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
  private canMake(name: string): boolean {
    const { outcome, name: kept, demands } = this.rules.element(name);
    return outcome === 'keep' && kept === name && (demands === null || asksNothing(demands));
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

  private text(text: TextNode, frame: Frame): void {
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

  private element(element: ElementNode, frame: Frame): void {
    if (this.isFull) {
      const lost = frame.isHidden ? 0 : visibleLetters(element);
      this.notes.element(element, frame, 'removed', this.rules.letters!.by, 'letter-limit', lost);
      return;
    }
    const { name } = element;
    const rule = element.namespace !== HTML_NAMESPACE ? this.rules.foreign : (this.headings?.get(name) ?? this.rules.element(name));
    if (rule.outcome === 'keep') this.keep(element, rule, frame);
    else if (rule.outcome === 'text' && element.start >= 0 && !element.isCopy && !HIDDEN_ELEMENTS.has(name)) {
      this.notes.element(element, frame, 'shown-as-text', rule.by, 'element-shown-as-text', 0);
      const boundary = this.mark(frame, partingOf(element), name, rule.by);
      this.text(new TextNode(this.source(element.start, element.startTagEnd)), frame);
      this.openInto(element, frame, rule.by, this.source(element.endTagStart, element.end), null);
      this.frames[this.frames.length - 1]!.after = boundary;
    } else this.refuse(element, frame, rule.outcome === 'drop' ? 'drop' : 'unwrap', rule.by, rule.reason);
  }

  /** A piece of the input as text can hold it (HTML, section 13.2.3.5 "Preprocessing the input stream"). */
  private source(start: number, end: number): string {
    return this.fragment.input.slice(start, end).replace(/\r\n?/g, '\n').replaceAll('\0', '');
  }

  /** Takes an element away, with its content or without. */
  private refuse(
    element: ElementNode,
    frame: Frame,
    outcome: 'drop' | 'unwrap',
    by: Authority,
    reason: Reason,
    subject = subjectOf(element),
  ): void {
    // What readers did not see, or saw as deleted, must not turn up on the page when only the tags around it go.
    const hides =
      outcome === 'unwrap' &&
      isHidden(element) &&
      !(element.name === 'rp' && this.rules.element('rt').outcome !== 'keep' && !isHiddenAs(element, 'span'));
    if (outcome === 'drop' || hides || element.name === 'del') {
      const lost = frame.isHidden ? 0 : visibleLetters(element);
      const why = outcome === 'drop' || HIDDEN_ELEMENTS.has(element.name) ? reason : hides ? 'hidden-content' : 'deleted-content';
      this.notes.element(element, frame, 'removed', by, why, lost, subject);
      const parting = isHidden(element) && REPLACED_ELEMENTS.has(element.name) ? partingOf(element) : partingAround(element);
      this.mark(frame, parting, element.name, by);
      return;
    }
    // The brackets around a reading are shown only where the reading itself is not.
    const shown = element.name === 'rp' && !frame.isHidden ? -lettersIn(element) : 0;
    this.notes.element(element, frame, 'unwrapped', by, reason, shown, subject);
    this.openInto(element, frame, by);
  }

  private keep(element: ElementNode, rule: CompiledElement, frame: Frame): void {
    const { nesting, elements } = this.rules;
    const { demands } = rule;
    const whole = this.wholeFor(rule.name, frame);
    if (whole === 'none') {
      const by = demands === null ? null : this.refusedIn(frame.target, demands);
      if (by !== null) return this.refuseIn(element, frame, frame.target, by);
      return this.refuse(element, frame, 'unwrap', HTML_STANDARD, 'part-without-whole');
    }
    const depth = frame.depth + (whole === 'there' ? 0 : 1);
    if (depth >= nesting.limit) return this.refuse(element, frame, 'unwrap', nesting.by, 'nesting-limit');
    if (elements !== null && this.elementsKept + (depth - frame.depth) >= elements.limit)
      return this.refuse(element, frame, 'unwrap', elements.by, 'element-limit');
    if (demands !== null) {
      const parent = whole === 'there' ? frame.target : whole;
      const by = this.refusedIn(parent, demands);
      if (by !== null) return this.refuseIn(element, frame, parent, by);
      const { depth: deepest } = demands;
      if (deepest !== null && (this.openOf.get(rule.name) ?? 0) >= deepest.limit)
        return this.refuse(element, frame, 'unwrap', deepest.by, 'depth-limit');
    }
    const { name: original, attributes } = element;
    const parted = partingOf(element);
    if (!this.keepAttributes(element, rule, frame)) return;
    if (rule.name !== original) {
      const lost = !frame.isHidden && !isHidden(element) && isHiddenAs(element, rule.name) ? visibleLetters(element) : 0;
      element.name = rule.name;
      if (this.ledger !== null) this.notes.renamed(element, original, rule, frame, lost);
    }
    this.elementsKept++;
    // A block that became a word of the line, by its name or by its style, still parts what is beside it.
    const isChanged = element.name !== original || element.attributes !== attributes;
    const boundary = isChanged && partingOf(element) === null ? this.mark(frame, parted, original, rule.by) : null;
    append(whole === 'there' ? frame.target : this.makeWhole(whole, element, frame), element);
    if (REPLACED_ELEMENTS.has(element.name) || element.name === 'hr') frame.shows = true;
    if (element.name === 'iframe') this.hollow(element, frame);
    else if (VOID_ELEMENTS.has(element.name) && element.children.length > 0) {
      // A void element holds nothing; what was in the element renamed to it follows it.
      this.openInto(element, frame, rule.by, '', parted);
      return;
    } else if (element.children.length > 0) {
      if (demands?.depth != null) this.openOf.set(rule.name, (this.openOf.get(rule.name) ?? 0) + 1);
      const lines = AS_WRITTEN.has(element.name) ? 'kept' : this.linesWithout(original, frame, rule.by);
      this.open(element, element, depth + 1, '', frame.elementsSeen, rule, frame.isHidden || isHidden(element));
      Object.assign(this.frames[this.frames.length - 1]!, { after: boundary, lines });
      return;
    } else if (this.seesEmpty && !VOID_ELEMENTS.has(element.name) && !REPLACED_ELEMENTS.has(element.name))
      this.closeEmpty(element, rule, frame);
    this.boundaries.markAgain(frame.target, boundary);
  }

  /** The rule that says that an element may not stand in a parent; null where none does. */
  private refusedIn(target: ParentNode | string, { parents }: Demands): Authority | null {
    const parent = parentName(target);
    return parents.find(({ names }) => !names.has(parent))?.by ?? null;
  }

  /** Unwraps an element that may not stand where it would. */
  private refuseIn(element: ElementNode, frame: Frame, target: ParentNode | string, by: Authority): void {
    this.refuse(element, frame, 'unwrap', by, 'parent-not-allowed', {
      kind: 'element',
      element: element.name,
      name: parentName(target),
    });
  }

  /** Whether a part stands in its whole; else the whole that can be made for it, or that there is none. */
  private wholeFor(name: string, { target }: Frame): 'there' | 'none' | 'ul' | 'dl' {
    const wholes = wholesOf(name);
    if (wholes === null || (target.type === 'element' && wholes.has(target.name))) return 'there';
    // Groups of a description list may stand in a `div` of it (HTML, section 4.4.9).
    if (
      wholes.has('dl') &&
      target.type === 'element' &&
      target.name === 'div' &&
      target.parent?.type === 'element' &&
      target.parent.name === 'dl'
    )
      return 'there';
    const made = MADE_WHOLES[name];
    return made !== undefined && this.canMake(made) ? made : 'none';
  }

  /** The list that was made for the item before, or a new one. */
  private makeWhole(name: 'ul' | 'dl', part: ElementNode, frame: Frame): ElementNode {
    const { target } = frame;
    const { children } = target;
    const last = children[children.length - 1];
    const isBlank = last?.type === 'text' && !hasLetters(last.value);
    const before = isBlank ? children[children.length - 2] : last;
    if (before?.type === 'element' && before.name === name && this.wholes.get(target)?.has(before) === true) {
      if (isBlank) append(before, children.pop()!);
      return before;
    }
    const whole = new ElementNode(name, HTML_NAMESPACE, []);
    whole.start = whole.startTagEnd = Math.max(part.start, 0);
    whole.endTagStart = whole.end = Math.max(part.end, whole.start);
    append(target, whole);
    const made = this.wholes.get(target);
    if (made === undefined) this.wholes.set(target, new Set([whole]));
    else made.add(whole);
    this.elementsKept++;
    const { start, end } = part.start >= 0 ? { start: part.start, end: part.startTagEnd } : this.notes.placeIn(frame);
    this.notes.add(frame, ofElement(part.name), HTML_STANDARD, 'restructured', 'part-without-whole', 'tidy', start, end, end, `<${name}>`);
    return whole;
  }

  /** Judges the attributes of an element that would stay; false where it does not stay after all. */
  private keepAttributes(element: ElementNode, rule: CompiledElement, frame: Frame): boolean {
    const { attributes } = element;
    if (attributes.length === 0 && rule.demands === null) return true;
    const nothingWithout = NOTHING_WITHOUT_SOURCE.has(rule.name) ? 'src' : null;
    const judged = judgeAttributes(attributes, rule, nothingWithout, this.ids);
    if (judged === null) return true;
    const { refused } = judged;
    if (refused !== null) {
      const alternative = rule.alternativeText === null || refused.name !== 'src' ? '' : (element.attribute('alt') ?? '').trim();
      const subject = ofElementBy(element.name, refused.name, refused.value, hostOf(refused.value ?? ''));
      if (alternative !== '') this.showAlternative(element, frame, alternative, rule.alternativeText!, subject);
      else this.refuse(element, frame, refused.outcome, refused.by, refused.reason, subject);
      return false;
    }
    const wasHidden = isHidden(element);
    const before = element.attributes;
    element.attributes = judged.attributes;
    const hidden = isHiddenAs(element, rule.name);
    if (wasHidden && !hidden) {
      // Without what hid it, it would turn up on the page.
      element.attributes = before;
      const by = judged.changes.find(({ name }) => HIDING.has(name))?.by ?? rule.by;
      this.notes.element(element, frame, 'removed', by, 'hidden-content', 0);
      return false;
    }
    if (this.ledger !== null && !isCopy(element)) {
      const lost = !frame.isHidden && !wasHidden && hidden && rule.name === element.name ? lettersIn(element) : 0;
      this.notes.attributes(element, judged.changes, frame, lost);
    }
    return true;
  }

  /** Puts the words that stand for a picture in its place (HTML, section 4.8.4.4 "Requirements for providing text to act as an alternative"). */
  private showAlternative(element: ElementNode, frame: Frame, words: string, by: Authority, subject: Subject): void {
    const { start, end } = element.start < 0 ? this.notes.placeIn(frame) : { start: element.start, end: endOf(element) };
    const shown = frame.isHidden ? 0 : -countLetters(words);
    this.notes.add(frame, subject, by, 'changed', 'source-refused', 'loss', start, end, end, words, shown);
    const boundary = this.mark(frame, 'box', element.name, by);
    this.text(textInPlaceOf(element, words), frame);
    this.boundaries.markAgain(frame.target, boundary);
  }

  /** @param hidden letters that readers no longer see, since the element is hidden now */
  /** What becomes of an element that shows nothing, now that all in it is done. */
  private closeEmpty(element: ElementNode, rule: CompiledElement, parent: Frame): void {
    const { emptyParagraphs } = this.rules;
    const empty = rule.demands?.empty ?? null;
    if (emptyParagraphs !== null && element.name === 'p') {
      if (emptyParagraphs.keep === 'none' || this.followsEmptyParagraph(element))
        return this.removeEmpty(element, parent, emptyParagraphs.by, 'empty-paragraph');
      this.emptyKept.add(element);
    }
    if (empty?.outcome === 'remove') return this.removeEmpty(element, parent, empty.by, 'empty-element');
    if (empty?.outcome === 'pad' && !PADLESS.has(element.name) && !element.children.some(isBreak)) {
      const br = this.rules.element('br');
      if (br.outcome !== 'keep' || br.name !== 'br' || br.demands !== null) return;
      append(element, new ElementNode('br', HTML_NAMESPACE, []));
      const { start, end } = element.start < 0 ? this.notes.placeIn(parent) : { start: element.start, end: element.startTagEnd };
      this.notes.add(parent, ofElement(element.name), empty.by, 'changed', 'empty-element', 'tidy', start, end, end, '<br>');
    }
  }

  private followsEmptyParagraph(element: ElementNode): boolean {
    const siblings = element.parent!.children;
    for (let i = siblings.length - 2; i >= 0; i--) {
      const sibling = siblings[i]!;
      if (sibling.type === 'element') return this.emptyKept.has(sibling);
      if (sibling.type === 'text' && hasLetters(sibling.value)) return false;
    }
    return false;
  }

  private removeEmpty(element: ElementNode, parent: Frame, by: Authority, reason: Reason): void {
    takeOff(element);
    this.elementsKept--;
    const start = Math.max(element.start, 0);
    const end = Math.max(endOf(element), start);
    if (!isCopy(element) && element.start >= 0)
      this.notes.add(
        parent,
        ofElement(element.name),
        by,
        'removed',
        reason,
        reason === 'empty-paragraph' ? 'change' : 'tidy',
        start,
        end,
        end,
      );
    this.mark(parent, partingAround(element), element.name, by);
  }

  /** A frame keeps nothing inside (HTML, section 4.8.5 "The iframe element"). */
  private hollow(element: ElementNode, frame: Frame): void {
    if (element.children.length > 0) {
      const { startTagEnd, endTagStart } = element;
      this.notes.add(frame, ofElement('iframe'), FLOOR_DROP, 'removed', 'fallback-content', 'tidy', startTagEnd, endTagStart, endTagStart);
      element.children = [];
    }
  }

  private comment(comment: CommentNode, frame: Frame): void {
    const { keep, by } = this.rules.comments;
    const isSafe = !/^-?>|--!?>|<!--|--!?$|-$|^\[if|<|>/i.test(comment.data);
    if (keep && isSafe) {
      append(frame.target, comment);
      return;
    }
    const start = Math.max(comment.start, 0);
    // A comment that nobody closed ends with the input.
    const end = Math.min(Math.max(comment.end, 0), this.fragment.input.length);
    this.notes.add(
      frame,
      ofComment(nameIn(frame)),
      keep ? FLOOR_COMMENTS : by,
      'removed',
      keep ? 'comment-forbidden' : 'comment-not-allowed',
      'tidy',
      start,
      end,
      end,
    );
  }
}

/** The name of the element whose children a frame walks; empty at the top. */
const nameIn = ({ source }: Frame): string => parentName(source);

const parentName = (parent: ParentNode | string): string =>
  typeof parent === 'string' ? parent : parent.type === 'element' ? parent.name : '';

/** An element as what is told of: one that shows nothing without its source is told with that. */
function subjectOf(element: ElementNode): Subject {
  if (!NOTHING_WITHOUT_SOURCE.has(element.name)) return ofElement(element.name);
  const source = element.attribute('src');
  return source === undefined ? ofElement(element.name) : ofElementBy(element.name, undefined, source, hostOf(source));
}

/** Attributes that can hide what they stand on. */
const HIDING: ReadonlySet<string> = new Set(['hidden', 'style', 'open', 'popover', 'type']);

function isHiddenAs(element: ElementNode, name: string): boolean {
  if (name === element.name) return isHidden(element);
  return isHidden(new ElementNode(name, HTML_NAMESPACE, element.attributes));
}

/** The letters in an element, whether the element itself shows them or not. */
function lettersIn(element: ElementNode): number {
  return element.children.reduce((sum, child) => sum + visibleLetters(child), 0);
}

function asksNothing({ anyOf, required, forced, parents, depth, ratio, newWindow }: Demands): boolean {
  return anyOf.length + required.length + forced.length + parents.length === 0 && depth === null && ratio === null && newWindow === null;
}

/** Elements that hold no line of their own to stand on. */
const PADLESS: ReadonlySet<string> = new Set('table thead tbody tfoot tr colgroup ul ol menu dl select optgroup picture'.split(' '));

function isBreak(node: ChildNode): boolean {
  return node.type === 'element' && node.name === 'br';
}
