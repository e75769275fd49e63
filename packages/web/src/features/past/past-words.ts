import type { AnswerOf } from '../../state/contract';

type How = AnswerOf<'get', '/documents/{id}/versions'>[number]['how'];
type Step = AnswerOf<'get', '/taken'>[number]['step'];

/** By what a version of a document came about, in words. */
export const HOW: Readonly<Record<How, string>> = {
  made: 'made',
  written: 'written',
  restored: 'taken back to',
  retyped: 'given another type',
  converted: 'converted',
};

/** What took something of a text, in words that follow “by” or “with”. */
export const STEP: Readonly<Record<Step, string>> = {
  paste: 'as it was pasted',
  save: 'as it was saved',
  move: 'as it was moved to another profile',
  made: 'as it was made',
  written: 'by hand',
  restored: 'as an earlier version was taken back to',
  retyped: 'as it was given another type',
  converted: 'by a conversion',
};
