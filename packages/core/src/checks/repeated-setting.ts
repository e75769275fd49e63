import { inheritedValue } from '../profile/edit';
import { isObject, isSameJson, type Json } from '../profile/merge-patch';
import { toPointer } from '../profile/pointer';
import { patchAt, type Check } from './check';

/** Settings that say what the parent says: they look like a decision, and no longer follow when the parent changes. */
export const repeatedSetting: Check = {
  id: 'repeated-setting',
  purpose: 'Finds settings of a profile that repeat what it inherits.',
  run({ resolved }) {
    const { chain } = resolved;
    const [own, ...parents] = chain;
    if (own === undefined || parents.length === 0) return [];
    const found: string[][] = [];
    const visit = (value: Json, keys: string[]): void => {
      const inherited = inheritedValue(chain, keys);
      if (isObject(value) && Object.keys(value).length > 0 && isObject(inherited)) {
        const repeated = Object.keys(value).every((key) => isSameJson(value[key], inherited[key]));
        if (repeated && keys.length > 1) found.push(keys);
        else for (const key of Object.keys(value)) visit(value[key]!, [...keys, key]);
      } else if (value !== null && isSameJson(value, inherited) && !isObject(value)) found.push(keys);
      else if (value === null && inherited === undefined) found.push(keys);
    };
    for (const key of ['toolbar', 'markup', 'styles', 'surface']) if (own.document[key] !== undefined) visit(own.document[key], [key]);
    return found.map((keys) => ({
      check: 'repeated-setting',
      severity: 'note',
      sentence: `${keys.slice(1).join(' › ')} repeats what is inherited, and will no longer follow when the parent changes.`,
      pointer: toPointer(keys),
      fix: { label: 'Follow the parent', patch: patchAt(keys, null) },
    }));
  },
};
