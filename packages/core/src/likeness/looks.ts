import { withinBudget } from '../css/budget';
import type { Contender } from '../css/cascade';
import type { Style } from '../css/computed';
import { noteOf, type RuleNote } from './cause';
import { Comparer, type Origin } from './compare';
import { Scene, type Setting } from './context';
import { MOST_STEPS, originElements } from './likeness';

/** One way in which elements of a text look different: the declaration that changed. */
export interface LookChange {
  /** The same for the same change in another text. */
  key: string;
  /** Properties that it sets, with computed values; where they are relative, those of the first element that was met. */
  properties: { property: string; before: string; after: string }[];
  /** The element at which the declarations differ: others may have it from there. */
  element: string;
  /** The rule that decided, and the one that decides; null for the browser's own, or none. */
  was: RuleNote | null;
  rule: RuleNote | null;
  /** How many elements of the text look different by it. */
  elements: number;
}

/** How different a text looks on a page before and after its stylesheets changed. */
export interface TextLook {
  /** How many elements there are, and how many of them look different. */
  elements: number;
  differing: number;
  changes: LookChange[];
}

/** Compares texts on a page as it is and as it would be. What it learns of styles it keeps for the next text. */
export class Looks {
  private readonly comparer: Comparer;
  private readonly changes = new WeakMap<Origin, Omit<LookChange, 'elements'>>();

  constructor(before: Setting, after: Setting) {
    this.comparer = new Comparer(new Scene(before), new Scene(after));
  }

  /**
   * @param html clean markup
   * @throws TooMuch where it would take too long with these stylesheets, or is nested too deep
   */
  look(html: string): TextLook {
    return withinBudget(MOST_STEPS, 'The stylesheets with this text', () => this.looked(html)).result;
  }

  private looked(html: string): TextLook {
    const placed = this.comparer.place(html);
    const found = new Map<string, { change: Omit<LookChange, 'elements'>; elements: Set<number> }>();
    const differing = new Set<number>();
    for (const { origin, index } of this.comparer.differences(placed)) {
      differing.add(index);
      let change = this.changes.get(origin);
      if (change === undefined) {
        const [element] = originElements([placed[0].elements[index]!, placed[1].elements[index]!], origin);
        this.changes.set(origin, (change = changeOf(origin, element.name)));
      }
      const known = found.get(change.key);
      if (known === undefined)
        found.set(change.key, { change: { ...change, properties: [...change.properties] }, elements: new Set([index]) });
      else {
        known.elements.add(index);
        addProperties(known.change.properties, change.properties);
      }
    }
    const changes = [...found.values()].map(({ change, elements }): LookChange => ({ ...change, elements: elements.size }));
    return { elements: placed[0].elements.length, differing: differing.size, changes };
  }
}

function changeOf({ one, other, property }: Origin, element: string): Omit<LookChange, 'elements'> {
  const [was, rule] = [ruleOf(one, property), ruleOf(other, property)];
  const [before, after] = [one.value(property), other.value(property)];
  const by = (note: RuleNote | null) => (note === null ? null : [note.sheet, note.selector, note.line, note.value]);
  // What one declaration sets is one change, however many properties that is; where no rule is on either side, values tell them apart.
  const key = JSON.stringify([element, by(was), by(rule), ...(was === null && rule === null ? [property, before, after] : [])]);
  return { key, properties: [{ property, before, after }], element, was, rule };
}

/** Adds properties that are not there yet. */
function addProperties(properties: LookChange['properties'], others: LookChange['properties']): void {
  for (const other of others) if (!properties.some(({ property }) => property === other.property)) properties.push(other);
}

function ruleOf(style: Style, property: string): RuleNote | null {
  const { contender, isBrowser }: { contender: Contender | null; isBrowser: boolean } = style.source(property);
  return contender === null || isBrowser ? null : noteOf(contender);
}

/** A change with the texts in which it is seen. */
export interface LookGroup extends Omit<LookChange, 'elements'> {
  elements: number;
  /** Places of the texts in the order in which they were added. */
  texts: number[];
}

/** Adds up how texts look different, change by change; what is seen in most texts stands first. */
export class LookSum {
  private readonly groups = new Map<string, LookGroup>();
  private added = 0;
  /** How many texts look different, and how many elements in them. */
  differing = 0;
  elements = 0;

  add({ differing, changes }: TextLook): void {
    const at = this.added++;
    if (differing > 0) this.differing++;
    this.elements += differing;
    for (const { elements, ...change } of changes) {
      let group = this.groups.get(change.key);
      if (group === undefined)
        this.groups.set(change.key, (group = { ...change, properties: [...change.properties], elements: 0, texts: [] }));
      else addProperties(group.properties, change.properties);
      group.elements += elements;
      group.texts.push(at);
    }
  }

  sum(): LookGroup[] {
    return [...this.groups.values()].sort((one, other) => other.texts.length - one.texts.length || other.elements - one.elements);
  }
}
