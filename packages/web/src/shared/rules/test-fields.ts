import type { StyleTest } from '@typikon/core';
import {
  attributeTestSchema,
  fieldsOf,
  readTyped,
  shownValue,
  styleTestSchema,
  type AttributeTest,
  type FormField,
  type JsonObject,
} from '@typikon/core/settings';

/** A test as it is offered: what it is called, and what can be set of it. */
export interface TestOffer {
  label: string;
  fields: readonly FormField[];
}

/** The name of a test stands in its form, too; it is chosen before. */
function offersOf<Name extends string>(
  options: readonly Parameters<typeof fieldsOf>[0][],
  nameOf: (at: number) => Name,
): Record<Name, TestOffer> {
  return Object.fromEntries(
    options.map((option, at) => {
      const fields = fieldsOf(option);
      return [
        nameOf(at),
        { label: fields.find(({ keys }) => keys[0] === 'test')!.title, fields: fields.filter(({ keys }) => keys[0] !== 'test') },
      ];
    }),
  ) as unknown as Record<Name, TestOffer>;
}

/** The tests of attributes. */
export const ATTRIBUTE_TEST_FORMS: Readonly<Record<AttributeTest['test'], TestOffer>> = offersOf(
  attributeTestSchema.options,
  (at) => attributeTestSchema.options[at]!.shape.test.value,
);

/** The tests of style properties. */
export const STYLE_TEST_FORMS: Readonly<Record<StyleTest['test'], TestOffer>> = offersOf(
  styleTestSchema.options,
  (at) => styleTestSchema.options[at]!.shape.test.value,
);

/** What a field shows for a test as it stands. */
export function fieldText(test: object, field: FormField): string {
  return shownValue(field, (test as Record<string, unknown>)[field.keys[0]!]);
}

/** The test with one field changed to what was typed; or what is wrong with it, in a sentence. */
export function withField(
  kind: 'attribute' | 'style',
  test: object,
  field: FormField,
  text: string,
): { ok: true; test: JsonObject } | { ok: false; message: string } {
  const [key] = field.keys;
  const { [key!]: _old, ...rest } = test as JsonObject;
  // Hosts are often copied with what stands before them.
  const read = readTyped(field, key === 'hosts' ? text.replace(/(^|[\s,])https?:\/\//g, '$1') : text);
  if (!read.ok) return read;
  const isNothing = read.value === undefined || read.value === false;
  const made = isNothing ? rest : { ...rest, [key!]: read.value! };
  const checked = (kind === 'attribute' ? attributeTestSchema : styleTestSchema).safeParse(made);
  if (checked.success) return { ok: true, test: made };
  const message = checked.error.issues[0]?.message ?? 'that cannot be used';
  return { ok: false, message: `${field.title}: it ${message.replace(/\.$/, '')}.` };
}
