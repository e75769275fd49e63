import { serialize } from '../html/serialize';
import { parseFragment } from '../html/parse';
import { elementsOf } from '../html/transform';
import type { FragmentNode } from '../html/node';
import type { LedgerEntry, Reason } from '../ledger/entry';
import { Ledger } from '../ledger/ledger';
import { applyRules } from '../markup/apply';
import { reportIgnored, settle } from '../markup/clean';
import { compileRules, type CompileOptions } from '../markup/compile';
import { PASS_IDS, type PassId, type PasteSource } from '../profile/paste-schema';
import { toPointer } from '../profile/pointer';
import { originOf, type ResolvedProfile } from '../profile/resolve';
import { markupOf, type ClipboardPayload } from './payload';
import { Reporter, type Pass } from './pass';
import { PASSES } from './passes/index';
import { detectSource, type DetectedSource } from './source';

/** What one pass did. */
export interface PassTrace {
  pass: PassId;
  /** Whether it worked: it is on, and meant for this source. */
  ran: boolean;
  /** Ledger entries that it made. */
  changes: number;
  /** The markup after it, where that was asked for. */
  html?: string;
}

export interface Pasted {
  html: string;
  root: FragmentNode;
  /** The markup that all places in the ledger count in. */
  input: string;
  source: DetectedSource;
  ledger: LedgerEntry[];
  trace: PassTrace[];
}

export interface PasteOptions extends CompileOptions {
  /** Overrides what the payload says of its source. */
  source?: PasteSource;
  /** Begins the ids that passes make; one of its own for each paste keeps those of two pastes apart. */
  idPrefix?: string;
  /** Whether the trace is to hold the markup after every pass. */
  withHtml?: boolean;
}

const REASONS: Readonly<Record<PassId, Reason>> = {
  'office-leftovers': 'paste-office',
  notes: 'paste-note',
  lists: 'paste-list',
  'inline-style': 'paste-style',
  classes: 'paste-class',
  wrappers: 'paste-wrapper',
  elements: 'paste-element',
  headings: 'paste-heading',
  links: 'paste-link',
  tables: 'paste-table',
  spaces: 'paste-space',
};

/** The passes of a profile in the order in which they work. */
export function passOrder({ profile }: ResolvedProfile): PassId[] {
  const { order } = profile.paste;
  return [...new Set([...order, ...PASS_IDS])];
}

/**
 * Takes a pasted payload through the profile's passes and then, always, through its markup rules.
 *
 * @param payload what was on the clipboard; never trusted
 * @param resolved the profile
 * @param options the house limits, the role, and what is known of the paste
 * @returns the clean markup, and one ledger entry for everything that was changed or removed; never throws
 */
export function runPaste(payload: ClipboardPayload, resolved: ResolvedProfile, options: PasteOptions = {}): Pasted {
  const source = detectSource(payload);
  const kind = options.source ?? source.source;
  const { html: input } = markupOf(payload);
  const fragment = parseFragment(input);
  const ledger = new Ledger(input);
  for (const ignored of fragment.ignored) reportIgnored(ledger, ignored);
  const styles = elementsOf(fragment.root)
    .filter(({ name }) => name === 'style')
    .flatMap(({ children }) => children.map((child) => (child.type === 'text' ? child.value : '')))
    .join('\n');
  const trace = passOrder(resolved).map((id): PassTrace => {
    const settings = resolved.profile.paste.passes[id];
    const ran = settings.on && (settings.sources === undefined || settings.sources.includes(kind));
    const before = ledger.entries().length;
    if (ran) {
      const rule = toPointer(['paste', 'passes', id]);
      const origin = originOf(resolved.chain, rule) ?? resolved.id;
      const report = new Reporter(ledger, REASONS[id], { layer: origin === resolved.id ? 'profile' : 'parent-profile', rule, origin });
      // Each pass takes the settings of its own id; the table of passes says so, a loop over it cannot.
      (PASSES[id] as unknown as Pass).run({
        root: fragment.root,
        settings,
        source: kind,
        styles,
        idPrefix: options.idPrefix ?? '',
        report,
      });
    }
    return {
      pass: id,
      ran,
      changes: ledger.entries().length - before,
      ...(options.withHtml === true ? { html: serialize(fragment.root) } : {}),
    };
  });
  const rules = compileRules(resolved, options);
  applyRules(fragment, rules, ledger);
  const root = settle(fragment, rules, ledger);
  return {
    html: serialize(root, rules.output.characters),
    root,
    input,
    source: { ...source, source: kind },
    ledger: ledger.entries(),
    trace,
  };
}
