/** Facts about HTML elements that the parser, the serializer and the measures share. All names are in lower case. */

/** Elements without an end tag (HTML, section 13.1.2 "Elements", void elements; with the obsolete ones of section 13.3). */
export const VOID_ELEMENTS: ReadonlySet<string> = new Set(
  'area base basefont bgsound br col embed frame hr img input keygen link meta param source track wbr'.split(' '),
);

/** Elements whose text is written without escaping (HTML, section 13.3 "Serializing HTML fragments"). */
export const RAW_TEXT_ELEMENTS: ReadonlySet<string> = new Set('style script xmp iframe noembed noframes plaintext noscript'.split(' '));

/** Elements whose text no reader sees (HTML, section 15.3.1 "Hidden elements", and those that stand in for unsupported content). */
export const HIDDEN_ELEMENTS: ReadonlySet<string> = new Set(
  'area base basefont datalist head iframe link meta noembed noframes noscript param script style template title'.split(' '),
);

/** Elements that show something although they hold no text: losing one is a loss that an author notices. */
export const REPLACED_ELEMENTS: ReadonlySet<string> = new Set(
  'applet audio canvas embed frame iframe img input math meter object picture progress select svg textarea video'.split(' '),
);

/** Elements that show nothing once their address is refused. */
export const NOTHING_WITHOUT_SOURCE: ReadonlySet<string> = new Set(['img', 'iframe', 'embed', 'source', 'track']);

const BLOCK_ELEMENTS: ReadonlySet<string> = new Set(
  'address article aside blockquote caption center col colgroup dd details dialog dir div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr legend li main menu nav ol optgroup option p pre search section summary table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

/** Whether an element stands on lines of its own (HTML, section 15.3 "Non-replaced elements"), so that white space beside it shows nothing. */
export function isBlock(name: string): boolean {
  return BLOCK_ELEMENTS.has(name);
}

/** White space in these stands as it was written (HTML, section 15.3.3). */
export const AS_WRITTEN: ReadonlySet<string> = new Set(['pre', 'textarea', 'listing', 'xmp', 'plaintext']);
