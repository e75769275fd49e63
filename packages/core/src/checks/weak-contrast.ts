import { contrastOf } from '../css/colour';
import { toPointer } from '../profile/pointer';
import type { StyleTest } from '../profile/schema';
import { attributeTests, type Check } from './check';

const LEAST_CONTRAST = 4.5;
const PAPER = '#ffffff';

/** Colours that authors may choose and readers cannot read (WCAG 2.2, success criterion 1.4.3). */
export const weakContrast: Check = {
  id: 'weak-contrast',
  purpose: 'Finds pairs of allowed colours with a contrast under 4.5 to 1.',
  run: (context) =>
    attributeTests(context).flatMap(({ test, keys }) => {
      if (test.test !== 'style') return [];
      const colours = palette(test.properties['color']);
      const grounds = [...palette(test.properties['background-color']), ...palette(test.properties['background'])];
      const weak = colours.flatMap((colour) =>
        (grounds.length === 0 ? [PAPER] : grounds)
          .filter((ground) => contrastOf(colour, ground) < LEAST_CONTRAST)
          .map((ground) => `${colour} on ${ground === PAPER ? 'white' : ground} (${contrastOf(colour, ground).toFixed(1)})`),
      );
      if (weak.length === 0) return [];
      const shown = weak.slice(0, 4).join(', ');
      return [
        {
          check: 'weak-contrast',
          severity: 'warning',
          sentence: `Colours may be chosen that are hard to read: ${shown}${weak.length > 4 ? ` and ${weak.length - 4} more pairs` : ''}. Text needs 4.5 to 1.`,
          pointer: toPointer([...keys, 'properties', 'color']),
        },
      ];
    }),
};

function palette(test: StyleTest | undefined): readonly string[] {
  return test?.test === 'colour' || test?.test === 'list' ? test.values.filter((value) => contrastOf(value, PAPER) > 0) : [];
}
