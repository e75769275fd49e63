import { attributeTestSchema, styleTestSchema, type AttributeTest, type JsonObject, type StyleTest } from '@typikon/core';

/** One field of a test's form. */
export interface TestField {
  key: string;
  /** What it is called, to go before the attribute's name. */
  label: string;
  placeholder: string;
  kind: 'words' | 'lines' | 'number' | 'text' | 'ranges' | 'flag';
  size: 'small' | 'wide';
}

const words = (key: string, label: string, placeholder: string): TestField => ({ key, label, placeholder, kind: 'words', size: 'wide' });
const number = (key: string, label: string, placeholder: string): TestField => ({ key, label, placeholder, kind: 'number', size: 'small' });
const ranges: TestField = { key: 'ranges', label: 'Ranges', placeholder: '0..720px 0..100%', kind: 'ranges', size: 'wide' };

/** The tests of attributes: what each is called, and its fields. */
export const ATTRIBUTE_TEST_FORMS: Readonly<Record<AttributeTest['test'], { label: string; fields: readonly TestField[] }>> = {
  text: { label: 'any text', fields: [number('maxLength', 'Longest', 'longest')] },
  list: { label: 'one of these', fields: [{ key: 'values', label: 'Values', placeholder: 'left, right', kind: 'lines', size: 'wide' }] },
  pattern: {
    label: 'like a pattern',
    fields: [{ key: 'pattern', label: 'Pattern', placeholder: '[a-z0-9-]+', kind: 'text', size: 'wide' }],
  },
  tokens: {
    label: 'words of these',
    fields: [
      words('values', 'Words', 'words'),
      words('prefixes', 'Beginnings', 'or beginning like'),
      { key: 'ofStyles', label: 'Also those of the styles', placeholder: '', kind: 'flag', size: 'small' },
    ],
  },
  integer: { label: 'a whole number', fields: [number('min', 'Least', 'least'), number('max', 'Most', 'most')] },
  length: { label: 'a length', fields: [ranges] },
  url: { label: 'an address', fields: [words('hosts', 'Hosts', 'any host')] },
  language: { label: 'a language', fields: [] },
  features: { label: 'features of a frame', fields: [words('values', 'Features', 'fullscreen')] },
  style: { label: 'style declarations', fields: [] },
};

/** The tests of style properties. */
export const STYLE_TEST_FORMS: Readonly<Record<StyleTest['test'], { label: string; fields: readonly TestField[] }>> = {
  any: { label: 'any value', fields: [] },
  list: { label: 'one of these', fields: [{ key: 'values', label: 'Values', placeholder: 'left, center', kind: 'lines', size: 'wide' }] },
  colour: {
    label: 'one of these colours',
    fields: [{ key: 'values', label: 'Colours', placeholder: '#1e2430, #a6301f', kind: 'lines', size: 'wide' }],
  },
  length: { label: 'a length', fields: [ranges] },
  number: { label: 'a number', fields: [number('min', 'Least', 'least'), number('max', 'Most', 'most')] },
};

/** What a field shows for a test as it stands. */
export function fieldText(test: object, { key, kind }: TestField): string {
  const value = (test as Record<string, unknown>)[key];
  if (value === undefined) return '';
  if (kind === 'words') return (value as string[]).join(' ');
  if (kind === 'lines') return (value as string[]).join(', ');
  if (kind === 'ranges') return writeRanges(value as Record<string, { min?: number; max?: number }>);
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? String(value) : '';
}

/** The test with one field changed to what was typed; or what is wrong with it, in a sentence. */
export function withField(
  kind: 'attribute' | 'style',
  test: object,
  field: TestField,
  text: string,
): { ok: true; test: JsonObject } | { ok: false; message: string } {
  const { [field.key as never]: _old, ...rest } = test as JsonObject;
  const value = readField(field, text);
  if (value instanceof Error) return { ok: false, message: value.message };
  const made = value === undefined ? rest : { ...rest, [field.key]: value };
  const checked = (kind === 'attribute' ? attributeTestSchema : styleTestSchema).safeParse(made);
  if (checked.success) return { ok: true, test: made };
  const [issue] = checked.error.issues;
  const message = issue?.message ?? 'That cannot be used.';
  return { ok: false, message: `${field.label}: ${message.charAt(0).toLowerCase()}${message.slice(1)}${message.endsWith('.') ? '' : '.'}` };
}

function readField({ kind, label }: TestField, text: string): JsonObject[string] | undefined | Error {
  const trimmed = text.trim();
  if (kind === 'flag') return text === 'true' ? true : undefined;
  if (trimmed === '') return undefined;
  switch (kind) {
    case 'words':
      return trimmed.split(/[\s,]+/).map((word) => word.replace(/^https?:\/\//, ''));
    case 'lines':
      return splitOutsideBrackets(trimmed);
    case 'number':
      return Number.isFinite(Number(trimmed)) ? Number(trimmed) : new Error(`${label}: “${trimmed}” is no number.`);
    case 'ranges':
      return readRanges(trimmed);
    case 'text':
      return trimmed;
  }
}

/** Splits at commas, but not at those inside `rgb(0, 0, 0)`. */
function splitOutsideBrackets(text: string): string[] {
  return text
    .split(/,(?![^(]*\))/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

const RANGE = /^(-?[\d.]*)\.\.(-?[\d.]*?)(%|[a-z]*)$/i;

/** Reads ranges as they are typed: `0..720px`, `..100%`, `1..2` for bare numbers. */
export function readRanges(text: string): JsonObject | Error {
  const made: JsonObject = {};
  for (const part of text.split(/[\s,]+/)) {
    const match = RANGE.exec(part);
    if (match === null) return new Error(`Ranges: “${part}” is not written like 0..720px, ..100% or 1..2.`);
    const [, min, max, unit] = match;
    const range = { ...(min === '' ? {} : { min: Number(min) }), ...(max === '' ? {} : { max: Number(max) }) };
    if (Object.values(range).some((bound) => !Number.isFinite(bound)))
      return new Error(`Ranges: “${part}” has something that is no number.`);
    made[unit === '' ? 'none' : unit!.toLowerCase()] = range;
  }
  return made;
}

function writeRanges(ranges: Record<string, { min?: number | undefined; max?: number | undefined }>): string {
  return Object.entries(ranges)
    .map(([unit, { min, max }]) => `${min ?? ''}..${max ?? ''}${unit === 'none' ? '' : unit}`)
    .join(' ');
}
