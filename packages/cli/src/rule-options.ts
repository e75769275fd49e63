import type { CompileOptions, ResolvedProfile } from '@typikon/core';
import { required } from './arguments';
import { Failure } from './failure';
import { readHouse, readProfile } from './files';

/** The options of every command that works by a profile's rules. */
export const RULE_OPTIONS = {
  profile: { type: 'string' },
  house: { type: 'string' },
  role: { type: 'string' },
  json: { type: 'boolean' },
  jsonl: { type: 'boolean' },
} as const;

/** Reads the profile, the house limits and the role that were named. Throws a Failure where they do not go together. */
export function readRuleOptions(
  values: {
    profile?: string | undefined;
    house?: string | undefined;
    role?: string | undefined;
    json?: boolean | undefined;
    jsonl?: boolean | undefined;
  },
  usage: string,
): { resolved: ResolvedProfile; options: CompileOptions } {
  const { house, role } = values;
  if (values.json === true && values.jsonl === true) throw new Failure('Give either --json or --jsonl, not both.');
  const options = above(house, role);
  return { resolved: readProfile(required(values.profile, 'profile', usage)), options };
}

/** The options of every command that sets two profiles beside each other. */
export const TWO_PROFILES = {
  from: { type: 'string' },
  to: { type: 'string' },
  house: { type: 'string' },
  role: { type: 'string' },
  json: { type: 'boolean' },
} as const;

/** Reads the two profiles, and what stands above both. Throws a Failure where one is missing or has mistakes. */
export function readTwoProfiles(
  values: { from?: string | undefined; to?: string | undefined; house?: string | undefined; role?: string | undefined },
  usage: string,
): { from: ResolvedProfile; to: ResolvedProfile; options: CompileOptions } {
  const paths = { from: required(values.from, 'from', usage), to: required(values.to, 'to', usage) };
  const options = above(values.house, values.role);
  return { from: readProfile(paths.from), to: readProfile(paths.to), options };
}

/** What stands above profiles: the house limits in a file, and the role that they bind. */
export function above(house: string | undefined, role: string | undefined): CompileOptions {
  if (role !== undefined && house === undefined)
    throw new Failure('--role only matters with --house, whose limits it may be excepted from.');
  return { ...(house === undefined ? {} : { house: readHouse(house) }), ...(role === undefined ? {} : { role }) };
}
