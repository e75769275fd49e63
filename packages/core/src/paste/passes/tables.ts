import { type ElementNode, HTML_NAMESPACE, type ParentNode } from '../../html/node';
import { hasLetters, visibleText } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import { setAttribute, styleOf } from '../declarations';
import type { Pass } from '../pass';

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
]);
const PARTS: ReadonlySet<string> = new Set(['table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'col', 'colgroup']);

/** Takes sizes off tables, flattens those that only place things, and marks header rows. Merged cells stay. */
export const tables: Pass<'tables'> = {
  id: 'tables',
  label: 'Tables',
  effect: 'Widths and heights go, header rows are marked, tables that only place things are flattened.',
  run({ root, settings, report }) {
    const layout =
      settings.layout === 'flatten'
        ? new Set(elementsOf(root).filter((element) => element.name === 'table' && isLayout(element)))
        : new Set();
    const inLayout = (element: ElementNode): boolean => {
      for (let at: ParentNode | null = element; at?.type === 'element'; at = at.parent) if (at.name === 'table') return layout.has(at);
      return false;
    };
    const flattened = new Set(elementsOf(root).filter((element) => PARTS.has(element.name) && layout.size > 0 && inLayout(element)));
    transform(root, {
      element(element) {
        if (flattened.has(element)) {
          report.unwrapped(element);
          return 'unwrap';
        }
        if (settings.sizes === 'drop' && PARTS.has(element.name))
          for (const { name } of [...element.attributes])
            if (SIZES.has(name)) {
              setAttribute(element, name, null);
              report.changed(element, '');
            }
        if (element.name === 'table' && settings.headerRow !== 'never') markHeader(element, settings.headerRow, report);
        return 'keep';
      },
    });
  },
};

/** A table of one cell, or one with neither header nor border and with blocks in its cells, only places things. */
function isLayout(table: ElementNode): boolean {
  const own = elementsOf(table);
  const cells = own.filter(({ name }) => name === 'td' || name === 'th');
  if (cells.length === 1) return true;
  const holdsBlocks = cells.some((cell) =>
    cell.children.some((child) => child.type === 'element' && ['p', 'div', 'table', 'ul', 'h1', 'h2', 'h3'].includes(child.name)),
  );
  return (
    holdsBlocks &&
    !own.some(({ name }) => name === 'th' || name === 'caption') &&
    table.attribute('border') !== '1' &&
    own.some(({ name }) => name === 'table') &&
    styleOf(table, 'border') === ''
  );
}

function markHeader(
  table: ElementNode,
  when: 'marked' | 'looks-so',
  report: { renamed(element: ElementNode, before: string): void },
): void {
  const rows = elementsOf(table).filter(({ name }) => name === 'tr');
  const [first, second] = rows;
  if (first === undefined || second === undefined || first.namespace !== HTML_NAMESPACE) return;
  const cells = first.children.filter(
    (child): child is ElementNode => child.type === 'element' && (child.name === 'td' || child.name === 'th'),
  );
  if (cells.length === 0 || cells.some(({ name }) => name === 'th')) return;
  const isMarked = first.parent?.type === 'element' && first.parent.name === 'thead';
  const looksSo = cells.every((cell) => isBold(cell)) && !elementsOf(second).some((cell) => cell.name === 'td' && isBold(cell));
  if (!isMarked && !(when === 'looks-so' && looksSo)) return;
  for (const cell of cells) {
    cell.name = 'th';
    report.renamed(cell, 'td');
    if (cell.attribute('scope') === undefined) setAttribute(cell, 'scope', 'col');
  }
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
