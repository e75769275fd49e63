import { inject, Injectable, Injector, signal, type Type } from '@angular/core';
import type { MatDialogConfig, MatDialogRef } from '@angular/material/dialog';

/** Opens dialogs for parts that are there from the first: what dialogs are made of comes with the first of them. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  private readonly injector = inject(Injector);
  /** Why the last one could not be opened; empty where it was. */
  readonly failure = signal('');

  /** Loads a dialog's part, and what it stands in, and opens it; null where they cannot be loaded, which is told at the top of the page. */
  async open<Part>(load: () => Promise<Type<Part>>, config: MatDialogConfig): Promise<MatDialogRef<Part> | null> {
    try {
      const [part, { MatDialog }] = await Promise.all([load(), import('@angular/material/dialog')]);
      this.failure.set('');
      return this.injector.get(MatDialog).open(part, config);
    } catch {
      this.failure.set('That could not be opened: the server does not answer. Nothing is lost; try it again.');
      return null;
    }
  }

  /** Whether one is open. None is while what they are made of has not come. */
  async isAnyOpen(): Promise<boolean> {
    const loaded = await import('@angular/material/dialog').catch(() => null);
    return loaded !== null && this.injector.get(loaded.MatDialog).openDialogs.length > 0;
  }
}
