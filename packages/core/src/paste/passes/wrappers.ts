import { transform } from '../../html/transform';
import type { Pass } from '../pass';

/** Unwraps elements that only carry what another program needed. */
export const wrappers: Pass<'wrappers'> = {
  id: 'wrappers',
  label: 'Wrappers',
  effect: 'Wrappers such as span and font go, their words stay.',
  run({ root, settings, report }) {
    const names = new Set(settings.elements);
    transform(root, {
      element(element) {
        if (!names.has(element.name) || (settings.which === 'bare' && element.attributes.length > 0)) return 'keep';
        report.unwrapped(element);
        return 'unwrap';
      },
    });
  },
};
