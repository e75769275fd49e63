import { helpLinks } from '../../site/help-links';
import type { SiteCheck } from './check';

export const helpLinkNowhere: SiteCheck = {
  id: 'help-link-nowhere',
  label: 'Help that links to a page that the site has not',
  *run({ fields, pages }) {
    if (pages === undefined) return;
    for (const { type, field, pointer } of fields)
      for (const { part, path } of helpLinks(field))
        if (!pages.has(path))
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `The help of “${field.title}” links to ${path}, and the site has no such page.`,
            pointer: `${pointer}/help/${part}`,
            type: type.id,
            field: field.key,
          };
  },
};
