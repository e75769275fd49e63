import * as site from './site';

/** Every route of the contract, by its name. The server is held to these, the client is typed by them. */
export const contract = {
  readSite: site.readSite,
  saveSite: site.saveSite,
  whyThisProfile: site.whyThisProfile,
  whoActs: site.whoActs,
} as const;

export type Contract = typeof contract;
export { problemSchema, type ProblemDetails } from './common';
export { PERSON_HEADER, RIGHT, needs } from './right';
