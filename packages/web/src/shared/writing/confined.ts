import { isOffered, type Field } from '@typikon/core';
import type { EditorServices } from '@typikon/editor';

/**
 * What an editor offers in a field: pages to link to from the field's folder alone, pictures from the field's folders alone, and
 * an author's own pictures into the one that is for them.
 */
export function confined(services: EditorServices, field: Pick<Field, 'linksWithin' | 'picturesFrom' | 'picturesInto'>): EditorServices {
  const { pictures, pages } = services;
  const { picturesFrom, picturesInto } = field;
  const folders = picturesFrom === '' ? null : [...new Set([picturesFrom, picturesInto].filter((folder) => folder !== ''))];
  return {
    ...services,
    ...(pages === undefined
      ? {}
      : { pages: { find: async (query) => (await pages.find(query)).filter(({ address }) => isOffered(field, address)) } }),
    ...(pictures === undefined
      ? {}
      : {
          pictures: {
            folders: async () => folders ?? (await pictures.folders()),
            list: async (query, folder) => {
              if (folders === null) return pictures.list(query, folder);
              const wanted = folder === '' ? folders : folders.filter((one) => one === folder);
              return (await Promise.all(wanted.map((one) => pictures.list(query, one)))).flat();
            },
            store: (file, options) => pictures.store(file, picturesInto === '' ? options : { ...options, folder: picturesInto }),
          },
        }),
  };
}
