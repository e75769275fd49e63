import { escapeAttribute, escapeText } from '../../html/serialize';
import { styleClassesOf } from '../../markup/style-classes';
import type { PassId, PastePasses, PasteSource, Replacement } from '../../profile/paste-schema';
import type { Profile } from '../../profile/schema';
import { carry } from './carrier';
import { samplesOf } from './pattern-sample';
import { ANY_VALUES } from './values';
import { Vocabulary } from './vocabulary';

/** Markup that is pasted, and where it is said to come from. */
export type Sample = readonly [source: PasteSource, html: string];

/** What the settings of a pass are looked at beside. */
export interface Beside {
  from: Profile;
  to: Profile;
}

/** Pastes that show what a pass does, and every place at which two settings of it differ. */
type Pastes = {
  readonly [Id in PassId]: (one: PastePasses[Id], other: PastePasses[Id], beside: Beside) => Iterable<Sample>;
};

/**
 * Pastes in which two settings of a pass may come out differently: those that show what the pass does, and some made of what the
 * settings name. Where settings name sources, each paste comes from all of those for which one of the two works.
 */
export function* pastesFor<Id extends PassId>(id: Id, one: PastePasses[Id], other: PastePasses[Id], beside: Beside): Iterable<Sample> {
  const named = [...(one.sources ?? []), ...(other.sources ?? [])];
  const others: readonly PasteSource[] = named.length === 0 ? [] : ['web-page', 'word-processor', 'web-mail', ...named];
  const works = ({ on, sources }: PastePasses[Id], source: PasteSource): boolean => on && sources?.includes(source) !== false;
  const make: Pastes[Id] = PASTES[id];
  for (const [own, html] of make(one, other, beside))
    for (const source of new Set([own, ...others])) if (works(one, source) || works(other, source)) yield [source, html];
}

const WORDS = 'The harbour stays closed to all vessels while the dredgers work at the';
const PICTURE = 'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR4nGNgYGBgAAAABQABpfZFQAAAAABJRU5ErkJggg==';

