export { compareRules, type ComparedSide } from './compare';
export { comparePasses } from './passes';
export { holdingOf } from './holding';
export { type ComparedSubject, type ComparisonLine } from './line';
