import { hasLetters } from '../../html/text';
import { transform } from '../../html/transform';
import { looseDeclarations, setAttribute, styleOf } from '../declarations';
import type { Pass } from '../pass';

/** Elements that stand in the head of an office page, or that only the program itself reads. */
const OFFICE_ONLY: ReadonlySet<string> = new Set(['xml', 'meta', 'link', 'style', 'title', 'base']);

/** Takes away what office programs put on the clipboard for themselves; tracked deletions and margin comments as they are set. */
export const officeLeftovers: Pass<'office-leftovers'> = {
  id: 'office-leftovers',
  label: 'Office leftovers',
  effect: 'Conditional comments, office namespaces and properties, empty anchors and tracked deletions go.',
  run({ root, settings, report }) {
    transform(root, {
      comment(comment) {
        report.removed(comment);
        return 'drop';
      },
      element(element) {
        const { name } = element;
        if (OFFICE_ONLY.has(name)) {
          report.removed(element);
          return 'drop';
        }
        if (name === 'del' && settings.deletions === 'drop') {
          report.removed(element);
          return 'drop';
        }
        if (
          settings.comments === 'drop' &&
          (/comment-list|comment$/.test(styleOf(element, 'mso-element')) || element.attribute('class') === 'MsoCommentReference')
        ) {
          report.removed(element);
          return 'drop';
        }
        if (name === 'ins' || name.includes(':') || isHiddenMarker(element)) {
          report.unwrapped(element);
          return 'unwrap';
        }
        if (name === 'a' && element.attributes.every(({ name: attribute }) => attribute === 'name') && !hasContent(element)) {
          report.removed(element);
          return 'drop';
        }
        const style = element.attribute('style');
        if (style !== undefined && /(?:^|[;\s])(?:mso-|tab-stops|-aw-)|page-break|text-underline-position/i.test(style)) {
          const kept = looseDeclarations(style).filter(
            // List and note properties are still needed by the passes that rebuild those.
            ({ property }) =>
              !/^(mso-(?!list|element|footnote|endnote|special-character)|tab-stops|-aw-|page-break|text-underline-position)/.test(
                property,
              ),
          );
          const after = kept.map(({ property, value }) => `${property}:${value}`).join(';');
          if (after !== style) {
            setAttribute(element, 'style', after === '' ? null : after);
            report.changed(element, after === '' ? '' : `style="${after}"`);
          }
        }
        const odd = element.attributes.filter(({ name: attribute }) =>
          /^(?:o|v|w|x|xmlns)(?::|$)|^(?:data-sheets-|sdnum|sdval)/.test(attribute),
        );
        for (const { name: attribute } of odd) {
          setAttribute(element, attribute, null);
          report.changed(element, '');
        }
        return 'keep';
      },
    });
  },
};

function hasContent(element: { children: readonly { type: string; value?: string }[] }): boolean {
  return element.children.some((child) => child.type === 'element' || (child.type === 'text' && hasLetters(child.value ?? '')));
}

/** The wrapper that an online word processor puts around everything: bold that is not bold. */
function isHiddenMarker(element: Parameters<typeof styleOf>[0]): boolean {
  return element.name === 'b' && /docs-internal-guid/.test(element.attribute('id') ?? '') && styleOf(element, 'font-weight') === 'normal';
}
