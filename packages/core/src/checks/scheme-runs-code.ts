import { SAFETY_FLOOR } from '../markup/floor';
import { toPointer } from '../profile/pointer';
import { patchAt, type Check } from './check';

const CODE: ReadonlySet<string> = new Set(SAFETY_FLOOR.schemes);

/** Schemes that run code or make a document of their own; the safety floor refuses them, so the rule only misleads. */
export const schemeRunsCode: Check = {
  id: 'scheme-runs-code',
  purpose: 'Finds schemes of addresses that run code.',
  run: ({ resolved }) =>
    Object.entries(resolved.profile.markup.urls.schemes).flatMap(([attribute, schemes]) => {
      // Pictures in data addresses are the one use that the floor lets through.
      const bad = schemes.filter((scheme) => CODE.has(scheme) && !(scheme === 'data' && attribute === 'src'));
      if (bad.length === 0) return [];
      const keys = ['markup', 'urls', 'schemes', attribute];
      return [
        {
          check: 'scheme-runs-code',
          severity: 'error',
          sentence: `${attribute} may have ${bad.join(', ')}, which ${bad.length === 1 ? 'runs code or makes a document of its own' : 'run code or make documents of their own'}. The safety floor refuses such addresses whatever stands here.`,
          pointer: toPointer(keys),
          fix: {
            label: `Take ${bad.join(', ')} out`,
            patch: patchAt(
              keys,
              schemes.filter((scheme) => !bad.includes(scheme)),
            ),
          },
        },
      ];
    }),
};
