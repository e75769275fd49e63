/*
 * What a form needs to know of a setting beside its type stands with the setting itself, as metadata of its schema. `title` and
 * `description` are annotations of JSON Schema (2020-12, section 9) and stand in the published schemas, too; the others do not.
 */

/** Metadata of one setting. */
export interface FieldMeta {
  /** What the setting is called before its control. A setting without a title is in no form. */
  title?: string;
  /** What can be written, as it follows "must be"; without it, what follows from the type. */
  hint?: string;
  /** What stands in the control while there is nothing in it. */
  placeholder?: string;
  /** What a number counts, such as px. */
  unit?: string;
  /** For a choice: each value in words that say what happens. */
  words?: Readonly<Record<string, string>>;
  /** The id of the group that it stands in; that of an object holds for all in it. */
  group?: string;
  /** The place in its group; those without one come in the order of the schema. */
  order?: number;
  /** The name of the control that edits it, where its type does not say. */
  control?: string;
  /** For prose: so many lines are in view. */
  rows?: number;
  /** Whether it needs but half a line where each stands below its label. */
  isHalf?: boolean;
  /** For text: more letters than this are told, and stay. */
  letters?: number;
  /** It says something only while another setting of the same form has one of these values. */
  when?: { keys: readonly string[]; is: readonly string[] };
  /** For a form: its groups, in the order shown. */
  groups?: readonly FieldGroup[];
}

export interface FieldGroup {
  id: string;
  title: string;
  /** What the group is about, in half a sentence. */
  help: string;
}

/** Metadata for `.meta()` of a schema. */
export const field = (meta: FieldMeta): Record<string, unknown> => ({ ...meta });

/** Metadata that belongs to forms and not to a published schema. */
const FORM_ONLY = [
  'hint',
  'placeholder',
  'unit',
  'words',
  'group',
  'order',
  'control',
  'rows',
  'isHalf',
  'letters',
  'when',
  'groups',
] as const satisfies (keyof FieldMeta)[];

/** Takes out of a JSON Schema what only forms need; for `override` of `z.toJSONSchema`. */
export function withoutFormMeta({ jsonSchema }: { jsonSchema: object }): void {
  for (const key of FORM_ONLY) delete (jsonSchema as Record<string, unknown>)[key];
}
