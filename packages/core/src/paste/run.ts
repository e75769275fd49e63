import { cloneFragment } from '../html/clone';
import { parseFragment, type ParsedFragment } from '../html/parse';
import { serialize } from '../html/serialize';
import { visibleText } from '../html/text';
import { elementsOf } from '../html/transform';
import type { FragmentNode } from '../html/node';
import type { LedgerEntry } from '../ledger/entry';
import { Ledger } from '../ledger/ledger';
import { utf8Length } from '../html/bytes';
import { applyRules } from '../markup/apply';
import { AnchoredLedger, reportIgnored, settle } from '../markup/clean';
import { compileRules } from '../markup/compile';
import type { CompiledRules, CompileOptions } from '../markup/compiled';
import { styleClassesOf } from '../markup/style-classes';
import type { PassId, PasteSource } from '../profile/paste-schema';
import type { ResolvedProfile } from '../profile/resolve';
import { markupOf, type ClipboardPayload } from './payload';
import { PassesAtWork, reporterOf, tryOut } from './one-pass';
import { passOrder } from './order';
import type { PassRun } from './pass';
import { bareLinesToParagraphs } from './passes/lines-as-enter';
import { STAND_IN } from './stand-in';
import { picturesInRtf, type PastedPicture, type PictureBytes } from './pictures';
import { PastedSheet } from './sheet';
import { detectSource, type DetectedSource } from './source';

/** What one pass did. */
export interface PassTrace {
  pass: PassId;
  /** Whether it worked: it is on, and meant for this source. */
  ran: boolean;
  /** Why it did not. */
  rests?: 'off' | 'source';
  /** Ledger entries that it made; of a pass that is off, those that it would make, where that was asked for. */
  changes: number;
  /** Things that it found but was not told to do. */
  offers: number;
  /** UTF-8 bytes of the markup before and after it, where that was asked for. */
  bytesBefore: number;
  bytesAfter: number;
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
  /** What the markup rules made of it after the last pass. */
  rulesTrace: { changes: number; bytesBefore: number; bytesAfter: number };
  /** Pictures for the asset library. */
  pictures: PastedPicture[];
  /** Pictures that have to be uploaded by hand. */
  picturesToUpload: number;
}

export interface PasteOptions extends CompileOptions {
  /** What kind of source it is; without it the payload tells, and by what. */
  source?: PasteSource;
  /** Begins the ids that passes make; one of its own for each paste keeps those of two pastes apart. */
  idPrefix?: string;
  /** What the trace holds beside counts: sizes, or also the markup after every pass, or after one and the one before it. */
  trace?: 'counts' | 'sizes' | 'html';
  /** Whether passes that are off are tried on a copy, to tell what they would do. */
  whatIf?: boolean;
  /** Whether a dictionary of the author's language knows a word, in lower case. Without it no word is known. */
  isWord?: (word: string) => boolean;
  /** Told before each pass, and before the markup rules: how many of how many steps are done. */
  onProgress?: (done: number, steps: number) => void;
  /** The markup of the payload where it is parsed already; it is not changed. */
  parsed?: ParsedFragment;
  /** The rules where they are compiled already. */
  rules?: CompiledRules;
}

