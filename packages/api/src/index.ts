import * as conversions from './conversions';
import * as documents from './documents';
import * as editions from './editions';
import * as fit from './fit';
import * as profiles from './profiles';
import * as publishing from './publishing';
import * as questions from './questions';
import * as reach from './reach';
import * as shared from './shared-editions';
import * as site from './site';
import * as texts from './texts';
import * as types from './types';

/** Every route of the contract, by its name. The server is held to these, the client is typed by them. */
export const contract = {
  readSite: site.readSite,
  saveSite: site.saveSite,
  readSiteDraft: site.readSiteDraft,
  saveSiteDraft: site.saveSiteDraft,
  whyThisProfile: site.whyThisProfile,
  whoActs: site.whoActs,
  listDocuments: documents.listDocuments,
  readDocument: documents.readDocument,
  makeDocument: documents.makeDocument,
  saveDocument: documents.saveDocument,
  listVersions: documents.listVersions,
  readVersion: documents.readVersion,
  listTaken: documents.listTaken,
  leftOut: documents.leftOut,
  restoreVersion: documents.restoreVersion,
  listTexts: texts.listTexts,
  countTexts: texts.countTexts,
  publishedTexts: texts.publishedTexts,
  textsCensus: texts.textsCensus,
  listRevisions: profiles.listRevisions,
  readRevision: profiles.readRevision,
  countHolding: profiles.countHolding,
  useOfProfile: profiles.useOfProfile,
  removeProfile: profiles.removeProfile,
  currentEditions: editions.currentEditions,
  listEditions: editions.listEditions,
  readEdition: editions.readEdition,
  releaseEdition: editions.releaseEdition,
  takeBackTo: editions.takeBackTo,
  leftTexts: editions.leftTexts,
  followAgain: editions.followAgain,
  reachOfProfile: reach.reachOfProfile,
  reachOfText: reach.reachOfText,
  allowInDraft: reach.allowInDraft,
  scheduleRelease: editions.scheduleRelease,
  listScheduled: editions.listScheduled,
  callOffRelease: editions.callOffRelease,
  currentShared: shared.currentShared,
  listShared: shared.listShared,
  readShared: shared.readShared,
  releaseShared: shared.releaseShared,
  scheduleShared: shared.scheduleShared,
  listScheduledShared: shared.listScheduledShared,
  takeBackShared: shared.takeBackShared,
  resetShared: shared.resetShared,
  reachOfShared: reach.reachOfShared,
  reachOfSharedText: reach.reachOfSharedText,
  fitOfTexts: fit.fitOfTexts,
  profileOfFit: fit.profileOfFit,
  tryConversion: conversions.tryConversion,
  askConversion: conversions.askConversion,
  listConversions: conversions.listConversions,
  readConversion: conversions.readConversion,
  convertedTexts: conversions.convertedTexts,
  moveConversion: conversions.moveConversion,
  readPublishing: publishing.readPublishing,
  movePublishing: publishing.movePublishing,
  makePreview: publishing.makePreview,
  askAuthors: questions.askAuthors,
  listQuestions: questions.listQuestions,
  answerQuestion: questions.answerQuestion,
  useOfType: types.useOfType,
  giveDocuments: types.giveDocuments,
  outdatedVersions: types.outdatedVersions,
} as const;

export type Contract = typeof contract;
export { problemSchema, type ProblemDetails } from './common';
export { linkHeader, pageQuery } from './pages';
export { MOST_GIVEN } from './types';
export { PERSON_HEADER, RIGHT, needs } from './right';
