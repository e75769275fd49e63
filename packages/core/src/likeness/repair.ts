import type { CssNode } from 'css-tree';
import { parseCss } from '../css/parse';
import type { ElementNode } from '../html/node';
import { classesOf, parentOf } from '../css/relations';
import { compileSelectors } from '../css/selector';
import { bySpecificity, type Specificity } from '../css/specificity';
import { selectorText, type Sheet } from '../css/stylesheet';
import type { Cause, Place, RuleNote, Side } from './cause';
import { sceneOf, type Scene, type Setting } from './context';
import { Comparer } from './compare';
import {
  compareLikeness,
  keyOf,
  likenessKeys,
  partsOf,
  placeOfKey,
  type ContentToCompare,
  type LikenessInput,
  type LikenessReport,
} from './likeness';

/** The stylesheet into which repairs go; it is loaded last. */
export const OVERRIDES = 'overrides.css';

/** A change that would make the two settings look alike again. */
export type Repair =
  | {
      kind: 'add-rule';
      /** Where the rule goes: on the page, or into the editing surface. */
      side: Side;
      selector: string;
      /** The rule as it would stand in the overrides. */
      css: string;
      /** Without the comment. */
      rule: string;
      specificity: Specificity;
    }
  | { kind: 'load-file'; side: Side; sheet: string; /** The file behind which it is loaded; empty for the first. */ after: string }
  | { kind: 'move-file'; side: Side; sheet: string; after: string }
  | { kind: 'take-out'; side: 'editor'; sheet: string; selector: string; line: number; properties: string[] };

/** What a repair did when it was tried on all documents. */
export interface Trial {
  /** Places (elements) at which nothing is different any more, and in how many documents. */
  places: number;
  documents: number;
  /** Differences that are gone. */
  resolved: number;
  /** Of the places of the cause for which it was proposed, how many look the same as far as the cause goes, and of how many. */
  own: { settled: number; of: number };
  /** Places that look different on the page than before, without being alike now, or that are newly different. */
  moved: MovedPlace[];
  /** Share of elements that look the same, before and after. */
  before: number;
  after: number;
}

export interface MovedPlace {
  document: string;
  index: number;
  pseudo: string;
  properties: { property: string; before: string; after: string }[];
}

export interface TriedRepair {
  repair: Repair;
  trial: Trial;
}

/** Those that settle what they were proposed for come first, then those that move nothing else, then those that settle most. */
export const bestFirst = (repairs: readonly TriedRepair[]): TriedRepair[] =>
  [...repairs].sort(
    (a, b) =>
      b.trial.own.settled - a.trial.own.settled || a.trial.moved.length - b.trial.moved.length || b.trial.resolved - a.trial.resolved,
  );

/** What is known of the files of the site. */
export interface Files {
  /** Files that a page or a surface may load; the editing stylesheet of a profile is none. */
  mayLoad: (sheet: string) => boolean;
}

/**
 * Proposes repairs for a cause, the best guess first. None of them is tried yet.
 *
 * @param contents the documents, to see which elements a rule would have to match
 */
export function proposeRepairs(
  cause: Cause,
  input: LikenessInput,
  contents: ReadonlyMap<string, string>,
  { mayLoad }: Files = { mayLoad: () => true },
): Repair[] {
  const repairs: Repair[] = [];
  const settings: Record<Side, Setting> = { editor: input.editor, page: input.page };
  const other: Side = cause.side === 'page' ? 'editor' : 'page';
  const { rule, instead } = cause;
  if (cause.because === 'no-rule' && cause.lack === 'file' && rule !== null && mayLoad(rule.sheet)) {
    const load = placeInOrder(rule.sheet, settings[other].sheets, settings[cause.side].sheets);
    repairs.push({ kind: 'load-file', side: cause.side, sheet: rule.sheet, after: load });
  }
  if (cause.because === 'outweighed' && cause.reason === 'order' && rule !== null && instead !== null && rule.sheet !== instead.sheet)
    repairs.push({ kind: 'move-file', side: cause.side, sheet: rule.sheet, after: instead.sheet });
  if (cause.because === 'only-in-editor' && rule !== null)
    repairs.push({
      kind: 'take-out',
      side: 'editor',
      sheet: rule.sheet,
      selector: rule.selector,
      line: rule.line,
      properties: cause.properties,
    });
  const added = ruleFor(cause, settings, contents);
  if (added !== null) repairs.push(added);
  return repairs;
}

