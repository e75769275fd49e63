import { compareRules } from '../../site/compare/index';
import { namedThings } from '../../site/compare/named';
import type { SiteCheck } from './check';

export const textOfAnotherProfile: SiteCheck = {
  id: 'text-of-another-profile',
  label: 'Stored texts whose profile is gone, or not the one that is given there now',
  *run({ site, fields, assignments, profiles, texts, house }) {
    for (const { type: typeId, field: key, profile, count } of texts ?? []) {
      const placed = fields.find(({ type, field }) => type.id === typeId && field.key === key);
      if (placed === undefined || count === 0) continue;
      const { type, field, pointer } = placed;
      const many = count === 1 ? 'One stored text' : `${count} stored texts`;
      const where = `“${field.title}” of ${type.label}`;
      const finding = { check: this.id, pointer, type: type.id, field: key };
      const side = profiles.get(profile);
      if (side === undefined) {
        const verb = count === 1 ? 'has' : 'have';
        yield {
          ...finding,
          severity: 'amiss',
          sentence: `${many} in ${where} ${verb} the profile “${profile}”, which is gone or has mistakes.`,
        };
        continue;
      }
      const answers = site.roles.map(({ id }) => assignments.why({ roles: [id], type: typeId, field: key }));
      const given = answers.find(({ profile: usual }) => usual !== null)?.profile ?? null;
      if (given === null || answers.some(({ choices }) => choices.includes(profile))) continue;
      const now = profiles.get(given);
      if (now === undefined) continue;
      const lines = compareRules(side, now, house);
      const [more, less] = [lines.filter(({ kept }) => kept === 'from'), lines.filter(({ kept }) => kept === 'to')];
      const parts = [
        more.length > 0 ? `allows ${namedThings(more)}, which a move would take` : '',
        less.length > 0 ? `lacks ${namedThings(less)}` : '',
      ].filter((part) => part !== '');
      yield {
        ...finding,
        severity: 'note',
        sentence: `${many} in ${where} ${count === 1 ? 'keeps' : 'keep'} ${side.name}; ${now.name} is given there now. ${side.name} ${parts.length === 0 ? 'treats all markup alike' : parts.join(', and ')}.`,
      };
    }
  },
};
