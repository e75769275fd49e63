import type { ElementNode } from '../html/node';
import { Lines } from '../html/positions';
import { TooMuch, withinBudget } from '../css/budget';
import { pathOf, type Contender } from '../css/cascade';
import { classesOf, parentOf } from '../css/relations';
import { noteOf, type Cause, type CauseKind, type Place, type Side } from './cause';
import { Comparer, type Difference, type Origin } from './compare';
import { sceneOf, type Placed, type Scene, type Setting } from './context';
import { explain, type Explanation, type Scenes } from './explain';
import { misfits, type Misfit, type NaturalWidth } from './fit';

export interface LikenessInput {
  editor: Setting;
  page: Setting;
  /** The names of sheets that are only for editing. */
  editingSheets?: readonly string[];
  /** The name of the stylesheet of the page into which repairs go. */
  overrides?: string;
  /** How wide pictures are of themselves, by their address. */
  naturalWidth?: NaturalWidth;
}

export interface ContentToCompare {
  id: string;
  html: string;
}

/** What the comparison of the editing surface with the page came to. */
export interface LikenessReport {
  /** How many elements were compared. */
  elements: number;
  /** How many of them look the same. */
  alike: number;
  documents: number;
  /** How many documents have an element that looks different. */
  documentsUnlike: number;
  /** The greatest first. */
  causes: Cause[];
  /** Each difference, as `keyOf` writes it, to compare runs. */
  keys: ReadonlySet<string>;
  /** What is different on the page, by key: its value there. */
  pageValues: ReadonlyMap<string, string>;
}

/** The comparison of one document may take so many steps of matching: some seconds. */
export const MOST_STEPS = 20_000_000;

interface Group {
  cause: Cause;
  places: Map<string, Place>;
  hasOwn: boolean;
}

/** Compares documents in two settings and groups what differs by its cause. */
export class Likeness {
  private readonly scenes: Scenes;
  private readonly comparer: Comparer;
  private readonly groups = new Map<string, Group>();
  private readonly explained = new Map<Origin, Explanation>();
  private readonly keys = new Set<string>();
  private readonly pageValues = new Map<string, string>();
  private elements = 0;
  private unlike = 0;
  private documents = 0;
  private documentsUnlike = 0;

  constructor(private readonly input: LikenessInput) {
    const editing = new Set(input.editingSheets ?? []);
    this.scenes = { editor: sceneOf(input.editor), page: sceneOf(input.page), isEditing: (sheet) => editing.has(sheet) };
    this.comparer = new Comparer(this.scenes.editor, this.scenes.page);
  }

  /** The settings with their stylesheets read. */
  get editor(): Scene {
    return this.scenes.editor;
  }
  get page(): Scene {
    return this.scenes.page;
  }

  /**
   * @param content clean markup
   * @throws TooMuch where it would take too long with these stylesheets, or is nested too deep; it is left out then
   */
  add(content: ContentToCompare): void {
    try {
      withinBudget(MOST_STEPS, `The stylesheets with “${content.id}”`, () => this.compare(content));
    } catch (error) {
      if (error instanceof TooMuch) this.leaveOut(content.id);
      throw error;
    }
  }

  /** Forgets what was found of a document that could not be compared to its end. */
  private leaveOut(document: string): void {
    for (const [key, group] of this.groups) {
      for (const [at, place] of group.places) if (place.document === document) group.places.delete(at);
      if (group.places.size === 0) this.groups.delete(key);
    }
    for (const key of this.keys)
      if (partsOf(key).document === document) {
        this.keys.delete(key);
        this.pageValues.delete(key);
      }
  }

