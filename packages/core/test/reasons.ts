import {
  clean,
  compileRules,
  resolveProfile,
  runPaste,
  type ClipboardPayload,
  type HouseLimits,
  type JsonObject,
  type LedgerEntry,
  type PasteSource,
  type Reason,
} from '../src/index';

/** Something that is changed or removed for a reason, by a profile that has just what is needed for that. */
export interface Witness {
  markup?: JsonObject;
  /** Passes of paste cleanup; with these the input is pasted. */
  passes?: JsonObject;
  source?: PasteSource;
  input: string;
}

const P: JsonObject = { p: {} };
const LIST: JsonObject = { p: {}, ul: {}, ol: {}, li: {} };
const A = (href: JsonObject): JsonObject => ({ p: {}, a: { attributes: { href: { test: 'url', ...href } } } });
const IMG: JsonObject = {
  p: {},
  img: { attributes: { src: { test: 'url' }, alt: { test: 'text' }, width: { test: 'text' }, height: { test: 'text' } } },
};
const STYLE = (properties: JsonObject): JsonObject => ({ p: { attributes: { style: { test: 'style', properties } } } });
const TABLE: JsonObject = Object.fromEntries('p strong table thead tbody tr td th'.split(' ').map((name) => [name, {}]));

/** One paragraph after another in formatting that nobody closes: browsers reopen all of it in each. */
const LEFT_OPEN = Array.from({ length: 400 }, (_, i) => `<font size=${i}><p>a`).join('');

