import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Takes named elements and attributes away, or all but those named. Event attributes always go. */
export const elements: Pass<'elements'> = {
  id: 'elements',
  label: 'Elements and attributes',
  effect: 'Named elements and attributes go; event handlers always.',
  unit: ['place', 'places'],
  run({ root, settings, report }) {
    const [unwrapped, dropped, attributes] = [new Set(settings.unwrap), new Set(settings.drop), new Set(settings.attributes)];
    const only = settings.only === undefined ? null : new Set(settings.only);
    const onlyAttributes = settings.onlyAttributes === undefined ? null : new Set(settings.onlyAttributes);
    transform(root, {
      element(element) {
        if (dropped.has(element.name)) {
          report.removed(element, 'change');
          return 'drop';
        }
        if (unwrapped.has(element.name) || only?.has(element.name) === false) {
          report.unwrapped(element);
          return 'unwrap';
        }
        for (const { name } of [...element.attributes])
          if (attributes.has(name) || name.startsWith('on') || onlyAttributes?.has(name) === false) {
            report.attribute(element, name);
            setAttribute(element, name, null);
          }
        return 'keep';
      },
    });
  },
};
