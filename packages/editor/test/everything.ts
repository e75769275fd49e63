import { BUTTONS, type JsonObject } from '@typikon/core';

/** Classes that an element may have. */
export const tokens = (...values: string[]): JsonObject => ({ test: 'tokens', values });
/** Rules that keep nearly all that a button makes. */
export const MARKUP: JsonObject = {
  elements: {
    p: {
      attributes: {
        class: tokens('note', 'align-left', 'align-centre', 'align-right', 'align-justify', 'indent-1', 'indent-2', 'indent-3'),
        dir: { test: 'list', values: ['rtl', 'ltr'] },
      },
    },
    ...Object.fromEntries(
      'h2 h3 h4 h5 h6 b i strong em u s sub sup small mark code ul li blockquote br figure figcaption caption thead tbody tr dl dt dd pre details summary'
        .split(' ')
        .map((name) => [name, {}]),
    ),
    h2: { attributes: { id: { test: 'text' } } },
    hr: { attributes: { class: tokens('summary-end') } },
    ol: { attributes: { start: { test: 'integer' }, type: { test: 'list', values: ['1', 'a', 'i'] } } },
    a: { attributes: { href: { test: 'url' }, id: { test: 'text' } } },
    img: { attributes: { src: { test: 'url' }, alt: { test: 'text' }, width: { test: 'integer', min: 1, max: 720 } } },
    figure: { attributes: { class: tokens('left', 'right') } },
    table: {},
    th: { attributes: { scope: { test: 'text' }, colspan: { test: 'integer' }, rowspan: { test: 'integer' } } },
    td: { attributes: { colspan: { test: 'integer' }, rowspan: { test: 'integer' } } },
    abbr: { attributes: { title: { test: 'text' } } },
    time: { attributes: { datetime: { test: 'text' } } },
    span: {
      attributes: {
        lang: { test: 'language' },
        style: {
          test: 'style',
          properties: { color: { test: 'colour', values: ['#a6301f'] }, 'background-color': { test: 'colour', values: ['#ffffff'] } },
        },
      },
    },
    iframe: { attributes: { src: { test: 'url', hosts: ['cams.example'] }, title: { test: 'text' } } },
  },
  urls: { schemes: { src: ['https'] } },
};

const ALL_CLASSES = { class: tokens('note', 'warning', 'left', 'right', 'centre', 'total') };

/** A profile with rules for nearly everything, styles, colours and marks to type. */
export const PROFILE: JsonObject = {
  markup: {
    ...MARKUP,
    elements: {
      ...(MARKUP['elements'] as JsonObject),
      h3: { attributes: { id: { test: 'text' } } },
      ol: { attributes: { start: { test: 'integer', min: 1, max: 50 }, type: { test: 'list', values: ['1', 'a', 'i'] } } },
      a: { attributes: { href: { test: 'url' }, id: { test: 'text' }, target: { test: 'list', values: ['_blank'] } } },
      img: {
        attributes: {
          src: { test: 'url' },
          alt: { test: 'text' },
          width: { test: 'integer', min: 1, max: 720 },
          height: { test: 'integer', min: 1, max: 2000 },
        },
      },
      figure: { attributes: ALL_CLASSES },
      blockquote: { attributes: { cite: { test: 'url' }, ...ALL_CLASSES } },
      div: { attributes: ALL_CLASSES },
      kbd: {},
      td: { attributes: { colspan: { test: 'integer' }, rowspan: { test: 'integer' }, class: tokens('total') } },
    },
    links: { newWindow: 'as-written' },
    urls: { schemes: { href: ['https', 'mailto', 'tel'], src: ['https'] } },
  },
  toolbar: {
    order: ['all'],
    groups: {
      all: { label: 'All', buttons: BUTTONS.map(({ id }) => id) },
    },
    options: {
      'text-colour': { colours: [{ name: 'Red', value: '#a6301f' }] },
      'background-colour': { colours: [{ name: 'White', value: '#ffffff' }] },
      'block-quote': { askSource: true },
      language: { languages: ['nb', 'cy'] },
      picture: { placements: { left: 'left', right: 'right', centre: 'centre', full: '' }, largestKb: 10 },
      table: { maxRows: 5, maxColumns: 4 },
      'special-characters': { characters: ['°', '½'] },
      'word-count': { most: 20 },
    },
    shortcuts: Object.fromEntries(
      'heading bulleted-list numbered-list block-quote rule preformatted bold italic strike code dash ellipsis quotes'
        .split(' ')
        .map((id) => [id, true]),
    ),
  },
  surface: { pageKind: 'article', widthsPx: [320, 480, 900] },
  styles: {
    note: { label: 'Note', selector: 'p.note', group: 'boxes', description: 'Sets a paragraph apart.' },
    warning: { label: 'Warning', selector: 'blockquote.warning', group: 'boxes' },
    total: { label: 'Total', selector: 'td.total' },
  },
};
