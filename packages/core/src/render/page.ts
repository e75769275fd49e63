import * as z from 'zod';
import { escapeAttribute, escapeText } from '../html/serialize';
import { idSchema } from '../profile/schema';

/** A kind of published page: the markup around the content, its stylesheets in order, the width of its column. */
export const pageKindSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1),
  /** The elements around the content, from the outside in. */
  wrapper: z.array(z.strictObject({ element: z.string().regex(/^[a-z][a-z0-9]*$/), className: z.string().optional() })).min(1),
  stylesheets: z.array(idSchema),
  contentWidthPx: z.int().min(200).max(2000),
});
export type PageKind = z.output<typeof pageKindSchema>;

export interface PageContent {
  /** The page's title, plain text. */
  title: string;
  /** Clean markup. */
  html: string;
  /** The address of each stylesheet, in order. */
  stylesheetAddresses: readonly string[];
  /** BCP 47; the language of the page. */
  language?: string;
}

/**
 * Builds a published page around clean content, as plain markup without scripts.
 *
 * @param kind what the page is
 * @param content clean markup and what stands around it; the title is escaped here
 */
export function renderPage(kind: PageKind, { title, html, stylesheetAddresses, language = 'en-GB' }: PageContent): string {
  const links = stylesheetAddresses.map((address) => `<link rel="stylesheet" href="${escapeAttribute(address)}">`).join('\n');
  const open = kind.wrapper
    .map(({ element, className }) => (className === undefined ? `<${element}>` : `<${element} class="${escapeAttribute(className)}">`))
    .join('');
  const close = [...kind.wrapper]
    .reverse()
    .map(({ element }) => `</${element}>`)
    .join('');
  return `<!doctype html>
<html lang="${escapeAttribute(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeText(title)}</title>
${links}
</head>
<body>
${open}<h1>${escapeText(title)}</h1>
${html}
${close}
</body>
</html>
`;
}
