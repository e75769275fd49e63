import { effect, inject, type Signal } from '@angular/core';
import { MatDialogRef } from '@angular/material/dialog';

/**
 * Keeps the dialog that asks for it open while something holds, such as what it sent is not answered: neither Escape nor a press
 * beside it closes it then, so that a refusal is read by who caused it. Asked for where things are injected.
 */
export function staysWhile(holds: Signal<boolean>): void {
  const dialog = inject<MatDialogRef<unknown>>(MatDialogRef);
  effect(() => {
    dialog.disableClose = holds();
  });
}
