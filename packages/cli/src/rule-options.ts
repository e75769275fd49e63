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
  if (role !== undefined && house === undefined)
    throw new Failure('--role only matters with --house, whose limits it may be excepted from.');
  const resolved = readProfile(required(values.profile, 'profile', usage));
  return { resolved, options: { ...(house === undefined ? {} : { house: readHouse(house) }), ...(role === undefined ? {} : { role }) } };
}
