import { Fragment, type Node, type Schema } from 'prosemirror-model';
import { Selection, TextSelection, type Command, type EditorState } from 'prosemirror-state';
import { nodeNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { ancestor } from '../selection';

interface Cell {
  node: Node;
  element: 'td' | 'th';
  attributes: HtmlAttributes;
  rowspan: number;
  colspan: number;
}
interface Row {
  /** Index of its section. */
  section: number;
  attributes: HtmlAttributes;
}

/** A rectangle of cells: rows and columns from the first up to, but not with, the last. */
export interface Rect {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

const elementOf = (node: Node): string => node.type.spec['element'] as string;
const attributesOf = (node: Node): HtmlAttributes => node.attrs['attributes'] as HtmlAttributes;

/** A table as rows and columns, with cells that span several (HTML, section 4.9.12 "Processing model"). */
export class Table {
  readonly before: Node[] = [];
  readonly sections: { element: string; attributes: HtmlAttributes }[] = [];
  readonly rows: Row[] = [];
  /** The cell at each row and column; a cell that spans several is at all of them. */
  readonly cells: (Cell | null)[][] = [];
  /** Where each cell begins, counted from the begin of the table node. */
  readonly places = new Map<Cell, number>();

  constructor(readonly table: Node) {
    table.forEach((section, sectionAt) => {
      if (!['thead', 'tbody', 'tfoot'].includes(elementOf(section))) {
        this.before.push(section);
        return;
      }
      this.sections.push({ element: elementOf(section), attributes: attributesOf(section) });
      section.forEach((row, rowAt) => this.read(row, this.sections.length - 1, 1 + sectionAt + 1 + rowAt + 1));
    });
    const width = this.width;
    for (const row of this.cells) while (row.length < width) row.push(null);
  }

  get width(): number {
    return Math.max(0, ...this.cells.map(({ length }) => length));
  }

  get height(): number {
    return this.rows.length;
  }

  private read(row: Node, section: number, start: number): void {
    const at = this.rows.length;
    this.rows.push({ section, attributes: attributesOf(row) });
    const line = (this.cells[at] ??= []);
    let column = 0;
    row.forEach((node, offset) => {
      while (line[column] != null) column++;
      const attributes = attributesOf(node);
      const cell: Cell = {
        node,
        element: elementOf(node) as 'td' | 'th',
        attributes,
        rowspan: Math.max(1, Math.min(1000, Number(attributes['rowspan'] ?? 1) || 1)),
        colspan: Math.max(1, Math.min(1000, Number(attributes['colspan'] ?? 1) || 1)),
      };
      this.places.set(cell, start + offset);
      const isLast = (r: number): boolean => r > 0 && this.rows[at + r] !== undefined && this.rows[at + r]!.section !== section;
      for (let r = 0; r < cell.rowspan && !isLast(r); r++) {
        const other = (this.cells[at + r] ??= []);
        for (let c = 0; c < cell.colspan; c++) other[column + c] ??= cell;
      }
      column += cell.colspan;
    });
    for (let c = 0; c < line.length; c++) line[c] ??= null;
  }

  /** The rows and columns that a cell covers. */
  rectOf(cell: Cell): Rect {
    let [top, bottom, left, right] = [Infinity, 0, Infinity, 0];
    this.cells.slice(0, this.height).forEach((row, r) =>
      row.forEach((other, c) => {
        if (other !== cell) return;
        [top, bottom] = [Math.min(top, r), Math.max(bottom, r + 1)];
        [left, right] = [Math.min(left, c), Math.max(right, c + 1)];
      }),
    );
    return { top, bottom, left, right };
  }

  /** The cell that holds a position, counted from the begin of the table node. */
  cellAt(place: number): Cell | null {
    for (const [cell, start] of this.places) if (start < place && place < start + cell.node.nodeSize) return cell;
    return null;
  }

  cellsIn({ top, bottom, left, right }: Rect): Cell[] {
    const found = new Set<Cell>();
    for (let r = top; r < bottom; r++) for (let c = left; c < right; c++) if (this.cells[r]?.[c] != null) found.add(this.cells[r]![c]!);
    return [...found];
  }

  /** A rectangle grown until no cell stands across its edge. */
  whole(rect: Rect): Rect {
    for (;;) {
      const grown = this.cellsIn(rect)
        .map((cell) => this.rectOf(cell))
        .reduce(
          (all, one) => ({
            top: Math.min(all.top, one.top),
            bottom: Math.max(all.bottom, one.bottom),
            left: Math.min(all.left, one.left),
            right: Math.max(all.right, one.right),
          }),
          rect,
        );
      if (grown.top === rect.top && grown.bottom === rect.bottom && grown.left === rect.left && grown.right === rect.right) return rect;
      rect = grown;
    }
  }

  empty(schema: Schema, element: 'td' | 'th', attributes: HtmlAttributes = {}): Cell {
    const type = schema.nodes[nodeNameOf(element)] ?? schema.nodes[nodeNameOf('td')] ?? schema.nodes[nodeNameOf('th')]!;
    return {
      node: type.create({ attributes }, schema.nodes['line']!.create()),
      element: elementOf(type.create(null, schema.nodes['line']!.create())) as 'td' | 'th',
      attributes,
      rowspan: 1,
      colspan: 1,
    };
  }

  insertRow(at: number, like: number, schema: Schema): void {
    const model = this.rows[like]!;
    const line: (Cell | null)[] = [];
    for (let c = 0; c < this.width; c++) {
      const above = this.cells[at - 1]?.[c] ?? null;
      const below = this.cells[at]?.[c] ?? null;
      if (above !== null && above === below) line.push(above);
      else {
        const beside = this.cells[like]?.[c];
        line.push(this.empty(schema, beside?.element ?? 'td', beside?.attributes['scope'] === 'row' ? { scope: 'row' } : {}));
      }
    }
    this.rows.splice(at, 0, { section: model.section, attributes: {} });
    this.cells.splice(at, 0, line);
  }

  insertColumn(at: number, like: number, schema: Schema): void {
    for (const row of this.cells) {
      const before = row[at - 1] ?? null;
      const after = row[at] ?? null;
      if (before !== null && before === after) row.splice(at, 0, before);
      else {
        const beside = row[like] ?? null;
        row.splice(at, 0, this.empty(schema, beside?.element ?? 'td', beside?.attributes['scope'] === 'col' ? { scope: 'col' } : {}));
      }
    }
    this.changeColumns(at, 1);
  }

  deleteRows(from: number, to: number): void {
    this.rows.splice(from, to - from);
    this.cells.splice(from, to - from);
  }

  deleteColumns(from: number, to: number): void {
    for (const row of this.cells) row.splice(from, to - from);
    this.changeColumns(from, from - to);
  }

  /** Joins the cells of a whole rectangle; their words follow each other. */
  merge(rect: Rect): void {
    const cells = this.cellsIn(rect);
    const [first] = cells;
    if (first === undefined) return;
    const filled = cells.filter(({ node }) => node.textContent !== '' || node.content.size > 2);
    const content =
      filled.length === 0 ? first.node.content : Fragment.from(filled.flatMap(({ node }) => asBlocks(node, filled.length > 1)));
    const merged: Cell = { ...first, node: first.node.copy(content) };
    for (let r = rect.top; r < rect.bottom; r++) for (let c = rect.left; c < rect.right; c++) this.cells[r]![c] = merged;
  }

  /** Makes single cells of a cell that spans several; the words stay in the first. */
  split(cell: Cell, schema: Schema): void {
    const rect = this.rectOf(cell);
    for (let r = rect.top; r < rect.bottom; r++)
      for (let c = rect.left; c < rect.right; c++)
        if (r !== rect.top || c !== rect.left) this.cells[r]![c] = this.empty(schema, cell.element);
  }

  /** Makes cells of a rectangle headers or takes that from them again. */
  setHeaders(rect: Rect, isHeader: boolean, scope: string | null): void {
    for (const cell of this.cellsIn(rect)) {
      const { scope: _old, ...rest } = cell.attributes;
      const changed: Cell = {
        ...cell,
        element: isHeader ? 'th' : 'td',
        attributes: isHeader && scope !== null ? { ...rest, scope } : rest,
      };
      for (const row of this.cells) row.forEach((other, c) => other === cell && (row[c] = changed));
    }
  }

  private changeColumns(at: number, by: number): void {
    const index = this.before.findIndex((node) => elementOf(node) === 'colgroup');
    const group = this.before[index];
    if (group === undefined) return;
    const columns: Node[] = [];
    group.forEach((column) => columns.push(column));
    if (columns.some((column) => attributesOf(column)['span'] !== undefined)) return;
    if (by > 0 && columns[0] !== undefined) columns.splice(at, 0, columns[0].type.create());
    else columns.splice(at, -by);
    if (columns.length === 0) this.before.splice(index, 1);
    else this.before[index] = group.copy(Fragment.from(columns));
  }

  /** The table as a node; null where nothing is left of it. */
  node(schema: Schema): Node | null {
    if (this.height === 0 || this.width === 0) return null;
    const sections: Node[] = [];
    for (let index = 0, r = 0; index < this.sections.length; index++) {
      const rows: Node[] = [];
      for (; r < this.rows.length && this.rows[r]!.section === index; r++) rows.push(this.row(r, schema));
      const { element, attributes } = this.sections[index]!;
      if (rows.length > 0) sections.push(schema.nodes[nodeNameOf(element)]!.create({ attributes }, rows));
    }
    return this.table.type.create({ attributes: attributesOf(this.table) }, [...this.before, ...sections]);
  }

  private row(r: number, schema: Schema): Node {
    const nodes: Node[] = [];
    this.cells[r]!.forEach((cell, c) => {
      if (cell === null) {
        nodes.push(this.empty(schema, 'td').node);
        return;
      }
      const isFirst = this.cells[r - 1]?.[c] !== cell && this.cells[r]![c - 1] !== cell;
      const isInSection = r > 0 && this.rows[r - 1]!.section === this.rows[r]!.section;
      if (!isFirst && (isInSection || this.cells[r]![c - 1] === cell)) return;
      const { top, bottom, left, right } = this.rectOf(cell);
      const { rowspan: _rows, colspan: _columns, ...rest } = cell.attributes;
      const attributes: HtmlAttributes = {
        ...rest,
        ...(right - left > 1 ? { colspan: String(right - left) } : {}),
        ...(bottom - top > 1 ? { rowspan: String(bottom - top) } : {}),
      };
      const isSame = elementOf(cell.node) === cell.element && JSON.stringify(attributesOf(cell.node)) === JSON.stringify(attributes);
      nodes.push(isSame ? cell.node : schema.nodes[nodeNameOf(cell.element)]!.create({ attributes }, cell.node.content));
    });
    const type = schema.nodes[nodeNameOf('tr')]!;
    return type.create({ attributes: this.rows[r]!.attributes }, nodes);
  }
}

function asBlocks(cell: Node, isOneOfMany: boolean): Node[] {
  const { schema } = cell.type;
  const paragraph = schema.nodes[nodeNameOf('p')];
  const blocks: Node[] = [];
  cell.forEach((node) =>
    blocks.push(isOneOfMany && node.type.name === 'line' && paragraph !== undefined ? paragraph.create(null, node.content) : node),
  );
  return blocks;
}

/** The table around the selection and the rectangle of cells that is selected in it. */
export function tableAt(state: EditorState): { table: Table; at: number; rect: Rect } | null {
  const found = ancestor(state, (node) => elementOf(node) === 'table');
  if (found === null) return null;
  const table = new Table(found.node);
  const cells = [state.selection.$anchor, state.selection.$head].map(({ pos }) => table.cellAt(pos - found.at));
  const [one, other] = cells.map((cell) => (cell === null ? null : table.rectOf(cell)));
  if (one == null || other == null) return null;
  const rect = table.whole({
    top: Math.min(one.top, other.top),
    bottom: Math.max(one.bottom, other.bottom),
    left: Math.min(one.left, other.left),
    right: Math.max(one.right, other.right),
  });
  return { table, at: found.at, rect };
}

/** A command that changes the table around the selection; the cursor goes to the row and column that `change` names. */
export function changeTable(
  change: (table: Table, rect: Rect, state: EditorState) => { row: number; column: number } | null,
  isPossible: (table: Table, rect: Rect, state: EditorState) => boolean = () => true,
): Command {
  return (state, dispatch) => {
    const found = tableAt(state);
    if (found === null || !isPossible(found.table, found.rect, state)) return false;
    if (dispatch === undefined) return true;
    const { table, at, rect } = found;
    const size = table.table.nodeSize;
    const place = change(table, rect, state);
    if (place === null) return false;
    const node = table.node(state.schema);
    const { tr } = state;
    if (node === null) tr.delete(at, at + size);
    else tr.replaceWith(at, at + size, node);
    if (node !== null) {
      const now = new Table(node);
      const cell = now.cells[Math.min(place.row, now.height - 1)]?.[Math.min(place.column, now.width - 1)];
      if (cell != null) tr.setSelection(TextSelection.near(tr.doc.resolve(at + now.places.get(cell)! + 1), 1));
    } else tr.setSelection(Selection.near(tr.doc.resolve(Math.min(at, tr.doc.content.size)), 1));
    dispatch(tr.scrollIntoView());
    return true;
  };
}

export const rowAbove = changeTable((table, { top, left }, { schema }) => (table.insertRow(top, top, schema), { row: top, column: left }));
export const rowBelow = changeTable(
  (table, { bottom, left }, { schema }) => (table.insertRow(bottom, bottom - 1, schema), { row: bottom, column: left }),
);
export const columnBefore = changeTable(
  (table, { top, left }, { schema }) => (table.insertColumn(left, left, schema), { row: top, column: left }),
);
export const columnAfter = changeTable(
  (table, { top, right }, { schema }) => (table.insertColumn(right, right - 1, schema), { row: top, column: right }),
);
export const deleteRow = changeTable((table, { top, bottom, left }) => (table.deleteRows(top, bottom), { row: top, column: left }));
export const deleteColumn = changeTable((table, { top, left, right }) => (table.deleteColumns(left, right), { row: top, column: left }));
export const mergeCells = changeTable(
  (table, rect) => (table.merge(rect), { row: rect.top, column: rect.left }),
  (table, rect) => table.cellsIn(rect).length > 1 && table.rows[rect.top]!.section === table.rows[rect.bottom - 1]!.section,
);
export const splitCell = changeTable(
  (table, rect, { schema }) => {
    for (const cell of table.cellsIn(rect)) table.split(cell, schema);
    return { row: rect.top, column: rect.left };
  },
  (table, rect) => table.cellsIn(rect).some((cell) => cell.rowspan > 1 || cell.colspan > 1),
);
export const deleteTable = changeTable((table) => (table.deleteRows(0, table.height), { row: 0, column: 0 }));

/** Makes the selected rows or columns headers, or takes that from them. */
export function toggleHeaders(of: 'row' | 'column', isScopeKept: boolean): Command {
  return changeTable(
    (table, rect) => {
      const whole = of === 'row' ? { ...rect, left: 0, right: table.width } : { ...rect, top: 0, bottom: table.height };
      const cells = table.cellsIn(whole);
      const isHeader = cells.some(({ element }) => element === 'td');
      table.setHeaders(whole, isHeader, isScopeKept ? (of === 'row' ? 'col' : 'row') : null);
      return { row: rect.top, column: rect.left };
    },
    (_table, _rect, { schema }) => schema.nodes[nodeNameOf('th')] !== undefined && schema.nodes[nodeNameOf('td')] !== undefined,
  );
}

/** Gives the table a caption to be written, or takes it away. */
export const toggleCaption: Command = (state, dispatch) => {
  const found = tableAt(state);
  const type = state.schema.nodes[nodeNameOf('caption')];
  if (found === null || type === undefined) return false;
  const first = found.table.table.firstChild!;
  if (dispatch !== undefined) {
    const { tr } = state;
    if (first.type === type) tr.delete(found.at + 1, found.at + 1 + first.nodeSize);
    else {
      tr.insert(found.at + 1, type.create(null, state.schema.nodes['line']!.create()));
      tr.setSelection(TextSelection.create(tr.doc, found.at + 3));
    }
    dispatch(tr.scrollIntoView());
  }
  return true;
};

/** Goes to the next or the previous cell; behind the last one a row is added. */
export function toCell(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const found = tableAt(state);
    if (found === null) return false;
    const { table, at, rect } = found;
    const order = [...table.places].sort((a, b) => a[1] - b[1]);
    const index = order.findIndex(([cell]) => cell === table.cells[rect.top]?.[rect.left]);
    const next = order[index + direction];
    if (next === undefined)
      return (
        direction === 1 &&
        changeTable(
          (model, _rect, { schema }) => (model.insertRow(model.height, model.height - 1, schema), { row: model.height - 1, column: 0 }),
        )(state, dispatch)
      );
    dispatch?.(state.tr.setSelection(TextSelection.near(state.doc.resolve(at + next[1] + 1), 1)).scrollIntoView());
    return true;
  };
}

/** Empties the selected cells where the selection goes over several, so that the table keeps its form. */
export const emptyCells: Command = (state, dispatch) => {
  const found = tableAt(state);
  if (found === null || state.selection.empty || found.table.cellsIn(found.rect).length < 2) return false;
  if (dispatch !== undefined) {
    const { tr } = state;
    const places = found.table.cellsIn(found.rect).map((cell) => ({ cell, start: found.at + found.table.places.get(cell)! }));
    for (const { cell, start } of places.sort((a, b) => b.start - a.start))
      tr.replaceWith(start + 1, start + cell.node.nodeSize - 1, state.schema.nodes['line']!.create());
    tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(...places.map(({ start }) => start)) + 1), 1));
    dispatch(tr.scrollIntoView());
  }
  return true;
};

