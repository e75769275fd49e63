/** What the reader has to know of an element. */
export enum Is {
  /** Stands in a line: the algorithm closes nothing for it ("any other start tag"). */
  Inline = 0,
  /** A `p` that is open around it would be closed for it. */
  Block = 1,
  /** Holds nothing and has no end tag. */
  Void = 2,
  /** A void element that would close a `p`. */
  VoidBlock = 3,
  Heading = 4,
  Paragraph = 5,
  Anchor = 6,
  Item = 7,
  Description = 8,
  RubyPart = 9,
  Table = 10,
  Section = 11,
  Row = 12,
  Cell = 13,
  Caption = 14,
  Columns = 15,
  Column = 16,
  /** Keeps the line break behind its start tag to itself. */
  Preformatted = 17,
  Frame = 18,
  /** Holds text to the letter, up to its end tag. */
  Raw = 19,
  /** Belongs to a page: its tags are left out. */
  Page = 20,
}

export interface Known {
  name: string;
  is: Is;
}

const KNOWN = new Map<string, Known>();
const know = (is: Is, names: string): void => {
  for (const name of names.split(' ')) KNOWN.set(name, { name, is });
};
know(
  Is.Inline,
  'abbr acronym audio b bdi bdo big canvas cite code data del dfn em font i ins kbd label map mark meter output picture progress q ruby s samp',
);
know(Is.Inline, 'slot small span strike strong sub sup time tt u var video');
know(
  Is.Block,
  'address article aside blockquote center details dialog dir div dl fieldset figcaption figure footer header hgroup main menu nav ol search',
);
know(Is.Block, 'section summary ul');
know(Is.Void, 'area base basefont bgsound br embed img input link meta param source track wbr');
know(Is.VoidBlock, 'hr');
know(Is.Heading, 'h1 h2 h3 h4 h5 h6');
know(Is.Paragraph, 'p');
know(Is.Anchor, 'a');
know(Is.Item, 'li');
know(Is.Description, 'dt dd');
know(Is.RubyPart, 'rb rp rt');
know(Is.Table, 'table');
know(Is.Section, 'thead tbody tfoot');
know(Is.Row, 'tr');
know(Is.Cell, 'td th');
know(Is.Caption, 'caption');
know(Is.Columns, 'colgroup');
know(Is.Column, 'col');
know(Is.Preformatted, 'pre listing');
know(Is.Frame, 'iframe');
know(Is.Raw, 'script style title');
know(Is.Page, 'body head html');

/** Elements in which an item of a list stands. */
export const LISTS: ReadonlySet<string> = new Set(['ul', 'ol', 'menu', 'dir']);

/** Elements for which the algorithm has rules that the quick reader does not follow. */
const LEFT_ALONE: ReadonlySet<string> = new Set(
  (
    'applet button form frame frameset image keygen marquee math nobr noembed noframes noscript object optgroup option ' +
    'plaintext rtc select selectedcontent svg template textarea xmp'
  ).split(' '),
);

/** So many other names are remembered. */
const MOST_OTHERS = 500;
let others = 0;

/** What is known of an element by its name; of one without rules of its own, that it stands in a line. Null for one that is left alone. */
export function knownElement(name: string): Known | null {
  const known = KNOWN.get(name);
  if (known !== undefined) return known;
  if (LEFT_ALONE.has(name)) return null;
  const other: Known = { name, is: Is.Inline };
  if (others < MOST_OTHERS) {
    others++;
    KNOWN.set(name, other);
  }
  return other;
}
