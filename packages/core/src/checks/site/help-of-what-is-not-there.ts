import { renderedText } from '../../html/rendered-text';
import { parseFragment } from '../../html/parse';
import type { SiteCheck } from './check';

/** What help calls things that an editor offers, and the elements of which one must be kept for it. */
const OFFERS: readonly (readonly [words: RegExp, elements: readonly string[], name: string])[] = [
  [/\btables?\b/i, ['table'], 'tables'],
  [/\bsub-?heads?\b|\b(sub-?)?headings?\b/i, ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'], 'headings'],
  [/\b(bulleted|numbered)? ?lists?\b|\bbullets?\b/i, ['ul', 'ol'], 'lists'],
  [/\bpictures?\b|\bimages?\b|\bphotographs?\b/i, ['img'], 'pictures'],
  [/\blinks?\b/i, ['a'], 'links'],
  [/\bbold\b/i, ['strong', 'b'], 'bold'],
  [/\bitalics?\b/i, ['em', 'i'], 'italic'],
  [/\bunderlin(e|ed|ing)\b/i, ['u'], 'underlining'],
  [/\bquotations?\b|\bblock quotes?\b/i, ['blockquote', 'q'], 'quotations'],
  [/\bfoot ?notes?\b|\bsuperscripts?\b/i, ['sup'], 'raised letters'],
];
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
          ([words, elements]) =>
            told.some((sentence) => words.test(sentence)) && !elements.some((name) => side.rules.element(name).outcome === 'keep'),
        ).map(([, , name]) => name);
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