  private compare({ id, html }: ContentToCompare): void {
    const placed = this.comparer.place(html);
    const lines = new Lines(html);
    const unlike = new Set<number>();
    for (const difference of this.comparer.differences(placed)) {
      unlike.add(difference.index);
      const key = keyOf(id, difference.index, difference.pseudo, difference.property);
      this.keys.add(key);
      this.pageValues.set(key, difference.other);
      this.enter(id, lines, placed, difference);
    }
    for (const side of ['page', 'editor'] as const)
      for (const misfit of misfits(this.scenes[side], placed[side === 'editor' ? 0 : 1], this.input.naturalWidth)) {
        const group = this.group(causeOfMisfit(side, misfit), 'does-not-fit', null);
        group.cause.side = side;
        if (group.cause.rule === null && misfit.rule !== null) group.cause.rule = noteOf(misfit.rule);
        const place = this.placeOf(id, lines, placed[side === 'editor' ? 0 : 1], misfit.index, '', group);
        place.fit = { neededPx: misfit.neededPx, columnPx: misfit.columnPx, side };
        group.hasOwn = true;
        this.keys.add(keyOf(id, misfit.index, '', `does-not-fit ${side}`));
      }
    this.documents++;
    if (unlike.size > 0) this.documentsUnlike++;
    this.elements += placed[0].elements.length;
    this.unlike += unlike.size;
  }

  report(): LikenessReport {
    const causes = [...this.groups.values()].map(({ cause, places, hasOwn }): Cause => {
      const list = [...places.values()];
      return { ...cause, kind: hasOwn ? cause.kind : 'inherited', properties: cause.properties.sort(), places: list };
    });
    const order: readonly CauseKind[] = ['outweighed', 'no-rule', 'inherited', 'condition', 'only-in-editor', 'does-not-fit'];
    // Of equals, the one that is met first.
    causes.sort((a, b) => b.places.length - a.places.length || order.indexOf(a.kind) - order.indexOf(b.kind));
    return {
      elements: this.elements,
      alike: this.elements - this.unlike,
      documents: this.documents,
      documentsUnlike: this.documentsUnlike,
      causes,
      keys: this.keys,
      pageValues: this.pageValues,
    };
  }

  private enter(document: string, lines: Lines, [one, other]: [Placed, Placed], difference: Difference): void {
    const { origin, index, pseudo, property } = difference;
    const elements = originElements([one.elements[index]!, other.elements[index]!], origin);
    let explanation = this.explained.get(origin);
    if (explanation === undefined) this.explained.set(origin, (explanation = explain(origin, elements, this.scenes)));
    const group = this.group(causeOf(explanation), explanation.kind, explanation);
    const { cause } = group;
    if (origin.isInherited && cause.from === '') cause.from = pathOf(elements[1]);
    if (!origin.isInherited) group.hasOwn = true;
    if (origin.property.startsWith('--') && !cause.variables.includes(origin.property)) cause.variables.push(origin.property);
    if (!cause.properties.includes(property)) cause.properties.push(property);
    this.placeOf(document, lines, one, index, pseudo, group).differences.push({ property, editor: difference.one, page: difference.other });
  }

  private group(key: string, kind: Explanation['kind'] | 'does-not-fit', explanation: Explanation | null): Group {
    let group = this.groups.get(key);
    if (group === undefined) {
      const cause: Cause = {
        id: key,
        kind,
        because: kind,
        side: explanation?.side ?? 'page',
        rule: explanation?.rule == null ? null : noteOf(explanation.rule),
        instead: explanation?.instead == null ? null : noteOf(explanation.instead),
        reason: explanation?.reason ?? null,
        lack: explanation?.lack ?? null,
        condition: explanation?.condition ?? '',
        from: '',
        variables: [],
        properties: [],
        places: [],
      };
      this.groups.set(key, (group = { cause, places: new Map(), hasOwn: false }));
    }
    return group;
  }

