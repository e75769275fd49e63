import { compareRules, type ComparisonLine } from '../../site/compare/index';
import { namedThings } from '../../site/compare/named';
import { cleanWithoutLedger } from '../../markup/clean';
import type { SiteCheck } from './check';

/** Two groups edit one text with different rules, and each save of one takes what the other wrote. */
export const rolesThatEat: SiteCheck = {
  id: 'roles-that-eat',
  label: 'Roles that take each other’s content',
  *run({ site, fields, assignments, profiles, house }) {
    const known = new Map<string, readonly ComparisonLine[]>();
    const taken = (from: string, by: string): readonly ComparisonLine[] => {
      const key = `${from} ${by}`;
      let lines = known.get(key);
      if (lines === undefined) {
        const [one, other] = [profiles.get(from), profiles.get(by)];
        lines =
          one === undefined || other === undefined
            ? []
            : compareRules(one, other, house).filter(
                // What the first has stored is what its own rules leave; the other takes of that, or takes nothing.
                ({ kept, results }) => kept === 'from' && cleanWithoutLedger(results.from, other.rules) !== results.from,
              );
        known.set(key, lines);
      }
      return lines;
    };
    for (const { type, field, pointer } of fields) {
      if (field.kind !== 'rich') continue;
      // Those who write with the same profile are one group.
      const groups = new Map<string, { labels: string[]; profile: string; statement: number | null }>();
      for (const { id, label } of site.roles) {
        const { profile, statement } = assignments.why({ roles: [id], type: type.id, field: field.key });
        if (profile === null) continue;
        const group = groups.get(profile);
        if (group === undefined) groups.set(profile, { labels: [label], profile, statement });
        else group.labels.push(label);
      }
      const writers = [...groups.values()].map(({ labels, ...rest }) => ({ ...rest, label: labels.join(' and ') }));
      const told = new Set<string>();
      for (const one of writers)
        for (const other of writers) {
          const key = `${one.profile} ${other.profile}`;
          if (one.profile === other.profile || told.has(key)) continue;
          told.add(key);
          const lines = taken(one.profile, other.profile);
          if (lines.length === 0) continue;
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `${other.label} take what ${one.label} may write in “${field.title}” of ${type.label}: ${namedThings(lines)}.`,
            pointer,
            type: type.id,
            field: field.key,
            ...(other.statement === null ? {} : { statement: other.statement }),
          };
        }
    }
  },
};
