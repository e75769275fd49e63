import type { ElementNode } from '../html/node';

const ALIGNED = new Set(['div', 'p', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'td', 'th', 'tr', 'thead', 'tbody', 'tfoot', 'caption']);
const SIZED = new Set(['img', 'iframe', 'video', 'embed', 'object', 'table', 'td', 'th', 'col', 'hr', 'input', 'canvas']);
const FLOATED = new Set(['img', 'table', 'iframe', 'object', 'embed']);
const FONT_SIZES = ['x-small', 'small', 'medium', 'large', 'x-large', 'xx-large', 'xxx-large'];

/** What old attributes mean in style (HTML, section 15 "Rendering", presentational hints). */
export function presentationalHints(element: ElementNode): { property: string; value: string }[] {
  const hints: { property: string; value: string }[] = [];
  const { name } = element;
  const hint = (property: string, value: string | undefined | null): void => {
    if (value !== undefined && value !== null && value !== '') hints.push({ property, value });
  };
  for (const { name: attribute, value } of element.attributes) {
    const lower = value.trim().toLowerCase();
    switch (attribute) {
      case 'align':
        if (FLOATED.has(name) && (lower === 'left' || lower === 'right')) hint('float', lower);
        else if (name === 'table' && lower === 'center') {
          hint('margin-left', 'auto');
          hint('margin-right', 'auto');
        } else if (ALIGNED.has(name) && ['left', 'right', 'center', 'justify'].includes(lower)) hint('text-align', lower);
        break;
      case 'valign':
        if (['td', 'th', 'tr', 'thead', 'tbody', 'tfoot'].includes(name)) hint('vertical-align', lower);
        break;
      case 'width':
      case 'height':
        if (SIZED.has(name) && (attribute === 'width' || name !== 'hr')) hint(attribute, dimension(lower));
        break;
      case 'cellspacing':
        if (name === 'table') hint('border-spacing', dimension(lower));
        break;
      case 'bgcolor':
        if (['body', 'table', 'tr', 'td', 'th', 'thead', 'tbody', 'tfoot'].includes(name)) hint('background-color', lower);
        break;
      case 'border':
        if (name === 'img' || name === 'table' || name === 'object')
          for (const side of ['top', 'right', 'bottom', 'left']) {
            hint(`border-${side}-width`, /^\d+/.test(lower) ? `${Number.parseInt(lower, 10)}px` : '1px');
            hint(`border-${side}-style`, name === 'table' ? 'outset' : 'solid');
          }
        break;
      case 'hspace':
        if (name === 'img' || name === 'object' || name === 'embed')
          for (const side of ['left', 'right']) hint(`margin-${side}`, dimension(lower));
        break;
      case 'vspace':
        if (name === 'img' || name === 'object' || name === 'embed')
          for (const side of ['top', 'bottom']) hint(`margin-${side}`, dimension(lower));
        break;
      case 'color':
        if (name === 'font') hint('color', lower);
        break;
      case 'face':
        if (name === 'font') hint('font-family', value.trim());
        break;
      case 'size':
        if (name === 'font') hint('font-size', fontSize(lower));
        break;
      case 'nowrap':
        if (name === 'td' || name === 'th') {
          hint('white-space-collapse', 'collapse');
          hint('text-wrap-mode', 'nowrap');
        }
        break;
      case 'hidden':
        hint('display', 'none');
        break;
      case 'type':
        if (name === 'ol' || name === 'ul' || name === 'li')
          hint(
            'list-style-type',
            ({ '1': 'decimal', a: 'lower-alpha', A: 'upper-alpha', i: 'lower-roman', I: 'upper-roman' } as Record<string, string>)[
              value.trim()
            ] ?? (['disc', 'circle', 'square'].includes(lower) ? lower : null),
          );
        break;
      default:
    }
  }
  if (name === 'td' || name === 'th') fromTable(element, hint);
  return hints;
}

/** What the attributes of a table mean for its cells (HTML, section 15.3.8 "Tables"). */
function fromTable(cell: ElementNode, hint: (property: string, value: string) => void): void {
  let table = cell.parent;
  while (table?.type === 'element' && table.name !== 'table') table = table.parent;
  if (table?.type !== 'element') return;
  const border = table.attribute('border');
  if (border !== undefined && !/^0+$/.test(border.trim()))
    for (const side of ['top', 'right', 'bottom', 'left']) {
      hint(`border-${side}-width`, '1px');
      hint(`border-${side}-style`, 'inset');
    }
  const padding = dimension(table.attribute('cellpadding') ?? '');
  if (padding !== null) for (const side of ['top', 'right', 'bottom', 'left']) hint(`padding-${side}`, padding);
}

/** A number of pixels or a percentage (HTML, section 2.3.4.4 "Percentages and lengths"). */
function dimension(text: string): string | null {
  const match = /^\+?(\d+(?:\.\d+)?|\.\d+)(%?)/.exec(text);
  return match === null ? null : `${match[1]}${match[2] === '%' ? '%' : 'px'}`;
}

/** HTML, section 15.3.4, rules for parsing a legacy font size. */
function fontSize(text: string): string | null {
  const match = /^([+-]?)(\d+)/.exec(text);
  if (match === null) return null;
  const size = match[1] === '' ? Number(match[2]) : 3 + Number(`${match[1]}${match[2]}`);
  return FONT_SIZES[Math.min(7, Math.max(1, size)) - 1]!;
}
