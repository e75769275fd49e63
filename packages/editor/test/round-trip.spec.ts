import { clean, parseFragment, type ChildNode, type CompiledRules, type JsonObject } from '@typikon/core';
import type { Node, Schema } from 'prosemirror-model';
import { EditorState } from 'prosemirror-state';
import { compileSchema } from '../src/schema/compile';
import { readDocument } from '../src/schema/read';
import { writeDocument } from '../src/schema/write';
import { DEMO_PROFILES, demoProfile, rulesOf, storedMarkup } from './demo';

/** What a reader and a stylesheet see of markup: elements, attributes and words, without the white space that shows nothing. */
function outline(html: string): string {
  const lines: string[] = [];
  const visit = (node: ChildNode): void => {
    if (node.type === 'comment') lines.push(`<!--${node.data}-->`);
    if (node.type === 'text') {
      const words = node.value.replace(/[ \t\n\f\r]+/g, '');
      if (words !== '') lines.push(words);
    }
    if (node.type !== 'element') return;
    lines.push(`<${node.name}${node.attributes.map(({ name, value }) => ` ${name}=${value}`).join('')}>`);
    node.children.forEach(visit);
  };
  parseFragment(html).root.children.forEach(visit);
  // Which of two marks around the same words is the outer one shows nothing; that words are joined neither.
  return lines.sort().join('\n');
}

const textOf = (html: string): string => {
  let text = '';
  const visit = (node: ChildNode): void => {
    if (node.type === 'text') text += node.value;
    if (node.type === 'element') node.children.forEach(visit);
  };
  parseFragment(html).root.children.forEach(visit);
  return text.replace(/[ \t\n\f\r]+/g, '');
};

/** The document with a letter typed at the end of one of its top blocks; null where that holds no words. */
function typedInto(doc: Node, schema: Schema, index: number): Node | null {
  let at = 0;
  for (let i = 0; i < index; i++) at += doc.child(i).nodeSize;
  const block = doc.child(index);
  let place: number | null = block.isTextblock ? at + 1 + block.content.size : null;
  block.descendants((node, offset) => {
    if (place === null && node.isTextblock) place = at + 1 + offset + 1 + node.content.size;
    return place === null;
  });
  if (place === null) return null;
  const state = EditorState.create({ schema, doc });
  return state.tr.insertText('X', place).doc;
}

describe.each(DEMO_PROFILES)('what is stored with the profile %s', (id) => {
  const { rules } = demoProfile(id);
  const schema = compileSchema(rules);
  const all = storedMarkup(id);

  test('opening and saving changes nothing', () => {
    for (const { html } of all) {
      const { doc, source } = readDocument(html, schema);
      expect(writeDocument(doc, source)).toBe(html);
    }
  });

  test('an edit changes nothing outside the block that was edited', () => {
    let edits = 0;
    for (const { html } of all) {
      const { doc, source } = readDocument(html, schema);
      source.top.pieces.forEach(({ node, start, end }) => {
        const index = indexIn(doc, node);
        const edited = typedInto(doc, schema, index);
        if (edited === null) return;
        edits++;
        const written = writeDocument(edited, source);
        expect(written.slice(0, start)).toBe(html.slice(0, start));
        expect(written.slice(written.length - (html.length - end))).toBe(html.slice(end));
        expect(textOf(written).replace('X', '')).toBe(textOf(html).replace('X', ''));
      });
    }
    expect(edits).toBeGreaterThan(all.length);
  });

  test('written anew, nothing that shows is missing, and the rules have nothing to take', () => {
    for (const { html } of all) {
      const { doc } = readDocument(html, schema);
      doc.check();
      const written = writeDocument(doc);
      expect(textOf(written)).toBe(textOf(html));
      expect(clean(written, rules).ledger).toEqual([]);
    }
  });
});

function indexIn(doc: Node, wanted: Node): number {
  let found = -1;
  doc.forEach((node, _offset, index) => {
    if (node === wanted) found = index;
  });
  return found;
}

const EVERYTHING: JsonObject = {
  elements: Object.fromEntries(
    `p h1 h2 h3 h4 pre div section article aside header blockquote ul ol li dl dt dd table caption colgroup col thead tbody tfoot tr td th
     figure figcaption details summary address a strong em b i u s del ins small mark sub sup code kbd cite q abbr time span font ruby rt rp
     img br wbr hr iframe video source audio picture svg fieldset legend label input`
      .split(/\s+/)
      .map((name) => [
        name,
        {
          attributes: {
            class: { test: 'text' },
            title: { test: 'text' },
            'data-key': { test: 'text' },
            ...(name === 'a' ? { href: { test: 'url' } } : {}),
            ...(['img', 'iframe', 'video', 'audio', 'source'].includes(name) ? { src: { test: 'url' }, alt: { test: 'text' } } : {}),
          },
        },
      ]),
  ),
  attributes: { id: { test: 'text' }, lang: { test: 'language' } },
  urls: { schemes: { src: ['https'] } },
  comments: 'keep',
};

