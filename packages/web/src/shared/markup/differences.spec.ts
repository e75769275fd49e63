import { clean, compileRules, groupEntries, resolveProfile, type JsonObject, type LedgerEntry } from '@typikon/core';
import { removedParts, newParts } from './differences';
import { wordsOf } from '../../state/ledger-words';

const markup: JsonObject = {
  elements: {
    p: {},
    strong: {},
    a: { attributes: { href: { test: 'url' } } },
    b: { outcome: 'rename', to: 'strong' },
    form: { outcome: 'drop' },
    iframe: { attributes: { src: { test: 'url', hosts: ['ok.example'] } } },
  },
  urls: { schemes: { href: ['https'], src: ['https'] } },
};

function rulesOf() {
  const resolution = resolveProfile('desk', () => ({ format: 'typikon-profile/1', name: 'Desk', markup }));
  if (!resolution.ok) throw new Error('unexpected');
  return compileRules(resolution.resolved);
}

const ledgerOf = (html: string): LedgerEntry[] => clean(html, rulesOf()).ledger;

const sentences = (html: string): string[] => groupEntries(ledgerOf(html)).map((group) => wordsOf(group, () => 'Desk').sentence);

test('the same done by the same rule is one group, losses first', () => {
  const groups = groupEntries(ledgerOf('<p><u>a</u><u>b</u></p><form>gone</form><!-- c -->'));
  expect(groups.map(({ element, severity, places, textLost }) => ({ element, severity, places: places.length, textLost }))).toEqual([
    { element: 'form', severity: 'loss', places: 1, textLost: 4 },
    { element: 'u', severity: 'change', places: 2, textLost: 0 },
    { element: '', severity: 'tidy', places: 1, textLost: 0 },
  ]);
});

test('a floor rule is one group over all elements, a rule of the profile one for each', () => {
  const groups = groupEntries(ledgerOf('<p onclick="a">x</p><strong onclick="b">y</strong><p class="c">z</p><strong class="d">w</strong>'));
  expect(groups.map(({ element, attribute, places }) => `${attribute}/${element}/${places.length}`).sort()).toEqual([
    'class/p/1',
    'class/strong/1',
    'onclick//2',
  ]);
});

test.each([
  ['<p><font>a</font></p>', 'A <font> unwrapped, the words stay'],
  ['<p><b>a</b><b>b</b></p>', '2 <b> became <strong>'],
  ['<form>two words</form>', 'A form went, with its content, and 8 letters of text with it'],
  ['<iframe src="https://cams.example/1"></iframe>', 'A frame from cams.example went, with its content'],
  ['<p onclick="x()">a</p>', 'The event handler onclick taken off a <p>, the content stays'],
  ['<a href="javascript:x()">a</a>', 'The address taken off a <a>, the content stays'],
  ['<p class="x">a</p>', 'The class taken off a <p>, the content stays'],
  ['<!-- a --><!-- b -->', '2 comments went; readers never saw them'],
  ['<tr>a', 'A <tr> tag cannot stand where it stands; every browser leaves it out'],
  ['a <p title="', 'A <p> tag never ends; everything from it to the end of the text is left out'],
])('%s: %s', (html, sentence) => expect(sentences(html)).toEqual([sentence]));

test('the citation names the layer and the rule', () => {
  const [group] = groupEntries(ledgerOf('<script>x()</script>'));
  expect(wordsOf(group!, () => 'Desk')).toEqual({
    sentence: 'A script went, with its content',
    layer: 'Safety floor',
    citation: '§0 Safety, script',
    remark: 'nothing can allow it',
  });
  const [other] = groupEntries(ledgerOf('<p class="x">a</p>'));
  expect(wordsOf(other!, () => 'Desk')).toMatchObject({ layer: 'Desk', citation: '§2 Markup, class on p' });
  // What is about the text as a whole names no more than the chapter.
  const apart = groupEntries(ledgerOf('<center>a</center><center>b</center>')).find(({ reason }) => reason === 'words-apart');
  expect(wordsOf(apart!, () => 'Desk').citation).toBe('§2 Markup');
});

test('an unwrapped element loses its two tags in the source, a removed one all of it', () => {
  const html = '<p><u>a</u><!-- c --><b>d</b></p>';
  const marked = removedParts(html, ledgerOf(html)).map(({ start, end, kind }) => `${kind} ${html.slice(start, end)}`);
  expect(marked).toEqual(['removed <u>', 'removed </u>', 'removed <!-- c -->', 'changed <b>', 'changed </b>']);
});

test('what was altered or put there is new, what stood there is not, however much went in between', () => {
  const input = '<p align="center">a <b>b</b><br><br><font><i>c</i></font></p><p>d</p>';
  const { html, ledger } = clean(input, rulesOf());
  expect(html).toBe('<p>a <strong>b</strong> c</p><p>d</p>');
  expect(newParts(input, html, removedParts(input, ledger)).map(({ start, end }) => html.slice(start, end))).toEqual([
    '<p>',
    '<strong>',
    '</strong>',
  ]);
});

test('tags that are new in the result are marked', () => {
  const html = '<p><strong>d</strong></p>';
  expect(newParts('<p><b>d</b></p>', html, []).map(({ start, end }) => html.slice(start, end))).toEqual(['<strong>', '</strong>']);
});