/** For each reason an input that shows it. */
export const WITNESSES: Readonly<Record<Reason, Witness>> = {
  'tag-ignored-by-parser': { input: '<p>a</p><tr>b' },
  'tag-unfinished': { input: '<p>a</p><p title="b' },
  'attribute-repeated': { markup: { elements: P }, input: '<p lang="en" lang="de">a</p>' },
  'doctype-ignored': { input: '<!doctype html><p>a</p>' },
  'formatting-limit': { input: LEFT_OPEN },
  'half-character': { markup: { elements: P }, input: '<p>a\ud83d</p>' },
  'nesting-impossible': { markup: { elements: P }, input: '<p>a<button><p>b</p></button></p>' },
  'part-without-whole': { markup: { elements: LIST }, input: '<li>a</li>' },

  'element-forbidden': { markup: { elements: P }, input: '<p>a</p><script>b()</script>' },
  'attribute-forbidden': { markup: { elements: P }, input: '<p onclick="a()">b</p>' },
  'address-runs-code': { markup: { elements: A({}) }, input: '<p><a href="javascript:a()">b</a></p>' },
  'comment-forbidden': { markup: { elements: P, comments: 'keep' }, input: '<p>a</p><!--[if IE]><p>b</p><![endif]-->' },
  'style-forbidden': {
    markup: { elements: { p: { attributes: { style: { test: 'text' } } } } },
    input: '<p style="position: fixed">a</p>',
  },
  'name-clobbers': { markup: { elements: { p: { attributes: { id: { test: 'text' } } } } }, input: '<p id="body">a</p>' },
  'fallback-content': {
    markup: { elements: { iframe: { attributes: { src: { test: 'url' } } } } },
    input: '<iframe src="https://cams.example/">a</iframe>',
  },

  'element-not-allowed': { markup: { elements: P }, input: '<p><font color="red">a</font></p>' },
  'element-dropped': { markup: { elements: { p: {}, form: { outcome: 'drop' } } }, input: '<p>a</p><form>b</form>' },
  'element-renamed': { markup: { elements: { p: {}, strong: {}, b: { outcome: 'rename', to: 'strong' } } }, input: '<p><b>a</b></p>' },
  'element-shown-as-text': { markup: { elements: { p: {}, kbd: { outcome: 'text' } } }, input: '<p><kbd>a</kbd></p>' },
  'parent-not-allowed': { markup: { elements: { p: {}, div: {}, em: { parents: ['p'] } } }, input: '<div><em>a</em></div>' },
  'depth-limit': { markup: { elements: { blockquote: { depth: 1 } } }, input: '<blockquote><blockquote>a</blockquote></blockquote>' },
  'required-missing': {
    markup: { elements: { ...IMG, img: { ...(IMG['img'] as JsonObject), required: { alt: { otherwise: 'drop' } } } } },
    input: '<p>a<img src="/b.png"></p>',
  },
  'ratio-not-allowed': {
    markup: { elements: { ...IMG, img: { ...(IMG['img'] as JsonObject), ratio: { min: 1, max: 2 } } } },
    input: '<p><img src="/a.png" alt="" width="400" height="100"></p>',
  },
  'empty-element': { markup: { elements: { p: {}, em: { empty: 'remove' } } }, input: '<p>a<em></em></p>' },
  'hidden-content': { markup: { elements: P }, input: '<p>a<span hidden>b</span></p>' },
  'deleted-content': { markup: { elements: P }, input: '<p>a<del>b</del></p>' },

  'attribute-not-allowed': { markup: { elements: P }, input: '<p align="center">a</p>' },
  'attribute-forced': { markup: { elements: { p: { forced: { class: { value: 'a' } } } } }, input: '<p>b</p>' },
  'value-not-allowed': {
    markup: { elements: { p: { attributes: { class: { test: 'tokens', values: ['a'] } } } } },
    input: '<p class="a b">c</p>',
  },
  'scheme-not-allowed': {
    markup: { elements: A({}), urls: { schemes: { href: ['https'] } } },
    input: '<p><a href="ftp://a.example/">b</a></p>',
  },
  'relative-address-not-allowed': { markup: { elements: A({}), urls: { relative: false } }, input: '<p><a href="/a">b</a></p>' },
  'host-not-allowed': { markup: { elements: A({ hosts: ['a.example'] }) }, input: '<p><a href="https://b.example/">c</a></p>' },
  'source-refused': {
    markup: {
      elements: {
        p: {},
        img: { attributes: { src: { test: 'url', hosts: ['a.example'] }, alt: { test: 'text' } }, withoutSource: 'alternative-text' },
      },
    },
    input: '<p><img src="https://b.example/a.png" alt="c"></p>',
  },
  'style-property-not-allowed': {
    markup: { elements: STYLE({ width: { test: 'any' } }) },
    input: '<p style="width: 1px; color: red">a</p>',
  },
  'style-value-not-allowed': {
    markup: { elements: STYLE({ color: { test: 'list', values: ['red'] } }) },
    input: '<p style="color: blue">a</p>',
  },
  'style-importance': { markup: { elements: STYLE({ color: { test: 'any' } }) }, input: '<p style="color: red !important">a</p>' },

  'comment-not-allowed': { markup: { elements: P }, input: '<p>a</p><!-- b -->' },
  'nesting-limit': { markup: { elements: { div: {} }, limits: { nesting: 1 } }, input: '<div><div>a</div></div>' },
  'element-limit': { markup: { elements: P, limits: { elements: 1 } }, input: '<p>a</p><p>b</p>' },
  'letter-limit': { markup: { elements: P, limits: { letters: 3 } }, input: '<p>abcdef</p>' },
  'heading-level': { markup: { elements: { h2: {} }, headings: { others: 'clamp' } }, input: '<h1>a</h1>' },
  'hard-space': { markup: { elements: P, text: { hardSpaces: 'plain' } }, input: '<p>a&nbsp;b</p>' },
  'empty-paragraph': { markup: { elements: P, text: { emptyParagraphs: 'remove' } }, input: '<p>a</p><p></p>' },
  'id-prefixed': { markup: { elements: { p: { attributes: { id: { test: 'text' } } } }, ids: { prefix: 'c-' } }, input: '<p id="a">b</p>' },
  'new-window': {
    markup: {
      elements: { ...A({}), a: { attributes: { href: { test: 'url' }, target: { test: 'text' } } } },
      links: { newWindow: 'never' },
    },
    input: '<p><a href="/a" target="_blank">b</a></p>',
  },
  'words-apart': { markup: { elements: P }, input: '<div>a</div><div>b</div>' },

  'paste-office': { passes: { 'office-leftovers': { on: true } }, input: '<p>a<!-- StartFragment --></p>' },
  'paste-office-property': { passes: { 'office-leftovers': { on: true } }, input: '<p style="mso-bidi-font-size:9pt">a</p>' },
  'paste-tab': { passes: { 'office-leftovers': { on: true } }, input: '<p>a<span style="mso-tab-count:1">&nbsp;&nbsp;&nbsp;</span>b</p>' },
  'paste-deletion': { passes: { 'office-leftovers': { on: true } }, input: '<p>a<del>b</del></p>' },
  'paste-note': {
    passes: { notes: { on: true } },
    input: '<p>a<a href="#n1" name="r1">1</a></p><div><p><a href="#r1" name="n1">1</a> b</p></div>',
  },
  'paste-note-bracketed': {
    passes: { notes: { on: true, become: 'bracketed' } },
    input: '<p>a<a href="#n1" name="r1">1</a></p><div><p><a href="#r1" name="n1">1</a> b</p></div>',
  },
  'paste-list': { markup: { elements: LIST }, passes: { lists: { on: true } }, input: '<p>• a</p><p>• b</p>' },
  'paste-list-kind': {
    markup: { elements: LIST },
    passes: { lists: { on: true } },
    input: '<ul><li><span style="float:left">1.</span>a</li><li><span style="float:left">2.</span>b</li></ul>',
  },
  'paste-heading': {
    markup: { elements: { p: {}, h2: {} } },
    passes: { headings: { on: true } },
    input: '<p role="heading" aria-level="2">a</p>',
  },
  'paste-style': { passes: { 'inline-style': { on: true } }, input: '<p style="color: red">a</p>' },
  'paste-meaning': {
    markup: { elements: { p: {}, strong: {} } },
    passes: { 'inline-style': { on: true } },
    input: '<p><span style="font-weight: bold">a</span></p>',
  },
  'paste-alignment': {
    passes: { 'inline-style': { on: true, alignmentClasses: { center: 'middle' } } },
    input: '<p style="text-align: center">a</p>',
  },
  'paste-class': { passes: { classes: { on: true } }, input: '<p class="MsoNormal">a</p>' },
  'paste-wrapper': { passes: { wrappers: { on: true } }, input: '<p><span>a</span></p>' },
  'paste-element': { passes: { elements: { on: true, unwrap: ['font'] } }, input: '<p><font>a</font></p>' },
  'paste-link': {
    markup: { elements: A({}) },
    passes: { links: { on: true } },
    input: '<p><a href="https://a.example/?utm_source=b">c</a></p>',
  },
  'paste-bookmark': { passes: { links: { on: true } }, input: '<p><a name="a"></a>b <a href="#a">c</a></p>' },
  'paste-picture': {
    markup: { elements: IMG },
    passes: { pictures: { on: true, remote: 'drop' } },
    input: '<p>a<img src="https://b.example/c.png" alt=""></p>',
  },
  'paste-picture-kept': {
    markup: { elements: IMG },
    passes: { pictures: { on: true } },
    input:
      '<p>a<img alt="" src="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAIAAABLbSncAAAAEklEQVR4nGNQTo3Ciph1FhYAN5cKeQzB1RkAAAAASUVORK5CYII="></p>',
  },
  'paste-picture-box': {
    markup: { elements: IMG },
    passes: { pictures: { on: true } },
    input: '<p>a<img src="file:///b.png" alt="c"></p>',
  },
  'paste-picture-width': {
    markup: { elements: IMG },
    passes: { pictures: { on: true, widestPx: 100 } },
    input: '<p>a<img src="/b.png" alt="" width="200" height="50"></p>',
  },
  'paste-table': {
    markup: { elements: TABLE },
    passes: { tables: { on: true } },
    input: '<table width="90%"><tr><td>a</td><td>b</td></tr></table>',
  },
  'paste-table-header': {
    markup: { elements: TABLE },
    passes: { tables: { on: true } },
    input: '<table><tr><td><b>a</b></td><td><b>b</b></td></tr><tr><td>c</td><td>d</td></tr></table>',
  },
  'paste-join': {
    passes: { 'joined-lines': { on: true } },
    source: 'pdf-viewer',
    input: '<p>The survey of the outer bar was carried out on two<br>days.</p>',
  },
  'paste-replace': { passes: { 'find-replace': { on: true, rules: [{ find: 'a', replace: 'b' }] } }, input: '<p>a</p>' },
  'paste-typography': { passes: { typography: { on: true } }, input: '<p>"a"</p>' },
  'paste-space': { passes: { spaces: { on: true } }, input: '<p>a&nbsp;b</p>' },
  'paste-invisible': { passes: { spaces: { on: true } }, input: '<p>a\u200bb</p>' },
  'paste-blank': { passes: { spaces: { on: true } }, input: '<p>a   b</p>' },
  'paste-empty': { passes: { spaces: { on: true } }, input: '<p>a</p><p></p>' },
  'paste-lines': { passes: { spaces: { on: true } }, input: '<p>a<br><br>b</p>' },
};

/** The passes that work on every paste where a profile does not say otherwise; a witness has only those that it names. */
const NO_PASS: JsonObject = Object.fromEntries(
  'joined-lines notes lists office-leftovers headings inline-style classes wrappers elements links pictures tables find-replace typography spaces'
    .split(' ')
    .map((id) => [id, { on: false }]),
);

/** What becomes of a witness. */
export function outcomeOf(
  { markup = { elements: P }, passes, source = 'web-page', input }: Witness,
  house?: HouseLimits,
): { html: string; ledger: LedgerEntry[] } {
  const document = { format: 'typikon-profile/1', name: 'Test', markup, paste: { passes: { ...NO_PASS, ...passes } } };
  const resolution = resolveProfile('test', () => document);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  const profile = resolution.resolved;
  if (passes === undefined) return clean(input, compileRules(profile, house === undefined ? {} : { house }));
  const payload: ClipboardPayload = { types: { 'text/html': input } };
  return runPaste(payload, profile, { source, isWord: () => true });
}