/**
 * Tries a repair on all documents.
 *
 * @param cause the one for which it was proposed
 * @param before what the comparison came to without it
 */
export function tryRepair(
  repair: Repair,
  cause: Pick<Cause, 'places' | 'side'>,
  input: LikenessInput,
  documents: readonly ContentToCompare[],
  before: LikenessReport = compareLikeness(input, documents),
): Trial {
  const changed = applyRepair(input, repair);
  const after = likenessKeys(changed, documents);
  // What readers see is compared with what they saw, whatever the editor shows.
  const pages = new Comparer(sceneOf(input.page), sceneOf(changed.page));
  const moved = new Map<string, MovedPlace>();
  const move = (document: string, index: number, pseudo: string, property: string, from: string, to: string): void => {
    const key = [document, index, pseudo].join('\n');
    let place = moved.get(key);
    if (place === undefined) moved.set(key, (place = { document, index, pseudo, properties: [] }));
    place.properties.push({ property, before: from, after: to });
  };
  for (const { id, html } of documents)
    for (const { index, pseudo, property, one, other } of pages.differences(pages.place(html))) {
      const key = keyOf(id, index, pseudo, property);
      // Where the page became what the editor shows, it was meant.
      if (!before.keys.has(key) || after.keys.has(key)) move(id, index, pseudo, property, one, other);
    }
  for (const key of after.keys) {
    if (before.keys.has(key)) continue;
    const { document, index, pseudo, property, place } = partsOf(key);
    if (moved.get(place)?.properties.some((one) => one.property === property) !== true)
      move(document, index, pseudo, property, '', after.pageValues.get(key) ?? '');
  }
  const gone = [...before.keys].filter((key) => !after.keys.has(key));
  // Where an element has other differences still, the repair counts too.
  const places = new Set(gone.map(placeOfKey));
  return {
    places: places.size,
    documents: new Set([...places].map((place) => partsOf(place).document)).size,
    resolved: gone.length,
    own: {
      settled: cause.places.filter((place) => keysOf(place, cause.side).every((key) => !after.keys.has(key))).length,
      of: cause.places.length,
    },
    moved: [...moved.values()],
    before: share(before),
    after: share(after),
  };
}

/** The differences of a place, as comparisons write them. */
const keysOf = ({ document, index, pseudo, differences, fit }: Place, side: Side): string[] => [
  ...differences.map(({ property }) => keyOf(document, index, pseudo.replace('::', ''), property)),
  ...(fit === undefined ? [] : [keyOf(document, index, '', `does-not-fit ${side}`)]),
];

export const share = ({ elements, alike }: Pick<LikenessReport, 'elements' | 'alike'>): number => (elements === 0 ? 1 : alike / elements);

/**
 * The settings as they would be with a repair.
 *
 * @throws never; a repair whose file is not there leaves all as it is
 */
export function applyRepair(input: LikenessInput, repair: Repair): LikenessInput {
  const setting = input[repair.side];
  const other = input[repair.side === 'page' ? 'editor' : 'page'];
  const find = (name: string): Sheet | undefined => [...setting.sheets, ...other.sheets].find((sheet) => sheet.name === name);
  const without = (name: string): Sheet[] => setting.sheets.filter((sheet) => sheet.name !== name);
  const behind = (list: Sheet[], after: string, sheet: Sheet): Sheet[] => {
    const at = list.findIndex(({ name }) => name === after);
    return [...list.slice(0, at + 1), sheet, ...list.slice(at + 1)];
  };
  const withSheets = (sheets: Sheet[]): LikenessInput => ({ ...input, [repair.side]: { ...setting, sheets } });
  switch (repair.kind) {
    case 'add-rule': {
      const overrides = repair.side === 'page' ? (input.overrides ?? OVERRIDES) : (input.editingSheets?.[0] ?? OVERRIDES);
      const old = setting.sheets.find(({ name }) => name === overrides);
      return withSheets([...without(overrides), { name: overrides, css: addedTo(old?.css ?? '', repair.css) }]);
    }
    case 'load-file':
    case 'move-file': {
      const sheet = find(repair.sheet);
      return sheet === undefined ? input : withSheets(behind(without(repair.sheet), repair.after, sheet));
    }
    case 'take-out':
      return withSheets(
        setting.sheets.map((sheet) =>
          sheet.name === repair.sheet ? { ...sheet, css: takenOut(sheet.css, repair.selector, repair.line) } : sheet,
        ),
      );
    default:
      return input;
  }
}

