import type { MiddlewareHandler } from 'hono';
import { secureHeaders } from 'hono/secure-headers';
import { problem } from './problem';

/**
 * Guards a server that listens on loopback and knows no sign-in: a page from elsewhere, open in the same browser, must not reach it.
 * Requests whose Host is not a loopback name are refused (a foreign name that was made to point here), and so are
 * changes that another origin asks for (Fetch Metadata, and Origin where a browser does not send that).
 */
export function loopbackOnly(): MiddlewareHandler {
  return async (context, next) => {
    const host = context.req.header('host') ?? '';
    if (!isLoopback(host)) return problem(context, 403, 'This server answers only to its loopback address.');
    if (!['GET', 'HEAD', 'OPTIONS'].includes(context.req.method)) {
      const site = context.req.header('sec-fetch-site');
      const origin = context.req.header('origin');
      const isForeign = site !== undefined ? site !== 'same-origin' && site !== 'none' : origin !== undefined && hostOf(origin) !== host;
      if (isForeign) return problem(context, 403, 'Changes can only be made from Typikon itself.');
    }
    await next();
    return undefined;
  };
}

/**
 * Guards the site stand-in: it answers only to loopback names, and a page from elsewhere cannot post to it. The application
 * has another origin, and may.
 */
export function fromApplication(origins: readonly string[]): MiddlewareHandler {
  return async (context, next) => {
    if (!isLoopback(context.req.header('host') ?? '')) return problem(context, 403, 'This server answers only to its loopback address.');
    if (!['GET', 'HEAD', 'OPTIONS'].includes(context.req.method)) {
      const origin = context.req.header('origin');
      const site = context.req.header('sec-fetch-site');
      // The application names no origin when it posts a form (its referrer policy), but browsers tell from where it came.
      const isKnown =
        site === undefined ? origin === undefined || origins.includes(origin) : ['same-origin', 'same-site', 'none'].includes(site);
      if (!isKnown) return problem(context, 403, 'Pages can only be tried from Typikon itself.');
    }
    await next();
    return undefined;
  };
}

const isLoopback = (host: string): boolean => /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i.test(host);

/** The host that an origin names; nothing for one that names none, such as `null`. */
function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}

/** Headers of the application: nothing but its own scripts run, and only the site stand-in may be framed. */
export function applicationHeaders(siteOrigins: readonly string[]): MiddlewareHandler {
  const full = secureHeaders({
    contentSecurityPolicy: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      // Component frameworks and the two editors add style elements as they run.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', ...siteOrigins],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      frameSrc: ["'self'", ...siteOrigins],
      workerSrc: ["'self'"],
      formAction: ["'self'", ...siteOrigins],
      objectSrc: ["'none'"],
      // The author's frame reads relative addresses as the site would.
      baseUri: ["'self'", ...siteOrigins],
      frameAncestors: ["'none'"],
    },
    crossOriginOpenerPolicy: 'same-origin',
    referrerPolicy: 'no-referrer',
    xFrameOptions: 'DENY',
  });
  return async (context, next) => {
    await full(context, next);
    // A script, a style or a font of a page is under the policy of that page; a worker's own script brings the worker's.
    if (context.res.ok && PART_OF_A_PAGE.test(context.req.path)) for (const name of OF_PAGES) context.res.headers.delete(name);
  };
}

/** What only a page, or something that is framed or opened, needs. */
const OF_PAGES = [
  'content-security-policy',
  'cross-origin-opener-policy',
  'origin-agent-cluster',
  'referrer-policy',
  'strict-transport-security',
  'x-dns-prefetch-control',
  'x-download-options',
  'x-frame-options',
  'x-permitted-cross-domain-policies',
  'x-xss-protection',
];

/** Files that a page of the application is made of, by the names that the build gives. */
const PART_OF_A_PAGE = /^\/(?:(?:chunk|main|styles)-[A-Za-z0-9_-]{8}\.(?:js|css)|media\/[^/]+)$/;

/** Headers of the published page stand-in: no scripts at all, whatever the content holds. */
export function siteHeaders(applicationOrigins: readonly string[]): MiddlewareHandler {
  return secureHeaders({
    contentSecurityPolicy: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'none'"],
      styleSrc: ["'self'"],
      imgSrc: ["'self'", 'data:'],
      fontSrc: ["'self'"],
      formAction: ["'none'"],
      baseUri: ["'none'"],
      frameAncestors: ["'self'", ...applicationOrigins],
    },
    xFrameOptions: false,
    referrerPolicy: 'no-referrer',
    crossOriginResourcePolicy: 'cross-origin',
  });
}
