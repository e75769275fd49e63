import * as z from 'zod';
import { fieldKeySchema, idSchema } from '../profile/basic-schema';
import { field } from '../profile/field-meta';

export const SITE_FORMAT = 'typikon-site/1';

const label = z.string().trim().min(1, 'must not be empty').max(120);
/** What a field holds. Rich text is what profiles are for; the others are plain and few, so that a document is real. */
export const FIELD_KINDS = ['rich', 'line', 'picture', 'date', 'choice'] as const;

/** What each kind of field is called. */
export const FIELD_KIND_WORDS: Readonly<Record<(typeof FIELD_KINDS)[number], string>> = {
  rich: 'rich text',
  line: 'one line',
  picture: 'picture',
  date: 'date',
  choice: 'choice',
};

/** Names of colours of the theme; what they look like is the theme's. */
export const TYPE_COLOURS = ['ink', 'rubric', 'verdigris', 'ochre', 'slate', 'plum'] as const;

/** A folder, by its path within the site or the asset library, such as "/timetables/". */
const folder = z.string().max(200);

/** Help beside a field that is longer than this is not read, in letters. */
export const LONG_HELP = 140;

const LETTERS = { keys: ['kind'], is: ['rich', 'line'] };
const PICTURES = { keys: ['kind'], is: ['rich', 'picture'] };

export const fieldHelpSchema = z.strictObject({
  short: z
    .string()
    .max(300)
    .default('')
    .describe('Always in view, beside the title.')
    .meta(field({ title: 'Help, always in view', control: 'prose', letters: LONG_HELP, hint: 'at most 300 letters' })),
  long: z
    .string()
    .max(20_000)
    .default('')
    .describe('Opens in place. Markup; it is cleaned by a narrow profile that is built in.')
    .meta(field({ title: 'More, opens in place', control: 'prose', rows: 3, hint: 'at most 20,000 letters' })),
  link: z
    .string()
    .max(500)
    .default('')
    .describe('An address where there is more to read.')
    .meta(field({ title: 'A page with still more', placeholder: '/documents/…', hint: 'at most 500 letters' })),
  example: z
    .string()
    .max(5000)
    .default('')
    .describe('An example of a good text.')
    .meta(field({ title: 'An example of a good text', control: 'prose', hint: 'at most 5,000 letters' })),
});

export const fieldSchema = z.strictObject({
  key: fieldKeySchema,
  title: label
    .describe('What authors see.')
    .meta(field({ title: 'Title that authors see', order: 0, hint: 'a name of at most 120 letters' })),
  kind: z
    .enum(FIELD_KINDS)
    .default('rich')
    .meta(field({ title: 'It holds', order: 0.1, words: FIELD_KIND_WORDS })),
  help: fieldHelpSchema.prefault({}),
  titleHidden: z
    .boolean()
    .default(false)
    .describe('Hidden titles are still there for screen readers.')
    .meta(field({ title: 'hide the title', order: 0.3 })),
  needed: z
    .boolean()
    .default(false)
    .meta(field({ title: 'needed', order: 0.2 })),
  letters: z
    .strictObject({
      from: z
        .int()
        .min(0)
        .max(1_000_000)
        .optional()
        .meta(field({ title: 'Expected length, from', unit: 'letters', when: LETTERS })),
      to: z
        .int()
        .min(1)
        .max(1_000_000)
        .optional()
        .meta(field({ title: 'Expected length, to', unit: 'letters', when: LETTERS })),
    })
    .refine(({ from = 0, to = Infinity }) => from <= to, 'the shortest must not be above the longest')
    .prefault({})
    .describe('The expected length, in letters that a reader sees. Told, not enforced.'),
  choices: z
    .array(label)
    .max(200)
    .default([])
    .describe('For a choice.')
    .meta(
      field({
        title: 'Choices, one in each line',
        control: 'list',
        rows: 4,
        hint: 'at most 200 lines of at most 120 letters',
        when: { keys: ['kind'], is: ['choice'] },
      }),
    ),
  linksWithin: folder
    .default('')
    .describe('Links within the site are offered from this folder of pages alone; empty for all.')
    .meta(
      field({
        title: 'Links within the site go to',
        placeholder: 'any page, or a folder such as /documents/',
        when: { keys: ['kind'], is: ['rich'] },
      }),
    ),
  picturesFrom: folder
    .default('')
    .describe('Pictures are offered from this folder of the library alone; empty for all.')
    .meta(field({ title: 'Pictures come from', placeholder: 'any folder', control: 'folder', isHalf: true, when: PICTURES })),
  picturesInto: folder
    .default('')
    .describe("Where an author's own pictures go.")
    .meta(field({ title: 'Own ones go into', placeholder: 'any folder', control: 'folder', isHalf: true, when: PICTURES })),
});

