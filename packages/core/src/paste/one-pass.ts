import { cloneFragment } from '../html/clone';
import { parseFragment, type ParsedFragment } from '../html/parse';
import { serialize } from '../html/serialize';
import type { Reason } from '../ledger/entry';
import { Ledger } from '../ledger/ledger';
import { styleClassesOf } from '../markup/style-classes';
import type { PassId, PasteSource } from '../profile/paste-schema';
import { toPointer } from '../profile/pointer';
import { originOf, type ResolvedProfile } from '../profile/resolve';
import { contentsOf, type Contents } from './contents';
import { Reporter, type Pass, type PassRun } from './pass';
import { PASSES } from './passes/index';
import { PastedSheet } from './sheet';

const REASONS: Readonly<Record<PassId, Reason>> = {
  'joined-lines': 'paste-join',
  notes: 'paste-note',
  lists: 'paste-list',
  'office-leftovers': 'paste-office',
  headings: 'paste-heading',
  'inline-style': 'paste-style',
  classes: 'paste-class',
  wrappers: 'paste-wrapper',
  elements: 'paste-element',
  links: 'paste-link',
  pictures: 'paste-picture',
  tables: 'paste-table',
  'find-replace': 'paste-replace',
  typography: 'paste-typography',
  spaces: 'paste-space',
};

export function reporterOf(id: PassId, resolved: ResolvedProfile, ledger: Ledger): Reporter {
  const rule = toPointer(['paste', 'passes', id]);
  const origin = originOf(resolved.chain, rule) ?? resolved.id;
  return new Reporter(ledger, REASONS[id], { layer: origin === resolved.id ? 'profile' : 'parent-profile', rule, origin });
}

// Each pass takes the settings of its own id; the table of passes says so, a call through it cannot.
const passOf = (id: PassId): Pass => PASSES[id];

export function work(id: PassId, run: PassRun): void {
  passOf(id).run(run);
}

/** Lets passes work that find something, and looks again at what stands there where one of them has changed it. */
export class PassesAtWork {
  private contents: Contents | null = null;

  constructor(private readonly ledger: Ledger) {}

  work(id: PassId, run: PassRun): void {
    const pass = passOf(id);
    if (pass.finds !== undefined && !pass.finds((this.contents ??= contentsOf(run.root)), run)) return;
    const before = this.ledger.entries().length;
    pass.run(run);
    if (this.ledger.entries().length > before) this.contents = null;
  }
}

/** What a pass would do at its place, found out on a copy. */
export function tryOut(
  id: PassId,
  resolved: ResolvedProfile,
  fragment: ParsedFragment,
  common: Omit<PassRun, 'settings' | 'report'>,
): { changes: number; offers: number } {
  const ledger = new Ledger(fragment.input);
  const report = reporterOf(id, resolved, ledger);
  work(id, {
    ...common,
    root: cloneFragment(fragment).root,
    settings: resolved.profile.paste.passes[id],
    report,
    keepPicture: () => undefined,
  });
  return { changes: ledger.entries().length, offers: report.offers };
}

/**
 * What one pass of a profile by itself makes of markup that nothing else has touched.
 *
 * @returns the markup; as it was read where the pass is off or not meant for the source
 */
export function passAlone(id: PassId, html: string, resolved: ResolvedProfile, source: PasteSource): string {
  const { root } = parseFragment(html);
  const settings = resolved.profile.paste.passes[id];
  if (settings.on && settings.sources?.includes(source) !== false)
    work(id, {
      root,
      settings,
      source,
      sheet: new PastedSheet(''),
      idPrefix: 'c-',
      enter: resolved.profile.surface.enter,
      styleClasses: styleClassesOf(resolved.profile),
      isWord: () => false,
      picturesBeside: () => [],
      keepPicture: () => undefined,
      report: reporterOf(id, resolved, new Ledger(html)),
    });
  return serialize(root);
}
