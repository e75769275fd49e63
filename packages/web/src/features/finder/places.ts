import type { Finding, Site, SiteFinding } from '@typikon/core';
import { ELEMENT_CATALOGUE, formOf, isObject, type Json, markupSchema, PASS_WORDS, surfaceSchema } from '@typikon/core/settings';
import { nameOf } from '../../state/profile-name';
import type { Library } from '../../state/types';

/** Somewhere to go: a view, a profile, a part of one, a document. */
export interface Place {
  /** Stays the same from one use to the next. */
  id: string;
  label: string;
  /** Where it is, in a few words. */
  where: string;
  /** More words by which it is found. */
  words?: string;
  /** The keys that do the same. */
  keys?: string;
  link: readonly string[];
  query?: Readonly<Record<string, string>>;
}

const VIEWS: readonly Place[] = [
  { id: 'view:profiles', label: 'Profiles', where: 'all of them', link: ['/profiles'] },
  { id: 'view:compare', label: 'Two profiles', where: 'what each keeps that the other takes', words: 'compare', link: ['/compare'] },
  { id: 'view:house', label: 'House limits', where: 'what holds for every profile', link: ['/house-limits'] },
  {
    id: 'view:house-release',
    label: 'Release of house limits',
    where: 'what they would do, and their editions',
    words: 'reach draft',
    link: ['/house-limits/release'],
  },
  { id: 'view:types', label: 'Content types', where: 'fields and their help', link: ['/types'] },
  { id: 'view:writing', label: 'Who writes with what', where: 'statements', words: 'assign roles', link: ['/writing'] },
  {
    id: 'view:writing-release',
    label: 'Release of what is written',
    where: 'content types and statements, and their editions',
    words: 'draft fields',
    link: ['/writing/release'],
  },
  { id: 'view:people', label: 'Roles and people', where: 'rights', link: ['/writing/people'] },
  { id: 'view:styles', label: 'Styles', where: 'stylesheets and page kinds', words: 'css', link: ['/styles'] },
  {
    id: 'view:styles-release',
    label: 'Release of styles',
    where: 'which texts would look different, and editions',
    words: 'draft stylesheets page kinds',
    link: ['/styles/release'],
  },
  {
    id: 'view:likeness',
    label: 'Likeness',
    where: 'editor and page side by side',
    words: 'compare differences',
    link: ['/styles/likeness'],
  },
  { id: 'view:specimens', label: 'Specimens', where: 'what profiles are tried on', words: 'paste tests', link: ['/specimens'] },
  { id: 'view:desk', label: 'Documents', where: 'the author’s desk', words: 'write', link: ['/write'] },
  {
    id: 'view:where',
    label: 'Where did it go?',
    where: 'what was ever taken of texts',
    words: 'vanished lost words history removed',
    link: ['/where'],
  },
  { id: 'view:site', label: 'Site', where: 'pages as readers see them', link: ['/site'] },
  { id: 'view:keys', label: 'All keys', where: 'help', words: 'shortcuts keyboard', keys: 'Ctrl+K, then “keys”', link: ['/keys'] },
];

const CHAPTERS = [
  ['toolbar', '§1 Toolbar', 'buttons groups'],
  ['markup', '§2 Markup', 'elements attributes rules'],
  ['paste', '§3 Paste', 'passes cleanup'],
  ['styles', '§4 Styles', 'classes'],
  ['surface', '§5 Surface', 'height width editing stylesheet'],
  ['help', '§6 Help', 'what you can do here'],
  ['findings', '¶ Findings', 'checks mistakes'],
] as const;

/**
 * Every place there is, but for documents, which the server finds.
 *
 * @param profileId of the profile whose rules can be gone to
 * @param findings of the checks in that profile, as far as they are known
 */
export function placesOf(library: Library, profileId: string | null, findings: readonly Finding[] = []): Place[] {
  const { profiles, specimens, stylesheets, pageKinds } = library;
  return [
    ...VIEWS,
    ...profiles.map((profile): Place => ({
      id: `profile:${profile.id}`,
      label: nameOf(profile),
      where: 'profile',
      words: typeof profile.document['purpose'] === 'string' ? profile.document['purpose'] : '',
      link: ['/profiles', profile.id],
    })),
    ...profiles.flatMap((profile): Place[] => [
      {
        id: `release:${profile.id}`,
        label: `Release of ${nameOf(profile)}`,
        where: 'editions, and what the draft would do',
        words: 'edition reach take back',
        link: ['/profiles', profile.id, 'release'],
      },
      {
        id: `fit:${profile.id}`,
        label: `The least rules for ${nameOf(profile)}`,
        where: 'fit',
        words: 'smallest privilege curve',
        link: ['/profiles', profile.id, 'fit'],
      },
    ]),
    ...profiles.filter(({ id }) => id === profileId).flatMap((profile) => partsOf(nameOf(profile), profile.id, profile.document, findings)),
    ...specimens.map(({ id, name, kind }): Place => ({
      id: `specimen:${id}`,
      label: name,
      where: 'specimen',
      words: kind,
      link: ['/specimens', id],
    })),
    ...stylesheets.map(({ id, purpose }): Place => ({
      id: `sheet:${id}`,
      label: `${id}.css`,
      where: 'stylesheet',
      words: purpose,
      link: ['/styles/sheet', id],
    })),
    ...pageKinds.map(({ id, name }): Place => ({ id: `kind:${id}`, label: name, where: 'page kind', link: ['/styles/kind', id] })),
  ];
}

