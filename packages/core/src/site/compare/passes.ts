import { passAlone } from '../../paste/one-pass';
import { PASS_WORDS } from '../../paste/pass-words';
import { plainPayload, type ClipboardPayload } from '../../paste/payload';
import { passOrder } from '../../paste/order';
import { runPaste } from '../../paste/run';
import { PASS_IDS, type PassId } from '../../profile/paste-schema';
import type { ResolvedProfile } from '../../profile/resolve';
import type { Profile } from '../../profile/schema';
import type { ComparedSide } from './side';
import type { ComparisonLine } from './line';
import { pastesFor, type Sample } from './pastes';

/** Something of a profile that decides what a paste becomes, and that another may take over by itself. */
interface Setting {
  name: string;
  /** How each of two profiles sets it, in words; null where they set it alike. */
  sentence: (from: ComparedSide, to: ComparedSide) => string | null;
  /** A profile with this set as another sets it. */
  taken: (profile: Profile, other: Profile) => Profile;
  pastes: (from: ComparedSide, to: ComparedSide) => Iterable<Sample>;
}

/**
 * What pastes of two profiles become that is not alike since they are set differently, one setting or pass at a time; each line
 * with a paste that shows it. The witness is what was pasted, and the results what may be stored of it, by a profile that differs
 * from one of the two in nothing else.
 */
export function comparePasses(from: ComparedSide, to: ComparedSide): ComparisonLine[] {
  const lines: ComparisonLine[] = [];
  for (const setting of [CHOICE, MARKDOWN, ENTER, ORDER, ...passOrder(resolvedOf(from)).map(passSetting)]) {
    const sentence = setting.sentence(from, to);
    if (sentence === null) continue;
    const found = witnessOf(setting, from, to);
    if (found === null) continue;
    const kept = found.results.from.length >= found.results.to.length ? 'from' : 'to';
    lines.push({ subject: { kind: 'pass', name: setting.name }, kept, sentence, ...found });
  }
  return lines;
}

function passSetting(id: PassId): Setting {
  const { label, effect } = PASS_WORDS[id];
  return {
    name: id,
    sentence: (from, to) => {
      const [one, other] = [from, to].map(({ profile }) => profile.paste.passes[id]) as [Passes[PassId], Passes[PassId]];
      if (isSame(one, other) || (!one.on && !other.on)) return null;
      if (one.on !== other.on)
        return `Paste, ${label}: ${effect} ${one.on ? from.name : to.name} does that, ${one.on ? to.name : from.name} does not.`;
      const differing = Object.keys({ ...one, ...other }).filter(
        (key) => !isSame(one[key as keyof typeof one], other[key as keyof typeof other]),
      );
      return `Paste, ${label}: ${from.name} and ${to.name} set it differently (${differing.join(', ')}).`;
    },
    taken: (profile, other) => withPaste(profile, { passes: { ...profile.paste.passes, [id]: other.paste.passes[id] } }),
    *pastes(from, to) {
      const passes = [from, to].map(({ profile }) => profile.paste.passes[id]) as [never, never];
      const sides = [from, { ...from, profile: this.taken(from.profile, to.profile) }].map(resolvedOf);
      for (const sample of pastesFor(id, ...passes, { from: from.profile, to: to.profile })) {
        // What the pass by itself does alike needs no whole paste.
        const [one, other] = sides.map((resolved) => passAlone(id, sample[1], resolved, sample[0]));
        if (one !== other) yield sample;
      }
    },
  };
}

const CHOICE: Setting = {
  name: 'choice',
  sentence: (from, to) =>
    differing(
      from,
      to,
      ({ paste }) => CHOICES[paste.choice],
      (words) => `What a paste becomes: ${words}.`,
    ),
  taken: (profile, other) => withPaste(profile, { choice: other.paste.choice }),
  pastes: () => [
    ['web-page', '<p><b>Words</b> and <a href="https://www.example/">a link</a></p>'],
    ['web-page', '<h2>Words</h2><p>and more</p>'],
  ],
};
const CHOICES = { cleaned: 'takes it cleaned', plain: 'takes its words alone', ask: 'asks the author each time' } as const;

