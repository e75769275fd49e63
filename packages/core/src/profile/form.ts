import * as z from 'zod';
import type { FieldGroup, FieldMeta } from './field-meta';
import type { Json, JsonObject } from './merge-patch';
import { readRanges, writeRanges, type Ranges } from './ranges';

/** What a form can be made of. */
export type FormSchema = z.ZodType;

/** How a setting is edited. */
export type FieldKind =
  | 'choice'
  | 'several'
  | 'flag'
  | 'number'
  | 'text'
  | 'prose'
  | 'words'
  | 'lines'
  | 'list'
  | 'numbers'
  | 'ranges'
  | 'pairs'
  | 'rows'
  | 'special';

/** One setting of a form, as its schema describes it. */
export interface FormField {
  /** Where it stands below the form's own place in the document. */
  keys: readonly string[];
  kind: FieldKind;
  title: string;
  /** What it is for, in sentences; empty where the title says all. */
  help: string;
  /** What can be written, as it follows "must be". */
  hint: string;
  placeholder: string;
  /** What a number counts, such as px; empty where it says nothing. */
  unit: string;
  /** For prose: so many lines are in view. */
  rows: number;
  /** Whether it needs but half a line where each stands below its label. */
  isHalf: boolean;
  /** More letters than this are told; null where no length is too much. */
  letters: number | null;
  /** For a choice, of one or of several: the values, each in words. */
  options: readonly (readonly [value: string, words: string])[];
  /** For pairs: their names. For rows: the keys of a row, each with its title. */
  parts: readonly (readonly [key: string, title: string])[];
  /** The control's name, for `special`. */
  control: string;
  /** Whether its value is a list. */
  isList: boolean;
  /** Whether there may be nothing. */
  isOptional: boolean;
  when: FieldMeta['when'] | null;
  schema: z.ZodType;
}

export interface FormGroup extends FieldGroup {
  fields: readonly FormField[];
}

type Read = { ok: true; value: Json | undefined } | { ok: false; message: string };

const WRAPPERS: ReadonlySet<string> = new Set(['default', 'prefault', 'optional', 'nullable', 'readonly', 'nonoptional']);

function innerOf(schema: z.ZodType): z.ZodType | null {
  return WRAPPERS.has(schema.def.type) ? (schema as unknown as { def: { innerType: z.ZodType } }).def.innerType : null;
}

/** The schema itself, without what makes it optional or gives it a default. */
function bare(schema: z.ZodType): z.ZodType {
  const inner = innerOf(schema);
  return inner === null ? schema : bare(inner);
}

/** The metadata of a schema and of what it wraps; what stands outside counts. */
function metaOf(schema: z.ZodType): FieldMeta & { description?: string } {
  const inner = innerOf(schema);
  return { ...(inner === null ? {} : metaOf(inner)), ...schema.meta() };
}

function isOptional(schema: z.ZodType): boolean {
  const inner = innerOf(schema);
  return schema.def.type === 'optional' || (inner !== null && schema.def.type !== 'default' && isOptional(inner));
}

/**
 * The form of a section of a document: the settings that have a title, in groups.
 *
 * @param schema an object; its metadata name the groups
 * @returns groups with something in them, in the order in which the schema names them; fields of no group come first, in one without a title
 */
export function formOf(schema: z.ZodType): FormGroup[] {
  const groups = metaOf(schema).groups ?? [];
  const placed: { group: string; order: number; field: FormField }[] = [];
  collect(schema, [], '', placed);
  return [{ id: '', title: '', help: '' }, ...groups]
    .map((group) => ({
      ...group,
      fields: placed
        .filter((one) => one.group === group.id)
        .sort((one, other) => one.order - other.order)
        .map(({ field }) => field),
    }))
    .filter(({ fields }) => fields.length > 0);
}

/** Every setting of a form, in order. */
export function fieldsOf(schema: z.ZodType): FormField[] {
  return formOf(schema).flatMap(({ fields }) => fields);
}