/** The markup of a payload as the passes of a profile get it. */
export function pastedMarkup(payload: ClipboardPayload, { profile }: ResolvedProfile, source: PasteSource): string {
  return markupOf(payload, source === 'markdown' && profile.paste.markdown).html;
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
  const source: DetectedSource = options.source === undefined ? detectSource(payload) : { source: options.source, evidence: [] };
  const kind = source.source;
  const input = options.parsed?.input ?? pastedMarkup(payload, resolved, kind);
  const fragment = options.parsed === undefined ? parseFragment(input) : cloneFragment(options.parsed);
  const ledger = new Ledger(input);
  for (const ignored of fragment.ignored) reportIgnored(ledger, ignored);
  const pictures = new Map<string, PastedPicture>();
  let beside: readonly PictureBytes[] | null = null;
  const common: Omit<PassRun, 'settings' | 'report'> = {
    root: fragment.root,
    source: kind,
    sheet: new PastedSheet(styleSheetsIn(fragment.root)),
    idPrefix: options.idPrefix ?? '',
    enter: resolved.profile.surface.enter,
    styleClasses: styleClassesOf(resolved.profile),
    isWord: options.isWord ?? (() => false),
    picturesBeside: () => (beside ??= picturesInRtf(payload.types['text/rtf'] ?? '')),
    keepPicture: (picture) => pictures.set(picture.address, picture),
  };
  const measuring = options.trace === 'sizes' || options.trace === 'html';
  const order = passOrder(resolved);
  let passes = new PassesAtWork(ledger);
  let html = measuring ? serialize(fragment.root) : '';
  let bytes = utf8Length(html);
  const trace = order.map((id, step): PassTrace => {
    options.onProgress?.(step, order.length + 1);
    const settings = resolved.profile.paste.passes[id];
    const isMeant = settings.sources === undefined || settings.sources.includes(kind);
    const ran = settings.on && isMeant;
    const report = reporterOf(id, resolved, ledger);
    const before = ledger.entries().length;
    if (ran) passes.work(id, { ...common, settings, report });
    const changes = ledger.entries().length - before;
    const bytesBefore = bytes;
    if (measuring && changes > 0) {
      html = serialize(fragment.root);
      bytes = utf8Length(html);
    }
    const would = !settings.on && isMeant && options.whatIf === true ? tryOut(id, resolved, fragment, common) : null;
    return {
      pass: id,
      ran,
      ...(ran ? {} : { rests: settings.on ? 'source' : 'off' }),
      changes: would?.changes ?? changes,
      offers: would?.offers ?? report.offers,
      bytesBefore,
      bytesAfter: bytes,
      ...(options.trace === 'html' ? { html } : {}),
    };
  });
  options.onProgress?.(order.length, order.length + 1);
  const rules = options.rules ?? compileRules(resolved, options);
  const changesOfPasses = ledger.entries().length;
  applyRules(fragment, rules, ledger);
  let root = settle(fragment, rules, ledger);
  const rulesTrace = { changes: ledger.entries().length - changesOfPasses, bytesBefore: bytes };
  /** The result as it was written, once the passes leave it as it is. */
  let clean: string | null = null;
  // What the rules took may leave something for a pass to do: until there is nothing, as if the result were pasted again.
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const before = ledger.entries().length;
    const written = serialize(root);
    clean = null;
    // A tree that was read anew has places that do not count in the input.
    const here = root === fragment.root ? ledger : new AnchoredLedger(ledger, { start: 0, end: input.length, path: '' });
    passes = new PassesAtWork(ledger);
    for (const [i, id] of order.entries()) {
      const settings = resolved.profile.paste.passes[id];
      if (!settings.on || settings.sources?.includes(AGAIN) === false) continue;
      const at = ledger.entries().length;
      passes.work(id, { ...common, root, source: AGAIN, sheet: NO_SHEET, settings, report: reporterOf(id, resolved, here) });
      trace[i]!.changes += ledger.entries().length - at;
    }
    if (resolved.profile.paste.passes.spaces.on) standInParagraphs(root, resolved, rules, here);
    if (serialize(root) === written) {
      ledger.forget(before);
      clean = written;
      break;
    }
    const changesBefore = ledger.entries().length;
    const again: ParsedFragment = { input, root, ignored: [] };
    applyRules(again, rules, here);
    root = settle(again, rules, here);
    rulesTrace.changes += ledger.entries().length - changesBefore;
  }
  const out = clean !== null && rules.output.characters === 'raw' ? clean : serialize(root, rules.output.characters);
  return {
    html: out,
    root,
    input,
    source,
    ledger: ledger.entries(),
    trace,
    rulesTrace: { ...rulesTrace, bytesAfter: measuring ? utf8Length(out) : 0 },
    pictures: [...pictures.values()],
    picturesToUpload: standInsIn(root),
  };
}

/** What clean markup is taken for: it shows no other source any more, and brings no style sheet along. */
const AGAIN: PasteSource = 'web-page';
const NO_SHEET = new PastedSheet('');

/** So often passes and rules take turns; two suffice for nearly everything. */
const MOST_ROUNDS = 4;

/** Words that stand at the top without a block become a paragraph, where the Enter key of the profile makes paragraphs. */
function standInParagraphs(root: FragmentNode, resolved: ResolvedProfile, rules: CompiledRules, ledger: Ledger): void {
  const { profile } = resolved;
  const p = rules.element('p');
  if (profile.surface.enter !== 'paragraph' || profile.paste.passes.spaces.lines !== 'enter-key') return;
  if (p.outcome !== 'keep' || p.name !== 'p') return;
  const report = reporterOf('spaces', resolved, ledger);
  bareLinesToParagraphs(root, report);
}

function styleSheetsIn(root: FragmentNode): string {
  return elementsOf(root)
    .filter(({ name }) => name === 'style')
    .flatMap(({ children }) => children.map((child) => (child.type === 'text' ? child.value : '')))
    .join('\n');
}

/** Stand-ins for pictures to upload in the result. */
function standInsIn(root: FragmentNode): number {
  return visibleText(root).split(STAND_IN).length - 1;
}
