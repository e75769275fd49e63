import fc from 'fast-check';
import * as z from 'zod';
import {
  contentTypeSchema,
  fieldSchema,
  fieldsOf,
  formOf,
  isFieldShown,
  markupSchema,
  pastePassesSchema,
  profileJsonSchema,
  readTyped,
  shownValue,
  siteJsonSchema,
  siteRoleSchema,
  surfaceSchema,
  toolbarOptionsSchema,
  type FormField,
  type Json,
} from '../src';
import { field } from '../src/profile/field-meta';
import { runs } from './fixed-seed';

const only = (schema: z.ZodType): FormField => fieldsOf(z.strictObject({ it: schema.meta(field({ title: 'It' })) }))[0]!;

describe('a form', () => {
  const schema = z
    .strictObject({
      silent: z.string().default(''),
      size: z
        .strictObject({
          px: z
            .int()
            .min(1)
            .default(3)
            .meta(field({ title: 'Size', unit: 'px' })),
        })
        .prefault({})
        .meta(field({ group: 'b' })),
      late: z
        .boolean()
        .default(false)
        .meta(field({ title: 'Late', group: 'a', order: 9 })),
      mode: z
        .enum(['one', 'two'])
        .default('one')
        .describe('one: this.')
        .meta(field({ title: 'Mode', group: 'a', order: 1, words: { one: 'the one' } })),
      loose: z
        .string()
        .optional()
        .describe('Help.')
        .meta(field({ title: 'Loose', when: { keys: ['mode'], is: ['two'] } })),
    })
    .meta(
      field({
        groups: [
          { id: 'a', title: 'A', help: 'first' },
          { id: 'b', title: 'B', help: 'second' },
          { id: 'none', title: 'None', help: '' },
        ],
      }),
    );

  test('has a line for every setting with a title, in its group and order', () => {
    expect(formOf(schema).map(({ id, fields }) => [id, fields.map(({ keys }) => keys.join('.'))])).toEqual([
      ['', ['loose']],
      ['a', ['mode', 'late']],
      ['b', ['size.px']],
    ]);
  });

  test('takes kind, choices, help and unit from the schema', () => {
    const [loose, mode, late, size] = fieldsOf(schema);
    expect(loose).toMatchObject({ kind: 'text', isOptional: true, help: 'Help.' });
    expect(mode).toMatchObject({
      kind: 'choice',
      options: [
        ['one', 'the one'],
        ['two', 'two'],
      ],
      help: '',
      isOptional: false,
    });
    expect(late).toMatchObject({ kind: 'flag' });
    expect(size).toMatchObject({ kind: 'number', unit: 'px', hint: 'a whole number of at least 1' });
  });

  test('shows what depends on another only where that has the value', () => {
    const loose = fieldsOf(schema)[0]!;
    expect(isFieldShown(loose, { mode: 'two' })).toBe(true);
    expect(isFieldShown(loose, { mode: 'one' })).toBe(false);
    expect(isFieldShown(loose, {})).toBe(false);
    expect(isFieldShown({ when: null }, {})).toBe(true);
  });
});

