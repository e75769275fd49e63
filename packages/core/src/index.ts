// Whoever takes settings from here reads patterns, too.
import './profile/pattern-engine';

export * from './settings';
export {
  HTML_NAMESPACE,
  CommentNode,
  ElementNode,
  FragmentNode,
  TextNode,
  append,
  type Attribute,
  type ChildNode,
  type Node,
  type ParentNode,
} from './html/node';
export { RAW_TEXT_ELEMENTS, VOID_ELEMENTS, isBlock } from './html/elements';
export { parseDocument, parseFragment, readings, type Ignored, type ParsedFragment } from './html/parse';
export { escapeAttribute, escapeText, serialize, startTag } from './html/serialize';
export { firstDifference } from './html/same';
export { CensusSum, sumCensuses, takeCensus, type Census, type CensusOfAll } from './html/census';
export { Lines, attributeRanges, type Range } from './html/positions';
export { countLetters, visibleLetters, visibleText } from './html/text';
export { renderedText, renderedWords } from './html/rendered-text';
export { isHidden, partingOf, type Parting } from './html/display';
export { placeOfText } from './html/text-place';
export { Ledger, type Authority, type Report } from './ledger/ledger';
export { LEDGER_FORMAT, ledgerEntrySchema, ledgerJsonSchema } from './ledger/schema';
export { measure, type Measures } from './ledger/measures';
export { ownRules, type OwnRules } from './profile/own-rules';
export { houseLimitsJsonSchema, profileJsonSchema } from './profile/json-schema';
export { mergeChain, type ProfileSource } from './profile/resolve';
export {
  HOUSE_FORMAT,
  ATTRIBUTE_TESTS,
  type StyleTest,
  houseLimitsSchema,
  idSchema,
  profileSchema,
  type StyleDefinition,
} from './profile/schema';
export { BUTTON_IDS, type ButtonId } from './profile/button-ids';
export { PURPOSES, type ButtonDeclaration, type Need, type Purpose } from './toolbar/buttons';
export { inheritedToolbar, setToolbar } from './toolbar/edit';
export { changesToArrange, type ArrangedGroup, type ToolbarChanges } from './toolbar/arrange';
export { markupOnlyFor, missingMarkup, needInWords, patchToAllow, patchToTakeBack, unusedButtons } from './toolbar/needs';
export { SHORTCUTS, SHORTCUT_IDS, type Shortcut, type ShortcutId } from './profile/shortcuts';
export { AUTHOR_TASKS, tryTasks, type AuthorTask, type TaskAnswer } from './toolbar/tasks';
export { toolbarOptionsSchema, toolbarSchema, type Toolbar, type ToolbarOptions } from './profile/toolbar-schema';
export type { Surface as SurfaceSettings } from './profile/surface-schema';
export { compileRules } from './markup/compile';
export type { CompiledAttribute, CompiledElement, CompiledRules, CompileOptions, Outcome } from './markup/compiled';
export type { ElementGroup } from './markup/catalogue';
export { headingTarget } from './markup/headings';
export { summarizeRules } from './markup/summary';
export { applyRules } from './markup/apply';
export { cloneFragment } from './html/clone';
export { clean, cleanParsed, cleanWithoutLedger, type Cleaned } from './markup/clean';
export { patched, patchToKeep, type Keeping } from './markup/keep';
export { wayThrough, type WayThrough } from './markup/let-through';
export { lessonsOf, patchToLearn, type Lesson, type Lessons, type Unlearnable } from './markup/learn';
export { STARTING_POINTS, type StartingPoint } from './profile/starting-points';
export { contrastOf, isColour } from './css/colour';
export { houseUse, type HouseUse } from './markup/house-use';
export { patternMistake } from './profile/pattern';
export { toSanitizerConfig, type SanitizerConfig, type SanitizerExport } from './export/sanitizer';
export { classesIn } from './markup/style-classes';
export { isSurelyStable } from './markup/stability';
export { layOut } from './markup/layout';
export { CHECKS, checkProfile } from './checks/index';
export { storedListSchema } from './checks/stored-list';
export { kindsShowing, styledPages, surroundingsOf, type PublishedOn, type StoredContent } from './checks/around';
export type { Check, CheckContext, DocumentNeeds, Finding, Surroundings } from './checks/check';
export {
  pageKindSchema,
  renderPage,
  stylesheetSchema,
  WRAPPER_ELEMENTS,
  type PageContent,
  type PageKind,
  type Stylesheet,
} from './render/page';
export type { DetectedSource, Evidence } from './paste/source';
export { markdownAsMarkup, markupOf, paragraphsOf, plainPayload, textOf, type ClipboardPayload } from './paste/payload';
export { textOfRtf } from './paste/rtf';
export {
  pictureAddress,
  pictureInAddress,
  pictureTypeOf,
  picturesInRtf,
  PICTURE_TYPES,
  type PastedPicture,
  type PictureBytes,
  type PictureType,
} from './paste/pictures';
export type { PassWords } from './paste/pass-words';
export { pastedMarkup, runPaste, type Pasted, type PasteOptions, type PassTrace } from './paste/run';
export type { Pass } from './paste/pass';
export { PASSES } from './paste/passes/index';
export { compileSearch } from './paste/passes/find-replace';
export { STAND_IN } from './paste/stand-in';
export { PASS_IDS, pastePassesSchema, replacementSchema, type Paste, type PastePasses, type Replacement } from './profile/paste-schema';
export { makeDictionary, makeSpeller, type Speller } from './paste/dictionary';
export { takeInventory, type ThingKind } from './paste/inventory';
export { dropFromNowOn, keepFromNowOn } from './paste/from-now-on';
export { overtakenPasses, type Overtaken } from './paste/overtaken';
export {
  expectationSchema,
  judge,
  payloadSchema,
  specimenSchema,
  SPECIMEN_FORMAT,
  type Expectation,
  type ExpectationKind,
  type SpecimenDocument,
  type Verdict,
} from './proof/specimen';
export {
  lettersKept,
  markupOfSpecimen,
  provePaste,
  proveSpecimen,
  proveStored,
  verdictsOf,
  type Proof,
  type SpecimenProof,
} from './proof/prove';
export { explanationOf } from './proof/explain';
export { contentApart, contentFiles, withContent } from './proof/specimen-file';
export { specimenJsonSchema } from './proof/json-schema';
export { reachOf, type DocumentReach, type ThingsLost } from './reach/document';
export { CertainReach, type Certainty, type Effects } from './reach/certain';
export { byItself, type ByItself } from './reach/by-itself';
export { compiledFit, FitCorpus, fitTo, type Fit, type FitOptions, type FitStep, type FitWay } from './reach/fit';
export { everyFeature, featuresOf, FEATURES_VERSION, type AttributeFeature, type Features } from './reach/features';
export { grantsOf } from './reach/grants';
export {
  keyOfNeed,
  needsOf,
  needsOfFeature,
  needWords,
  riskOfNeed,
  weightOfNeed,
  type Need as FitNeed,
  type NeedWithValue,
} from './reach/needs';
export { Wholeness, type WholeFeatures } from './reach/verdict';
export { mayTouch, questionBetween, type ReachQuestion, type WholeQuestion } from './reach/question';
export { isWhole } from './reach/whole';
export { reachInBrief } from './reach/groups';
export { conversionSchema, conversionWords, convert, type Conversion, type Converted } from './reach/convert';
export { phrasesGone, textChanges, type TextChange } from './reach/gone';
export { takenLines, type TakenLine } from './reach/taken';
export { takenLinesSchema, takenLineSchema } from './reach/taken-schema';
export { expectationsOf, updatedExpectations } from './proof/expect';
export { cssMistakes, type CssMistake } from './css/mistakes';
export { Cascade, elementsIn, pathOf, type Contender, type Contest, type Reason as CascadeReason } from './css/cascade';
export { DESK, mediaHolds, type MediaContext } from './css/media';
export { compileSelectors, SelectorMistake, type CompiledSelector } from './css/selector';
export { bySpecificity, type Specificity } from './css/specificity';
export { TooMuch, withinBudget } from './css/budget';
export { expand as expandDeclaration } from './css/shorthands';
export { readSheets, type LeftOut, type Sheet, type StyleRule } from './css/stylesheet';
export { asBrowsersWrite, Style, Styles, type Source } from './css/computed';
export { isInherited, SEEN, type PropertyFacts } from './css/properties';
export { Scene, type Placed, type Setting, type WrapperElement } from './likeness/context';
export { Comparer, type Difference } from './likeness/compare';
export { contestFor, shortSelector, type ContestTable, type Row as ContestRow } from './likeness/contest';
export {
  compareLikeness,
  keyOf,
  Likeness,
  partsOf,
  type ContentToCompare,
  type LikenessInput,
  type LikenessReport,
} from './likeness/likeness';
export { LikenessCounter, type LikenessCount } from './likeness/count';
export { lineChanges } from './css/line-changes';
export { Looks, LookSum, type LookChange, type LookGroup, type TextLook } from './likeness/looks';
export type { Cause, CauseKind, Place, PlaceDifference, RuleNote, Side } from './likeness/cause';
export {
  addedTo,
  applyRepair,
  bestFirst,
  OVERRIDES,
  proposeRepairs,
  share,
  takenOut,
  tryRepair,
  type Files,
  type MovedPlace,
  type Repair,
  type Trial,
  type TriedRepair,
} from './likeness/repair';
export { causeSentence, causeTitle, propertiesText, repairSentence, specificityText, trialSentence } from './likeness/words';
export { EDITING_SHEET, settingsFor, type FindSheet } from './likeness/surface';
export { overridesOf } from './render/file-names';
export { readStyle, tagOf, type ReadStyle, type StyleAct, type StyleKind, type StyleRefusal } from './styles/act';
export { actSentence, refusalSentence } from './styles/words';
export { hasStyle, sampleOf, type StyleSample } from './styles/sample';
export { declarationsIn, stylesAsCss, stylesInCss, type FoundStyle } from './styles/css';
export { lostOf } from './styles/kept';
export { looksOn, StyledLooks, type StyledLook, type StyledPage } from './likeness/styled';
export { isValueKept } from './markup/kept';
export {
  fieldPlaces,
  firstPlace,
  kindsOf,
  longDate,
  mainField,
  slotContents,
  slotNameOf,
  titleField,
  unfilledSlots,
  type DocumentValues,
  type FieldPlace,
} from './site/places';
export {
  PLAIN_TEMPLATE,
  printTemplate,
  readTemplate,
  REST_SLOT,
  TEMPLATE_ELEMENTS,
  textFrame,
  TITLE_SLOT,
  type AroundElement,
  type TemplateSlot,
} from './render/template';
export { mergeTexts } from './site/merge-texts';
export { fitText, lostWords, moveText, type Move } from './site/move';
export { fieldKeySchema, idFrom } from './profile/basic-schema';
export { isEmptyValue, isOffered, libraryPictures, strayLinks, valueLetters, valueProblem } from './site/value';
export { changesOfSite, type SiteChange } from './site/changes';
export { changesOfWriting, leftBehind, type WritingChange, type WrittenWith } from './site/writing-changes';
export { OFFER_NAMES, takenOf } from './site/offers';
export { likelyPlaces, mayStandIn, misplaced, retyped } from './site/retype';
export { pagesOfHelp } from './site/help-links';
export { readSite } from './site/read';
export { isLockedOut, withoutRole, withoutType } from './site/without';
export { siteJsonSchema } from './site/json-schema';
export { cleanHelp, HELP_PROFILE } from './site/help';
export { Assignments, neverWinning, type Assigning, type Assignment, type Place as AssignedPlace, type Question } from './site/assign';
export { CAN_DO_PARTS, type CanDoPart } from './profile/help-schema';
export { toldParts, toldSentences, whatAuthorsCanDo, type CanDo, type ToldPart } from './site/can-do';
export { compiledSides } from './site/compare/compiled-sides';
export { comparePasses, compareRules, holdingOf, type ComparedSide, type ComparedSubject, type ComparisonLine } from './site/compare/index';
export {
  contentTypeSchema,
  FIELD_KIND_WORDS,
  FIELD_KINDS,
  fieldSchema,
  personSchema,
  RIGHTS,
  siteRoleSchema,
  SITE_FORMAT,
  siteSchema,
  TYPE_COLOURS,
  type ContentType,
  type Field,
  type FieldHelp,
  type Person,
  type Right,
  type Site,
  type SiteRole,
  type Statement,
} from './site/schema';
export { checkSite, SITE_CHECKS, type SiteFinding, type SiteSurroundings, type StoredTexts } from './checks/site/index';