describe('markup that no button makes', () => {
  const rules: CompiledRules = rulesOf(EVERYTHING);
  const schema = compileSchema(rules);
  test.each([
    ['a block with a class and data', '<div class="box" data-key="7"><p>One</p><p>Two</p></div>'],
    ['details', '<details><summary>More</summary><p>Words</p></details>'],
    ['a frame', '<p>See <iframe src="https://cams.example/slip" title="Slip" sandbox="allow-scripts allow-popups"></iframe></p>'],
    ['a link around blocks', '<a href="https://a.example/"><h2>Head</h2><p>Words</p></a>'],
    ['an anchor without words', '<p><a id="here"></a>Words</p>'],
    ['an empty span', '<p>a<span class="icon"></span>b</p>'],
    ['spans in spans', '<p><span class="a">x<span class="b">y</span></span></p>'],
    ['words beside blocks', '<div>Words<p>Block</p>and words</div>'],
    ['words at the top', 'Words\n<p>Block</p>\nand <em>more</em>'],
    ['a term list in groups', '<dl><div><dt>a</dt><dd>b</dd></div></dl>'],
    ['ruby', '<p><ruby>漢<rp>(</rp><rt>kan</rt><rp>)</rp></ruby></p>'],
    ['a film with its sources', '<p><video><source src="https://a.example/1.webm"></video></p>'],
    ['an empty list', '<ul></ul>'],
    ['empty cells', '<table><tbody><tr><td></td><td>x</td></tr></tbody></table>'],
    ['a comment among words', '<p>a<!-- note -->b</p>'],
    ['a comment between blocks', '<p>a</p><!-- note --><p>b</p>'],
    ['a definition with paragraphs', '<dl><dt><p>a</p></dt><dd><p>b</p></dd></dl>'],
    ['a caption with a paragraph', '<figure><img src="https://a.example/a.png" alt=""><figcaption><p>b</p></figcaption></figure>'],
    ['preformatted lines', '<pre>\n\n one\n  two</pre>'],
    ['bold around blocks', '<b><p>x</p></b>'],
    ['a heading that holds a block', '<h2>a<div>b</div></h2>'],
    ['a quotation of its own', '<blockquote>Words alone</blockquote>'],
    ['hard spaces', '<p>5&nbsp;km &amp; 3&nbsp;&lt;m&gt;</p>'],
  ])('%s stays as it is, opened and written anew', (_name, html) => {
    const clean1 = clean(html, rules).html;
    expect(outline(clean1)).toBe(outline(html));
    const { doc, source } = readDocument(html, schema);
    doc.check();
    expect(writeDocument(doc, source)).toBe(html);
    expect(outline(writeDocument(doc))).toBe(outline(html));
    expect(clean(writeDocument(doc), rules).ledger).toEqual([]);
  });

  test('in a wrapper too, only the edited block is written anew', () => {
    const html = '<div class="page">\n  <p>One  <b>two</b></p>\n  <p >Three</p>\n  <ul>\n    <li>a</li>\n    <li>b</li>\n  </ul>\n</div>';
    const { doc, source } = readDocument(html, schema);
    let at = 0;
    doc.descendants((node, place) => {
      if (node.isText && node.text === 'a') at = place + 1;
    });
    const edited = EditorState.create({ schema, doc }).tr.insertText('X', at).doc;
    expect(writeDocument(edited, source)).toBe(html.replace('<li>a</li>', '<li>aX</li>'));
  });

  test('a block put in between keeps its neighbours and their white space', () => {
    const html = '<p>a</p>\n\n<p>b</p>\n\n<p>c</p>\n';
    const { doc, source } = readDocument(html, schema);
    const paragraph = doc.firstChild!;
    const more = EditorState.create({ schema, doc }).tr.insert(paragraph.nodeSize, paragraph.type.create(null, schema.text('new'))).doc;
    expect(writeDocument(more, source)).toBe('<p>a</p>\n\n<p>new</p>\n\n<p>b</p>\n\n<p>c</p>\n');
    const fewer = EditorState.create({ schema, doc }).tr.delete(paragraph.nodeSize, 2 * paragraph.nodeSize).doc;
    expect(writeDocument(fewer, source)).toBe('<p>a</p>\n\n<p>c</p>\n');
  });
});
