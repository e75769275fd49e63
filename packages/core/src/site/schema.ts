import * as z from 'zod';
import { fieldKeySchema, idSchema } from '../profile/basic-schema';

export const SITE_FORMAT = 'typikon-site/1';

const label = z.string().trim().min(1, 'must not be empty').max(120);
/** What a field holds. Rich text is what profiles are for; the others are plain and few, so that a document is real. */
export const FIELD_KINDS = ['rich', 'line', 'picture', 'date', 'choice'] as const;

/** Names of colours of the theme; what they look like is the theme's. */
export const TYPE_COLOURS = ['ink', 'rubric', 'verdigris', 'ochre', 'slate', 'plum'] as const;

/** A folder, by its path within the site or the asset library, such as "/timetables/". */
const folder = z.string().max(200);

export const fieldHelpSchema = z.strictObject({
  short: z.string().max(300).default('').describe('Always in view, beside the title.'),
  long: z.string().max(20_000).default('').describe('Opens in place. Markup; it is cleaned by a narrow profile that is built in.'),
  link: z.string().max(500).default('').describe('An address where there is more to read.'),
  example: z.string().max(5000).default('').describe('An example of a good text.'),
});

export const fieldSchema = z.strictObject({
  key: fieldKeySchema,
  title: label.describe('What authors see.'),
  kind: z.enum(FIELD_KINDS).default('rich'),
  help: fieldHelpSchema.prefault({}),
  titleHidden: z.boolean().default(false).describe('Hidden titles are still there for screen readers.'),
  needed: z.boolean().default(false),
  letters: z
    .strictObject({ from: z.int().min(0).max(1_000_000).optional(), to: z.int().min(1).max(1_000_000).optional() })
    .refine(({ from = 0, to = Infinity }) => from <= to, 'the shortest must not be above the longest')
    .prefault({})
    .describe('The expected length, in letters that a reader sees. Told, not enforced.'),
  choices: z.array(label).max(200).default([]).describe('For a choice.'),
  linksWithin: folder.default('').describe('Links within the site are offered from this folder of pages alone; empty for all.'),
  picturesFrom: folder.default('').describe('Pictures are offered from this folder of the library alone; empty for all.'),
  picturesInto: folder.default('').describe("Where an author's own pictures go."),
});

export const contentTypeSchema = z.strictObject({
  id: idSchema,
  label,
  icon: z.string().max(64).default('file').describe('The name of an icon of the set that ships with Typikon.'),
  colour: z.enum(TYPE_COLOURS).default('ink'),
  description: z.string().max(1000).default(''),
  pageKind: idSchema.describe('The kind of page on which its documents are published.'),
  alsoOn: z.array(idSchema).max(50).default([]).describe('Other kinds of page that print some of its fields, such as a card in a list.'),
  fields: z.array(fieldSchema).max(200).default([]),
});

/** What somebody may do: look, write content, change how content is written and looks, and say who may do what. */
export const RIGHTS = ['read', 'write', 'design', 'administer'] as const;
export type Right = (typeof RIGHTS)[number];

export const siteRoleSchema = z.strictObject({
  id: idSchema,
  label,
  description: z.string().max(500).default(''),
  rights: z.array(z.enum(RIGHTS)).default(['read', 'write']),
});
export const personSchema = z.strictObject({ id: idSchema, label, roles: z.array(idSchema).default([]) });

/** Everybody or everything, or a list. */
const some = (of: z.ZodType<string>) => z.union([z.literal('*'), z.array(of).min(1, 'must name at least one, or be "*"')]);

/** Who writes where with which profile. */
export const statementSchema = z.strictObject({
  roles: some(idSchema),
  types: some(idSchema),
  fields: some(fieldKeySchema),
  profiles: z.array(idSchema).min(1, 'must name at least one profile').max(50),
});

/** The whole of a site as authors and administrators know it: what kinds of content there are, and who writes with what. */
export const siteSchema = z
  .strictObject({
    format: z.literal(SITE_FORMAT),
    roles: z.array(siteRoleSchema).max(1000).default([]),
    people: z.array(personSchema).max(10_000).default([]),
    types: z.array(contentTypeSchema).max(500).default([]),
    assignments: z.array(statementSchema).max(10_000).default([]).describe('Read from the top; the first that fits all three rules.'),
    fallback: z.array(idSchema).max(50).default([]).describe('The profiles for whatever no statement fits.'),
  })
  .superRefine((site, context) => {
    const say = (path: (string | number)[], message: string): void => context.addIssue({ code: 'custom', path, message });
    for (const [list, of] of [
      ['roles', site.roles],
      ['people', site.people],
      ['types', site.types],
    ] as const)
      repeated(
        of.map(({ id }) => id),
        (at, id) => say([list, at, 'id'], `"${id}" is there twice`),
      );
    site.types.forEach(({ fields }, at) => {
      repeated(
        fields.map(({ key }) => key),
        (field, key) => say(['types', at, 'fields', field, 'key'], `"${key}" is there twice`),
      );
      fields.forEach(({ kind, choices }, field) => {
        if (kind === 'choice' && choices.length === 0) say(['types', at, 'fields', field, 'choices'], 'must name at least one choice');
      });
    });
    const roles = new Set(site.roles.map(({ id }) => id));
    const types = new Set(site.types.map(({ id }) => id));
    const keys = new Set(site.types.flatMap(({ fields }) => fields.map(({ key }) => key)));
    const known = (path: (string | number)[], names: '*' | readonly string[], all: ReadonlySet<string>, what: string): void => {
      if (names !== '*') names.forEach((name, at) => all.has(name) || say([...path, at], `there is no ${what} "${name}"`));
    };
    site.people.forEach((person, at) => known(['people', at, 'roles'], person.roles, roles, 'role'));
    site.assignments.forEach((statement, at) => {
      known(['assignments', at, 'roles'], statement.roles, roles, 'role');
      known(['assignments', at, 'types'], statement.types, types, 'content type');
      known(['assignments', at, 'fields'], statement.fields, keys, 'field');
    });
  });

function repeated(names: readonly string[], tell: (at: number, name: string) => void): void {
  const seen = new Set<string>();
  names.forEach((name, at) => (seen.has(name) ? tell(at, name) : seen.add(name)));
}

export type Site = z.output<typeof siteSchema>;
export type ContentType = z.output<typeof contentTypeSchema>;
export type Field = z.output<typeof fieldSchema>;
export type FieldHelp = z.output<typeof fieldHelpSchema>;
export type SiteRole = z.output<typeof siteRoleSchema>;
export type Person = z.output<typeof personSchema>;
export type Statement = z.output<typeof statementSchema>;
