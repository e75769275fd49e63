import { compileSelectors } from '../css/selector';
import type { ElementNode } from '../html/node';
import { tagOf, type StyleAct } from './act';

const WORDS = 'Boats leave from the north pier at ten.';
const PART = 'the north pier';

/** A piece of content before and after a style was applied to it. */
export interface StyleSample {
  before: string;
  after: string;
}

/** Shows on a sample what a style does. */
export function sampleOf(act: StyleAct): StyleSample {
  const { kind, element } = act;
  const [open, close] = [tagOf(act), `</${element}>`];
  const plain = `<${element}>`;
  let before = `<p>${WORDS}</p>`;
  let after = before;
  switch (kind) {
    case 'block':
      after = `${open}${WORDS}${close}`;
      break;
    case 'inline':
      after = `<p>${WORDS.replace(PART, `${open}${PART}${close}`)}</p>`;
      break;
    case 'thing': {
      const attributes = element === 'img' ? ' src="/images/old-tansy.svg" alt="" width="320" height="178"' : '';
      before = `<${element}${attributes}>`;
      after = `${open.slice(0, -1)}${attributes}>`;
      if (element === 'img') [before, after] = [`<p>${before}</p>`, `<p>${after}</p>`];
      break;
    }
    default: {
      const [outer = '', inner = WORDS, end = ''] = AROUND[element] ?? ['', `<p>${WORDS}</p>`, ''];
      const isQuote = element === 'blockquote' && act.classes.length === 0 && act.attributes.length === 0;
      before = isQuote ? `<p>${WORDS}</p>` : `${outer}${plain}${inner}${close}${end}`;
      after = `${outer}${open}${inner}${close}${end}`;
    }
  }
  const [outer, end] = aroundTags(act);
  return { before: `${outer}${before}${end}`, after: `${outer}${after}${end}` };
}

/** What stands around a part of a whole, and in it. */
const AROUND: Readonly<Record<string, readonly [string, string, string]>> = {
  li: ['<ul>', WORDS, '</ul>'],
  ul: ['', '<li>Water</li><li>Power</li>', ''],
  ol: ['', '<li>Call first</li><li>Come in slowly</li>', ''],
  dt: ['<dl>', 'Draught', '</dl>'],
  dd: ['<dl>', 'Two metres', '</dl>'],
  dl: ['', '<dt>Draught</dt><dd>Two metres</dd>', ''],
  table: ['', '<tbody><tr><th>Berth</th><td>12</td></tr></tbody>', ''],
  caption: ['<table>', 'Berths', '<tbody><tr><td>12</td></tr></tbody></table>'],
  thead: ['<table>', '<tr><th>Berth</th></tr>', '</table>'],
  tbody: ['<table>', '<tr><td>12</td></tr>', '</table>'],
  tfoot: ['<table>', '<tr><td>12</td></tr>', '</table>'],
  tr: ['<table><tbody>', '<td>Berth</td><td>12</td>', '</tbody></table>'],
  td: ['<table><tbody><tr>', '12', '</tr></tbody></table>'],
  th: ['<table><tbody><tr>', 'Berth', '</tr></tbody></table>'],
  figure: ['', '<img src="/images/old-tansy.svg" alt="" width="320" height="178"><figcaption>The ferry</figcaption>', ''],
  figcaption: ['<figure>', 'The ferry', '</figure>'],
};

/** The elements that the selector asks for around the style. */
function aroundTags({ around, element, kind }: StyleAct): [string, string] {
  const compounds = around
    .replace(/>/g, ' ')
    .trim()
    .split(/\s+/)
    .filter((part) => part !== '');
  let open = '';
  let close = '';
  const within = AROUND[element]?.[0] ?? '';
  for (const compound of compounds) {
    const name = /^[a-z][\w-]*/i.exec(compound)?.[0]?.toLowerCase() ?? 'div';
    const classes = [...compound.matchAll(/\.([\w-]+)/g)].map(([, one]) => one!);
    // The sample of a cell stands in a table already.
    if (classes.length === 0 && within.includes(`<${name}`)) continue;
    const tag = tagOf({ element: name, classes, attributes: [] });
    const inTable = name === 'table' && kind !== 'holder';
    open += inTable ? `${tag}<tbody><tr><td>` : name === 'ul' || name === 'ol' ? `${tag}<li>` : tag;
    close = `${inTable ? '</td></tr></tbody></table>' : name === 'ul' || name === 'ol' ? `</li></${name}>` : `</${name}>`}${close}`;
  }
  return [open, close];
}

/** Whether an element, with what stands around it, is one that a style made. */
export function hasStyle(element: ElementNode, selector: string): boolean {
  try {
    return compileSelectors(selector).some(({ matches }) => matches(element));
  } catch {
    return false;
  }
}