/** A new table of empty cells; null where the schema has none. */
export function newTable(
  schema: Schema,
  rows: number,
  columns: number,
  options: { headerRow: boolean; isScopeKept: boolean },
): Node | null {
  const type = (element: string) => schema.nodes[nodeNameOf(element)];
  const [table, row, cell, header, body, head] = [type('table'), type('tr'), type('td'), type('th'), type('tbody'), type('thead')];
  const section = body ?? head;
  if (table === undefined || row === undefined || section === undefined) return null;
  const plain = cell ?? header!;
  const line = schema.nodes['line']!;
  const make = (count: number, isHeader: boolean): Node =>
    row.create(
      null,
      Array.from({ length: count }, () =>
        isHeader && header !== undefined
          ? header.create({ attributes: options.isScopeKept ? { scope: 'col' } : {} }, line.create())
          : plain.create(null, line.create()),
      ),
    );
  const first = options.headerRow && header !== undefined ? [make(columns, true)] : [];
  const rest = Array.from({ length: Math.max(rows - first.length, first.length === 0 ? 1 : 0) }, () => make(columns, false));
  const sections =
    first.length > 0 && head !== undefined && rest.length > 0
      ? [head.create(null, first), section.create(null, rest)]
      : [section.create(null, [...first, ...rest])];
  return table.create(null, sections);
}
