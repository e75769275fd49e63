import { mergePatch, type JsonObject } from './merge-patch';
import { PROFILE_FORMAT } from './schema';

/** A set of rules to begin a profile with. */
export interface StartingPoint {
  id: string;
  name: string;
  /** What authors can do with it, in a sentence. */
  gloss: string;
  /** A profile document without a name. */
  document: JsonObject;
}

const NOTE: JsonObject = {
  toolbar: {
    order: ['words', 'links'],
    groups: {
      words: { label: 'Words', buttons: ['bold', 'italic', 'clear-formatting'] },
      links: { label: 'Links', buttons: ['link', 'unlink'] },
    },
  },
  markup: {
    elements: {
      p: {},
      br: {},
      strong: {},
      em: {},
      b: { outcome: 'rename', to: 'strong' },
      i: { outcome: 'rename', to: 'em' },
      a: { attributes: { href: { test: 'url' } } },
      form: { outcome: 'drop' },
      select: { outcome: 'drop' },
      textarea: { outcome: 'drop' },
    },
    urls: { schemes: { href: ['https', 'mailto'] } },
    text: { hardSpaces: 'meaningful', emptyParagraphs: 'remove' },
    limits: { nesting: 20 },
  },
};

const LETTER: JsonObject = {
  toolbar: {
    order: ['blocks', 'words', 'lists', 'links', 'steps'],
    groups: {
      blocks: { label: 'Blocks', buttons: ['paragraph', 'heading-2', 'heading-3'] },
      lists: { label: 'Lists', buttons: ['bulleted-list', 'numbered-list', 'block-quote'] },
      steps: { label: 'Steps', buttons: ['undo', 'redo'] },
    },
  },
  markup: {
    elements: {
      h2: { attributes: { id: { test: 'text', maxLength: 80 } } },
      h3: { attributes: { id: { test: 'text', maxLength: 80 } } },
      ul: {},
      ol: { attributes: { start: { test: 'integer', min: 1, max: 999 } } },
      li: {},
      blockquote: { attributes: { cite: { test: 'url' } } },
      sub: {},
      sup: {},
      abbr: { attributes: { title: { test: 'text', maxLength: 200 } } },
      hr: {},
    },
    attributes: { lang: { test: 'language' }, dir: { test: 'list', values: ['ltr', 'rtl', 'auto'] } },
    urls: { schemes: { href: ['https', 'http', 'mailto', 'tel'], cite: ['https', 'http'] } },
    ids: { prefix: 'c-' },
    headings: { others: 'clamp', top: 2 },
    limits: { nesting: 40 },
  },
};

const ALMANAC: JsonObject = {
  toolbar: { groups: { blocks: { buttons: ['paragraph', 'heading-2', 'heading-3', 'heading-4'] } } },
  markup: {
    elements: {
      h4: { attributes: { id: { test: 'text', maxLength: 80 } } },
      dl: {},
      dt: {},
      dd: {},
      figure: {},
      figcaption: {},
      img: {
        attributes: {
          src: { test: 'url' },
          alt: { test: 'text', maxLength: 300 },
          width: { test: 'integer', min: 1, max: 1200 },
          height: { test: 'integer', min: 1, max: 2000 },
        },
        required: { alt: { otherwise: 'add', value: '' } },
        forced: { loading: { value: 'lazy', when: 'absent' } },
      },
      table: {},
      caption: {},
      colgroup: {},
      col: { attributes: { span: { test: 'integer', min: 1, max: 20 } } },
      thead: {},
      tbody: {},
      tfoot: {},
      tr: {},
      th: {
        attributes: {
          scope: { test: 'list', values: ['col', 'row', 'colgroup', 'rowgroup'] },
          colspan: { test: 'integer', min: 1, max: 20 },
          rowspan: { test: 'integer', min: 1, max: 500 },
        },
      },
      td: { attributes: { colspan: { test: 'integer', min: 1, max: 20 }, rowspan: { test: 'integer', min: 1, max: 500 } } },
      details: {},
      summary: {},
      code: {},
      pre: {},
      kbd: {},
      mark: {},
      small: {},
      cite: {},
      q: { attributes: { cite: { test: 'url' } } },
      time: { attributes: { datetime: { test: 'text', maxLength: 40 } } },
      del: {},
      ins: {},
    },
    urls: { schemes: { src: ['https'] } },
    limits: { nesting: 80 },
  },
};

const begun = (...parts: JsonObject[]): JsonObject =>
  parts.reduce<JsonObject>((document, part) => mergePatch(document, part) as JsonObject, { format: PROFILE_FORMAT });

/** Three graded sets of rules: each holds all of the one before. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  { id: 'note', name: 'Note', gloss: 'Paragraphs, bold, italic and links; for replies and short messages.', document: begun(NOTE) },
  { id: 'letter', name: 'Letter', gloss: 'A note with headings, lists and quotations; for most texts.', document: begun(NOTE, LETTER) },
  {
    id: 'almanac',
    name: 'Almanac',
    gloss: 'A letter with pictures, tables, definitions and code; for people with training.',
    document: begun(NOTE, LETTER, ALMANAC),
  },
];
