import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Takes named elements and attributes away, wherever they stand. Event attributes always go. */
export const elements: Pass<'elements'> = {
  id: 'elements',
  label: 'Elements and attributes',
  effect: 'Named elements and attributes go.',
  run({ root, settings, report }) {
    const [unwrapped, dropped, attributes] = [new Set(settings.unwrap), new Set(settings.drop), new Set(settings.attributes)];
    transform(root, {
      element(element) {
        if (dropped.has(element.name)) {
          report.removed(element, 'change');
          return 'drop';
        }
        if (unwrapped.has(element.name)) {
          report.unwrapped(element);
          return 'unwrap';
        }
        for (const { name } of [...element.attributes])
          if (attributes.has(name) || name.startsWith('on')) {
            setAttribute(element, name, null);
            report.changed(element, '');
          }
        return 'keep';
      },
    });
  },
};
