import type { MiddlewareHandler } from 'hono';
import { problem } from './problem';

/** Nobody writes settings that stand in each other deeper than this. */
const DEEPEST_JSON = 100;
/** Nor has anybody this many of them. */
const MOST_VALUES = 200_000;

/** Whether JSON is shaped as settings are: neither too deep nor too many values. */
export const isSound = (text: string): boolean => {
  const { depth, values } = measureJson(text);
  return depth <= DEEPEST_JSON && values <= MOST_VALUES;
};

/**
 * Looks at JSON before it is read: what is nested too deep is refused, and half a surrogate pair, such as an emoji that was
 * cut in two, becomes U+FFFD as in any other text of the web (Web IDL, section 3.2.11, USVString).
 */
export function soundJson(): MiddlewareHandler {
  return async (context, next) => {
    const type = context.req.header('content-type') ?? '';
    if (/^application\/([\w.+-]+\+)?json/i.test(type) && context.req.raw.body !== null) {
      const text = await context.req.text();
      const { depth, values } = measureJson(text);
      if (depth > DEEPEST_JSON) return problem(context, 422, `The JSON is nested deeper than ${DEEPEST_JSON} levels. Nothing was saved.`);
      if (values > MOST_VALUES)
        return problem(context, 422, `The JSON holds more than ${MOST_VALUES.toLocaleString('en')} values. Nothing was saved.`);
      if (/\\ud[89a-f]/i.test(text))
        context.req.bodyCache = { text: Promise.resolve(wellFormed(text)) } as unknown as typeof context.req.bodyCache;
    }
    await next();
    return undefined;
  };
}

/** How deep a text's brackets stand in each other, and about how many values it holds; it stops looking where either is too much. */
export function measureJson(text: string): { depth: number; values: number } {
  let [depth, deepest, values] = [0, 0, 1];
  for (let i = 0; i < text.length && deepest <= DEEPEST_JSON && values <= MOST_VALUES; i++) {
    const code = text.charCodeAt(i);
    if (code === QUOTATION) i = endOfString(text, i);
    else if (code === COMMA) values++;
    else if (code === BRACKET || code === BRACE) {
      values++;
      deepest = Math.max(deepest, ++depth);
    } else if (code === CLOSE_BRACKET || code === CLOSE_BRACE) depth--;
  }
  return { depth: deepest, values };
}

function endOfString(text: string, from: number): number {
  let at = from + 1;
  for (; at < text.length && text.charCodeAt(at) !== QUOTATION; at++) if (text.charCodeAt(at) === BACKSLASH) at++;
  return at;
}

/** JSON in whose strings every escaped surrogate has its other half. */
export function wellFormed(json: string): string {
  return json.replace(
    /\\(?:u(d[89ab][0-9a-f]{2})(\\ud[c-f][0-9a-f]{2})?|u(d[c-f][0-9a-f]{2})|[^])/gi,
    (all, high: string | undefined, low: string | undefined, alone: string | undefined) =>
      (high !== undefined && low === undefined) || alone !== undefined ? '\\ufffd' : all,
  );
}

const COMMA = 0x2c;
const [QUOTATION, BACKSLASH, BRACKET, CLOSE_BRACKET, BRACE, CLOSE_BRACE] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d];
