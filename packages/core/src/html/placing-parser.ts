import { Parser, Token, Tokenizer, type html as names } from 'parse5';
import { Adapter, type NodeMap } from './adapter';
import { addStretch, ElementNode, HTML_NAMESPACE, type ChildNode, type ParentNode, type Stretches } from './node';
import type { Ignored } from './ignored';
import { repeatedAttributes } from './positions';

type PlacedToken = Token.Token & { start: number; end: number; isUsed?: boolean; repeats?: boolean };

type PlacedText = Token.CharacterToken & { start?: number; end?: number; stretches?: Stretches | null };

function place(token: PlacedText, at: number, start: number, end: number, isWritten: boolean): void {
  if (token.start === undefined) {
    token.start = start;
    token.stretches = isWritten ? [at, start, end] : null;
  } else if (isWritten || token.stretches != null || token.end !== start)
    addStretch((token.stretches ??= [0, token.start, token.end!]), at, start, end, isWritten ? -1 : end - start);
  token.end = end;
}

/** parse5's tokenizer, which also notes where each tag and comment begins and ends: two numbers a token instead of a location object for each. */
class PlacingTokenizer extends Tokenizer {
  override _createStartTagToken(): void {
    super._createStartTagToken();
    this.place(1);
  }
  override _createEndTagToken(): void {
    super._createEndTagToken();
    this.place(2);
  }
  override _createCommentToken(offset: number): void {
    super._createCommentToken(offset);
    this.place(offset);
  }
  override _createDoctypeToken(initialName: string | null): void {
    super._createDoctypeToken(initialName);
    this.place(initialName === null ? 9 : 10);
  }
  override _leaveAttrName(): void {
    const { attrs } = this.currentToken as Token.TagToken;
    const { length } = attrs;
    super._leaveAttrName();
    if (attrs.length === length) (this.currentToken as PlacedToken).repeats = true;
  }
  /** A stretch of characters goes into the token that is being made: as it stands in the input, and then what a reference or a carriage return became. */
  override _flushRun(text: string): void {
    if (this.currentToken === null && this.currentCharacterToken !== null) this.placeText(this.currentCharacterToken, text);
    super._flushRun(text);
  }
  override _startCharacterReference(): void {
    super._startCharacterReference();
    this.referenceStart = this.preprocessor.offset;
  }
  private referenceStart = -1;
  private placedUntil = 0;
  private placeText(token: PlacedText, text: string): void {
    const { droppedBufferSize, offset } = this.preprocessor;
    const at = token.chars.length;
    const [from, to] = [droppedBufferSize + this.runStart, droppedBufferSize + this.runEnd];
    if (to > from) {
      place(token, at, from, to, false);
      this.placedUntil = to;
    }
    if (text.length === 0) return;
    // A reference begins at its ampersand, unless something was read behind that already.
    const start = this.referenceStart >= this.placedUntil ? this.referenceStart : offset;
    place(token, at + Math.max(0, to - from), start, offset + 1, true);
    this.placedUntil = offset + 1;
  }
  override prepareToken(token: Token.Token): void {
    super.prepareToken(token);
    (token as PlacedToken).end = this.preprocessor.offset + 1;
  }
  override _emitEOFToken(): void {
    const open = this.currentToken as PlacedToken | null;
    if (open !== null && (open.type === Token.TokenType.START_TAG || open.type === Token.TokenType.END_TAG))
      (this.handler as unknown as PlacingParser).onUnfinishedTag(open);
    super._emitEOFToken();
  }
  private place(before: number): void {
    const token = this.currentToken as PlacedToken;
    token.start = Math.max(0, this.preprocessor.offset - before);
    token.end = -1;
  }
}

/**
 * A page with unclosed formatting elements makes the standard's algorithm reopen all of them in every following block,
 * so that a few megabytes can become hundreds of millions of elements. Past this many for each letter of input
 * (and always the first thousands) the list of open formatting is forgotten, and the ledger says so.
 */
const REOPENED_AT_LEAST = 50_000;
const REOPENED_PER_INPUT_UNIT = 0.25;

/** What parse5 calls the insertion mode "in row". */
const IN_ROW = 13;
const SECTIONS: ReadonlySet<string> = new Set(['tbody', 'tfoot', 'thead']);