/** A stylesheet with a rule behind all others. */
export const addedTo = (css: string, rule: string): string => `${css.trimEnd()}${css.trim() === '' ? '' : '\n\n'}${rule}\n`;

/** A stylesheet without one rule, the one with a selector around a line; unchanged where there is none. */
export function takenOut(css: string, selector: string, line: number): string {
  let place: { start: number; end: number } | null = null;
  const root = parseCss(css, { positions: true });
  const visit = (nodes: readonly CssNode[]): void => {
    for (const node of nodes) {
      if (node.type === 'Atrule' && node.block !== null) visit(node.block.children.toArray());
      if (node.type !== 'Rule' || node.loc == null || node.prelude.loc == null) continue;
      const { start, end } = node.loc;
      if (selectorText(css.slice(node.prelude.loc.start.offset, node.prelude.loc.end.offset)) !== selector) continue;
      if (start.line <= line && line <= end.line) place = { start: start.offset, end: end.offset };
    }
  };
  if (root.type === 'StyleSheet') visit(root.children.toArray());
  if (place === null) return css;
  const { start, end } = place as { start: number; end: number };
  return `${css.slice(0, start).replace(/[ \t]*$/, '')}${css.slice(end).replace(/^[ \t]*\n/, '')}`;
}

/** Where a file goes that is new to a list: behind the last file that stands before it where it is loaded. */
function placeInOrder(sheet: string, order: readonly Sheet[], into: readonly Sheet[]): string {
  const before = order.slice(
    0,
    order.findIndex(({ name }) => name === sheet),
  );
  for (const { name } of [...before].reverse()) if (into.some((one) => one.name === name)) return name;
  return '';
}

/** A rule with the least specificity that wins, for what the other side shows. */
function ruleFor(cause: Cause, settings: Record<Side, Setting>, contents: ReadonlyMap<string, string>): Repair | null {
  // What comes from further up is repaired there, by the rule that is missing; where none is, nothing can be copied.
  const { rule, side } = cause;
  if (cause.kind === 'does-not-fit') return fitRule(cause, settings[side], contents);
  if (rule === null || rule.selector === '' || cause.variables.length > 0) return null;
  const scene = sceneOf(settings[side]);
  const other = sceneOf(settings[side === 'page' ? 'editor' : 'page']);
  const matched = elementsOf(cause.places, scene, contents);
  let list: string[];
  try {
    list = compileSelectors(rule.selector)
      .filter(({ matches }) => cause.kind === 'inherited' || matched.some(matches))
      .map(({ text }) => text);
  } catch {
    return null;
  }
  if (list.length === 0) return null;
  const declarations = declarationsFor(cause, other, contents);
  if (declarations.length === 0) return null;
  const needed = winnersOf(cause, scene, contents);
  const selectors = list.map((base) => {
    const [compiled] = compileSelectors(base);
    return needed.isBeyond
      ? base
      : leastThatWins(
          base,
          needed.specificity,
          matched.filter((element) => compiled!.matches(element)),
        );
  });
  const selector = selectors.join(', ');
  const important = needed.isImportant;
  const text = `${selectors.join(',\n')} {\n${declarations.map(([property, value]) => `  ${property}: ${value}${important ? ' !important' : ''};`).join('\n')}\n}`;
  return {
    kind: 'add-rule',
    side,
    selector,
    rule: text,
    css: `/* ${commentFor(cause)} */\n${text}`,
    specificity: compileSelectors(selector).reduce<Specificity>(
      (most, one) => (bySpecificity(one.specificity, most) > 0 ? one.specificity : most),
      [0, 0, 0],
    ),
  };
}

function commentFor(cause: Cause): string {
  const from = cause.rule === null ? '' : `${cause.rule.sheet}, line ${cause.rule.line}`;
  switch (cause.because) {
    case 'outweighed':
      return `As in ${from}, which loses to ${cause.instead?.sheet ?? ''}, line ${cause.instead?.line ?? 0}.`;
    case 'condition':
      return `As in ${from}, there only under ${cause.condition}.`;
    case 'does-not-fit':
      return 'Nothing wider than its column.';
    default:
      return `As in ${from}.`;
  }
}

