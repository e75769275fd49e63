import { neverWinning } from '../../site/assign';
import type { SiteCheck } from './check';

export const statementNeverReached: SiteCheck = {
  id: 'statement-never-reached',
  label: 'Statements that never win',
  *run({ site, fields }) {
    const places = fields.map(({ type, field }) => ({ type: type.id, field: field.key }));
    for (const { statement, behind } of neverWinning(
      site,
      site.roles.map(({ id }) => id),
      places,
    ))
      yield {
        check: this.id,
        severity: 'amiss',
        sentence:
          behind.length === 0
            ? `Statement ${statement + 1} fits no field of any content type.`
            : `Statement ${statement + 1} never wins: wherever it fits, ${behind.length === 1 ? 'statement' : 'statements'} ${behind.map((at) => at + 1).join(', ')} ${behind.length === 1 ? 'comes' : 'come'} first.`,
        pointer: `/assignments/${statement}`,
        statement,
      };
  },
};
