import type { Reason } from '../css/cascade';
import type { Specificity } from '../css/specificity';
import type { Cause, RuleNote } from './cause';
import type { Repair, Trial } from './repair';

export const specificityText = (specificity: Specificity): string => specificity.join('-');

/** The name that a reader knows for properties that go together. */
export function propertiesText(properties: readonly string[]): string {
  const groups = new Set(
    properties.map(
      (property) =>
        (/^(border)-(top|right|bottom|left)-(width|style|color)$/.test(property) && 'border') ||
        (/^border-.*-radius$/.test(property) && 'border-radius') ||
        /^(margin|padding|background|font|list-style|text-decoration|overflow)-/.exec(property)?.[1] ||
        property,
    ),
  );
  // Of a group with one member alone, the member is told.
  const named = [...groups].map((group) => {
    const members = properties.filter((property) => property === group || property.startsWith(`${group}-`));
    return members.length === 1 ? members[0]! : group;
  });
  return named.length > 4 ? `${named.slice(0, 3).join(', ')} and ${named.length - 3} more` : named.join(', ');
}

const WHY: Readonly<Record<Reason, string>> = {
  importance: 'it is !important',
  origin: 'rules of a stylesheet stand above old attributes',
  inline: 'it stands in the style attribute',
  layer: 'its layer is stronger',
  specificity: 'its selector weighs more',
  order: 'it comes later',
};

const where = ({ sheet, line }: RuleNote): string => (line === 0 ? sheet : `${sheet}, line ${line}`);
const selectorOf = ({ selector, sheet }: RuleNote): string =>
  selector === '' ? (sheet === 'style' ? 'the style attribute' : 'an old attribute') : selector;
const sideText = (side: Cause['side']): string => (side === 'page' ? 'the page' : 'the editing surface');

/** What a cause is, in a short heading. */
export function causeTitle(cause: Cause): string {
  const what = cause.rule === null ? propertiesText(cause.properties) : selectorOf(cause.rule);
  switch (cause.kind) {
    case 'no-rule':
      return `No rule here: ${what}`;
    case 'outweighed':
      return `Outweighed: ${what}`;
    case 'inherited':
      return `Inherited differently: ${propertiesText(cause.properties)}`;
    case 'condition':
      return `Only under a condition: ${what}`;
    case 'only-in-editor':
      return `Only in the editor: ${what}`;
    default: {
      const place = cause.places[0];
      return `Does not fit: ${place === undefined ? what : `${place.element}, ${place.fit?.neededPx ?? 0} px in ${place.fit?.columnPx ?? 0} px`}`;
    }
  }
}

/** What a cause is, in a sentence. */
export function causeSentence(cause: Cause): string {
  const { rule, instead, side, reason } = cause;
  const here = sideText(side);
  const things = propertiesText(cause.properties);
  const instance = instead === null ? '' : ` ${selectorOf(instead)} (${where(instead)}) is in force instead.`;
  switch (cause.because) {
    case 'outweighed': {
      if (rule === null || instead === null) return '';
      const figures =
        reason === 'specificity' ? `: ${specificityText(instead.specificity)} against ${specificityText(rule.specificity)}` : '';
      return `${selectorOf(rule)} (${where(rule)}) is on ${here} and loses ${things} to ${selectorOf(instead)} (${where(instead)}), since ${reason === null ? 'it is stronger' : WHY[reason]}${figures}.`;
    }
    case 'no-rule': {
      if (rule === null) return `${things}: the browser alone decides on one of the two.`;
      if (cause.variables.length > 0)
        return `${cause.variables.join(', ')} has another value on ${here}: ${where(rule)} sets it${cause.lack === 'file' ? `, and ${rule.sheet} is not loaded on ${here}` : ''}.${instance}`;
      if (cause.lack === 'file') return `${where(rule)} has it, and ${rule.sheet} is not loaded on ${here}.${instance}`;
      if (cause.lack === 'surroundings')
        return `${where(rule)} has it, and asks for other elements around the content than ${here} has.${instance}`;
      return `${where(rule)} has it; on ${here} that file has no such rule.${instance}`;
    }
    case 'condition':
      return `${rule === null ? things : `${selectorOf(rule)} (${where(rule)})`} counts on ${here} only under ${cause.condition}, which does not hold there.${instance}`;
    case 'only-in-editor':
      return `${rule === null ? things : `${selectorOf(rule)} (${where(rule)})`} is never part of the page.${instance}`;
    default:
      return `At ${here === 'the page' ? 'this width of the page' : 'this width of the surface'} the column has less room.`;
  }
}

/** What a repair is, in a sentence. */
export function repairSentence(repair: Repair): string {
  switch (repair.kind) {
    case 'add-rule':
      return `Add a rule to the overrides of ${sideText(repair.side)}, with the least weight that wins (${specificityText(repair.specificity)}).`;
    case 'load-file':
      return `Load ${repair.sheet} on ${sideText(repair.side)}${repair.after === '' ? ' first' : `, behind ${repair.after}`}.`;
    case 'move-file':
      return `Load ${repair.sheet} later, behind ${repair.after}.`;
    default:
      return `Take ${repair.selector} out of the editing stylesheet.`;
  }
}

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** What came of a trial, in a sentence. */
export function trialSentence({ places, documents, moved, own }: Trial): string {
  const settled = places === 0 ? 'Settles nothing' : `Settles ${counted(places, 'place')} in ${counted(documents, 'document')}`;
  const here =
    places === 0 || own.settled === own.of
      ? ''
      : own.settled === 0
        ? `, but none of the ${counted(own.of, 'place')} here`
        : `, ${own.settled} of the ${own.of} here`;
  return `${settled}${here}, ${moved.length === 0 ? 'changes nothing else' : `and moves ${counted(moved.length, 'other place')}`}.`;
}
