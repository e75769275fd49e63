import * as z from 'zod';

/* Names as rules write them. */

export const elementName = z.string().regex(/^[a-z][a-z0-9-]*$/, 'must be an element name in lower case');
export const attributeName = z.string().regex(/^[a-z][a-z0-9_:.-]*$/, 'must be an attribute name in lower case');
export const propertyName = z.string().regex(/^-?[a-z][a-z-]*$/, 'must be a CSS property in lower case');
export const scheme = z.string().regex(/^[a-z][a-z0-9+.-]*$/, 'must be a URL scheme without the colon, such as "https"');
