import { Injectable } from '@angular/core';

/** The dictionary that hyphens at line ends are closed by. It is fetched at the first question, which it cannot answer yet. */
@Injectable({ providedIn: 'root' })
export class Dictionary {
  private known: ((word: string) => boolean) | null = null;
  private isLoading = false;

  knows(word: string): boolean {
    if (this.known === null) this.load();
    return this.known?.(word) ?? false;
  }

  private load(): void {
    if (this.isLoading) return;
    this.isLoading = true;
    Promise.all([
      import('./make-dictionary'),
      ...['aff', 'dic'].map(async (ending) => (await fetch(`/dictionaries/en-GB/index.${ending}`)).text()),
    ]).then(
      ([{ makeDictionary }, aff, dic]) => (this.known = makeDictionary(aff!, dic!)),
      () => (this.isLoading = false),
    );
  }
}
