import fc from 'fast-check';
import { EditorState, TextSelection } from 'prosemirror-state';
import type { Command } from 'prosemirror-state';
import { compileSchema, readDocument, writeDocument } from '../src/index';
import * as commands from '../src/commands/table';
import { rulesOf } from './demo';
import { runs } from '../../core/test/fixed-seed';

const schema = compileSchema(
  rulesOf({
    elements: {
      p: {},
      table: {},
      caption: {},
      colgroup: {},
      col: {},
      thead: {},
      tbody: {},
      tfoot: {},
      tr: {},
      th: { attributes: { scope: { test: 'text' }, colspan: { test: 'integer' }, rowspan: { test: 'integer' } } },
      td: { attributes: { colspan: { test: 'integer' }, rowspan: { test: 'integer' } } },
    },
  }),
);

/** A table with the cursor in the cell that says `at`, or selected from there to the cell that says `to`. */
function run(rows: string, command: Command, at = 'a', to = at): string {
  const { doc } = readDocument(`<table>${rows}</table><p>after</p>`, schema);
  const place = (word: string): number => {
    let found = -1;
    doc.descendants((node, pos) => {
      if (node.text === word) found = pos;
    });
    return found;
  };
  let state = EditorState.create({ doc });
  state = state.apply(state.tr.setSelection(TextSelection.create(doc, place(at), to === at ? place(at) : place(to) + 1)));
  const isPossible = command(state);
  const isDone = command(state, (tr) => (state = state.apply(tr)));
  expect(isDone).toBe(isPossible);
  state.doc.check();
  return isDone
    ? writeDocument(state.doc)
        .replace('<table>', '')
        .replace('</table>', '')
        .replace(/\n<p>after<\/p>$/, '')
    : 'not possible';
}

const two = '<tbody><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></tbody>';
const wide = '<tbody><tr><td colspan="2">a</td></tr><tr><td>c</td><td>d</td></tr></tbody>';
const tall = '<tbody><tr><td rowspan="2">a</td><td>b</td></tr><tr><td>d</td></tr></tbody>';

test.each<[string, Command, string, string]>([
  [
    'row above',
    commands.rowAbove,
    two,
    '<tbody><tr><td></td><td></td></tr><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></tbody>',
  ],
  [
    'row below',
    commands.rowBelow,
    two,
    '<tbody><tr><td>a</td><td>b</td></tr><tr><td></td><td></td></tr><tr><td>c</td><td>d</td></tr></tbody>',
  ],
  [
    'row below a cell that spans columns',
    commands.rowBelow,
    wide,
    '<tbody><tr><td colspan="2">a</td></tr><tr><td></td><td></td></tr><tr><td>c</td><td>d</td></tr></tbody>',
  ],
  [
    'column before',
    commands.columnBefore,
    two,
    '<tbody><tr><td></td><td>a</td><td>b</td></tr><tr><td></td><td>c</td><td>d</td></tr></tbody>',
  ],
  [
    'column after',
    commands.columnAfter,
    two,
    '<tbody><tr><td>a</td><td></td><td>b</td></tr><tr><td>c</td><td></td><td>d</td></tr></tbody>',
  ],
  [
    'column after one that spans',
    commands.columnAfter,
    tall,
    '<tbody><tr><td rowspan="2">a</td><td></td><td>b</td></tr><tr><td></td><td>d</td></tr></tbody>',
  ],
  ['delete a row', commands.deleteRow, two, '<tbody><tr><td>c</td><td>d</td></tr></tbody>'],
  ['delete a column', commands.deleteColumn, two, '<tbody><tr><td>b</td></tr><tr><td>d</td></tr></tbody>'],
  [
    'delete the row where a cell begins that spans rows',
    commands.deleteRow,
    '<tbody><tr><td>a</td><td rowspan="2">b</td></tr><tr><td>c</td></tr></tbody>',
    '<tbody><tr><td>c</td><td>b</td></tr></tbody>',
  ],
  ['split', commands.splitCell, wide, '<tbody><tr><td>a</td><td></td></tr><tr><td>c</td><td>d</td></tr></tbody>'],
  ['split what spans nothing', commands.splitCell, two, 'not possible'],
  [
    'header row',
    commands.toggleHeaders('row', true),
    two,
    '<tbody><tr><th scope="col">a</th><th scope="col">b</th></tr><tr><td>c</td><td>d</td></tr></tbody>',
  ],
  [
    'header column',
    commands.toggleHeaders('column', true),
    two,
    '<tbody><tr><th scope="row">a</th><td>b</td></tr><tr><th scope="row">c</th><td>d</td></tr></tbody>',
  ],
  [
    'no header row',
    commands.toggleHeaders('row', true),
    '<tbody><tr><th scope="col">a</th></tr></tbody>',
    '<tbody><tr><td>a</td></tr></tbody>',
  ],
  ['caption', commands.toggleCaption, two, `<caption></caption>${two}`],
  ['no caption', commands.toggleCaption, `<caption>x</caption>${two}`, two],
  [
    'columns of a group',
    commands.columnAfter,
    '<colgroup><col><col></colgroup>' + two,
    '<colgroup><col><col><col></colgroup><tbody><tr><td>a</td><td></td><td>b</td></tr><tr><td>c</td><td></td><td>d</td></tr></tbody>',
  ],
])('%s', (_name, command, before, after) => expect(run(before, command)).toBe(after));