const MARKDOWN: Setting = {
  name: 'markdown',
  sentence: (from, to) =>
    differing(
      from,
      to,
      ({ paste }) => (paste.markdown ? 'reads it as such' : 'takes it as plain words'),
      (words) => `Pasted text that looks like Markdown: ${words}.`,
    ),
  taken: (profile, other) => withPaste(profile, { markdown: other.paste.markdown }),
  pastes: () => [
    ['markdown', '## A heading\n\nWords'],
    ['markdown', '- one\n- two\n'],
    ['markdown', 'Words that are **strong**'],
    ['markdown', '[A link](https://www.example/)'],
  ],
};

const ENTER: Setting = {
  name: 'enter',
  sentence: (from, to) =>
    differing(
      from,
      to,
      ({ surface }) => ENTERS[surface.enter],
      (words) => `Pasted lines stand as the Enter key makes them: ${words}.`,
    ),
  taken: (profile, other) => ({ ...profile, surface: { ...profile.surface, enter: other.surface.enter } }),
  pastes: () => [
    ['web-page', 'Words<br>more<div>and more</div>'],
    ['web-page', '<p>Words</p><p>more</p>'],
    ['web-page', '<p>Words<br><br>more</p>'],
    ['plain-text', 'Words\n\nmore'],
  ],
};
const ENTERS = { paragraph: 'paragraphs', break: 'line breaks', block: 'blocks' } as const;

const ORDER: Setting = {
  name: 'order',
  sentence: (from, to) => {
    const [one, other] = [from, to].map((side) => passOrder(resolvedOf(side)));
    const at = one!.findIndex((id, i) => id !== other![i]);
    if (at === -1) return null;
    return `The order of the passes: behind ${at} alike, ${from.name} goes on with ${PASS_WORDS[one![at]!].label}, ${to.name} with ${PASS_WORDS[other![at]!].label}.`;
  },
  taken: (profile, other) => withPaste(profile, { order: other.paste.order }),
  *pastes(from, to) {
    for (const id of PASS_IDS) {
      const passes = [from, to].map(({ profile }) => profile.paste.passes[id]) as [never, never];
      yield* pastesFor(id, ...passes, { from: from.profile, to: to.profile });
    }
  },
};

type Passes = Profile['paste']['passes'];

/** A sentence of what each of two profiles says, where they say different things. */
function differing(
  from: ComparedSide,
  to: ComparedSide,
  said: (profile: Profile) => string,
  sentence: (words: string) => string,
): string | null {
  const [one, other] = [said(from.profile), said(to.profile)];
  return one === other ? null : sentence(`${from.name} ${one}, ${to.name} ${other}`);
}

/** A paste that comes out differently for the setting alone; what one profile has no rule for, the other may show. */
function witnessOf(setting: Setting, from: ComparedSide, to: ComparedSide): Pick<ComparisonLine, 'witness' | 'results'> | null {
  const pairs = [
    [from, { ...from, profile: setting.taken(from.profile, to.profile) }],
    [{ ...to, profile: setting.taken(to.profile, from.profile) }, to],
  ] as const;
  const samples = [...setting.pastes(from, to)];
  for (const [one, other] of pairs)
    for (const sample of samples) {
      const results = { from: pasted(one, sample), to: pasted(other, sample) };
      if (results.from !== results.to) return { witness: sample[1], results };
    }
  return null;
}

function pasted(side: ComparedSide, [source, text]: Sample): string {
  const isText = source === 'plain-text' || source === 'markdown';
  const whole: ClipboardPayload = { types: { [isText ? 'text/plain' : 'text/html']: text } };
  const payload = side.profile.paste.choice === 'plain' ? plainPayload(whole) : whole;
  return runPaste(payload, resolvedOf(side), { rules: side.rules, source: payload === whole ? source : 'plain-text', idPrefix: 'c-' }).html;
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

const withPaste = (profile: Profile, paste: Partial<Profile['paste']>): Profile => ({ ...profile, paste: { ...profile.paste, ...paste } });

/** Who set a rule does not matter here. */
const resolvedOf = ({ profile, name }: ComparedSide): ResolvedProfile => ({ id: name, profile, chain: [] });
