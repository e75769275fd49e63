import type { ElementNode, ParentNode } from '../../html/node';
import { hasLetters } from '../../html/text';
import { elementsOf, transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass, Reporter } from '../pass';

/** Addresses that lead to the computer of whoever copied, or into the program they copied from. */
const LOCAL = /^\s*(?:file:|\/?[a-z]:[\\/]|\\\\|cid:|mid:|about:|chrome:|vscode:|onenote:|ms-[a-z]+:)/i;

/** Addresses that run code; the safety floor takes them in any case, but would leave a link to nowhere. */
// eslint-disable-next-line no-control-regex -- browsers skip these characters before a scheme
const RUNS_CODE = /^[\u0000-\u0020]*(?:j\s*a\s*v\s*a|v\s*b)\s*s\s*c\s*r\s*i\s*p\s*t\s*:/i;

/** Mends links: local addresses, tracking parameters, redirect wrappers, bookmarks that nothing points to. */
export const links: Pass<'links'> = {
  id: 'links',
  finds: ({ elements, attributes }) => elements.has('a') || attributes.has('id'),
  run({ root, settings, report }) {
    const pointedTo = settings.bookmarks === 'used' ? fragmentsIn(root) : null;
    transform(root, {
      element(element, parent, before) {
        if (element.name !== 'a') {
          const id = element.attribute('id');
          // Programs give ids to everything; one that nothing points to would only clash with the page's own.
          if (id !== undefined && pointedTo !== null && !pointedTo.has(id)) {
            report.attribute(element, 'id');
            setAttribute(element, 'id', null);
          }
          return 'keep';
        }
        const href = element.attribute('href');
        if (href !== undefined) {
          if (RUNS_CODE.test(href) || isLocal(href, settings.local) || settings.unwrapHosts.some((host) => isHostOf(href, host))) {
            return report.unwrap(element);
          }
          const mended = withoutTracking(withoutRedirect(href, settings.redirects), settings.parameters);
          if (mended !== href) {
            report.attribute(element, 'href', `href="${mended}"`, 'change');
            setAttribute(element, 'href', mended);
          }
          return 'keep';
        }
        const name = element.attribute('id') ?? element.attribute('name');
        const isUsed = name !== undefined && (pointedTo === null || pointedTo.has(name));
        if (settings.bookmarks === 'keep') return 'keep';
        if (settings.bookmarks === 'used' && isUsed) return moveBookmark(element, parent, before, name, report);
        return report.unwrap(element);
      },
    });
  },
};

/**
 * A bookmark by `name` becomes an id (HTML, section 16.2): that of the block it begins, where that has none, or its own.
 */
function moveBookmark(anchor: ElementNode, parent: ParentNode, before: number, name: string, report: Reporter): 'keep' | 'unwrap' {
  let isFirst = true;
  for (let i = 0; i < before && isFirst; i++) {
    const child = parent.children[i]!;
    isFirst = child.type === 'text' && !hasLetters(child.value);
  }
  if (isFirst && parent.type === 'element' && /^(h[1-6]|p|li|dt|dd)$/.test(parent.name) && parent.attribute('id') === undefined) {
    setAttribute(parent, 'id', name);
    report.changed(anchor, `id="${name}"`, 'tidy', 0, 'paste-bookmark');
    return 'unwrap';
  }
  if (anchor.attribute('id') === undefined) {
    report.attribute(anchor, 'name', `id="${name}"`, 'tidy', 'paste-bookmark');
    setAttribute(anchor, 'id', name);
    setAttribute(anchor, 'name', null);
  }
  return 'keep';
}

function isLocal(href: string, local: 'unwrap' | 'keep'): boolean {
  return local === 'unwrap' && LOCAL.test(href);
}

function isHostOf(href: string, host: string): boolean {
  const found = /^\s*(?:https?:)?\/\/(?:[^/?#@]*@)?([^/?#]+)/i.exec(href)?.[1]?.toLowerCase();
  return found !== undefined && (found === host || found.endsWith(`.${host}`));
}

/** Attributes whose words are ids of other elements. */
const REFERENCES = ['for', 'headers', 'aria-labelledby', 'aria-describedby', 'aria-controls', 'aria-owns', 'aria-details', 'list'];

/** Every name that something in a tree points to. */
function fragmentsIn(root: ParentNode): Set<string> {
  const names = new Set<string>();
  for (const element of elementsOf(root)) {
    if (element.attributes.length === 0) continue;
    const href = element.attribute('href');
    if (href?.startsWith('#') === true) names.add(href.slice(1));
    for (const name of REFERENCES) for (const id of element.attribute(name)?.split(/\s+/) ?? []) names.add(id);
  }
  return names;
}

/** The address that a redirect wrapper of a mail program or the like leads to in the end. */
export function withoutRedirect(href: string, redirects: readonly { host: string; parameter: string }[]): string {
  let address = href;
  for (let step = 0; step < 5; step++) {
    const match = /^https?:\/\/([^/?#]+)[^?#]*\?([^#]*)/i.exec(address);
    if (match === null) return address;
    const host = match[1]!.toLowerCase();
    const rule = redirects.find((known) => host === known.host || host.endsWith(`.${known.host}`));
    const inner = rule === undefined ? undefined : parametersOf(match[2]!).find(([name]) => name === rule.parameter)?.[1];
    if (inner === undefined) return address;
    const decoded = decode(inner);
    // Only an address of the web takes the wrapper's place.
    if (!/^https?:\/\//i.test(decoded)) return address;
    address = decoded;
  }
  return address;
}

/** The address without parameters that only tell who clicked. */
export function withoutTracking(href: string, parameters: readonly string[]): string {
  const question = href.indexOf('?');
  if (question === -1) return href;
  const hash = href.indexOf('#', question);
  const query = href.slice(question + 1, hash === -1 ? undefined : hash);
  const isTracking = (name: string): boolean =>
    parameters.some((known) => (known.endsWith('*') ? name.startsWith(known.slice(0, -1)) : name === known));
  const pieces = query.split('&');
  const kept = pieces.filter((piece) => !isTracking(decode(piece.split('=')[0]!)));
  if (kept.length === pieces.length) return href;
  return `${href.slice(0, question)}${kept.length === 0 ? '' : `?${kept.join('&')}`}${hash === -1 ? '' : href.slice(hash)}`;
}

function parametersOf(query: string): [string, string][] {
  return query.split('&').map((piece) => {
    const equals = piece.indexOf('=');
    return equals === -1 ? [piece, ''] : [piece.slice(0, equals), piece.slice(equals + 1)];
  });
}

function decode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
