import { Injectable, inject } from '@angular/core';
import type { EditorServices, Surface } from '@typikon/editor';
import { firstValueFrom } from 'rxjs';
import { Api } from './api';
import { ContractClient } from './contract-client';
import { SiteStore } from './site';
import { SpellingDesk } from './spelling';
import { cssOf, sheetsOf } from './style-files';
import type { Library } from './types';

/** So many pages are offered to link to; more words find others. */
const MOST_PAGES = 50;

/** What stands around the author's editor wherever it is shown: pictures, pages and dictionary. */
@Injectable({ providedIn: 'root' })
export class EditorSurroundings {
  private readonly api = inject(Api);
  private readonly client = inject(ContractClient);
  private readonly site = inject(SiteStore);
  private readonly spelling = inject(SpellingDesk);

  readonly services: EditorServices = {
    pictures: {
      list: (query, folder) => firstValueFrom(this.api.pictures(query, folder)),
      folders: () => firstValueFrom(this.api.pictureFolders()),
      store: (file, options) => firstValueFrom(this.api.storePicture(file, options)),
    },
    pages: {
      find: async (query) => {
        const asked = { words: query, limit: MOST_PAGES, sort: 'title' } as const;
        const { body } = await firstValueFrom(this.client.get('/documents', asked, {}));
        const types = new Map(this.site.held()?.types.map(({ id, label }) => [id, label]));
        const pages = body.documents.map(({ id, title, type }) => ({ title, address: `/documents/${id}`, kind: types.get(type) ?? type }));
        // Those that are called so come before those that only speak of it.
        const words = query.toLowerCase().split(/\s+/);
        const isCalled = ({ title }: { title: string }): boolean => words.every((word) => title.toLowerCase().includes(word));
        return [...pages.filter(isCalled), ...pages.filter((page) => !isCalled(page))];
      },
    },
    spelling: this.spelling,
  };
}

/** What the author types in: the stylesheets and width of a page kind. */
export function surfaceOf(library: Library, pageKind: string): Surface | null {
  const kind = library.pageKinds.find(({ id }) => id === pageKind) ?? library.pageKinds[0];
  return kind === undefined
    ? null
    : { pageKind: kind, css: sheetsOf(kind, library.stylesheets).map(cssOf), baseAddress: `${library.siteOrigin}/`, language: 'en-GB' };
}
