import { isValueKept } from '@typikon/core/editing';
import { Table2 } from 'lucide';
import { insertBlock } from '../commands/blocks';
import { isAttributeKept } from '../commands/attributes';
import * as commands from '../commands/table';
import type { EditorContext } from '../context';
import { field, make, tick } from '../panels/make';
import type { Button } from './button';

function changeMenu(context: EditorContext): void {
  const { view, rules } = context;
  const isScopeKept = isAttributeKept(rules, 'th', 'scope');
  const maySpan = isAttributeKept(rules, 'td', 'colspan') || isAttributeKept(rules, 'td', 'rowspan');
  const entry = (label: string, command: Parameters<EditorContext['run']>[0], whyNot = 'Not possible here.') => ({
    label,
    whyNot: command(view.state) ? '' : whyNot,
    press: () => context.run(command),
  });
  context.menu('Table', [
    entry('Row above', commands.rowAbove),
    entry('Row below', commands.rowBelow),
    entry('Column before', commands.columnBefore),
    entry('Column after', commands.columnAfter),
    ...(maySpan
      ? [
          entry('Join the selected cells', commands.mergeCells, 'Select several cells first.'),
          entry('Split the cell', commands.splitCell, 'It spans no other cells.'),
        ]
      : []),
    entry('Header row, or not', commands.toggleHeaders('row', isScopeKept), 'The rules keep no th.'),
    entry('Header column, or not', commands.toggleHeaders('column', isScopeKept), 'The rules keep no th.'),
    entry('Caption, or none', commands.toggleCaption, 'The rules keep no caption.'),
    entry('Delete the row', commands.deleteRow),
    entry('Delete the column', commands.deleteColumn),
    entry('Delete the table', commands.deleteTable),
  ]);
}

/** Puts in a table of a size; within a table, changes its rows, columns and cells. */
export const table: Button = {
  id: 'table',
  icon: Table2,
  isTolerant: true,
  isActive: (state) => commands.tableAt(state) !== null,
  isPossible: (state, { options: { table: options } }) =>
    commands.tableAt(state) !== null ||
    insertBlock((schema) => commands.newTable(schema, 2, 2, { headerRow: options.headerRow, isScopeKept: false }))(state),
  whyNot: 'A table cannot stand here.',
  open: (context) => {
    const { host, options, rules, schema, view } = context;
    if (commands.tableAt(view.state) !== null) {
      changeMenu(context);
      return;
    }
    const { maxRows, maxColumns, headerRow } = options.table;
    const rows = make(host, 'input', { type: 'number', min: 1, max: maxRows, value: Math.min(4, maxRows) });
    const columns = make(host, 'input', { type: 'number', min: 1, max: maxColumns, value: Math.min(3, maxColumns) });
    const header = tick(host, 'The first row holds headers', headerRow);
    const caption = make(host, 'input', { type: 'text', autocomplete: 'off' });
    const [wide, high] = [Math.min(8, maxColumns), Math.min(6, maxRows)];
    const grid = make(host, 'div', { class: 'te-size', 'aria-hidden': 'true' });
    grid.style.gridTemplateColumns = `repeat(${wide}, 1fr)`;
    const paint = (): void => {
      [...grid.children].forEach((cell, index) => {
        const isIn = index % wide < Number(columns.value) && Math.floor(index / wide) < Number(rows.value);
        cell.className = isIn ? (header.input.checked && index < wide ? 'in head' : 'in') : '';
      });
    };
    for (let index = 0; index < wide * high; index++) {
      const cell = grid.appendChild(make(host, 'i'));
      const choose = (): void => {
        columns.value = String((index % wide) + 1);
        rows.value = String(Math.floor(index / wide) + 1);
        paint();
      };
      cell.addEventListener('click', choose);
    }
    for (const input of [rows, columns, header.input]) input.addEventListener('input', paint);
    const hasCaption = schema.nodes['el_caption'] !== undefined;
    const dialog = context.dialog({
      title: 'Table',
      go: 'Put in',
      take: () => {
        for (const [input, most, what] of [
          [rows, maxRows, 'rows'],
          [columns, maxColumns, 'columns'],
        ] as const)
          if (!/^\d+$/.test(input.value) || Number(input.value) < 1 || Number(input.value) > most) {
            dialog.complain(`A table here can have 1 to ${most} ${what}.`, input);
            return false;
          }
        const node = commands.newTable(schema, Number(rows.value), Number(columns.value), {
          headerRow: header.input.checked,
          isScopeKept: isValueKept(rules, 'th', 'scope', 'col'),
        });
        const words = caption.value.trim();
        const whole =
          node === null || words === '' || !hasCaption
            ? node
            : node.copy(
                node.content.addToStart(schema.nodes['el_caption']!.create(null, schema.nodes['line']!.create(null, schema.text(words)))),
              );
        return context.run(insertBlock(() => whole, true));
      },
    });
    dialog.body.append(
      make(host, 'div', { class: 'te-pair' }, field(host, 'Rows', rows), field(host, 'Columns', columns)),
      grid,
      header.dom,
    );
    if (hasCaption) dialog.body.append(field(host, 'Caption', caption, 'What the table shows. It may stay empty.'));
    paint();
    rows.focus();
    rows.select();
  },
};