/** The elements of a cause in a setting. */
function elementsOf(places: readonly Place[], scene: Scene, contents: ReadonlyMap<string, string>): ElementNode[] {
  const byDocument = new Map<string, number[]>();
  for (const { document, index } of places) {
    const known = byDocument.get(document);
    if (known === undefined) byDocument.set(document, [index]);
    else known.push(index);
  }
  const found: ElementNode[] = [];
  for (const [id, indexes] of byDocument) {
    const placed = scene.place(contents.get(id) ?? '');
    for (const index of indexes) if (placed.elements[index] !== undefined) found.push(placed.elements[index]);
  }
  return found;
}

/** What the missing rule declares of what differs, as it is written there: shorthands where all of them is missing. */
function declarationsFor(cause: Cause, scene: Scene, contents: ReadonlyMap<string, string>): [property: string, value: string][] {
  const { rule } = cause;
  const found = new Map<string, string>();
  for (const element of withAncestors(elementsOf(cause.places.slice(0, 40), scene, contents), cause.kind === 'inherited'))
    for (const contest of scene.styles.cascade.contests(element)) {
      const mine = [contest.winner, ...contest.losers].find(
        (one) => one.sheet === rule?.sheet && one.selector === rule.selector && cause.properties.includes(contest.property),
      );
      if (mine !== undefined) found.set(mine.property, mine.declared);
    }
  if (found.size === 0 && rule !== null) found.set(rule.property, rule.value);
  return [...found];
}

function withAncestors(elements: readonly ElementNode[], isWanted: boolean): ReadonlySet<ElementNode> {
  const all = new Set(elements);
  if (isWanted) for (const element of elements) for (let at = parentOf(element); at !== null; at = parentOf(at)) all.add(at);
  return all;
}

/** What the rule has to outweigh. */
function winnersOf(
  cause: Cause,
  scene: Scene,
  contents: ReadonlyMap<string, string>,
): { specificity: Specificity; isImportant: boolean; isBeyond: boolean } {
  let specificity: Specificity = [0, 0, 0];
  let isImportant = false;
  let isInline = false;
  const elements =
    cause.kind === 'inherited'
      ? [...withAncestors(elementsOf(cause.places.slice(0, 1), scene, contents), true)].filter((element) =>
          matchesNote(element, cause.rule),
        )
      : elementsOf(cause.places, scene, contents);
  for (const element of elements)
    for (const { property, winner } of scene.styles.cascade.contests(element)) {
      if (!cause.properties.includes(property)) continue;
      if (winner.sheet === 'style') isInline = true;
      if (winner.important && !isImportant) [isImportant, specificity] = [true, [0, 0, 0]];
      // Of what is important, only the important counts; what is in a layer yields to what is in none.
      if (winner.important !== isImportant || winner.sheet === 'style' || winner.sheet === 'attributes') continue;
      if (winner.layer !== '' && !winner.important) continue;
      if (bySpecificity(winner.specificity, specificity) > 0) ({ specificity } = winner);
    }
  return { specificity, isImportant: isImportant || isInline, isBeyond: isInline && !isImportant };
}

function matchesNote(element: ElementNode, rule: RuleNote | null): boolean {
  try {
    return rule !== null && compileSelectors(rule.selector).some(({ matches }) => matches(element));
  } catch {
    return false;
  }
}

/** So many selectors are weighed at most. */
const MOST_CANDIDATES = 4096;

/**
 * The selector with the least specificity that is not less than the one needed, and matches what the given one matches:
 * it names the elements of its parts, or what stands around the content, or repeats a class.
 */
