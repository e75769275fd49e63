import { parseFragment } from '../../html/parse';
import { renderedText } from '../../html/rendered-text';
import { toldParts, toldSentences } from '../../site/can-do';
import { OFFERS } from '../../site/offers';
import type { SiteCheck } from './check';

const words = (markup: string): string => renderedText(parseFragment(markup).root);

export const helpSilentAboutLimit: SiteCheck = {
  id: 'help-silent-about-limit',
  label: 'Help that is silent about a limit that took something of stored texts',
  *run({ fields, texts, profiles }) {
    for (const { type, field, pointer } of fields) {
      if (field.kind !== 'rich') continue;
      for (const { profile, taken = {} } of texts?.filter((one) => one.type === type.id && one.field === field.key) ?? []) {
        const side = profiles.get(profile);
        if (side === undefined) continue;
        const own = side.profile.help;
        const told = toldSentences(toldParts({ id: profile, profile: side.profile, chain: [] }, side.rules, field.letters));
        const help = [field.help.short, words(field.help.long), words(own.text), told].join('\n');
        for (const { name, words: called } of OFFERS) {
          const count = Object.hasOwn(taken, name) ? taken[name]! : 0;
          if (count === 0 || called.test(help)) continue;
          yield {
            check: this.id,
            severity: 'amiss',
            sentence: `${side.name} took ${name === 'length' ? 'what was too long' : name} from “${field.title}” of ${type.label} in ${count === 1 ? 'one stored document' : `${count} stored documents`}, and no help there speaks of it.`,
            pointer: `${pointer}/help`,
            type: type.id,
            field: field.key,
          };
        }
      }
    }
  },
};
