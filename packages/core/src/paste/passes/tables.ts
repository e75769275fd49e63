import { append, type ElementNode, HTML_NAMESPACE, type ParentNode } from '../../html/node';
import { firstText, hasLetters, visibleText } from '../../html/text';
import { isBlock } from '../../html/elements';
import { elementsOf, transform } from '../../html/transform';
import { setAttribute, styleOf } from '../declarations';
import type { Pass, Reporter } from '../pass';

const SIZES: ReadonlySet<string> = new Set([
  'width',
  'height',
  'border',
  'cellpadding',
  'cellspacing',
  'bgcolor',
  'valign',
  'align',
  'nowrap',
  'bordercolor',
  'frame',
  'rules',
  'hspace',
  'vspace',
  'char',
  'charoff',
]);
const PARTS: ReadonlySet<string> = new Set(['table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'col', 'colgroup']);

/** Takes sizes off tables, flattens those that only place things, and marks header rows. Merged cells stay. */
export const tables: Pass<'tables'> = {
  id: 'tables',
  finds: ({ elements }) => [...PARTS].some((name) => elements.has(name)),
  run({ root, settings, report }) {
    const flattened = settings.layout === 'flatten' ? layoutParts(root) : new Set<ElementNode>();
    transform(root, {
      element(element) {
        const { name } = element;
        if (flattened.has(element)) {
          if ((name === 'td' || name === 'th') && holdsWordsAlone(element)) {
            // Words of two cells must not run into each other.
            element.name = 'p';
            element.attributes = [];
            report.renamed(element, name);
            return 'keep';
          }
          return report.unwrap(element);
        }
        if (!PARTS.has(name)) return 'keep';
        if (settings.sizes === 'drop') {
          for (const { name: attribute } of [...element.attributes])
            if (SIZES.has(attribute)) {
              report.attribute(element, attribute);
              setAttribute(element, attribute, null);
            }
          if (isBareColumn(element)) {
            report.removed(element);
            return 'drop';
          }
        }
        if (name === 'table' && settings.headerRow !== 'never') markHeader(element, settings.headerRow, report);
        return 'keep';
      },
      done(element) {
        if (settings.cellParagraphs === 'unwrap' && (element.name === 'td' || element.name === 'th')) bareCell(element, report);
        return true;
      },
    });
  },
};

/** A column, or a group of columns, that only said how wide it is. */
function isBareColumn(element: ElementNode): boolean {
  const says = (one: ElementNode): boolean => one.attributes.some(({ name }) => name === 'class' || name === 'id');
  if (element.name === 'col') return element.parent?.type !== 'element' || element.parent.name !== 'colgroup' ? !says(element) : false;
  return element.name === 'colgroup' && !says(element) && !elementsOf(element).some(says);
}

function holdsWordsAlone(cell: ElementNode): boolean {
  return cell.children.length > 0 && !cell.children.some((child) => child.type === 'element' && isBlock(child.name));
}

/** Every part of the tables that only place things. */
function layoutParts(root: ParentNode): Set<ElementNode> {
  const parts = new Map<ElementNode, ElementNode[]>();
  const inner = new Set<ElementNode>();
  const stack: { node: ParentNode; table: ElementNode | null }[] = [{ node: root, table: null }];
  for (let open = stack.pop(); open !== undefined; open = stack.pop())
    for (const child of open.node.children) {
      if (child.type !== 'element') continue;
      const table = child.name === 'table' ? child : open.table;
      if (child.name === 'table' && open.table !== null) inner.add(open.table);
      if (table !== null && (PARTS.has(child.name) || child.name === 'caption')) {
        const own = parts.get(table);
        if (own === undefined) parts.set(table, [child]);
        else own.push(child);
      }
      stack.push({ node: child, table });
    }
  const flattened = new Set<ElementNode>();
  for (const [table, own] of parts) if (isLayout(table, own, inner.has(table))) for (const part of own) flattened.add(part);
  return flattened;
}

/** A table of one cell, one that says it only presents, or one with neither header nor border and with tables and blocks in its cells. */
function isLayout(table: ElementNode, own: readonly ElementNode[], holdsTable: boolean): boolean {
  if (table.attribute('role') === 'presentation' || table.attribute('role') === 'none') return true;
  const cells = own.filter(({ name }) => name === 'td' || name === 'th');
  if (own.some(({ name }) => name === 'th' || name === 'caption')) return false;
  if (cells.length === 1) return true;
  // One row of cells with headings, lists or several blocks in them sets things beside each other.
  const isOneRow = own.filter(({ name }) => name === 'tr').length === 1;
  if (isOneRow && table.attribute('border') !== '1' && cells.some(holdsMuch)) return true;
  return holdsTable && table.attribute('border') !== '1' && styleOf(table, 'border') === '' && !holdsFigures(own, cells);
}

/** So long may the words of a cell be in a table of figures. */
const LONGEST_FIGURE = 60;

/** Whether most cells of several rows and columns hold a few words: such a table says something, even with another in one of its cells. */
function holdsFigures(own: readonly ElementNode[], cells: readonly ElementNode[]): boolean {
  const rows = own.filter(({ name }) => name === 'tr').length;
  if (rows < 2 || cells.length < 2 * rows) return false;
  const short = cells.filter((cell) => isLineOfCell(cell) && firstText(cell, LONGEST_FIGURE + 1).trim().length <= LONGEST_FIGURE);
  return short.length > cells.length / 2;
}

function isLineOfCell(cell: ElementNode): boolean {
  const blocks = cell.children.filter((child) => child.type === 'element' && isBlock(child.name));
  return blocks.length === 0 || (blocks.length === 1 && blocks[0]!.type === 'element' && blocks[0]!.name === 'p');
}

function holdsMuch(cell: ElementNode): boolean {
  const blocks = cell.children.filter((child) => child.type === 'element' && isBlock(child.name));
  return blocks.length > 1 || blocks.some((block) => block.type === 'element' && /^(h[1-6]|ul|ol|table)$/.test(block.name));
}

function markHeader(table: ElementNode, when: 'marked' | 'looks-so', report: Reporter): void {
  const rows = rowsOf(table);
  const [first, second] = rows;
  if (first === undefined || second === undefined || first.namespace !== HTML_NAMESPACE) return;
  const cells = cellsOf(first);
  if (cells.length === 0 || cells.some(({ name }) => name === 'th')) return;
  const isMarked = first.parent?.type === 'element' && first.parent.name === 'thead';
  const looksSo = cells.every((cell) => isBold(cell)) && !cellsOf(second).some((cell) => cell.name === 'td' && isBold(cell));
  if (!isMarked && !(when === 'looks-so' && looksSo)) return;
  for (const cell of cells) {
    cell.name = 'th';
    report.renamed(
      cell,
      'td',
      0,
      'paste-table-header',
      isMarked ? 'the row stands in thead' : 'all of the first row is bold, the second is not',
    );
    if (cell.attribute('scope') === undefined) setAttribute(cell, 'scope', 'col');
    plainHeader(cell, report);
  }
}

/** A header says by itself that it is one: bold that holds all of it says it again. */
function plainHeader(cell: ElementNode, report: Reporter): void {
  transform(cell, {
    element(element) {
      if (element.name !== 'strong' && element.name !== 'b') return 'keep';
      return report.unwrap(element);
    },
  });
}

function rowsOf(table: ElementNode): ElementNode[] {
  return table.children.flatMap((child) =>
    child.type !== 'element'
      ? []
      : child.name === 'tr'
        ? [child]
        : child.children.filter((row): row is ElementNode => row.type === 'element' && row.name === 'tr'),
  );
}

function cellsOf(row: ElementNode): ElementNode[] {
  return row.children.filter((child): child is ElementNode => child.type === 'element' && (child.name === 'td' || child.name === 'th'));
}

function isBold(cell: ElementNode): boolean {
  if (/^(bold|[6-9]00)$/.test(styleOf(cell, 'font-weight'))) return true;
  const text = visibleText(cell);
  if (!hasLetters(text)) return false;
  const bold = elementsOf(cell)
    .filter(({ name }) => name === 'b' || name === 'strong')
    .reduce((sum, element) => sum + visibleText(element).trim().length, 0);
  return bold >= text.trim().length;
}

/** The paragraph of a cell that holds just one goes, its words stay. */
function bareCell(cell: ElementNode, report: Reporter): void {
  const [only, ...rest] = cell.children.filter((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value)));
  if (only?.type !== 'element' || only.name !== 'p' || rest.length > 0) return;
  const { children } = only;
  cell.children = [];
  for (const child of children) append(cell, child);
  report.unwrapped(only);
}