const PASTES: Pastes = {
  'joined-lines': function* () {
    yield ['pdf-viewer', `<p>${WORDS} northern<br>quay until the water is deep enough for every vessel that calls<br>there.</p>`];
    // A hyphen that may be the word's own; in the second the word itself stands there.
    yield ['pdf-viewer', `<p>${WORDS} harbour en-<br>trance until the water is deep enough.</p>`];
    yield ['pdf-viewer', `<p>${WORDS} harbour en-<br>trance until the entrance is deep enough.</p>`];
  },
  notes: function* () {
    yield [
      'word-processor',
      '<p>Words<a href="#_ftn1" name="_ftnref1"><sup>[1]</sup></a></p><div id="ftn1"><p><a href="#_ftnref1" name="_ftn1">[1]</a> A note</p></div>',
    ];
  },
  lists: function* () {
    const item = (mark: string, words: string): string =>
      `<p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">${mark}</span>${words}</p>`;
    yield ['word-processor', item('1.', 'one') + item('2.', 'two')];
    yield ['web-mail', '<p>- one</p><p>- two</p><p>- three</p>'];
  },
  'office-leftovers': function* () {
    yield ['word-processor', '<p>Words<o:p></o:p> <ins>come</ins></p><!-- a remark -->'];
    yield ['word-processor', '<p>Words <del>gone</del></p>'];
    yield [
      'word-processor',
      '<p>Words<span class="MsoCommentReference">[a1]</span></p><div style="mso-element:comment-list"><p id="_com_1">A remark</p></div>',
    ];
    yield ['word-processor', '<p>Words</p><p hidden>that nobody sees</p>'];
    yield ['word-processor', '<p>Words</p><p style="display:none">that nobody sees</p>'];
    yield ['word-processor', '<p lang="en-GB" dir="ltr">Words</p><p lang="en-GB" dir="ltr">More words</p>'];
  },
  headings: function* (one, other) {
    const long = 'long '.repeat(80).slice(0, Math.max(one.longest, other.longest) - 1) + 'e';
    for (const text of ['A short line', long]) {
      yield ['word-processor', `<p class="MsoTitle">${text}</p><p>Words</p>`];
      yield ['word-processor', `<p style="mso-outline-level:3">${text}</p><p>Words</p>`];
      yield ['word-processor', `<p><b>${text}</b></p><p>Words</p>`];
    }
  },
  'inline-style': function* (one, other) {
    yield ['word-processor', '<p><span style="color:#c00000;font-weight:bold;font-family:Arial">Red</span> <i>words</i></p>'];
    yield ['web-page', '<p><span style="font-style:italic">Words</span></p>'];
    yield ['web-page', '<p style="-webkit-hyphens:auto">Words</p>'];
    for (const property of new Set([one, other].flatMap(({ keep, drop = [] }) => [...keep, ...drop])))
      for (const value of ['color', 'background-color'].includes(property) ? ['#c00000'] : ANY_VALUES)
        yield ['web-page', `<p style="${property}: ${value}">Words</p><p><span style="${property}: ${value}">more</span></p>`];
    for (const side of ['left', 'center', 'right', 'justify']) {
      yield ['web-page', `<p align="${side}">Words</p>`];
      yield ['web-page', `<p style="text-align: ${side}">Words</p>`];
    }
  },
  classes: function* (one, other, { from, to }) {
    const named = [one, other].flatMap(({ keep, drop }) => [...keep, ...drop]).map((name) => name.replace(/\*$/, 'x'));
    const classes = new Set(['MsoNormal', 'a-class', ...named, ...styleClassesOf(from), ...styleClassesOf(to)]);
    for (const name of classes)
      yield ['word-processor', `<p class="${escapeAttribute(name)}">Words</p><p><span class="${escapeAttribute(name)}">more</span></p>`];
    for (const [name, element] of classesOfElements(from, to)) yield ['word-processor', carry(element, [['class', name]]).html];
  },
  wrappers: function* (one, other) {
    yield ['web-page', '<p><strong>one</strong><strong> two</strong> and <b>three</b><b> four</b></p>'];
    for (const name of new Set(['span', 'font', ...one.elements, ...other.elements])) {
      yield ['web-page', `<p><${name}>words</${name}> behind</p>`];
      yield ['web-page', `<p><${name} lang="de" title="Title" class="a-class">words</${name}> behind</p>`];
    }
  },
  elements: function* (one, other, { from, to }) {
    yield ['web-page', '<p onclick="x()">Words <b onclick="x()">bold</b></p>'];
    const named = new Set([one, other].flatMap(({ unwrap, drop, only = [] }) => [...unwrap, ...drop, ...only]));
    const vocabulary = new Vocabulary(from, to, undefined);
    const ruled = [from, to].flatMap(({ markup }) => Object.keys(markup.elements));
    for (const name of new Set([...named, ...ruled])) {
      yield ['web-page', carry(name).html];
      const demanded = vocabulary.demandedOf(name);
      if (demanded.length > 0)
        yield [
          'web-page',
          carry(
            name,
            demanded.map((key) => [key, vocabulary.valuesOf(name, key)[0] ?? '1']),
          ).html,
        ];
    }
    const attributes = [one, other].flatMap(({ attributes: going, onlyAttributes = [] }) => [...going, ...onlyAttributes]);
    for (const name of ruled)
      for (const attribute of one.onlyAttributes === other.onlyAttributes ? attributes : [...attributes, ...vocabulary.attributesOf(name)])
        if (vocabulary.attributesOf(name).includes(attribute))
          for (const value of vocabulary.valuesOf(name, attribute)) yield ['web-page', carry(name, [[attribute, value]]).html];
  },
  links: function* (one, other) {
    yield ['web-page', '<p><a href="javascript:x">dead</a> words</p>'];
    yield ['web-page', '<p><a href="file:///C:/a.docx">local</a> words</p>'];
    yield ['web-page', '<p><a name="place">A place</a></p>'];
    yield ['web-page', '<p><a name="place">A place</a> <a href="#place">leads there</a></p>'];
    yield ['web-page', '<p id="place">Words</p>'];
    const link = (address: string): Sample => ['web-page', `<p><a href="${escapeAttribute(address)}">link</a></p>`];
    for (const parameter of new Set(['utm_source', ...one.parameters, ...other.parameters]))
      yield link(`https://www.example/?${parameter.replace(/\*$/, 'x')}=1&id=2`);
    for (const { host, parameter } of [...one.redirects, ...other.redirects])
      yield link(`https://${host}/?${parameter}=${encodeURIComponent('https://www.example/a')}`);
    for (const host of [...one.unwrapHosts, ...other.unwrapHosts]) yield link(`https://${host}/a`);
  },
  pictures: function* (one, other) {
    const picture = (attributes: string): Sample => ['web-page', `<p>Words <img alt="A boat" ${attributes}></p>`];
    yield picture(`src="${PICTURE}"`);
    yield picture('src="https://www.example/a.png"');
    yield picture('src="file:///C:/a.png"');
    yield picture('src="https://www.example/a.png" width="1" height="1"');
    for (const width of [one.widestPx, other.widestPx])
      if (width !== undefined)
        for (const source of ['https://www.example/a.png', PICTURE, '/media/boat.png'])
          yield picture(`src="${source}" width="${width + 1}" height="${width + 1}"`);
  },
  tables: function* () {
    const table = (inside: string): Sample => ['spreadsheet', `<table>${inside}</table>`];
    yield [
      'spreadsheet',
      '<table width="400"><tr><td width="200"><b>Berth</b></td><td><b>Depth</b></td></tr><tr><td>A</td><td>3</td></tr></table>',
    ];
    yield table('<thead><tr><td>Berth</td><td>Depth</td></tr></thead><tbody><tr><td>A</td><td>3</td></tr></tbody>');
    yield table('<tr><td><b>Berth</b></td><td><b>Depth</b></td></tr><tr><td>A</td><td>3</td></tr>');
    yield table('<tr><td><p>A</p></td><td>3</td></tr><tr><td>B</td><td>4</td></tr>');
    yield table('<tr><td>A layout</td></tr>');
  },
  'find-replace': function* (one, other) {
    for (const rule of [...one.rules, ...other.rules]) yield* pastesWith(rule);
  },
  typography: function* () {
    for (const words of ['"Quoted" words', 'It\'s "so"', "'Quoted' words", '\u201cQuoted\u201d \u2018words\u2019', 'Words -- and more'])
      yield ['web-page', `<p>${words}</p>`];
    for (const words of ['Words\u2014and more', 'Words \u2013 and more', 'So...', 'So\u2026']) yield ['web-page', `<p>${words}</p>`];
  },
  spaces: function* () {
    for (const words of ['Words&nbsp;and more', 'At 5&nbsp;km', 'Words&nbsp;&nbsp;and more', 'Words  and\n\nmore', 'Wo\u200brds&shy; more'])
      yield ['web-page', `<p>${words}</p>`];
    yield ['web-page', '<p>Words</p><p>&nbsp;</p><p></p><p>more</p>'];
    yield ['web-page', '<p>Words<br><br>more</p>'];
    yield ['web-page', 'Words<br>more<div>and more</div>'];
    yield ['web-page', '<p>Words<br>more</p>'];
  },
};

