import type { Provider } from '@angular/core';
import { MAT_TOOLTIP_DEFAULT_OPTIONS, type MatTooltipDefaultOptions } from '@angular/material/tooltip';

/** How tooltips behave everywhere: they wait until a pointer rests. Whoever shows some provides it, so that the first view needs none. */
export const TOOLTIPS: Provider = {
  provide: MAT_TOOLTIP_DEFAULT_OPTIONS,
  useValue: { showDelay: 400, hideDelay: 0, touchendHideDelay: 1000 } satisfies MatTooltipDefaultOptions,
};
