/** The attributes of an element as they stand in the markup: every one that the rules let through. */
export type HtmlAttributes = Readonly<Record<string, string>>;

/*
 * The parser of HTML makes names of nearly any characters (HTML, section 13.2.5 "Tokenization"); the DOM takes fewer from a
 * script. What it does not take is kept in the text and not shown.
 */

/** Whether the DOM takes a name for an element or attribute (XML 1.0, production 5 "Name", its ASCII part). */
export function isDomName(name: string): boolean {
  return /^[a-z_:][-\w:.]*$/i.test(name);
}

/** The attributes of a node that its element can be shown with. */
export function shownAttributes(attributes: HtmlAttributes): HtmlAttributes {
  const entries = Object.entries(attributes);
  return entries.every(([name]) => isDomName(name)) ? attributes : Object.fromEntries(entries.filter(([name]) => isDomName(name)));
}