export const contentTypeSchema = z.strictObject({
  id: idSchema,
  label: label.meta(field({ title: 'What it is called', order: 0, hint: 'a name of at most 120 letters' })),
  icon: z
    .string()
    .max(64)
    .default('file')
    .describe('The name of an icon of the set that ships with Typikon.')
    .meta(field({ title: 'Marked by', order: 4, control: 'icon', isHalf: true })),
  colour: z
    .enum(TYPE_COLOURS)
    .default('ink')
    .meta(field({ title: 'in', order: 5, isHalf: true })),
  description: z
    .string()
    .max(1000)
    .default('')
    .meta(field({ title: 'What it is for', order: 1, control: 'prose', hint: 'at most 1,000 letters' })),
  pageKind: idSchema
    .describe('The kind of page on which its documents are published.')
    .meta(field({ title: 'Published on', order: 2, control: 'page-kind', hint: 'a kind of page' })),
  alsoOn: z
    .array(idSchema)
    .max(50)
    .default([])
    .describe('Other kinds of page that print some of its fields, such as a card in a list.')
    .meta(field({ title: 'Parts of it show on', order: 3, control: 'page-kinds' })),
  publishing: z
    .enum(['at-once', 'two-steps'])
    .default('at-once')
    .describe('When readers see what is saved: at once, or in two steps, once somebody else approves it.')
    .meta(
      field({
        title: 'Readers see what is saved',
        order: 6,
        words: { 'at-once': 'at once', 'two-steps': 'once somebody else approves it' },
      }),
    ),
  approvers: z
    .array(idSchema)
    .max(50)
    .default([])
    .describe('The roles that approve; empty for everybody who may write it. Nobody approves what they saved themselves.')
    .meta(
      field({
        title: 'Approved by',
        order: 7,
        control: 'roles',
        hint: 'nobody chosen: whoever may write it',
        when: { keys: ['publishing'], is: ['two-steps'] },
      }),
    ),
  versions: z
    .strictObject({
      last: z
        .int()
        .min(1)
        .max(10_000)
        .optional()
        .describe('So many of the last versions of a document are kept.')
        .meta(field({ title: 'Of earlier versions are kept the last', order: 8, unit: 'versions', hint: 'nothing: all of them' })),
      days: z
        .int()
        .min(1)
        .max(36_500)
        .optional()
        .describe('All versions of so many days are kept.')
        .meta(field({ title: 'and all that are younger than', order: 9, unit: 'days', hint: 'nothing: however old' })),
      public: z
        .boolean()
        .default(true)
        .describe('Whether all versions are kept that readers ever saw.')
        .meta(field({ title: 'keep all that readers ever saw', order: 10 })),
    })
    .prefault({})
    .describe('Which earlier versions of its documents are kept: all, where neither a number nor days are given.'),
  fields: z.array(fieldSchema).max(200).default([]),
});

/** What somebody may do: look, write content, change how content is written and looks, and say who may do what. */
export const RIGHTS = ['read', 'write', 'design', 'administer'] as const;
export type Right = (typeof RIGHTS)[number];

/** What each right lets somebody do. */
const RIGHT_WORDS: Readonly<Record<Right, string>> = {
  read: 'look at everything',
  write: 'write content',
  design: 'change how content is written and looks',
  administer: 'say what there is to write, and who may do what',
};

export const siteRoleSchema = z.strictObject({
  id: idSchema,
  label: label.meta(field({ title: 'Name', hint: 'a name of at most 120 letters' })),
  description: z
    .string()
    .max(500)
    .default('')
    .meta(field({ title: 'Who that is', control: 'prose', hint: 'at most 500 letters' })),
  rights: z
    .array(z.enum(RIGHTS))
    .default(['read', 'write'])
    .meta(field({ title: 'It may', control: 'several', words: RIGHT_WORDS })),
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
    site.types.forEach(({ approvers }, at) => known(['types', at, 'approvers'], approvers, roles, 'role'));
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