function collect(schema: z.ZodType, keys: readonly string[], within: string, placed: { group: string; order: number; field: FormField }[]) {
  const type = bare(schema);
  if (!(type instanceof z.ZodObject)) return;
  for (const [key, part] of Object.entries((type as z.ZodObject<Readonly<Record<string, z.ZodType>>>).shape)) {
    const meta = metaOf(part);
    const [at, group] = [[...keys, key], meta.group ?? within];
    if (meta.title === undefined) collect(part, at, group, placed);
    else placed.push({ group, order: meta.order ?? placed.length, field: fieldOf(part, at, meta) });
  }
}

function fieldOf(schema: z.ZodType, keys: readonly string[], meta: FieldMeta & { description?: string }): FormField {
  const type = bare(schema);
  const kind = meta.control === undefined ? kindOf(type, meta) : isKind(meta.control) ? meta.control : 'special';
  const optional = isOptional(schema);
  return {
    keys,
    kind,
    title: meta.title!,
    // What a description says of the values of a choice stands in the choice.
    help: kind === 'choice' || kind === 'several' ? '' : (meta.description ?? ''),
    hint: meta.hint ?? hintOf(type, optional),
    placeholder: meta.placeholder ?? '',
    unit: meta.unit ?? '',
    rows: meta.rows ?? 2,
    isHalf: meta.isHalf ?? kind === 'number',
    letters: meta.letters ?? null,
    options: kind === 'choice' || kind === 'several' ? choicesOf(type).map((value) => [value, meta.words?.[value] ?? value]) : [],
    parts: partsOf(type, kind),
    control: kind === 'special' ? meta.control! : '',
    isList: type instanceof z.ZodArray,
    isOptional: optional,
    when: meta.when ?? null,
    schema,
  };
}

const NAMED_KINDS: readonly string[] = ['lines', 'list', 'prose', 'ranges', 'several'] satisfies FieldKind[];
const isKind = (control: string): control is FieldKind => NAMED_KINDS.includes(control);

function kindOf(type: z.ZodType, { words }: FieldMeta): FieldKind {
  if (type instanceof z.ZodEnum) return 'choice';
  if (type instanceof z.ZodBoolean) return words === undefined ? 'flag' : 'choice';
  if (type instanceof z.ZodNumber) return 'number';
  if (type instanceof z.ZodRecord) return 'pairs';
  if (type instanceof z.ZodArray) {
    const item = bare(type.element as z.ZodType);
    return item instanceof z.ZodObject ? 'rows' : item instanceof z.ZodNumber ? 'numbers' : 'words';
  }
  return 'text';
}

function choicesOf(type: z.ZodType): string[] {
  if (type instanceof z.ZodArray) return choicesOf(bare(type.element as z.ZodType));
  if (type instanceof z.ZodEnum) return type.options.map(String);
  return type instanceof z.ZodBoolean ? ['true', 'false'] : [];
}

function partsOf(type: z.ZodType, kind: FieldKind): [string, string][] {
  if (kind === 'pairs' && type instanceof z.ZodRecord) {
    const names = bare(type.keyType as z.ZodType);
    return names instanceof z.ZodEnum ? names.options.map((name) => [String(name), String(name)]) : [];
  }
  if (kind !== 'rows' || !(type instanceof z.ZodArray)) return [];
  const { shape } = bare(type.element as z.ZodType) as z.ZodObject;
  return Object.entries(shape as Record<string, z.ZodType>).map(([key, part]) => [key, metaOf(part).title ?? key]);
}

/** What can be written, as far as the type says. */
function hintOf(type: z.ZodType, isOptional: boolean): string {
  const orNothing = isOptional ? ', or nothing' : '';
  if (type instanceof z.ZodNumber) return `${rangeOf(type)}${orNothing}`;
  if (type instanceof z.ZodArray && bare(type.element as z.ZodType) instanceof z.ZodNumber)
    return `${rangeOf(bare(type.element as z.ZodType) as z.ZodNumber).replace('a whole number', 'whole numbers')}, with spaces between them`;
  if (type instanceof z.ZodEnum || type instanceof z.ZodBoolean) return 'one of the list';
  return '';
}

const count = (number: number): string => number.toLocaleString('en-GB');

