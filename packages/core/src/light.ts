/**
 * What needs no parser and no schema. The first view of an application has these from here: an entry point that also
 * exports the rest would bring all of it along.
 */
export { isObject, isSameJson, type Json, type JsonObject } from './profile/merge-patch';
export { ownRules, type OwnRules } from './profile/own-rules';
export { Assignments } from './site/assign';
