import { createRoute, z } from '@hono/zod-openapi';
import { fieldKeySchema, idSchema, OFFER_NAMES, takenLineSchema, takenLinesSchema } from '@typikon/core';
import { etagHeader, failure, ifMatch, json } from './common';
import { linkHeader, pageQuery } from './pages';
import { needs } from './right';

const published = {
  publicRevision: z.int().nullable().describe('The version that readers see; null for none.'),
  askedRevision: z.int().nullable().describe('The version that waits for somebody to approve it; null for none.'),
};

const summarySchema = z
  .object({
    id: z.string(),
    title: z.string(),
    type: z.string().describe('The id of the content type.'),
    changedAt: z.string(),
    changedBy: z.string().describe('The person who changed it last, by id; empty for nobody known.'),
    profiles: z.array(z.string()).describe('The profiles by which its rich texts were last saved, each once.'),
    revision: z.int(),
    ...published,
  })
  .openapi('DocumentSummary');

const listSchema = z.object({ documents: z.array(summarySchema), count: z.int().describe('How many fit in all.') }).openapi('DocumentList');

const storedFieldSchema = z
  .object({
    key: z.string(),
    value: z.string().describe('Clean markup of rich text, plain text of all other fields.'),
    profile: z.string().nullable().describe('The profile by which rich text was last saved; null for what is no rich text.'),
    revision: z.int().describe('Counts the changes of this field.'),
    shownBy: z
      .int()
      .nullable()
      .describe(
        'The earlier edition by which readers see it until somebody edits it, since a release left it as it was; null for the last.',
      ),
  })
  .openapi('StoredField');

const documentSchema = z
  .object({
    id: z.string(),
    title: z.string(),
    type: z.string(),
    pageKind: z.string(),
    createdAt: z.string(),
    changedAt: z.string(),
    changedBy: z.string(),
    revision: z.int(),
    ...published,
    fields: z.array(storedFieldSchema).describe('Those that hold something.'),
  })
  .openapi('Document');

const savedSchema = documentSchema
  .extend({
    changes: z.record(z.string(), z.int()).describe('How much the rules changed of what was sent, by field.'),
    notes: z.array(z.object({ field: z.string(), sentence: z.string() })).describe('What is told, and was stored all the same.'),
  })
  .openapi('SavedDocument');

/** Of so many pastes is told what was taken of them with one save. */
const MOST_PASTES = 50;

const writtenFieldSchema = z.object({
  value: z.string().max(4_000_000),
  profile: idSchema.optional(),
  taken: z
    .array(z.enum(OFFER_NAMES as [string, ...string[]]))
    .max(50)
    .optional()
    .describe('What the rules took of it while it was written, such as "tables"; kept so that help can be held against it.'),
  pasted: z
    .array(takenLinesSchema)
    .max(MOST_PASTES)
    .optional()
    .describe('What was taken of what was pasted into it since it was stored last, paste by paste; kept so that it can be found again.'),
});

const title = z.string().trim().min(1, 'must not be empty').max(200);
const parameters = z.object({ id: idSchema });
const MOST_LISTED = 200;

export const listDocuments = createRoute({
  method: 'get',
  path: '/documents',
  summary: 'Documents of the site: found by type, words, person and profile, sorted, in pages, counted',
  ...needs('read'),
  request: {
    query: z.object({
      type: idSchema.optional(),
      words: z.string().max(200).optional().describe('Words of the title or of any field, or their beginnings; all of them.'),
      by: idSchema.optional().describe('The person who changed it last.'),
      profile: idSchema.optional().describe('A profile by which one of its texts was last saved.'),
      ids: z
        .string()
        .max(16_000)
        .transform((text) => text.split(',').filter((id) => id !== ''))
        .pipe(z.array(idSchema).max(MOST_LISTED))
        .optional()
        .describe('Only documents with these ids, with commas between.'),
      public: z
        .enum(['asked', 'not'])
        .optional()
        .describe('Only documents of which a version waits for approval, or of which readers do not see the last version.'),
      sort: z.enum(['changed', 'title']).default('changed'),
      order: z.enum(['asc', 'desc']).optional().describe('The latest change first, titles from A on, unless it is said.'),
      ...pageQuery(MOST_LISTED, 50),
    }),
  },
  responses: { 200: { ...json(listSchema, 'One page of them, and how many there are'), headers: linkHeader } },
});

export const readDocument = createRoute({
  method: 'get',
  path: '/documents/{id}',
  summary: 'A stored document with what stands in its fields',
  ...needs('read'),
  request: { params: parameters },
  responses: { 200: { ...json(documentSchema, 'The document'), headers: etagHeader }, 404: failure('There is no such document') },
});

export const makeDocument = createRoute({
  method: 'post',
  path: '/documents',
  summary: 'Makes a document of a content type, with its title and nothing else',
  ...needs('write'),
  request: { body: { required: true, ...json(z.object({ type: idSchema, title }), 'What it is') } },
  responses: {
    201: { ...json(documentSchema, 'It is made'), headers: etagHeader },
    403: failure('The acting person may not'),
    404: failure('There is no such content type'),
  },
});

