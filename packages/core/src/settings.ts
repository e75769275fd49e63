/**
 * Settings and the words for them: schemas and what forms draw from them, profiles as documents, what rules, passes and ledgers
 * are called. Nothing here reads markup, styles or patterns, so that a screen that shows settings comes without the readers.
 */
export { HIDDEN_ELEMENTS } from './html/elements';
export { utf8Length } from './html/bytes';
export type { Action, Layer, LedgerEntry, Reason, Severity, Stage } from './ledger/entry';
export { groupEntries, type EntryGroup } from './ledger/groups';
export { REASONS, reasonRow, type Chapter, type ReasonRow } from './ledger/reasons';
export type { Subject, SubjectKind } from './ledger/subject';
export { remarkOf, sentenceOf, subjectWords } from './ledger/words';
export {
  ReachSum,
  sentenceOfBrief,
  type GroupInBrief,
  type Harm,
  type ReachGroup,
  type ReachInBrief,
  type ReachOfAll,
} from './reach/groups';
export { isObject, isSameJson, mergePatch, withValue, type Json, type JsonObject } from './profile/merge-patch';
export { countChanges, inheritedValue, makePatch, resetInProfile, setInProfile } from './profile/edit';
export { fromPointer, toPointer, valueAt } from './profile/pointer';
export { originOf, readHouseLimits, resolveProfile, type Problem, type Resolution, type ResolvedProfile } from './profile/resolve';
export {
  PROFILE_FORMAT,
  attributeTestSchema,
  elementRuleSchema,
  markupSchema,
  styleTestSchema,
  type AttributeTest,
  type ElementRule,
  type HouseLimits,
  type Markup,
  type Profile,
} from './profile/schema';
export {
  fieldsOf,
  formOf,
  isFieldShown,
  readTyped,
  shownValue,
  type FieldKind,
  type FormField,
  type FormGroup,
  type FormSchema,
} from './profile/form';
export { BUTTONS, buttonOf } from './toolbar/buttons';
export { surfaceSchema } from './profile/surface-schema';
export { arrangeToolbar } from './toolbar/arrange';
export { isAttributeForbidden, SAFETY_FLOOR, URL_ATTRIBUTES } from './markup/floor';
export { ELEMENT_CATALOGUE } from './markup/catalogue';
export { riskOfAttribute, riskOfElement, type Risk } from './markup/risk';
export { canDropFromNowOn } from './paste/droppable';
export type { FromNowOn } from './paste/from-now-on';
export type { Thing } from './paste/inventory';
export { detectSource } from './paste/source';
export { isAttributeRefused } from './markup/refused';
export type { ElementSummary, RulesSummary } from './markup/summary';
export { markupAtHand } from './paste/clipboard-markup';
export { passOrder } from './paste/order';
export { PASS_WORDS } from './paste/pass-words';
export { sourceName } from './paste/source-words';
export { expectationWords } from './proof/words';
export { PASTE_SOURCES, type PassId, type PasteSource } from './profile/paste-schema';
export { fileNameOf } from './render/file-names';
