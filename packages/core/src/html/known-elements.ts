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
}

export interface Known {
  name: string;
  is: Is;
}

/** The elements that the second reader knows; at any other it gives up. */
export const KNOWN = new Map<string, Known>();
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
know(Is.Void, 'area br embed img param source track wbr');
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

/** Elements in which an item of a list stands. */
export const LISTS: ReadonlySet<string> = new Set(['ul', 'ol', 'menu', 'dir']);