describe('what is typed', () => {
  test.each<[z.ZodType, string, unknown]>([
    [z.int().min(1), ' 12 ', 12],
    [z.int().optional(), '', undefined],
    [z.boolean(), 'true', true],
    [z.string(), '  a b ', 'a b'],
    [z.array(z.string()), 'a, b  c', ['a', 'b', 'c']],
    [z.array(z.string()), ' ', []],
    [z.array(z.string()).optional(), ' ', undefined],
    [z.array(z.int()), '1 2,3', [1, 2, 3]],
    [z.enum(['a', 'b']), 'b', 'b'],
  ])('is read by the type: %#', (schema, typed, value) => expect(readTyped(only(schema), typed)).toEqual({ ok: true, value }));

  test.each<[z.ZodType, string, string]>([
    [z.int().min(1).max(5000), '0', 'It: it must be a whole number from 1 to 5,000.'],
    [z.int().min(1).max(5), '', 'It: it must be a whole number from 1 to 5.'],
    [z.int().min(1).optional(), 'x', 'It: it must be a whole number of at least 1, or nothing.'],
    [z.number().max(5), '6', 'It: it must be a number up to 5.'],
    [z.number(), 'many', 'It: it must be a number.'],
    [z.array(z.int().min(1).max(6)), '2 9', 'It: it must be whole numbers from 1 to 6, with spaces between them.'],
    [z.array(z.string().regex(/^a/, 'must begin with a')), 'ab ba', 'It: “ba” must begin with a.'],
    [z.string().regex(/^a/, 'must begin with a'), 'b', 'It: it must begin with a.'],
    [z.enum(['a']), 'b', 'It: it must be one of the list.'],
    [z.string().refine(() => false, 'No such thing.'), 'b', 'It: No such thing.'],
  ])('is refused with what can be written: %#', (schema, typed, message) =>
    expect(readTyped(only(schema), typed)).toEqual({ ok: false, message }),
  );

  const ranges = (): FormField =>
    fieldsOf(z.strictObject({ it: z.record(z.string(), z.unknown()).meta(field({ title: 'Ranges', control: 'ranges' })) }))[0]!;
  test.each([
    ['0..720px', { px: { min: 0, max: 720 } }],
    ['..100% 1..2', { '%': { max: 100 }, none: { min: 1, max: 2 } }],
    ['-4..4.5em', { em: { min: -4, max: 4.5 } }],
    ['..', { none: {} }],
  ])('ranges are read as they are written: %s', (text, value) => {
    expect(readTyped(ranges(), text)).toEqual({ ok: true, value });
    expect(readTyped(ranges(), shownValue(ranges(), value))).toEqual({ ok: true, value });
  });
  test.each(['720px', '1.2.3..4px', 'wide'])('ranges that are none: %s', (text) => expect(readTyped(ranges(), text).ok).toBe(false));

  test('lines are parted at commas, but not at those of a function', () => {
    const lines = fieldsOf(z.strictObject({ it: z.array(z.string()).meta(field({ title: 'It', control: 'lines' })) }))[0]!;
    expect(readTyped(lines, 'rgb(0, 0, 0), far right')).toEqual({ ok: true, value: ['rgb(0, 0, 0)', 'far right'] });
  });
});

