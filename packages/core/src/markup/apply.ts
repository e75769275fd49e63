import { isHidden, partingAround, partingOf } from '../html/display';
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
import { countLetters, hasLetters, visibleLetters } from '../html/text';
import type { Reason, Stage } from '../ledger/entry';
import type { Authority, Ledger } from '../ledger/ledger';
import { ofComment, ofElement, ofElementBy, type Subject } from '../ledger/subject';
import { hostOf } from './address';
import { judgeAttributes } from './attributes';
import type { CompiledElement, CompiledRules, Demands } from './compiled';
import { tidyHardSpaces } from './hard-spaces';
import { shiftOf } from './headings';
import type { Frame } from './notes';
import { MADE_WHOLES, wholesOf } from './parts';
import { endOf, isCopy } from './place';
import { nameIn, parentName, Walk } from './walk';

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
  let walk = new RuleWalk(fragment, rules, ledger, stage);
  walk.run();
  // Where the highest heading itself went, the others move once more.
  for (let round = 0; round < MOST_SHIFTS && shiftOf(fragment.root, rules) !== 0; round++) {
    walk = new RuleWalk(fragment, rules, ledger, stage);
    walk.run();
  }
  if (rules.hardSpaces !== null && walk.hasHardSpaces) tidyHardSpaces(fragment.root, rules.hardSpaces, ledger, stage);
}

/** What the rules make of each element and each comment that a walk comes to. */
class RuleWalk extends Walk {
  /** Empty paragraphs that stay, of which only one in a row does. */
  private readonly emptyKept = new Set<ChildNode>();

  protected element(element: ElementNode, frame: Frame): void {
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
      this.open(element, element, depth + 1, '', frame.elementsSeen, rule, frame.isHidden || isHidden(element), boundary, lines);
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
  protected closeEmpty(element: ElementNode, rule: CompiledElement, parent: Frame): void {
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

  protected comment(comment: CommentNode, frame: Frame): void {
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

/** Elements that hold no line of their own to stand on. */
const PADLESS: ReadonlySet<string> = new Set('table thead tbody tfoot tr colgroup ul ol menu dl select optgroup picture'.split(' '));

function isBreak(node: ChildNode): boolean {
  return node.type === 'element' && node.name === 'br';
}