export class PlacingParser extends Parser<NodeMap> {
  readonly ignored: Ignored[] = [];
  private input = '';
  private popped = 0;
  reopened = 0;
  private isAtEnd = false;
  private reopenLimit = REOPENED_AT_LEAST;
  private get adapter(): Adapter {
    return this.treeAdapter as Adapter;
  }

  /**
   * @param input the whole, of which this parser may read a part
   * @param reopened how much formatting was reopened in what was read before
   */
  begin(input: string, reopened = 0): void {
    this.input = input;
    this.reopened = reopened;
    this.reopenLimit = REOPENED_AT_LEAST + input.length * REOPENED_PER_INPUT_UNIT;
  }

  /** The tokenizer of parse5 is made in its constructor; ours takes its place before the first character. */
  placeTokens(): void {
    const { state } = this.tokenizer;
    this.tokenizer = new PlacingTokenizer(this.options, this);
    this.tokenizer.state = state;
  }

  override onStartTag(token: Token.TagToken): void {
    const before = this.adapter.created;
    if ((token as Token.Token as PlacedToken).repeats === true) this.ignoreRepeated(token as Token.TagToken & PlacedToken);
    super.onStartTag(token);
    if (this.adapter.created === before) this.ignore('start-tag', token as Token.TagToken & PlacedToken);
  }
  /** Of an attribute that stands in a tag twice, browsers take the first (HTML, section 13.2.5.33 "Attribute name state"). */
  private ignoreRepeated({ start, end, tagName }: Token.TagToken & PlacedToken): void {
    for (const { name: attribute, ...range } of repeatedAttributes(this.input, start, end))
      this.ignored.push({ kind: 'repeated-attribute', name: tagName, attribute, ...range });
  }
  override onEndTag(token: Token.TagToken): void {
    if (this.isSectionNotOpen(token)) {
      this.ignore('end-tag', token as Token.TagToken & PlacedToken);
      return;
    }
    const before = this.adapter.created;
    const { popped } = this;
    super.onEndTag(token);
    if (this.popped === popped && this.adapter.created === before) this.ignore('end-tag', token as Token.TagToken & PlacedToken);
  }
  /** In a row the end tag of a section that is not open is left out (HTML, section 13.2.6.4.14); parse5 would leave the row. */
  private isSectionNotOpen({ tagName, tagID }: Token.TagToken): boolean {
    return (this.insertionMode as number) === IN_ROW && SECTIONS.has(tagName) && !this.openElements.hasInTableScope(tagID);
  }
  override onDoctype(token: Token.DoctypeToken): void {
    super.onDoctype(token);
    const { start, end } = token as unknown as PlacedToken;
    this.ignored.push({ kind: 'doctype', name: '', start, end });
  }
  onUnfinishedTag(token: Token.TagToken & PlacedToken): void {
    token.end = this.tokenizer.preprocessor.offset;
    this.ignore('unfinished-tag', token);
  }
  override _insertElement(token: Token.TagToken, namespace: names.NS): void {
    super._insertElement(token, namespace);
    this.place(token);
  }
  override _appendElement(token: Token.TagToken, namespace: names.NS): void {
    super._appendElement(token, namespace);
    this.place(token);
    const element = this.adapter.latest!;
    element.endTagStart = element.end = element.startTagEnd;
  }
  override _insertCharacters(token: Token.CharacterToken): void {
    const { start = -1, end = -1, stretches = null } = token as PlacedText;
    this.adapter.read = start < 0 ? null : { start, end, stretches };
    super._insertCharacters(token);
    this.adapter.read = null;
  }
  override _insertTemplate(token: Token.TagToken): void {
    super._insertTemplate(token);
    this.place(token);
  }
  override _appendCommentNode(token: Token.CommentToken, parent: ParentNode): void {
    super._appendCommentNode(token, parent);
    const comment = parent.children[parent.children.length - 1];
    if (comment?.type !== 'comment') return;
    const { start, end } = token as unknown as PlacedToken;
    comment.start = start;
    comment.end = end;
  }
  override _reconstructActiveFormattingElements(): void {
    if (this.reopened > this.reopenLimit) {
      if (this.activeFormattingElements.newest !== null) {
        const at = (this.currentToken as PlacedToken | null)?.start ?? 0;
        this.ignored.push({ kind: 'formatting-limit', name: '', start: at, end: at });
        this.activeFormattingElements.clearToLastMarker();
      }
      return;
    }
    const before = this.adapter.created;
    super._reconstructActiveFormattingElements();
    this.reopened += this.adapter.created - before;
  }
  override onEof(token: Token.EOFToken): void {
    this.isAtEnd = true;
    super.onEof(token);
  }
  override onItemPop(node: ParentNode, isTop: boolean): void {
    super.onItemPop(node, isTop);
    this.popped++;
    if (node.type !== 'element') return;
    if (this.isAtEnd) {
      node.endTagStart = node.end = this.input.length;
      return;
    }
    const closing = this.currentToken as PlacedToken | null;
    if (closing === null) return;
    if (closing.type === Token.TokenType.END_TAG && closing.tagName === node.name) {
      node.endTagStart = closing.start;
      node.end = closing.end;
    } else node.endTagStart = node.end = Math.max(closing.start, node.startTagEnd);
  }