/** The content types with their fields, and what the tests found in them and in who writes with what. */
export function placesOfSite(site: Site, findings: readonly SiteFinding[]): Place[] {
  const labels = new Map(site.types.map(({ id, label }) => [id, label]));
  return [
    ...site.types.flatMap(({ id, label, description, fields }): Place[] => [
      { id: `type:${id}`, label, where: 'content type', words: description, link: ['/types', id] },
      ...fields.map((field): Place => ({
        id: `field:${id}/${field.key}`,
        label: field.title,
        where: `field of ${label}`,
        words: field.key,
        link: ['/types', id, field.key],
      })),
    ]),
    ...findings.map(({ check, pointer, sentence, type, field, statement }): Place => {
      // A statement stands in the list of all; a field or a type has a view of its own.
      const isOfType = statement === undefined && type !== undefined && check !== 'field-of-nobody';
      return {
        id: `site-finding:${check}:${pointer}:${sentence}`,
        label: sentence,
        where: isOfType ? `finding in ${labels.get(type) ?? type}` : 'finding in who writes with what',
        words: check,
        link: isOfType ? ['/types', type, ...(field === undefined ? [] : [field])] : ['/writing'],
      };
    }),
  ];
}

/** The sections of a profile whose settings are lines of their chapter. */
const SECTIONS = [
  ['markup', markupSchema],
  ['surface', surfaceSchema],
] as const;

/** The chapters of a profile, and what its rules can speak of. */
function partsOf(name: string, id: string, document: Readonly<Record<string, Json>>, findings: readonly Finding[]): Place[] {
  const at = (pointer: string) => ({ link: ['/profiles', id], query: { at: pointer } });
  const styles = isObject(document['styles']) ? document['styles'] : {};
  return [
    ...CHAPTERS.map(([chapter, label, words]): Place => ({ id: `chapter:${chapter}`, label, where: name, words, ...at(`/${chapter}`) })),
    ...findings.map(({ check, pointer, sentence }): Place => ({
      id: `finding:${check}:${pointer}:${sentence}`,
      label: sentence,
      where: `finding in ${name}`,
      words: check,
      ...at(pointer),
    })),
    ...ELEMENT_CATALOGUE.flatMap(({ elements }) =>
      elements.map((element): Place => ({
        id: `element:${element.name}`,
        label: element.name,
        where: `element in ${name}`,
        words: element.meaning,
        ...at(`/markup/elements/${element.name}`),
      })),
    ),
    ...Object.entries(PASS_WORDS).map(([pass, { label }]): Place => ({
      id: `pass:${pass}`,
      label,
      where: `pass in ${name}`,
      words: `paste ${pass}`,
      ...at(`/paste/passes/${pass}`),
    })),
    ...SECTIONS.flatMap(([section, schema]) =>
      formOf(schema).flatMap(({ title: group, fields }) =>
        fields.map(({ keys, title }): Place => ({
          id: `setting:${section}-${keys.join('-')}`,
          label: title,
          where: `setting in ${name}`,
          words: group,
          ...at(`/${section}/${keys.join('/')}`),
        })),
      ),
    ),
    ...Object.entries(styles).flatMap(([style, value]): Place[] =>
      isObject(value) && typeof value['label'] === 'string'
        ? [{ id: `style:${style}`, label: value['label'], where: `style in ${name}`, words: style, ...at('/styles') }]
        : [],
    ),
  ];
}

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const wordsOf = (text: string): string[] => plain(text).split(/[^\p{L}\p{N}§¶]+/u);

/**
 * The places that have all words of a question, the best first: those whose name begins with it, then those whose words do; of two
 * alike, the one that was gone to last. Without a question, those that were gone to, and then all.
 *
 * @param recent ids of places, the last first
 */
export function findPlaces(places: readonly Place[], question: string, recent: readonly string[], most: number): Place[] {
  const asked = plain(question.trim());
  const words = asked.split(/\s+/).filter((word) => word !== '');
  const scored = places.flatMap((place, order) => {
    const label = plain(place.label);
    const names = wordsOf(place.label);
    const others = wordsOf(`${place.where} ${place.words ?? ''}`);
    if (
      !words.every(
        (word) => label.includes(word) || names.some((one) => one.startsWith(word)) || others.some((one) => one.startsWith(word)),
      )
    )
      return [];
    const rank = asked === '' ? 0 : label === asked ? 0 : label.startsWith(asked) ? 1 : words.every((word) => label.includes(word)) ? 2 : 3;
    const used = recent.indexOf(place.id);
    return [{ place, rank, used: used === -1 ? recent.length : used, order }];
  });
  return scored
    .sort((one, other) => one.rank - other.rank || one.used - other.used || one.order - other.order)
    .slice(0, most)
    .map(({ place }) => place);
}
