export { compareRules, type ComparedSide } from './compare';
export { comparePasses } from './passes';
export { type ComparedSubject, type ComparisonLine } from './line';
