import { generate, type CssNode } from 'css-tree';
import { parseCss } from './parse';

/** A longhand with the value that a declaration gives it. */
export interface Longhand {
  property: string;
  value: string;
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;
const WIDE = new Set(['inherit', 'initial', 'unset', 'revert', 'revert-layer']);
const BORDER_STYLES = new Set('none hidden dotted dashed solid double groove ridge inset outset'.split(' '));
const WIDTH_WORDS = new Set(['thin', 'medium', 'thick']);

const sides = (pattern: string): string[] => SIDES.map((side) => pattern.replace('*', side));

/** Properties that stand for others in the order of writing, one to four values for the four sides. */
const FOUR_SIDES: Readonly<Record<string, readonly string[]>> = {
  margin: sides('margin-*'),
  padding: sides('padding-*'),
  inset: [...SIDES],
  'border-width': sides('border-*-width'),
  'border-style': sides('border-*-style'),
  'border-color': sides('border-*-color'),
  'scroll-margin': sides('scroll-margin-*'),
  'scroll-padding': sides('scroll-padding-*'),
};

/** Pairs: one value for both, or one each. */
const PAIRS: Readonly<Record<string, readonly [string, string]>> = {
  overflow: ['overflow-x', 'overflow-y'],
  gap: ['row-gap', 'column-gap'],
  'grid-gap': ['row-gap', 'column-gap'],
  'place-content': ['align-content', 'justify-content'],
  'place-items': ['align-items', 'justify-items'],
  'place-self': ['align-self', 'justify-self'],
  'overscroll-behavior': ['overscroll-behavior-x', 'overscroll-behavior-y'],
  'margin-block': ['margin-top', 'margin-bottom'],
  'margin-inline': ['margin-left', 'margin-right'],
  'padding-block': ['padding-top', 'padding-bottom'],
  'padding-inline': ['padding-left', 'padding-right'],
  'inset-block': ['top', 'bottom'],
  'inset-inline': ['left', 'right'],
};

/** Logical names in horizontal writing from left to right (CSS Logical Properties Level 1). */
const LOGICAL: Readonly<Record<string, string>> = {
  'block-size': 'height',
  'inline-size': 'width',
  'min-block-size': 'min-height',
  'min-inline-size': 'min-width',
  'max-block-size': 'max-height',
  'max-inline-size': 'max-width',
  ...Object.fromEntries<string>(
    (
      [
        ['block-start', 'top'],
        ['block-end', 'bottom'],
        ['inline-start', 'left'],
        ['inline-end', 'right'],
      ] as const
    ).flatMap(([logical, side]): [string, string][] => [
      [`margin-${logical}`, `margin-${side}`],
      [`padding-${logical}`, `padding-${side}`],
      [`inset-${logical}`, side],
      [`border-${logical}`, `border-${side}`],
      ...['width', 'style', 'color'].map((part): [string, string] => [`border-${logical}-${part}`, `border-${side}-${part}`]),
    ]),
  ),
  'border-start-start-radius': 'border-top-left-radius',
  'border-start-end-radius': 'border-top-right-radius',
  'border-end-start-radius': 'border-bottom-left-radius',
  'border-end-end-radius': 'border-bottom-right-radius',
  'word-wrap': 'overflow-wrap',
};

/** Shorthands whose longhands all take the place of what was set, with the longhands in question. */
const RESET: Readonly<Record<string, readonly string[]>> = {
  font: 'font-style font-variant-caps font-weight font-stretch font-size line-height font-family'.split(' '),
  background:
    'background-image background-position-x background-position-y background-size background-repeat background-attachment background-origin background-clip background-color'.split(
      ' ',
    ),
  'list-style': ['list-style-position', 'list-style-image', 'list-style-type'],
  'text-decoration': ['text-decoration-line', 'text-decoration-style', 'text-decoration-color', 'text-decoration-thickness'],
  outline: ['outline-width', 'outline-style', 'outline-color'],
  'column-rule': ['column-rule-width', 'column-rule-style', 'column-rule-color'],
  columns: ['column-width', 'column-count'],
  flex: ['flex-grow', 'flex-shrink', 'flex-basis'],
  'flex-flow': ['flex-direction', 'flex-wrap'],
  'border-radius': CORNERS.map((corner) => `border-${corner}-radius`),
  transition: ['transition-property', 'transition-duration', 'transition-timing-function', 'transition-delay', 'transition-behavior'],
  animation:
    'animation-name animation-duration animation-timing-function animation-delay animation-iteration-count animation-direction animation-fill-mode animation-play-state'.split(
      ' ',
    ),
  'grid-area': ['grid-row-start', 'grid-column-start', 'grid-row-end', 'grid-column-end'],
  'grid-row': ['grid-row-start', 'grid-row-end'],
  'grid-column': ['grid-column-start', 'grid-column-end'],
  'grid-template': ['grid-template-rows', 'grid-template-columns', 'grid-template-areas'],
  'text-emphasis': ['text-emphasis-style', 'text-emphasis-color'],
};

function words(value: string): string[] {
  let node: CssNode;
  try {
    node = parseCss(value, { context: 'value' });
  } catch {
    return [value];
  }
  const result: string[] = [];
  if (node.type === 'Value') for (const child of node.children.toArray()) if (child.type !== 'WhiteSpace') result.push(generate(child));
  return result;
}

/** Longhands that a shorthand sets, in any order of its words: the part that fits takes the word, the others their first value. */
function byKind(value: string, parts: readonly [property: string, initial: string, fits: (word: string) => boolean][]): Longhand[] {
  const left = words(value);
  return parts.map(([property, initial, fits]) => {
    const at = left.findIndex(fits);
    return { property, value: at === -1 ? initial : left.splice(at, 1)[0]! };
  });
}

const isWidth = (word: string): boolean =>
  WIDTH_WORDS.has(word.toLowerCase()) || /^[+-]?(\d|\.\d)/.test(word) || /^(calc|min|max|clamp)\(/i.test(word);
const isStyle = (word: string): boolean => BORDER_STYLES.has(word.toLowerCase());

function border(prefix: string, value: string): Longhand[] {
  return byKind(value, [
    [`${prefix}-width`, 'medium', isWidth],
    [`${prefix}-style`, 'none', isStyle],
    [`${prefix}-color`, 'currentcolor', () => true],
  ]);
}

/**
 * The longhands of a declaration, with the part of its value that each gets; the declaration itself where it is one.
 * A value that holds a variable cannot be taken apart: each longhand gets all of it (CSS Custom Properties Level 1, section 3.2).
 */
export function expand(name: string, value: string): Longhand[] {
  const property = name.startsWith('--') ? name : (LOGICAL[name.toLowerCase()] ?? name.toLowerCase());
  const whole = WIDE.has(value.trim().toLowerCase()) || /\bvar\(/i.test(value);
  const all = (names: readonly string[]): Longhand[] => names.map((longhand) => ({ property: longhand, value }));

  const four = FOUR_SIDES[property];
  if (four !== undefined) {
    if (whole) return all(four);
    const [top = value, right = top, bottom = top, left = right] = words(value);
    return four.map((longhand, at) => ({ property: longhand, value: [top, right, bottom, left][at]! }));
  }
  const pair = PAIRS[property];
  if (pair !== undefined) {
    if (whole) return all(pair);
    const [first = value, second = first] = words(value);
    return [
      { property: pair[0], value: first },
      { property: pair[1], value: second },
    ];
  }
  const side = /^border(-(?:top|right|bottom|left))?$/.exec(property);
  if (side !== null) {
    const prefixes = side[1] === undefined ? SIDES.map((one) => `border-${one}`) : [property];
    const longhands = prefixes.flatMap((prefix) =>
      whole ? all([`${prefix}-width`, `${prefix}-style`, `${prefix}-color`]) : border(prefix, value),
    );
    return longhands;
  }
  const reset = RESET[property];
  if (reset === undefined) return [{ property, value }];
  if (whole) return all(reset);
  switch (property) {
    case 'outline':
    case 'column-rule':
      return border(property, value);
    case 'list-style':
      return byKind(value, [
        ['list-style-position', 'outside', (word) => word === 'inside' || word === 'outside'],
        ['list-style-image', 'none', (word) => /^url\(|gradient\(/i.test(word)],
        ['list-style-type', 'disc', () => true],
      ]);
    case 'text-decoration':
      return byKind(value, [
        ['text-decoration-line', 'none', (word) => /^(none|underline|overline|line-through|blink)$/i.test(word)],
        ['text-decoration-style', 'solid', (word) => /^(solid|double|dotted|dashed|wavy)$/i.test(word)],
        ['text-decoration-thickness', 'auto', (word) => word === 'auto' || word === 'from-font' || isWidth(word)],
        ['text-decoration-color', 'currentcolor', () => true],
      ]);
    case 'flex':
      return flex(value);
    case 'flex-flow':
      return byKind(value, [
        ['flex-wrap', 'nowrap', (word) => /wrap/i.test(word)],
        ['flex-direction', 'row', () => true],
      ]);
    case 'columns':
      return byKind(value, [
        ['column-count', 'auto', (word) => /^\d+$/.test(word)],
        ['column-width', 'auto', () => true],
      ]);
    case 'font':
      return font(value, reset);
    case 'background':
      return background(value, reset);
    case 'border-radius': {
      const [horizontal = ''] = value.split('/');
      const [a = value, b = a, c = a, d = b] = words(horizontal);
      return value.includes('/') ? all(reset) : reset.map((longhand, at) => ({ property: longhand, value: [a, b, c, d][at]! }));
    }
    default:
      return all(reset);
  }
}

function flex(value: string): Longhand[] {
  const known: Readonly<Record<string, [string, string, string]>> = { none: ['0', '0', 'auto'], auto: ['1', '1', 'auto'] };
  const parts = words(value);
  const numbers = parts.filter((word) => /^[+-]?(\d+\.?\d*|\.\d+)$/.test(word));
  const basis = parts.find((word) => !numbers.includes(word));
  const [grow, shrink, base] = known[value.trim().toLowerCase()] ?? [
    numbers[0] ?? '1',
    numbers[1] ?? '1',
    basis ?? (numbers.length > 2 ? numbers[2]! : numbers.length > 0 ? '0%' : 'auto'),
  ];
  return [
    { property: 'flex-grow', value: grow },
    { property: 'flex-shrink', value: shrink },
    { property: 'flex-basis', value: base },
  ];
}

/** `font` (CSS Fonts Level 4, section 2.7): what stands before the size in any order, then size, line height and families. */
function font(value: string, names: readonly string[]): Longhand[] {
  if (/^(caption|icon|menu|message-box|small-caption|status-bar)$/i.test(value.trim()))
    return names.map((property) => ({ property, value }));
  const parts = value.trim().match(/(?:[^\s("']|\([^()]*(?:\([^()]*\)[^()]*)*\)|"[^"]*"|'[^']*')+/g) ?? [];
  const isSize = (word: string): boolean =>
    /^(xx-small|x-small|small|medium|large|x-large|xx-large|xxx-large|larger|smaller)(\/|$)/i.test(word) ||
    /^[+-]?[\d.]+(%|[a-z]+)/i.test(word) ||
    /^0(\/|$)/.test(word) ||
    /^(calc|min|max|clamp)\(/i.test(word);
  const at = parts.findIndex(isSize);
  if (at === -1) return names.map((property) => ({ property, value }));
  const before = parts.slice(0, at).filter((word) => word.toLowerCase() !== 'normal');
  const take = (fits: RegExp, initial: string): string => {
    const found = before.findIndex((word) => fits.test(word));
    return found === -1 ? initial : before.splice(found, 1)[0]!;
  };
  // The line height stands behind a slash, with or without spaces around it.
  const rest = parts
    .slice(at)
    .join(' ')
    .replace(/\s*\/\s*/, '/');
  const [sized = '', ...families] = rest.split(' ');
  const slash = sized.indexOf('/');
  return [
    { property: 'font-style', value: take(/^(italic|oblique)$/i, 'normal') },
    { property: 'font-variant-caps', value: take(/^small-caps$/i, 'normal') },
    { property: 'font-weight', value: take(/^(bold|bolder|lighter|\d{1,4})$/i, 'normal') },
    { property: 'font-stretch', value: take(/^(ultra-|extra-|semi-)?(condensed|expanded)$/i, 'normal') },
    { property: 'font-size', value: slash === -1 ? sized : sized.slice(0, slash) },
    { property: 'line-height', value: slash === -1 ? 'normal' : sized.slice(slash + 1) },
    { property: 'font-family', value: families.join(' ') },
  ];
}

/** `background`: the colour is told apart; of the rest, what a single layer plainly says. */
function background(value: string, names: readonly string[]): Longhand[] {
  const parts = words(value);
  const isImage = (word: string): boolean =>
    word === 'none' || /^(url|image|image-set|cross-fade|element|(repeating-)?(linear|radial|conic)-gradient)\(/i.test(word);
  const isRepeat = (word: string): boolean => /^(repeat|repeat-x|repeat-y|no-repeat|space|round)$/i.test(word);
  const isAttachment = (word: string): boolean => /^(scroll|fixed|local)$/i.test(word);
  const isBox = (word: string): boolean => /^(border|padding|content)-box$/i.test(word);
  const isPlace = (word: string): boolean =>
    /^(left|right|top|bottom|center)$/i.test(word) || /^[+-]?(\d|\.\d)/.test(word) || /^calc\(/i.test(word);
  const isSize = (word: string): boolean => /^(cover|contain)$/i.test(word);
  const colour = [...parts]
    .reverse()
    .find(
      (word) =>
        !isImage(word) &&
        !isRepeat(word) &&
        !isAttachment(word) &&
        !isBox(word) &&
        !isPlace(word) &&
        !isSize(word) &&
        word !== '/' &&
        word !== ',',
    );
  const isSimple = !parts.includes(',') && !parts.includes('/');
  const pick = (fits: (word: string) => boolean, initial: string): string => {
    const found = parts.filter(fits);
    return found.length === 0 ? initial : isSimple ? found.join(' ') : value;
  };
  const values: Readonly<Record<string, string>> = {
    'background-color': colour ?? 'transparent',
    'background-image': pick(isImage, 'none'),
    'background-repeat': pick(isRepeat, 'repeat'),
    'background-attachment': pick(isAttachment, 'scroll'),
    'background-position-x': pick(isPlace, '0%'),
    'background-position-y': pick(isPlace, '0%'),
    'background-size': isSimple ? 'auto' : value,
    'background-origin': pick(isBox, 'padding-box'),
    'background-clip': pick(isBox, 'border-box'),
  };
  return names.map((property) => ({ property, value: values[property]! }));
}
