export { compareRules, type ComparedSide } from './compare';
export { type ComparedSubject, type ComparisonLine } from './line';