  private placeOf(document: string, lines: Lines, placed: Placed, index: number, pseudo: string, group: Group): Place {
    const key = `${document} ${index} ${pseudo}`;
    let place = group.places.get(key);
    if (place === undefined) {
      const element = placed.elements[index]!;
      const start = element.start === -1 ? -1 : element.start - placed.offset;
      place = {
        document,
        index,
        path: pathOf(element),
        element: nameOf(element),
        pseudo: pseudo === '' ? '' : `::${pseudo}`,
        line: start === -1 ? 0 : lines.at(start).line,
        start,
        end: start === -1 ? -1 : element.startTagEnd - placed.offset,
        differences: [],
      };
      group.places.set(key, place);
    }
    return place;
  }
}

/** The element at which the declarations differ, in both settings. */
export function originElements([one, other]: readonly [ElementNode, ElementNode], { levels }: Origin): [ElementNode, ElementNode] {
  let [from, to] = [one, other];
  for (let level = 0; level < levels; level++) [from, to] = [parentOf(from) ?? from, parentOf(to) ?? to];
  return [from, to];
}

/** Compares all documents at once. */
export function compareLikeness(input: LikenessInput, documents: Iterable<ContentToCompare>): LikenessReport {
  const likeness = new Likeness(input);
  for (const document of documents) likeness.add(document);
  return likeness.report();
}

/**
 * Compares all documents without asking where a difference comes from: what a repair is judged by.
 *
 * @throws TooMuch as `Likeness.add`
 */
export function likenessKeys(
  input: LikenessInput,
  documents: Iterable<ContentToCompare>,
): Pick<LikenessReport, 'elements' | 'alike' | 'keys' | 'pageValues'> {
  const scenes = { editor: sceneOf(input.editor), page: sceneOf(input.page) };
  const comparer = new Comparer(scenes.editor, scenes.page);
  const [keys, pageValues] = [new Set<string>(), new Map<string, string>()];
  let [elements, unlike] = [0, 0];
  for (const { id, html } of documents)
    withinBudget(MOST_STEPS, `The stylesheets with “${id}”`, () => {
      const placed = comparer.place(html);
      let last = -1;
      for (const { index, pseudo, property, other } of comparer.differences(placed)) {
        if (index !== last) unlike++;
        last = index;
        const key = keyOf(id, index, pseudo, property);
        keys.add(key);
        pageValues.set(key, other);
      }
      for (const side of ['page', 'editor'] as const)
        for (const { index } of misfits(scenes[side], placed[side === 'editor' ? 0 : 1], input.naturalWidth))
          keys.add(keyOf(id, index, '', `does-not-fit ${side}`));
      elements += placed[0].elements.length;
    });
  return { elements, alike: elements - unlike, keys, pageValues };
}

/** One difference as a text; the parts are taken apart with `partsOf`. */
export const keyOf = (document: string, index: number, pseudo: string, property: string): string =>
  `${document}\n${index}\n${pseudo}\n${property}`;

/** The place of a difference: its key without the property. */
export const placeOfKey = (key: string): string => key.slice(0, key.lastIndexOf('\n'));

export function partsOf(key: string): { document: string; index: number; pseudo: string; property: string; place: string } {
  const [document = '', index = '', pseudo = '', property = ''] = key.split('\n');
  return { document, index: Number(index), pseudo, property, place: [document, index, pseudo].join('\n') };
}

/** What makes a cause the same as another. */
export const causeOf = ({ kind, side, rule, instead }: Explanation): string =>
  `${kind} ${side} ${ruleKey(rule)} ${kind === 'outweighed' ? ruleKey(instead) : ''}`;
export const causeOfMisfit = (side: Side, { what }: Misfit): string => `does-not-fit ${side} ${what}`;

const ruleKey = (rule: Contender | null): string => (rule === null ? '-' : `${rule.sheet}|${rule.selector}|${rule.order}`);

/** An element as one would write it in a selector. */
export function nameOf(element: ElementNode): string {
  const id = element.attribute('id');
  return `${element.name}${id === undefined ? '' : `#${id}`}${classesOf(element)
    .map((name) => `.${name}`)
    .join('')}`;
}