export function leastThatWins(selector: string, needed: Specificity, targets: readonly ElementNode[]): string {
  const own = compileSelectors(selector)[0]!;
  if (bySpecificity(own.specificity, needed) >= 0) return selector;
  const matchesAll = (text: string): boolean => {
    const [compiled] = compileSelectors(text);
    return compiled !== undefined && targets.every((element) => compiled.matches(element));
  };
  const candidates: string[] = [];
  for (const named of withNames(selector, targets))
    for (const prefix of prefixes(targets))
      for (const repeat of [0, 1, 2, 3]) {
        if (candidates.length >= MOST_CANDIDATES) break;
        const repeated = repeat === 0 ? named : repeatClass(named, repeat);
        if (repeated !== null) candidates.push(prefix === '' ? repeated : `${prefix} ${repeated}`);
      }
  const fitting = candidates
    .map((text) => ({ text, specificity: compileSelectors(text)[0]!.specificity }))
    .filter(({ specificity }) => bySpecificity(specificity, needed) >= 0)
    // Of equals, the one that says what it is about: its own elements, then classes of the frame, the frame's names last.
    .sort(
      (a, b) =>
        bySpecificity(a.specificity, b.specificity) ||
        Number(/^(html|body)\b/.test(a.text)) - Number(/^(html|body)\b/.test(b.text)) ||
        a.text.length - b.text.length ||
        (a.text < b.text ? -1 : 1),
    );
  return (
    fitting.find(({ text }) => matchesAll(text))?.text ?? `${selector}${':not(#_)'.repeat(Math.max(1, needed[0] - own.specificity[0]))}`
  );
}

/** The selector with and without the names of the elements that its parts match. */
function withNames(selector: string, targets: readonly ElementNode[]): string[] {
  const parts = selector.split(/(\s*[>+~]\s*|\s+)/);
  const last = parts.length - 1;
  const variants = new Set([selector]);
  const nameAt = (part: number, element: ElementNode): string | null => {
    // Only the part that is asked for the element itself, and the one around it, are surely known.
    if (part === last) return element.name;
    for (let at = parentOf(element); at !== null; at = parentOf(at)) {
      const compiled = compileSelectors(parts[part]!)[0];
      if (compiled?.matches(at) === true) return at.name;
    }
    return null;
  };
  for (let part = 0; part <= last; part += 2) {
    if (!/^[.#[:]/.test(parts[part]!)) continue;
    const names = new Set(targets.map((element) => nameAt(part, element)));
    const [name] = names;
    if (names.size !== 1 || name == null) continue;
    for (const variant of [...variants]) {
      const pieces = variant.split(/(\s*[>+~]\s*|\s+)/);
      pieces[part] = `${name}${pieces[part]!}`;
      variants.add(pieces.join(''));
    }
  }
  return [...variants];
}

/** What stands around all targets, in every choice of up to three: `.page`, `main`, `.page .body`. */
function prefixes(targets: readonly ElementNode[]): string[] {
  const first = targets[0];
  if (first === undefined) return [''];
  const shared: ElementNode[] = [];
  for (let at = parentOf(first); at !== null; at = parentOf(at)) shared.unshift(at);
  const compounds = shared
    .map((element) => {
      const id = element.attribute('id');
      return [element.name, ...classesOf(element).map((name) => `.${name}`), ...(id === undefined ? [] : [`#${id}`])];
    })
    .slice(0, 8);
  let all = [''];
  for (const choices of compounds)
    all = [
      ...all,
      ...all.filter((prefix) => prefix.split(' ').length < 3).flatMap((prefix) => choices.map((one) => `${prefix} ${one}`.trim())),
    ];
  return all.slice(0, 600);
}

/** A selector whose last class is written several times more. */
function repeatClass(selector: string, times: number): string | null {
  const found = /(\.[\w-]+)(?![^]*\.[\w-])/.exec(selector);
  return found === null
    ? null
    : `${selector.slice(0, found.index)}${found[1]!.repeat(times + 1)}${selector.slice(found.index + found[1]!.length)}`;
}

/** Makes what is too wide as wide as its column at most. */
function fitRule(cause: Cause, setting: Setting, contents: ReadonlyMap<string, string>): Repair | null {
  const scene = sceneOf(setting);
  const targets = elementsOf(cause.places, scene, contents);
  const [name] = new Set(targets.map((element) => element.name));
  if (name === undefined) return null;
  const base = cause.rule === null ? name : (compileSelectors(cause.rule.selector)[0]?.text ?? name);
  const isPicture = name === 'img';
  const needed = winnersOf({ ...cause, properties: ['max-width', 'height'] }, scene, contents);
  const selector = leastThatWins(base, needed.specificity, targets);
  const rule = `${selector} {\n  max-width: 100%;\n${isPicture ? '  height: auto;\n' : ''}}`;
  return {
    kind: 'add-rule',
    side: cause.side,
    selector,
    rule,
    css: `/* ${commentFor(cause)} */\n${rule}`,
    specificity: compileSelectors(selector)[0]!.specificity,
  };
}
