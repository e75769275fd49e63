import { isSameJson, type Json } from '../profile/merge-patch';
import type { ContentType, Field, Person, Site, SiteRole, Statement } from './schema';

/** One thing that is otherwise in another site document. */
export interface SiteChange {
  what: 'new' | 'gone' | 'changed' | 'moved';
  /** JSON pointer (RFC 6901) into the later document; into the earlier one of what is gone. */
  pointer: string;
  sentence: string;
}

/** So many letters of a value are told. */
const MOST_LETTERS = 60;

/** How settings are called, by where they stand. */
const WORDS: Readonly<Record<string, string>> = {
  alsoOn: 'where parts of it show',
  approvers: 'who approves it',
  choices: 'its choices',
  colour: 'its colour',
  description: 'what it is for',
  'help.example': 'its example',
  'help.link': 'its link for more',
  'help.long': 'its long help',
  'help.short': 'its short help',
  icon: 'its icon',
  kind: 'what it holds',
  label: 'its name',
  'letters.from': 'its least letters',
  'letters.to': 'its most letters',
  linksWithin: 'where its links stay',
  needed: 'whether it is needed',
  pageKind: 'the kind of page',
  picturesFrom: 'where its pictures come from',
  picturesInto: 'where an author’s pictures go',
  publishing: 'when readers see it',
  rights: 'its rights',
  roles: 'their roles',
  title: 'its title',
  titleHidden: 'whether its title is hidden',
  'versions.days': 'how long its versions are kept',
  'versions.last': 'how many of its versions are kept',
  'versions.public': 'whether versions that readers saw are kept',
};

/**
 * What another site document has otherwise than one: content types and their fields, roles, people, statements, in that order.
 *
 * @param from the earlier one
 * @param to the later one
 * @returns a line for each thing; none where both say the same
 */
export function changesOfSite(from: Site, to: Site): SiteChange[] {
  const typeLine = ({ label, fields }: ContentType): string =>
    `The content type “${label}” (${fields.length === 0 ? 'no field' : list(fields.map(({ title }) => title))})`;
  return [
    ...changesOfList(from.types, to.types, '/types', {
      key: ({ id }) => id,
      told: typeLine,
      order: 'Content types stand in another order',
      inner: (before, after, pointer, was) => [
        ...changesOfSettings(before, after, pointer, `“${after.label}”`, ['id', 'fields']),
        ...changesOfList(
          before.fields,
          after.fields,
          `${pointer}/fields`,
          {
            key: ({ key }) => key,
            told: ({ title }: Field) => `The field “${title}” of “${after.label}”`,
            order: `The fields of “${after.label}” stand in another order`,
            inner: (old, now, place) => changesOfSettings(old, now, place, `“${now.title}” of “${after.label}”`, ['key']),
          },
          `${was}/fields`,
        ),
      ],
    }),
    ...changesOfList(from.roles, to.roles, '/roles', {
      key: ({ id }) => id,
      told: ({ label }: SiteRole) => `The role “${label}”`,
      order: 'Roles stand in another order',
      inner: (before, after, pointer) => changesOfSettings(before, after, pointer, `The role “${after.label}”`, ['id']),
    }),
    ...changesOfList(from.people, to.people, '/people', {
      key: ({ id }) => id,
      told: ({ label }: Person) => `“${label}”`,
      order: 'People stand in another order',
      inner: (before, after, pointer) => changesOfSettings(before, after, pointer, `“${after.label}”`, ['id']),
    }),
    ...changesOfStatements(from, to),
    ...(isSameJson(from.fallback, to.fallback)
      ? []
      : [
          {
            what: 'changed' as const,
            pointer: '/fallback',
            sentence: `Where no statement fits: ${words(from.fallback)} becomes ${words(to.fallback)}.`,
          },
        ]),
  ];
}

interface Told<Item> {
  key: (item: Item) => string;
  told: (item: Item) => string;
  order: string;
  /** @param was where it stood in the earlier document */
  inner: (before: Item, after: Item, pointer: string, was: string) => SiteChange[];
}

function changesOfList<Item>(
  from: readonly Item[],
  to: readonly Item[],
  pointer: string,
  { key, told, order, inner }: Told<Item>,
  pointerBefore = pointer,
): SiteChange[] {
  const changes: SiteChange[] = [];
  const [before, after] = [new Map(from.map((item, at) => [key(item), { item, at }])), new Set(to.map(key))];
  from.forEach((item, at) => {
    if (!after.has(key(item))) changes.push({ what: 'gone', pointer: `${pointerBefore}/${at}`, sentence: `${told(item)} goes.` });
  });
  to.forEach((item, at) => {
    const was = before.get(key(item));
    const place = `${pointer}/${at}`;
    if (was === undefined) changes.push({ what: 'new', pointer: place, sentence: `${told(item)} is new.` });
    else changes.push(...inner(was.item, item, place, `${pointerBefore}/${was.at}`));
  });
  const stayed = from.map(key).filter((id) => after.has(id));
  const now = to.map(key).filter((id) => before.has(id));
  if (stayed.some((id, at) => id !== now[at])) changes.push({ what: 'moved', pointer, sentence: `${order}.` });
  return changes;
}