  private place(token: Token.TagToken): void {
    const element = this.adapter.latest!;
    const placed = token as Token.TagToken & PlacedToken;
    if (placed.start === undefined) return;
    element.start = placed.start;
    element.startTagEnd = placed.end;
    if (placed.isUsed === true) {
      element.isCopy = true;
      element.attributes = element.attributes.slice();
    }
    placed.isUsed = true;
  }
  private ignore(kind: Ignored['kind'], token: Token.TagToken & PlacedToken): void {
    this.ignored.push({ kind, name: token.tagName, start: token.start, end: token.end });
  }
}

/** Elements still open at the end of the input end there. */
export function closeAtEnd(parser: PlacingParser, length: number): void {
  for (let element: ParentNode | null = parser.openElements.current ?? null; element?.type === 'element'; element = element.parent)
    if (element.end === -1 && element.start !== -1) element.endTagStart = element.end = length;
}

/** Reads a part of some markup by the standard's algorithm, as the contents of a `div`, and knows when nothing of it goes on. */
export class StandardReading {
  private readonly parser: PlacingParser;
  private readonly mode: number;
  private readonly state: number;

  /**
   * @param input the whole
   * @param from where the part begins: nothing is open there
   * @param reopened how much formatting was reopened before
   */
  constructor(
    private readonly input: string,
    private from: number,
    reopened = 0,
  ) {
    const context = new ElementNode('div', HTML_NAMESPACE, []);
    const options = { treeAdapter: new Adapter(), scriptingEnabled: true };
    this.parser = PlacingParser.getFragmentParser<NodeMap>(context, options) as PlacingParser;
    this.parser.placeTokens();
    this.parser.begin(input, reopened);
    // Every offset counts from the begin of the whole.
    this.parser.tokenizer.preprocessor.droppedBufferSize = from;
    this.mode = this.parser.insertionMode;
    this.state = this.parser.tokenizer.state;
  }

  /** Reads on. Text before the end of a part counts as complete: a part that is not the last ends before a tag. */
  readTo(end: number): void {
    const isLast = end === this.input.length;
    const { tokenizer } = this.parser;
    tokenizer.write(this.input.slice(this.from, end), isLast);
    this.from = end;
    if (isLast) closeAtEnd(this.parser, end);
    else if ((tokenizer.state as number) === this.state) tokenizer.flushCharacters();
  }

  /** Whether what was read is done: no element, no formatting and no tag is open, so that what follows is read as if it stood alone. */
  isDone(): boolean {
    const { parser, mode, state } = this;
    return (
      parser.openElements.stackTop === 0 &&
      parser.activeFormattingElements.newest === null &&
      (parser.insertionMode as number) === mode &&
      (parser.tokenizer.state as number) === state &&
      parser.formElement === null &&
      !parser.skipNextNewLine
    );
  }

  get nodes(): ChildNode[] {
    return (this.parser.document.children[0] as ElementNode).children;
  }
  get ignored(): readonly Ignored[] {
    return this.parser.ignored;
  }
  get reopened(): number {
    return this.parser.reopened;
  }
}
