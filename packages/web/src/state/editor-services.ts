import { Injectable, inject } from '@angular/core';
import type { EditorServices, Surface } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from './api';
import { wordsOf } from './ledger-words';
import { libraryFeature } from './library';
import { SpellingDesk } from './spelling';
import { cssOf, sheetsOf } from './style-files';
import type { Library } from './types';

/** What stands around the author's editor wherever it is shown: pictures, pages, dictionary, and words for what rules did. */
@Injectable({ providedIn: 'root' })
export class EditorSurroundings {
  private readonly api = inject(Api);
  private readonly spelling = inject(SpellingDesk);
  private readonly store = inject(Store);
  private readonly documents = this.store.selectSignal(libraryFeature.selectPages);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);

  readonly services: EditorServices = {
    pictures: {
      list: (query, folder) => firstValueFrom(this.api.pictures(query, folder)),
      folders: () => firstValueFrom(this.api.pictureFolders()),
      store: (file, options) => firstValueFrom(this.api.storePicture(file, options)),
    },
    pages: {
      find: (query) => {
        const words = query
          .toLowerCase()
          .split(/\s+/)
          .filter((word) => word !== '');
        return Promise.resolve(
          this.documents()
            .filter(({ title }) => words.every((word) => title.toLowerCase().includes(word)))
            .map(({ id, title, contentType }) => ({ title, address: `/documents/${id}`, kind: contentType })),
        );
      },
    },
    spelling: this.spelling,
    describe: (group) => wordsOf(group, (id) => this.names().get(id) ?? id).sentence,
  };
}

/** What the author types in: the stylesheets and width of a page kind. */
export function surfaceOf(library: Library, pageKind: string): Surface | null {
  const kind = library.pageKinds.find(({ id }) => id === pageKind) ?? library.pageKinds[0];
  return kind === undefined
    ? null
    : { pageKind: kind, css: sheetsOf(kind, library.stylesheets).map(cssOf), baseAddress: `${library.siteOrigin}/`, language: 'en-GB' };
}
