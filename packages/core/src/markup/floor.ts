import { CLOBBERING_NAMES } from './clobbering-names';

/**
 * The safety floor: what no profile, no house limit and no role can let through. Ledger entries of the layer
 * `safety-floor` point into this document.
 *
 * It rests on these parts of the HTML standard: 4.12 "Scripting", 7 "Loading web pages" (event handler attributes and
 * `javascript:` addresses), 13.2.6.5 (foreign content, where the parser changes its rules and mutation begins), and
 * 13.3 "Serializing HTML fragments", whose warning names the elements whose text is written without escaping.
 */
export const SAFETY_FLOOR = {
  elements: {
    /** Run code, load a whole document or change the page around the content: they go, with what they hold. */
    drop: [
      'applet',
      'base',
      'bgsound',
      'embed',
      'frame',
      'frameset',
      'link',
      'meta',
      'noembed',
      'noframes',
      'noscript',
      'object',
      'script',
      'style',
      'template',
      'title',
      'head',
      'basefont',
      'param',
      'portal',
      'fencedframe',
    ],
    /** Their tags upset the parser or stand for a whole page; what they hold may stay. */
    unwrap: ['html', 'body', 'plaintext', 'xmp', 'listing', 'marquee', 'isindex', 'image', 'slot', 'nobr', 'menuitem', 'keygen'],
  },
  /** Elements of SVG and MathML: dropped whole, since their parsing rules let harmless text turn into markup. */
  foreign: 'drop',
  attributes: {
    /** Every attribute whose name begins like this is an event handler. */
    prefix: 'on',
    /** Hold markup or an address that is loaded, sent or run without being seen; or could pass for the page's own wiring. */
    names: [
      'srcdoc',
      'formaction',
      'ping',
      'manifest',
      'archive',
      'codebase',
      'classid',
      'code',
      'data',
      'dynsrc',
      'lowsrc',
      'background',
      'profile',
      'xmlns',
      'is',
      'slot',
      'nonce',
      'integrity',
      'http-equiv',
      'autofocus',
      'form',
      'srcset',
      'imagesrcset',
      'attributionsrc',
      'shadowrootmode',
      'popovertarget',
      'commandfor',
      'command',
    ],
  },
  /** Where these elements carry a name, the page's own properties hide behind it (HTML, section 7.2.2.3 "Named access"). */
  nameless: ['img', 'iframe', 'form', 'embed', 'object'],
  /**
   * Content that takes one of these as its `id` or `name` would hide a part of the page from the page's own code (DOM,
   * named access on the window, the document and forms).
   */
  clobberingNames: CLOBBERING_NAMES,
  /** A link that hands the page it opens a way back into ours (HTML, section 4.6.7.13 "Link type opener"). */
  rel: ['opener'],
  /** Style declarations that CSS does not know, that fetch or run something, or that are not what they seem. */
  style: 'properties that CSS knows, values by its grammar, no url(), no variables, no escapes, no comments',
  /** A frame that could take the reader's page elsewhere is not closed in. */
  sandboxTokens: ['allow-top-navigation', 'allow-top-navigation-by-user-activation', 'allow-top-navigation-to-custom-protocols'],
  /** Addresses with these schemes run code or show a document of their own making (URL standard, section 4.1; RFC 3986). */
  schemes: [
    'javascript',
    'vbscript',
    'livescript',
    'mocha',
    'data',
    'blob',
    'filesystem',
    'view-source',
    'about',
    'jar',
    'ms-its',
    'mhtml',
    'mk',
  ],
  /** What stays of data addresses: pictures that cannot hold script, in `src` of `img` alone. */
  dataPictures: ['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif'],
  /** Comments that could end early, or that some program reads as markup, go even where comments stay. */
  comments: 'drop those that hold <, > or a run of hyphens, or begin like a condition',
  /** What never reads back as the tree it was written from is kept as text alone. */
  nesting: 'text',
  /** A page of our own in a frame that may run scripts must not count as ours: together they undo the frame (HTML, section 4.8.5). */
  ownFrame: 'allow-same-origin only without allow-scripts, or for another site',
  /** A frame is always closed in, whatever it brings along. */
  frame: { sandbox: 'allow-scripts allow-popups' },
} as const;

/** Attributes whose value is an address (HTML, section "Attributes", those typed as URL), and so always tested as one. */
export const URL_ATTRIBUTES: ReadonlySet<string> = new Set([
  'href',
  'src',
  'cite',
  'action',
  'poster',
  'longdesc',
  'usemap',
  'itemid',
  'itemtype',
  'xlink:href',
]);

const floorAttributes: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.attributes.names);
const nameless: ReadonlySet<string> = new Set<string>(SAFETY_FLOOR.nameless);

/** Whether the safety floor takes an attribute away whatever the rules say; some it takes off one element alone. */
export function isAttributeForbidden(name: string, element = ''): boolean {
  return (
    name.startsWith(SAFETY_FLOOR.attributes.prefix) ||
    floorAttributes.has(name) ||
    (name === 'name' && nameless.has(element)) ||
    name.startsWith('xmlns:') ||
    name.startsWith('formaction')
  );
}
