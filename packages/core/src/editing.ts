/**
 * What an author's editor needs to show and to change a text: profiles, compiled rules, cleaning, places. Passes of paste cleanup
 * and patterns are apart, since an editor can load them when they are first needed.
 */
export { HTML_NAMESPACE, ElementNode, FragmentNode, type ChildNode } from './html/node';
export { RAW_TEXT_ELEMENTS, VOID_ELEMENTS, isBlock } from './html/elements';
export { parseFragment, type ParsedFragment } from './html/parse';
export { escapeAttribute, escapeText, serialize } from './html/serialize';
export { firstDifference } from './html/same';
export type { LedgerEntry } from './ledger/entry';
export { groupEntries, type EntryGroup } from './ledger/groups';
export { sentenceOf } from './ledger/words';
export type { Json } from './profile/merge-patch';
export { resolveProfile, type ResolvedProfile } from './profile/resolve';
export type { HouseLimits, Profile, StyleDefinition } from './profile/schema';
export type { ButtonId } from './profile/button-ids';
export { buttonOf } from './toolbar/buttons';
export { arrangeToolbar, type ArrangedGroup } from './toolbar/arrange';
export { missingMarkup, needInWords } from './toolbar/needs';
export { SHORTCUTS, type ShortcutId } from './profile/shortcuts';
export type { Toolbar, ToolbarOptions } from './profile/toolbar-schema';
export type { Surface as SurfaceSettings } from './profile/surface-schema';
export { compileRules } from './markup/compile';
export type { CompiledRules } from './markup/compiled';
export { clean } from './markup/clean';
export { layOut } from './markup/layout';
export type { PageKind } from './render/page';
export type { ClipboardPayload } from './paste/payload';
export type { PastedPicture } from './paste/pictures';
export type { Pasted } from './paste/run';
export { STAND_IN } from './paste/stand-in';
export { compileSelectors } from './css/selector';
export { readStyle, type StyleAct } from './styles/act';
export { isValueKept } from './markup/kept';
export { textFrame } from './render/template';
export { canReadPatterns } from './profile/pattern';