/** Classes that rules name for an element. */
function* classesOfElements(from: Profile, to: Profile): Iterable<readonly [name: string, element: string]> {
  const vocabulary = new Vocabulary(from, to, undefined);
  for (const element of new Set([from, to].flatMap(({ markup }) => Object.keys(markup.elements))))
    if (element !== 'p' && element !== 'span' && vocabulary.attributesOf(element).includes('class'))
      for (const name of vocabulary.valuesOf(element, 'class')) if (/^\S+$/.test(name)) yield [name, element];
}

/** Pastes that hold what a replacement looks for. */
function* pastesWith({ find, as, in: where, name = '' }: Replacement): Iterable<Sample> {
  for (const text of as === 'text' ? [find] : samplesOf(find)) {
    if (where === 'text') yield ['web-page', `<p>Words with ${escapeText(text)} in them</p>`];
    if (where === 'elements')
      for (const element of name === '' ? ['p', 'b', 'h2'] : [name])
        yield ['web-page', carry(element, [], { content: escapeText(text) }).html];
    if (where === 'attributes')
      for (const attribute of name === '' ? ['title', 'href', 'class'] : [name])
        for (const element of attribute === 'src' || attribute === 'alt' ? ['img'] : attribute === 'href' ? ['a'] : ['p', 'a', 'span'])
          yield ['web-page', carry(element, [[attribute, text]]).html];
  }
}