export const saveDocument = createRoute({
  method: 'put',
  path: '/documents/{id}',
  summary: 'Stores what is written in fields of a document, all of it or nothing',
  description:
    'Needs If-Match with the entity tag of the document that was edited. Rich text is cleaned by the rules of its profile first: the one that is sent with it, or else the one that it has. Fields that are not sent stay as they are.',
  ...needs('write'),
  request: {
    params: parameters,
    headers: ifMatch,
    body: {
      required: true,
      ...json(
        z.object({
          title: title.optional(),
          fields: z.record(fieldKeySchema, writtenFieldSchema).default({}),
        }),
        'What is written',
      ),
    },
  },
  responses: {
    200: { ...json(savedSchema, 'It is stored'), headers: etagHeader },
    403: failure('The acting person may not write there, or not with that profile'),
    404: failure('There is no such document'),
    412: failure('Somebody else has changed it since; `current` holds their version'),
    422: failure('A value cannot stand where it is, or is more than can be cleaned at once'),
    428: failure('If-Match is missing'),
  },
});

const HOW = z.enum(['made', 'written', 'restored', 'retyped', 'converted']);
const MOST_VERSIONS = 200;

const versionSchema = z
  .object({
    revision: z.int(),
    title: z.string(),
    how: HOW.describe('By what it came about: made anew, written, taken back to, given another type, converted.'),
    savedAt: z.iso.datetime(),
    savedBy: z.string().describe('The person, by id; empty for nobody known.'),
  })
  .openapi('Version');
const versionedField = z.object({
  key: z.string(),
  profile: z.string().nullable().describe('The profile by which rich text was saved; null for what is no rich text.'),
  edition: z.int().nullable().describe('The edition of that profile; null where it is not known.'),
});

export const listVersions = createRoute({
  method: 'get',
  path: '/documents/{id}/versions',
  summary: 'The versions of a document that were ever stored, the latest first',
  ...needs('read'),
  request: { params: parameters, query: z.object(pageQuery(MOST_VERSIONS, 50)) },
  responses: {
    200: {
      ...json(
        z.array(
          versionSchema.extend({
            fields: z.array(
              versionedField.extend({
                isChanged: z.boolean().describe('Whether it is another than in the version before.'),
                bytes: z.int().describe('How long it is, in bytes of UTF-8.'),
              }),
            ),
          }),
        ),
        'The versions; `after` takes a revision',
      ),
      headers: linkHeader,
    },
    404: failure('There is no such document'),
  },
});

export const readVersion = createRoute({
  method: 'get',
  path: '/documents/{id}/versions/{revision}',
  summary: 'One version of a document with what stood in its fields',
  ...needs('read'),
  request: { params: parameters.extend({ revision: z.coerce.number().int().min(1) }) },
  responses: {
    200: json(versionSchema.extend({ fields: z.array(versionedField.extend({ value: z.string() })) }), 'The version'),
    404: failure('There is no such document or version'),
  },
});

export const leftOut = createRoute({
  method: 'get',
  path: '/documents/{id}/left-out',
  summary: 'What the site leaves out of a stored document when it shows it, by the rules that hold now',
  ...needs('read'),
  request: { params: parameters },
  responses: {
    200: json(
      z.array(
        z.object({
          field: z.string(),
          profile: z.string(),
          edition: z.int().nullable().describe('The edition that holds now.'),
          line: takenLineSchema.omit({ words: true, sample: true }),
          sentence: z.string(),
          words: z.string(),
          sample: z.string(),
        }),
      ),
      'What is left out; nothing where the page shows all that is stored',
    ),
    404: failure('There is no such document'),
  },
});

const MOST_TAKEN = 200;

export const listTaken = createRoute({
  method: 'get',
  path: '/taken',
  summary: 'What was ever taken of texts, by which step, rule, person and edition; the latest first',
  description:
    'The passes and rules of a paste as the editor told them, what rules did at a save, at a move to another profile or at a conversion, and words that somebody took out by hand.',
  ...needs('read'),
  request: {
    query: z.object({
      document: idSchema.optional(),
      field: fieldKeySchema.optional(),
      words: z.string().max(500).optional().describe('Words that went, or their beginnings; all of them in one entry.'),
      severity: z.enum(['loss', 'change', 'tidy']).optional(),
      ...pageQuery(MOST_TAKEN, 50),
    }),
  },
  responses: {
    200: {
      ...json(
        z.array(
          z
            .object({
              id: z.int(),
              document: z.string(),
              title: z.string().describe('Of the document as it is now.'),
              field: z.string(),
              revision: z.int().describe('The version of the document that was stored with it.'),
              step: z.enum(['paste', 'save', 'move', ...HOW.options]),
              profile: z.string().nullable(),
              edition: z.int().nullable(),
              at: z.iso.datetime(),
              by: z.string().describe('The person, by id; empty for nobody known.'),
              severity: z.enum(['loss', 'change', 'tidy']),
              line: takenLineSchema
                .omit({ words: true, sample: true })
                .nullable()
                .describe('What the rule did, as a group of entries of the ledger; null for words that were taken out by hand.'),
              sentence: z.string().describe('What was done, in a sentence.'),
              words: z.string().describe('The words that went.'),
              sample: z.string().describe('The source that stood at the first place, cut.'),
            })
            .openapi('Taken'),
        ),
        'What was taken; `after` takes an id',
      ),
      headers: linkHeader,
    },
  },
});

export const restoreVersion = createRoute({
  method: 'post',
  path: '/documents/{id}/restore',
  summary: 'Stores an earlier version of a document again, as a new one',
  ...needs('write'),
  request: { params: parameters, headers: ifMatch, body: { required: true, ...json(z.object({ revision: z.int().min(1) }), 'Which one') } },
  responses: {
    200: { ...json(savedSchema, 'It is stored'), headers: etagHeader },
    403: failure('The acting person may not'),
    404: failure('There is no such document or version'),
    412: failure('Somebody else has changed it since; `current` holds their version'),
    422: failure('A value cannot stand where it is any more'),
    428: failure('If-Match is missing'),
  },
});