function rangeOf(type: z.ZodNumber): string {
  const noun = type.format === null ? 'a number' : 'a whole number';
  const [min, max] = [type.minValue ?? -Infinity, type.maxValue ?? Infinity];
  const least = Number.isSafeInteger(min) && min > Number.MIN_SAFE_INTEGER;
  const most = Number.isSafeInteger(max) && max < Number.MAX_SAFE_INTEGER;
  if (least && most) return `${noun} from ${count(min)} to ${count(max)}`;
  return least ? `${noun} of at least ${count(min)}` : most ? `${noun} up to ${count(max)}` : noun;
}

/** A value as its control shows it: text, or words of text. */
export function shownValue({ kind }: Pick<FormField, 'kind'>, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (kind === 'ranges') return writeRanges(value as Ranges);
  if (Array.isArray(value)) return value.map(String).join(kind === 'lines' ? ', ' : kind === 'list' ? '\n' : ' ');
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? String(value) : JSON.stringify(value);
}

/**
 * Reads what was typed or chosen.
 *
 * @param typed as the control has it; for pairs, rows and special controls the value itself
 * @returns the value, undefined for nothing; or a sentence that says what can be written
 */
export function readTyped(field: FormField, typed: Json): Read {
  let value: Json | undefined = typed;
  if (typeof typed === 'string') {
    if (field.kind === 'ranges') {
      const ranges = readRanges(typed);
      if (typeof ranges === 'string') return { ok: false, message: `${field.title}: ${ranges}` };
      value = ranges;
    } else value = parseTyped(field, typed);
  }
  if (value === undefined && field.isOptional) return { ok: true, value };
  const checked = field.schema.safeParse(value);
  if (value !== undefined && checked.success) return { ok: true, value };
  const [issue] = checked.error?.issues ?? [];
  return { ok: false, message: `${field.title}: ${mistake(field, value, issue)}` };
}

function parseTyped({ kind, schema }: FormField, typed: string): Json | undefined {
  const text = typed.trim();
  const words = (): string[] => text.split(/[\s,]+/).filter((word) => word !== '');
  const given = <T>(list: T[]): T[] | undefined => (list.length === 0 && isOptional(schema) ? undefined : list);
  switch (kind) {
    case 'flag':
      return text === 'true';
    case 'choice':
      return bare(schema) instanceof z.ZodBoolean ? text === 'true' : text;
    case 'number':
      return text === '' ? undefined : Number.isNaN(Number(text)) ? text : Number(text);
    case 'words':
      return given(words());
    case 'numbers':
      return given(words().map((word) => (Number.isNaN(Number(word)) ? word : Number(word))));
    case 'lines':
      return given(splitOutsideBrackets(text));
    case 'list':
      return given(
        text
          .split('\n')
          .map((line) => line.trim())
          .filter((line) => line !== ''),
      );
    default:
      return text === '' && isOptional(schema) ? undefined : text;
  }
}

/** Splits at commas, but not at those inside `rgb(0, 0, 0)`. */
function splitOutsideBrackets(text: string): string[] {
  return text
    .split(/,(?![^(]*\))/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

/** A word as it is told; one that is pasted by accident may be a whole page. */
const shortened = (word: string): string => ([...word].length > 40 ? `${[...word].slice(0, 39).join('')}…` : word);

/** What is wrong with a value, in a sentence that names the part. */
function mistake({ hint }: FormField, value: Json | undefined, issue: { message: string; path: PropertyKey[] } | undefined): string {
  const [at] = issue?.path ?? [];
  const culprit = Array.isArray(value) && typeof at === 'number' && typeof value[at] === 'string' ? `“${shortened(value[at])}”` : 'it';
  // Our own schemas say what must be; the words that come with a type speak of types.
  const said = issue?.message.startsWith('must ') === true ? issue.message : hint === '' ? (issue?.message ?? '') : `must be ${hint}`;
  if (said.startsWith('must ')) return `${culprit} ${said}.`;
  return said === '' ? 'that cannot be used.' : `${said.replace(/\.$/, '')}.`;
}

/** Whether a field says anything with the others as they are. */
export function isFieldShown({ when }: Pick<FormField, 'when'>, section: JsonObject): boolean {
  if (when === null || when === undefined) return true;
  let value: Json | undefined = section;
  for (const key of when.keys) value = value !== null && typeof value === 'object' && !Array.isArray(value) ? value[key] : undefined;
  return typeof value === 'string' ? when.is.includes(value) : typeof value === 'boolean' && when.is.includes(`${value}`);
}
