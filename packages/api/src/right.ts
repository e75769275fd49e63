import type { Right } from '@typikon/core';

/** The member of a route's description that names the right it needs; the server holds every request to it. */
export const RIGHT = 'x-right';

/** Marks a route with the right that it needs. */
export const needs = <Of extends Right>(right: Of): { readonly [RIGHT]: Of } => ({ [RIGHT]: right });

/** Names the person who acts, by id. */
export const PERSON_HEADER = 'typikon-person';