describe('the forms of our own documents', () => {
  const sections: [string, z.ZodType][] = [
    ['markup', markupSchema],
    ['surface', surfaceSchema],
    ...Object.entries(pastePassesSchema.shape),
    ...Object.entries(toolbarOptionsSchema.shape),
  ];

  test.each(sections)('%s: what a control shows is read as the value that it shows', (_name, schema) => {
    const values = schema.parse({}) as Record<string, unknown>;
    for (const one of fieldsOf(schema)) {
      const value = one.keys.reduce<unknown>((inner, key) => (inner as Record<string, unknown> | undefined)?.[key], values);
      if (['special', 'pairs', 'rows'].includes(one.kind)) continue;
      const shown = one.kind === 'flag' ? (value as boolean) : shownValue(one, value);
      expect([one.keys, readTyped(one, shown)]).toEqual([one.keys, { ok: true, value }]);
    }
  });

  test.each(sections)('%s: every choice has words and can be made', (_name, schema) => {
    for (const one of fieldsOf(schema).filter(({ kind }) => kind === 'choice'))
      for (const [value, words] of one.options) {
        expect(words).not.toBe('');
        expect(readTyped(one, value).ok).toBe(true);
      }
  });

  test.each(sections)('%s: no title stands twice in a group', (_name, schema) => {
    for (const { fields } of formOf(schema)) {
      const titles = fields.map(({ title }) => title).filter((title) => !title.startsWith('or '));
      expect(new Set(titles).size).toBe(titles.length);
    }
  });

  test('the published schema has titles, and nothing that only forms need', () => {
    const text = JSON.stringify(profileJsonSchema());
    expect(text).toContain('"title":"Hard spaces"');
    for (const key of ['words', 'hint', 'placeholder', 'groups', 'control'])
      expect(text).not.toMatch(new RegExp(`"title":"[^"]*","${key}"|"${key}":(?:"|\\[\\{"id")`));
  });

  /** What people type: words of any script, numbers, signs that mean something to some control, far too much. */
  const typed = fc.oneof(
    fc.string({ unit: 'grapheme' }),
    fc.stringMatching(/^[ ,.:()#%*\-a-z0-9/]*$/),
    fc.constantFrom(
      '',
      ' ',
      '\u00a0',
      '0',
      '-1',
      '1e9',
      '0x10',
      'Infinity',
      'NaN',
      '1,5',
      'null',
      '__proto__',
      'constructor',
      '(?=x)',
      'a'.repeat(100_000),
    ),
  );

  test.each(sections)(
    '%s, law: whatever is typed has an answer; what is taken is what the schema lets through, and is shown as what is read again',
    (_name, schema) => {
      const fields = fieldsOf(schema).filter(({ kind }) => !['special', 'pairs', 'rows'].includes(kind));
      if (fields.length === 0) return;
      fc.assert(
        fc.property(fc.constantFrom(...fields), typed, (one, text) => {
          const read = readTyped(one, text);
          if (!read.ok) {
            expect(read.message).toMatch(/^.+: .*\S\.$/su);
            expect(read.message.length).toBeLessThan(400);
            return;
          }
          expect(one.schema.safeParse(read.value).success).toBe(true);
          const shown = one.kind === 'flag' ? read.value === true : shownValue(one, read.value);
          expect(readTyped(one, shown)).toEqual(read);
        }),
        { numRuns: runs(300) },
      );
    },
  );
});

describe('the settings of a site', () => {
  const forms = { fieldSchema, contentTypeSchema, siteRoleSchema };

  test.each(Object.entries(forms))('%s: each has a title, and a default that its own form takes', (_name, schema) => {
    const fields = fieldsOf(schema);
    expect(fields.length).toBeGreaterThan(2);
    for (const one of fields) {
      const read = one.schema.safeParse(undefined);
      if (!read.success || read.data === undefined) continue;
      const typed = ['several', 'flag', 'special'].includes(one.kind) ? (read.data as Json) : shownValue(one, read.data);
      expect([one.title, readTyped(one, typed)]).toEqual([one.title, { ok: true, value: read.data }]);
    }
  });

  test('what a field is comes first, then what explains it, then what confines it', () => {
    expect(fieldsOf(fieldSchema).map(({ keys }) => keys.join('.'))).toEqual([
      ...['title', 'kind', 'needed', 'titleHidden'],
      ...['help.short', 'help.long', 'help.link', 'help.example'],
      ...['letters.from', 'letters.to', 'choices', 'linksWithin', 'picturesFrom', 'picturesInto'],
    ]);
  });

  test('a list is typed a line each, and comes back as it was', () => {
    const choices = fieldsOf(fieldSchema).find(({ kind }) => kind === 'list')!;
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-z, ]*[a-z][a-z, ]*$/), { maxLength: 6 }), (words) => {
        const list = words.map((word) => word.trim());
        expect(readTyped(choices, shownValue(choices, list))).toEqual({ ok: true, value: list });
      }),
      { numRuns: runs(100) },
    );
    expect(readTyped(choices, ' one \n\n two, three\n')).toEqual({ ok: true, value: ['one', 'two, three'] });
  });

  test('what is typed at length stays as it is, and too much of it is refused with how much may be', () => {
    const short = fieldsOf(fieldSchema).find(({ keys }) => keys.join('.') === 'help.short')!;
    expect(short).toMatchObject({ kind: 'prose', letters: 140 });
    expect(readTyped(short, 'a, b\nc')).toEqual({ ok: true, value: 'a, b\nc' });
    expect(readTyped(short, 'x'.repeat(301))).toEqual({ ok: false, message: 'Help, always in view: it must be at most 300 letters.' });
  });

  test('several of a list are chosen by their words, none that it has not', () => {
    const rights = fieldsOf(siteRoleSchema).find(({ kind }) => kind === 'several')!;
    expect(rights.options.map(([value]) => value)).toEqual(['read', 'write', 'design', 'administer']);
    expect(readTyped(rights, ['read'])).toEqual({ ok: true, value: ['read'] });
    expect(readTyped(rights, ['reign']).ok).toBe(false);
  });

  test('what a kind of field has no use for is not asked', () => {
    const shown = (kind: string) =>
      fieldsOf(fieldSchema)
        .filter((one) => isFieldShown(one, { kind }))
        .map(({ keys }) => keys.join('.'));
    expect(shown('date')).toEqual(expect.not.arrayContaining(['letters.from', 'choices', 'linksWithin', 'picturesFrom']));
    expect(shown('choice')).toContain('choices');
    expect(shown('rich')).toEqual(expect.arrayContaining(['letters.from', 'linksWithin', 'picturesInto']));
    expect(shown('picture')).toEqual(expect.not.arrayContaining(['linksWithin', 'letters.to']));
  });

  test('nothing of their forms stands in the published schema', () => {
    expect(JSON.stringify(siteJsonSchema())).not.toMatch(
      /"(?:isHalf|letters|rows|when|control)":(?!\{"(?:type|anyOf|default|description))/,
    );
  });
});
