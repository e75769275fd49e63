import * as z from 'zod';
import { escapeAttribute, escapeText } from '../html/serialize';
import { idSchema } from '../profile/basic-schema';
import { PLAIN_TEMPLATE, printTemplate, readTemplate, REST_SLOT, textSlot, TITLE_SLOT } from './template';

/** What may stand around content (HTML, section 4.3, and the element without meaning). */
export const WRAPPER_ELEMENTS = ['main', 'article', 'section', 'div', 'aside', 'header', 'footer', 'nav', 'figure', 'center'] as const;

/** A kind of published page: the markup around the content, its stylesheets in order, the width of its column. */
export const pageKindSchema = z.strictObject({
  id: idSchema,
  name: z.string().min(1),
  /** The elements around the content, from the outside in: those that stand around parts of a page, and none that runs or hides it. */
  wrapper: z
    .array(z.strictObject({ element: z.enum(WRAPPER_ELEMENTS), className: z.string().max(200).optional() }))
    .min(1)
    .max(12),
  /** What stands within the wrapper: markup with slots for the fields. Without it, the title and then everything else. */
  template: z
    .string()
    .max(20_000)
    .superRefine((text, context) => {
      for (const message of readTemplate(text).problems) context.addIssue({ code: 'custom', message });
    })
    .optional(),
  /** In the order in which they are loaded, none of them twice. */
  stylesheets: z.array(idSchema).refine((ids) => new Set(ids).size === ids.length, 'must name no stylesheet twice'),
  contentWidthPx: z.int().min(200).max(2000),
  /** How wide the windows are in which the page is tried. */
  widthsPx: z.array(z.int().min(200).max(4000)).max(8).default([1280, 768, 375]),
});
export type PageKind = z.output<typeof pageKindSchema>;

/** A CSS file of the site. */
export const stylesheetSchema = z.strictObject({
  id: idSchema,
  /** What it is for, in a few words. */
  purpose: z.string().max(300).default(''),
  /** The media query with which pages link it, such as `print`; empty for always. */
  media: z.string().max(200).default(''),
  css: z.string().max(1_000_000),
});
export type Stylesheet = z.output<typeof stylesheetSchema>;

export interface PageContent {
  /** The page's title, plain text. */
  title: string;
  /** Clean markup for each slot of the template by its name (`slotContents`), or markup that stands where the text goes. */
  html: string | ReadonlyMap<string, string>;
  /** The address of each stylesheet, in order, and the media query with which it is linked. */
  stylesheets: readonly { address: string; media?: string }[];
  /** BCP 47; the language of the page. */
  language?: string;
  /** Puts something around what a slot prints. */
  mark?: (name: string, html: string) => string;
}

/**
 * Builds a published page around clean content, as plain markup without scripts.
 *
 * @param kind what the page is
 * @param content clean markup and what stands around it; the title is escaped here
 */
export function renderPage(
  kind: Pick<PageKind, 'wrapper' | 'template'>,
  { title, html, stylesheets, language = 'en-GB', mark }: PageContent,
): string {
  const template = kind.template ?? PLAIN_TEMPLATE;
  const slots =
    typeof html === 'string'
      ? new Map([
          [TITLE_SLOT, escapeText(title)],
          [textSlot(template)?.name ?? REST_SLOT, html],
        ])
      : html;
  const links = stylesheets
    .map(
      ({ address, media = '' }) =>
        `<link rel="stylesheet" href="${escapeAttribute(address)}"${media === '' ? '' : ` media="${escapeAttribute(media)}"`}>`,
    )
    .join('\n');
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
${open}${printTemplate(template, slots, mark)}
${close}
</body>
</html>
`;
}
