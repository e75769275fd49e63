import * as z from 'zod';
import { attributesOf, countOf, inOneLine, outlineOf, textInLines } from './outline';
import { elementsOf } from '../html/transform';
import { visibleText } from '../html/text';
import { idSchema } from '../profile/schema';
import { PASTE_SOURCES } from '../profile/paste-schema';
import type { Pasted } from '../paste/run';

/** Names the format of a specimen as a file. */
export const SPECIMEN_FORMAT = 'typikon-specimen/1';

const times = z.int().min(0).max(1_000_000);
const counted = z
  .string()
  .regex(/^(?:[a-z][a-z0-9]*|\.[\w-]+|@[\w:-]+)$/, 'must be an element such as li, a class such as .note or an attribute such as @style');

/** What must come out of a specimen. */
export const expectationSchema = z.discriminatedUnion('expect', [
  z.strictObject({ expect: z.literal('no-inline-style') }).describe('No element has a `style` attribute.'),
  z.strictObject({ expect: z.literal('no-hard-space') }).describe('No hard space is left.'),
  z
    .strictObject({ expect: z.literal('no-office') })
    .describe('Nothing is left that only an office program reads: its elements, properties, classes, notes to itself.'),
  z.strictObject({ expect: z.literal('no-empty-paragraph') }).describe('No paragraph shows nothing.'),
  z.strictObject({ expect: z.literal('links-lead-somewhere') }).describe('Every link within the text leads to an id of the text.'),
  z
    .strictObject({ expect: z.literal('text-kept'), percent: z.number().min(0).max(100).default(100) })
    .describe('At least so many percent of the letters are there that readers could see before.'),
  z
    .strictObject({ expect: z.literal('count'), of: counted, is: times })
    .describe('So many elements (`li`), elements with a class (`.note`) or attributes (`@style`) are there.'),
  z.strictObject({ expect: z.literal('text-is'), text: z.string() }).describe('The text is this, white space apart.'),
  z.strictObject({ expect: z.literal('text-has'), text: z.string().min(1) }).describe('The text holds this, white space apart.'),
  z.strictObject({ expect: z.literal('text-lacks'), text: z.string().min(1) }).describe('The text does not hold this.'),
  z.strictObject({ expect: z.literal('markup-has'), html: z.string().min(1) }).describe('The markup holds this, to the letter.'),
  z.strictObject({ expect: z.literal('markup-lacks'), html: z.string().min(1) }).describe('The markup does not hold this.'),
  z
    .strictObject({ expect: z.literal('outline'), is: z.array(z.string()) })
    .describe('The headings are these, each as its level and its words: `2 Tides`.'),
  z.strictObject({ expect: z.literal('source'), is: z.enum(PASTE_SOURCES) }).describe('The paste is told as one from this kind of source.'),
  z.strictObject({ expect: z.literal('pictures-to-upload'), is: times }).describe('So many pictures have to be uploaded by hand.'),
]);
export type Expectation = z.output<typeof expectationSchema>;
export type ExpectationKind = Expectation['expect'];

export const payloadSchema = z.strictObject({
  types: z.record(z.string().min(1).max(200), z.string()),
  files: z.array(z.strictObject({ name: z.string(), type: z.string(), size: z.int().min(0).optional() })).optional(),
});

/** A specimen as it is kept and as it travels in a file. */
export const specimenSchema = z.strictObject({
  format: z.literal(SPECIMEN_FORMAT),
  id: idSchema.optional(),
  name: z.string().min(1).max(200),
  kind: z.string().max(60).default(''),
  notes: z.string().max(1000).default(''),
  profile: idSchema.describe('The profile that it is meant to be tried with first.'),
  arrives: z.enum(['paste', 'stored']).default('paste').describe('Whether it comes by paste, or stands in a document already.'),
  payload: payloadSchema,
  expectations: z.array(expectationSchema).max(200).default([]),
});
export type SpecimenDocument = z.output<typeof specimenSchema>;

/** Whether one expectation is met, and where not, what came out instead. */
export interface Verdict {
  expectation: Expectation;
  isMet: boolean;
  /** What was found; empty where it is as expected. */
  found: string;
}

/** Compares what came out of a specimen with what must. */
export function judge(
  expectations: readonly Expectation[],
  pasted: Pick<Pasted, 'html' | 'root' | 'ledger' | 'source' | 'picturesToUpload'>,
  lettersKept: number,
): Verdict[] {
  return expectations.map((expectation) => {
    const found = shortfall(expectation, pasted, lettersKept);
    return { expectation, isMet: found === '', found };
  });
}

const OFFICE = /<\/?\w+:|\bmso-|class="[^"]*\b(?:Mso\w+|xl\d+)|<!--|<font\b|<xml\b|docs-internal-guid|data-(?:sheets|ccp|stringify)/i;

function shortfall(
  expectation: Expectation,
  { html, root, source, picturesToUpload }: Pick<Pasted, 'html' | 'root' | 'source' | 'picturesToUpload'>,
  lettersKept: number,
): string {
  const times = (count: number): string => (count === 0 ? '' : String(count));
  switch (expectation.expect) {
    case 'no-inline-style':
      return times(attributesOf(root, 'style').length);
    case 'no-hard-space':
      return times(visibleText(root).split('\u00a0').length - 1);
    case 'no-office':
      return OFFICE.exec(html)?.[0] ?? '';
    case 'no-empty-paragraph':
      return times(
        elementsOf(root).filter(
          (element) =>
            element.name === 'p' && inOneLine(visibleText(element)) === '' && !elementsOf(element).some(({ name }) => name === 'img'),
        ).length,
      );
    case 'links-lead-somewhere':
      return deadLinks(root);
    case 'text-kept':
      return lettersKept >= expectation.percent ? '' : `${lettersKept.toFixed(1)} %`;
    case 'count': {
      const count = countOf(root, expectation.of);
      return count === expectation.is ? '' : count === 0 ? 'none' : String(count);
    }
    case 'text-is': {
      const text = textInLines(root);
      return text === inOneLine(expectation.text) ? '' : text;
    }
    case 'text-has':
      return textInLines(root).includes(inOneLine(expectation.text)) ? '' : 'not there';
    case 'text-lacks':
      return textInLines(root).includes(inOneLine(expectation.text)) ? 'still there' : '';
    case 'markup-has':
      return html.includes(expectation.html) ? '' : 'not there';
    case 'markup-lacks':
      return html.includes(expectation.html) ? 'still there' : '';
    case 'outline': {
      const outline = outlineOf(root);
      return outline.join('\n') === expectation.is.join('\n') ? '' : outline.join(' · ') || 'no heading';
    }
    case 'source':
      return source.source === expectation.is ? '' : source.source;
    case 'pictures-to-upload':
      return picturesToUpload === expectation.is ? '' : picturesToUpload === 0 ? 'none' : String(picturesToUpload);
  }
}

function deadLinks(root: Pasted['root']): string {
  const ids = new Set(attributesOf(root, 'id'));
  return attributesOf(root, 'href').find((href) => href.startsWith('#') && !ids.has(href.slice(1))) ?? '';
}
