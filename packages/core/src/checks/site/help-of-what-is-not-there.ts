import { renderedText } from '../../html/rendered-text';
import { parseFragment } from '../../html/parse';
import { OFFERS } from '../../site/offers';
import type { SiteCheck } from './check';

/** A sentence that says what not to do speaks of what is not there for a good reason. */
const DENIES = /\b(no|not|never|without|don['’]t|cannot|can['’]t|nor|none|instead|lists? of|in lists)\b/i;

export const helpOfWhatIsNotThere: SiteCheck = {
  id: 'help-of-what-is-not-there',
  label: 'Help that speaks of something the profile does not offer',
  *run({ site, fields, assignments, profiles }) {
    for (const { type, field, pointer } of fields) {
      if (field.kind !== 'rich') continue;
      const used = new Set(site.roles.flatMap(({ id }) => assignments.why({ roles: [id], type: type.id, field: field.key }).profile ?? []));
      const text = `${field.help.short}\n${renderedText(parseFragment(field.help.long).root)}`;
      const told = text.split(/(?<=[.!?;:])\s+|\n/).filter((sentence) => !DENIES.test(sentence));
      for (const id of used) {
        const side = profiles.get(id);
        if (side === undefined) continue;
        const missing = OFFERS.filter(
          ({ words, elements }) =>
            elements.length > 0 &&
            told.some((sentence) => words.test(sentence)) &&
            !elements.some((name) => side.rules.element(name).outcome === 'keep'),
        ).map(({ name }) => name);
        if (missing.length > 0)
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `The help of “${field.title}” of ${type.label} speaks of ${missing.join(' and ')}, and ${side.name} keeps none.`,
            pointer: `${pointer}/help`,
            type: type.id,
            field: field.key,
          };
      }
    }
  },
};
