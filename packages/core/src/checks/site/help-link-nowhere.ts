import { parseFragment } from '../../html/parse';
import { elementsIn } from '../../css/cascade';
import type { SiteCheck } from './check';

export const helpLinkNowhere: SiteCheck = {
  id: 'help-link-nowhere',
  label: 'Help that links to a page that the site has not',
  *run({ fields, pages }) {
    if (pages === undefined) return;
    for (const { type, field, pointer } of fields) {
      const links: [string, string][] = [
        [`${pointer}/help/link`, field.help.link],
        ...[...elementsIn(parseFragment(field.help.long).root)].map((element): [string, string] => [
          `${pointer}/help/long`,
          element.attribute('href') ?? '',
        ]),
      ];
      for (const [at, address] of links) {
        // Addresses of other sites are not ours to know.
        if (!/^\/(?!\/)/.test(address)) continue;
        const path = address.replace(/[?#].*$/, '');
        if (!pages.has(path))
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `The help of “${field.title}” links to ${path}, and the site has no such page.`,
            pointer: at,
            type: type.id,
            field: field.key,
          };
      }
    }
  },
};
