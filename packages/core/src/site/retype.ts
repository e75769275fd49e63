import type { ContentType, Field } from './schema';
import { mainField, titleField } from './places';

/** Whether what stands in one field can stand in another as it is. */
export function mayStandIn(from: Field, to: Field): boolean {
  if (to.kind === 'line') return from.kind === 'line' || from.kind === 'date' || from.kind === 'choice';
  if (to.kind !== from.kind) return false;
  return to.kind !== 'choice' || from.choices.every((choice) => to.choices.includes(choice));
}

/**
 * Into which field of another type what stands in each field of a type would go: the one with the same key, with the same title, or
 * that is what it is, the title or the main text.
 *
 * @returns keys by keys; fields for which there is no place are left out, and no two go into one
 */
export function likelyPlaces(from: ContentType, to: ContentType): Record<string, string> {
  const places = new Map<string, string>();
  const taken = new Set<string>();
  const main = (field: Field, type: ContentType): boolean => field === mainField(type);
  const heading = (field: Field, type: ContentType): boolean => field === titleField(type);
  for (const alike of [
    (one: Field, other: Field) => one.key === other.key,
    (one: Field, other: Field) => one.title.toLowerCase() === other.title.toLowerCase(),
    (one: Field, other: Field) => (heading(one, from) && heading(other, to)) || (main(one, from) && main(other, to)),
  ])
    for (const one of from.fields) {
      if (places.has(one.key)) continue;
      const place = to.fields.find((other) => !taken.has(other.key) && mayStandIn(one, other) && alike(one, other));
      if (place === undefined) continue;
      places.set(one.key, place.key);
      taken.add(place.key);
    }
  return Object.fromEntries(places);
}

/**
 * What keeps documents of a type from another with these places; empty where nothing does.
 *
 * @param places into which field of the other type what stands in a field goes, keys by keys
 */
export function misplaced(from: ContentType, to: ContentType, places: Readonly<Record<string, string>>): string {
  const taken = new Map<string, Field>();
  for (const [key, into] of Object.entries(places)) {
    const one = from.fields.find((field) => field.key === key);
    const other = to.fields.find((field) => field.key === into);
    if (one === undefined) return `${from.label} has no field "${key}".`;
    if (other === undefined) return `${to.label} has no field "${into}".`;
    if (!mayStandIn(one, other)) return `What stands in “${one.title}” cannot stand in “${other.title}”.`;
    const before = taken.get(into);
    if (before !== undefined) return `“${before.title}” and “${one.title}” cannot both go into “${other.title}”.`;
    taken.set(into, one);
  }
  return '';
}

/** A value in a field. */
interface Held {
  key: string;
  value: string;
  profile: string | null;
}

/**
 * The fields of a document once it is of another type. What has no place is left out; a title stays even where its field has none.
 *
 * @param places see `misplaced`, which must have nothing against them
 */
export function retyped<Of extends Held>(
  fields: readonly Of[],
  title: string,
  to: ContentType,
  places: Readonly<Record<string, string>>,
  make: (key: string, value: string) => Of,
): Of[] {
  const moved = fields.flatMap((field) => {
    const key = Object.hasOwn(places, field.key) ? places[field.key] : undefined;
    return key === undefined ? [] : [{ ...field, key }];
  });
  const heading = titleField(to);
  return heading === null || moved.some(({ key }) => key === heading.key) ? moved : [...moved, make(heading.key, title)];
}
