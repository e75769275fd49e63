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
  if (!/^[a-z0-9.-]+(:\d+)?$/.test(host)) return null;
  // The port that goes with the scheme is no part of the name.
  return host.replace(schemeOf(address) === 'http' ? /:80$/ : /:443$/, '');
}

/**
 * Whether an address is at a host, as a rule names it: `cams.example`, `*.cams.example` for every host below it, with a
 * port or without, and with the begin of a path where only that part of the host is meant (`cams.example/embed/`).
 */
export function isAtHost(address: string, rule: string): boolean {
  const host = hostOf(address);
  if (host === null) return false;
  const slash = rule.indexOf('/');
  const name = slash === -1 ? rule : rule.slice(0, slash);
  if (name.startsWith('*.') ? !host.endsWith(name.slice(1)) || host.length < name.length : host !== name) return false;
  if (slash === -1) return true;
  const prefix = rule.slice(slash);
  const path = /^(?:[a-z][a-z0-9+.-]*:)?[/\\]{2}[^/\\?#]*([^?#]*)/i.exec(asBrowserReads(address))?.[1]!.replace(/\\/g, '/') ?? '';
  // Steps up, plain or disguised, would lead out of the path that was just found in front.
  if (/(^|\/)(\.|%2e){1,2}(\/|$)/i.test(path)) return false;
  return path === prefix || path.startsWith(prefix.endsWith('/') ? prefix : `${prefix}/`);
}

/** The media type of a data address, in lower case and without parameters (RFC 2397). */
export function dataTypeOf(address: string): string {
  return /^data:([^;,]*)/i.exec(asBrowserReads(address))?.[1]!.trim().toLowerCase() ?? '';
}

function asBrowserReads(address: string): string {
  // eslint-disable-next-line no-control-regex -- the URL standard names exactly these characters
  return address.replace(/^[\u0000-\u0020]+/, '').replace(/[\t\n\r]/g, '');
}
