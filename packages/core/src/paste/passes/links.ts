import type { ParentNode } from '../../html/node';
import { transform } from '../../html/transform';
import { elementsOf } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Addresses that lead to the computer of whoever copied, or into the program they copied from. */
const LOCAL = /^\s*(?:file:|[a-z]:[\\/]|\\\\|cid:|mid:|about:|chrome:|vscode:|onenote:|ms-[a-z]+:)/i;

/** Mends links: local addresses, tracking parameters, redirect wrappers, bookmarks that nothing points to. */
export const links: Pass<'links'> = {
  id: 'links',
  label: 'Links',
  effect: 'Links that work only where they come from go with their words kept; tracking goes; redirects are undone.',
  run({ root, settings, report }) {
    const pointedTo = settings.bookmarks === 'used' ? fragmentsIn(root) : null;
    transform(root, {
      element(element) {
        if (element.name !== 'a') return 'keep';
        const href = element.attribute('href');
        if (href !== undefined) {
          if (settings.local === 'unwrap' && LOCAL.test(href)) {
            report.unwrapped(element);
            return 'unwrap';
          }
          const mended = withoutTracking(withoutRedirect(href, settings.redirects), settings.parameters);
          if (mended !== href) {
            setAttribute(element, 'href', mended);
            report.changed(element, `href="${mended}"`, 'change');
          }
          return 'keep';
        }
        const name = element.attribute('name') ?? element.attribute('id');
        const isUsed = name !== undefined && (pointedTo === null || pointedTo.has(name));
        if (settings.bookmarks === 'keep' || (settings.bookmarks === 'used' && isUsed)) return 'keep';
        report.unwrapped(element);
        return 'unwrap';
      },
    });
  },
};

function fragmentsIn(root: ParentNode): Set<string> {
  return new Set(
    elementsOf(root).flatMap((element) =>
      element.attribute('href')?.startsWith('#') === true ? [element.attribute('href')!.slice(1)] : [],
    ),
  );
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
