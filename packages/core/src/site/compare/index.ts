export { compareRules } from './compare';
export type { ComparedSide } from './side';
export { comparePasses } from './passes';
export { holdingOf } from './holding';
export { type ComparedSubject, type ComparisonLine } from './line';