/** The settings of a thing that are otherwise, one by one. */
function changesOfSettings(before: object, after: object, pointer: string, name: string, without: readonly string[]): SiteChange[] {
  const changes: SiteChange[] = [];
  const [old, now] = [flat(before), flat(after)];
  for (const key of new Set([...old.keys(), ...now.keys()])) {
    if (without.includes(key) || isSameJson(old.get(key) ?? null, now.get(key) ?? null)) continue;
    const setting = WORDS[key] ?? key;
    // A setting that is there no more is told at what it stood in.
    const place = now.has(key) ? key : key.split('.').slice(0, -1).join('.');
    changes.push({
      what: 'changed',
      pointer: place === '' ? pointer : `${pointer}/${place.replaceAll('.', '/')}`,
      sentence: `${name}: ${setting}, ${words(old.get(key))} before, becomes ${words(now.get(key))}.`,
    });
  }
  return changes;
}

/** The settings of a thing by name; one within another by both names. */
function flat(thing: object, before = ''): Map<string, Json> {
  const settings = new Map<string, Json>();
  for (const [key, value] of Object.entries(thing) as [string, Json | undefined][]) {
    if (value === undefined) continue;
    if (key !== 'fields' && typeof value === 'object' && value !== null && !Array.isArray(value))
      for (const [inner, held] of flat(value, `${before}${key}.`)) settings.set(inner, held);
    else settings.set(before + key, value);
  }
  return settings;
}

/** Statements have no names: what stands in both in the same order stays, the rest came, went or moved. */
function changesOfStatements(from: Site, to: Site): SiteChange[] {
  const [before, after] = [from.assignments, to.assignments].map((all) => all.map((one) => JSON.stringify(one))) as [string[], string[]];
  const stays = inBoth(before, after);
  const gone = before.flatMap((one, at) => (stays.from.has(at) ? [] : [{ one, at }]));
  const changes: SiteChange[] = [];
  after.forEach((one, at) => {
    if (stays.to.has(at)) return;
    const old = gone.findIndex((other) => other.one === one);
    const statement = sentenceOf(to.assignments[at]!, to);
    const pointer = `/assignments/${at}`;
    if (old < 0) changes.push({ what: 'new', pointer, sentence: `Statement ${at + 1} is new: ${statement}` });
    else {
      const was = gone.splice(old, 1)[0]!.at;
      changes.push({ what: 'moved', pointer, sentence: `Statement ${was + 1} becomes statement ${at + 1}: ${statement}` });
    }
  });
  return [
    ...gone.map(({ at }): SiteChange => ({
      what: 'gone',
      pointer: `/assignments/${at}`,
      sentence: `Statement ${at + 1} goes: ${sentenceOf(from.assignments[at]!, from)}`,
    })),
    ...changes,
  ];
}

/** Above so many pairs the ends that are alike are taken off, and nothing in between is looked for. */
const MOST_PAIRS = 4_000_000;

/** The places of a longest common subsequence of two lists. */
function inBoth(from: readonly string[], to: readonly string[]): { from: Set<number>; to: Set<number> } {
  const stays = { from: new Set<number>(), to: new Set<number>() };
  const keep = (one: number, other: number): void => void (stays.from.add(one), stays.to.add(other));
  let begin = 0;
  while (begin < from.length && begin < to.length && from[begin] === to[begin]) keep(begin, begin++);
  let [one, other] = [from.length, to.length];
  while (one > begin && other > begin && from[one - 1] === to[other - 1]) keep(--one, --other);
  const [rows, columns] = [one - begin, other - begin];
  if (rows * columns > MOST_PAIRS) return stays;
  const lengths = Array.from({ length: rows + 1 }, () => new Uint32Array(columns + 1));
  for (let row = rows - 1; row >= 0; row--)
    for (let column = columns - 1; column >= 0; column--)
      lengths[row]![column] =
        from[begin + row] === to[begin + column]
          ? lengths[row + 1]![column + 1]! + 1
          : Math.max(lengths[row + 1]![column]!, lengths[row]![column + 1]!);
  for (let row = 0, column = 0; row < rows && column < columns;) {
    if (from[begin + row] === to[begin + column]) keep(begin + row++, begin + column++);
    else if (lengths[row + 1]![column]! >= lengths[row]![column + 1]!) row++;
    else column++;
  }
  return stays;
}

/** A statement in a sentence, by the names of what it names. */
function sentenceOf({ roles, types, fields, profiles }: Statement, site: Site): string {
  const named = (names: '*' | readonly string[], all: readonly { id: string; label: string }[], every: string): string =>
    names === '*' ? every : list(names.map((id) => all.find((one) => one.id === id)?.label ?? id));
  const ofField = (key: string): string => site.types.flatMap((type) => type.fields).find((field) => field.key === key)?.title ?? key;
  const where = fields === '*' ? 'every field' : list(fields.map((key) => `“${ofField(key)}”`));
  return `${named(roles, site.roles, 'everybody')} in ${where} of ${named(types, site.types, 'every content type')} with ${list(profiles)}.`;
}

const list = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;

/** A value as it is told. */
function words(value: Json | readonly string[] | undefined): string {
  if (value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return value.length === 0 ? 'nothing' : list(value.map((one) => (typeof one === 'string' ? one : JSON.stringify(one))));
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  const letters = [...text];
  return typeof value === 'number' ? text : `“${letters.length > MOST_LETTERS ? `${letters.slice(0, MOST_LETTERS - 1).join('')}…` : text}”`;
}
