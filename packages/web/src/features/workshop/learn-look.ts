import type { MatDialogConfig } from '@angular/material/dialog';

/** How the dialog is opened, from wherever. */
export const LEARN_DIALOG: MatDialogConfig = { width: '760px', maxWidth: '94vw', maxHeight: '92vh' };
