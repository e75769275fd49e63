import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { IconNode } from 'lucide';
import { firstValueFrom } from 'rxjs';

/** The icons that ship with the application, by their names in lower-case words. They are loaded when one is first shown. */
@Injectable({ providedIn: 'root' })
export class IconSet {
  private readonly http = inject(HttpClient);
  private loaded: Promise<ReadonlyMap<string, IconNode>> | null = null;

  all(): Promise<ReadonlyMap<string, IconNode>> {
    this.loaded ??= firstValueFrom(this.http.get<Record<string, IconNode>>('/icons.json')).then(
      (set) => new Map(Object.entries(set)),
      // An icon is an ornament: without the set the words stand alone, and the next one asks again.
      () => {
        this.loaded = null;
        return new Map<string, IconNode>();
      },
    );
    return this.loaded;
  }

  /** An icon of the set; a plain sheet where there is none of the name. */
  async named(name: string): Promise<IconNode> {
    const set = await this.all();
    return set.get(name) ?? set.get('file') ?? [];
  }
}
