import { PASSES } from '../../paste/passes/index';
import { runPaste, passOrder } from '../../paste/run';
import type { PassId, PasteSource } from '../../profile/paste-schema';
import type { ResolvedProfile } from '../../profile/resolve';
import type { Profile } from '../../profile/schema';
import type { ComparedSide } from './compare';
import type { ComparisonLine } from './line';

/** Pastes in which passes find something to do: each shows several of them at once. */
const SAMPLES: readonly (readonly [source: PasteSource, html: string])[] = [
  ['word-processor', '<p class="MsoNormal"><span style="color:#c00000;font-weight:bold;font-family:Arial">Red</span> words<o:p></o:p></p>'],
  ['word-processor', '<p class="MsoListParagraph">·&nbsp;&nbsp;one</p><p class="MsoListParagraph">·&nbsp;&nbsp;two</p>'],
  ['web-mail', '<p>- one</p><p>- two</p><p>- three</p>'],
  ['word-processor', '<p class="MsoTitle">A title</p><p>Words</p><p><b>A short line</b></p><p>More words</p>'],
  ['word-processor', '<p>Words <del>gone</del> <ins>come</ins></p><p style="mso-hide:all">hidden</p>'],
  [
    'word-processor',
    '<p>Words<a href="#_ftn1" name="_ftnref1"><sup>[1]</sup></a></p><div id="ftn1"><p><a href="#_ftnref1" name="_ftn1">[1]</a> A note</p></div>',
  ],
  [
    'spreadsheet',
    '<table width="400"><tr><td width="200"><b>Berth</b></td><td><b>Depth</b></td></tr><tr><td>A</td><td>3</td></tr></table>',
  ],
  ['web-page', '<table><tr><td><p>A layout</p></td></tr></table>'],
  ['web-page', '<p align="center" class="x y"><font color="red"><span><span>words</span></span></font> and <i>more</i></p>'],
  [
    'web-page',
    '<p><a href="javascript:x">dead</a> <a href="https://a.example/?utm_source=x&id=1" target="_blank">way</a> <a href="">none</a></p>',
  ],
  ['web-page', '<p>5&nbsp;km&nbsp;and  more</p><p>&nbsp;</p><p></p><p>a<br><br>b</p>'],
  ['web-page', '<p>"Quoted" -- it\'s so... 3 x 4</p>'],
  ['web-page', '<p><img src="file:///C:/a.png" alt="A boat"><img src="data:image/png;base64,iVBORw0KGgo="></p>'],
  ['web-page', '<div><div><b onclick="x">bold</b></div><section>words</section></div><h1>One</h1><h4>Four</h4>'],
  ['pdf-viewer', '<p>A line that was broken to<br>fit the page and goes on in the next one<br>until it ends.</p>'],
  ['plain-text', 'A line that was broken to\nfit the page\n\nAnd another.'],
];

/**
 * What pastes of two profiles become that is not alike since a pass is set differently; each line with a paste that shows it.
 * The witness is markup that was pasted, and the results what may be stored of it.
 */
export function comparePasses(from: ComparedSide, to: ComparedSide): ComparisonLine[] {
  const lines: ComparisonLine[] = [];
  // What the one makes of a sample is the same whichever pass is looked at.
  const made = new Map<string, string>();
  for (const id of passOrder(resolvedOf(from))) {
    const [one, other] = [from.profile.paste.passes[id], to.profile.paste.passes[id]];
    if (JSON.stringify(one) === JSON.stringify(other)) continue;
    // Only this pass is taken over: what else differs has a line of its own.
    const changed: ComparedSide = { ...from, profile: withPass(from.profile, id, other) };
    const found = witnessOf(id, [from, changed], one, other, made);
    if (found === null) continue;
    const { label, effect } = PASSES[id];
    const differing = Object.keys({ ...one, ...other }).filter(
      (key) => JSON.stringify(one[key as keyof typeof one]) !== JSON.stringify(other[key as keyof typeof other]),
    );
    const sentence =
      one.on === other.on
        ? `Paste, ${label}: ${from.name} and ${to.name} set it differently (${differing.join(', ')}).`
        : `Paste, ${label}: ${effect} ${one.on ? from.name : to.name} does that, ${one.on ? to.name : from.name} does not.`;
    lines.push({
      subject: { kind: 'pass', name: id },
      kept: found.results.from.length >= found.results.to.length ? 'from' : 'to',
      sentence,
      ...found,
    });
  }
  return lines;
}

type Settings = Profile['paste']['passes'][PassId];

function witnessOf(
  id: PassId,
  [from, to]: readonly [ComparedSide, ComparedSide],
  one: Settings,
  other: Settings,
  made: Map<string, string>,
): Pick<ComparisonLine, 'witness' | 'results'> | null {
  for (const [source, html] of [...SAMPLES, ...replacementsIn(id, one), ...replacementsIn(id, other)]) {
    const paste = (side: ComparedSide): string =>
      runPaste({ types: { [source === 'plain-text' ? 'text/plain' : 'text/html']: html } }, resolvedOf(side), {
        rules: side.rules,
        source,
        idPrefix: 'c-',
      }).html;
    const key = `${source} ${html}`;
    const before = made.get(key) ?? paste(from);
    made.set(key, before);
    const results = { from: before, to: paste(to) };
    if (results.from !== results.to) return { witness: html, results };
  }
  return null;
}

/** Pastes that hold what replacements look for. */
function* replacementsIn(id: PassId, settings: Settings): Iterable<readonly [PasteSource, string]> {
  if (id !== 'find-replace' || !('rules' in settings)) return;
  for (const { find, as } of settings.rules) if (as === 'text') yield ['web-page', `<p>Words with ${find} in them</p>`];
}

const withPass = (profile: Profile, id: PassId, settings: Settings): Profile => ({
  ...profile,
  paste: { ...profile.paste, passes: { ...profile.paste.passes, [id]: settings } },
});

/** Who set a rule does not matter here. */
const resolvedOf = ({ profile, name }: ComparedSide): ResolvedProfile => ({ id: name, profile, chain: [] });