test('cells are joined, and their words follow each other', () => {
  expect(run(two, commands.mergeCells, 'a', 'b')).toBe(
    '<tbody><tr><td colspan="2"><p>a</p><p>b</p></td></tr><tr><td>c</td><td>d</td></tr></tbody>',
  );
  expect(run(two, commands.mergeCells, 'a', 'c')).toBe(
    '<tbody><tr><td rowspan="2"><p>a</p><p>c</p></td><td>b</td></tr><tr><td>d</td></tr></tbody>',
  );
  expect(run(two, commands.mergeCells)).toBe('not possible');
});

test('what is selected over several cells is emptied, and the table keeps its form', () => {
  expect(run(two, commands.emptyCells, 'a', 'd')).toBe('<tbody><tr><td></td><td></td></tr><tr><td></td><td></td></tr></tbody>');
  expect(run(two, commands.emptyCells)).toBe('not possible');
});

test('Tab behind the last cell adds a row', () => {
  expect(run(two, commands.toCell(1), 'd')).toBe(
    '<tbody><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr><tr><td></td><td></td></tr></tbody>',
  );
  expect(run(two, commands.toCell(-1), 'a')).toBe('not possible');
});

test('the last row takes the table with it', () => {
  expect(run('<tbody><tr><td>a</td></tr></tbody>', commands.deleteRow)).toBe('<p>after</p>');
});

test('whatever is done in whatever order, the table stays a rectangle and no words are lost that were not deleted', () => {
  const acts: Command[] = [
    commands.rowAbove,
    commands.rowBelow,
    commands.columnBefore,
    commands.columnAfter,
    commands.mergeCells,
    commands.splitCell,
    commands.toggleHeaders('row', true),
    commands.toggleHeaders('column', false),
  ];
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(acts.length - 1), fc.nat(99), fc.nat(99)), { maxLength: 14 }), (steps) => {
      const { doc } = readDocument(`<table>${two}</table>`, schema);
      let state = EditorState.create({ doc });
      for (const [act, one, other] of steps) {
        const table = new commands.Table(state.doc.firstChild!);
        const starts = [...table.places.values()];
        const at = (n: number): number => starts[n % starts.length]! + 2;
        state = state.apply(state.tr.setSelection(TextSelection.between(state.doc.resolve(at(one)), state.doc.resolve(at(other)))));
        acts[act]!(state, (tr) => (state = state.apply(tr)));
        state.doc.check();
        const now = new commands.Table(state.doc.firstChild!);
        for (const row of now.cells) {
          expect(row).toHaveLength(now.width);
          expect(row.every((cell) => cell !== null)).toBe(true);
        }
        expect([...state.doc.textContent].sort().join('')).toBe('abcd');
      }
    }),
    { numRuns: runs(200) },
  );
});
