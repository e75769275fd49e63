import { inject, Injectable, Injector, type Type } from '@angular/core';
import type { MatDialogConfig, MatDialogRef } from '@angular/material/dialog';

/** Opens dialogs for parts that are there from the first: what dialogs are made of comes with the first of them. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  private readonly injector = inject(Injector);

  /** Loads a dialog's part, and what it stands in, and opens it. */
  async open<Part>(load: () => Promise<Type<Part>>, config: MatDialogConfig): Promise<MatDialogRef<Part>> {
    const [part, { MatDialog }] = await Promise.all([load(), import('@angular/material/dialog')]);
    return this.injector.get(MatDialog).open(part, config);
  }

  /** Whether one is open. */
  async isAnyOpen(): Promise<boolean> {
    const { MatDialog } = await import('@angular/material/dialog');
    return this.injector.get(MatDialog).openDialogs.length > 0;
  }
}
