import { elementsIn } from '../css/cascade';
import { parseFragment } from '../html/parse';
import type { Field, Site } from './schema';

/** A page of the site that help links to. */
export interface HelpLink {
  /** Where in the help: `link` or `long`. */
  part: 'link' | 'long';
  path: string;
}

/** The pages of the site that a field's help links to. Addresses of other sites are not ours to know. */
export function helpLinks({ help }: Pick<Field, 'help'>): HelpLink[] {
  const addresses: [HelpLink['part'], string][] = [
    ['link', help.link],
    ...[...elementsIn(parseFragment(help.long).root)].map((element): [HelpLink['part'], string] => [
      'long',
      element.attribute('href') ?? '',
    ]),
  ];
  return addresses
    .filter(([, address]) => /^\/(?!\/)/.test(address))
    .map(([part, address]) => ({ part, path: address.replace(/[?#].*$/, '') }));
}

/** The pages of the site that any help links to, each once. */
export function pagesOfHelp({ types }: Pick<Site, 'types'>): string[] {
  return [...new Set(types.flatMap(({ fields }) => fields.flatMap((field) => helpLinks(field).map(({ path }) => path))))];
}
