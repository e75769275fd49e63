/**
 * The scheme of an address as a browser reads it (URL standard, section 4.4 "URL parsing"): leading control characters
 * and spaces do not count, and tabs and newlines are taken out wherever they stand.
 *
 * @returns the scheme in lower case, or null for a relative address
 */
export function schemeOf(address: string): string | null {
  return /^([a-z][a-z0-9+.-]*):/i.exec(asBrowserReads(address))?.[1]!.toLowerCase() ?? null;
}

/** The host and port of an address with two slashes, in lower case; null where it has none or it cannot be read for certain. */
export function hostOf(address: string): string | null {
  const match = /^(?:[a-z][a-z0-9+.-]*:)?[/\\]{2}([^/\\?#]*)/i.exec(asBrowserReads(address));
  if (match === null) return null;
  const authority = match[1]!;
  const host = authority.slice(authority.lastIndexOf('@') + 1).toLowerCase();
  return /^[a-z0-9.-]+(:\d+)?$/.test(host) ? host : null;
}

/** The media type of a data address, in lower case and without parameters (RFC 2397). */
export function dataTypeOf(address: string): string {
  return /^data:([^;,]*)/i.exec(asBrowserReads(address))?.[1]!.trim().toLowerCase() ?? '';
}

function asBrowserReads(address: string): string {
  // eslint-disable-next-line no-control-regex -- the URL standard names exactly these characters
  return address.replace(/^[\u0000-\u0020]+/, '').replace(/[\t\n\r]/g, '');
}
