import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  compileRules,
  readHouseLimits,
  resolveProfile,
  type CompiledRules,
  type CompileOptions,
  type HouseLimits,
  type Json,
  type JsonObject,
  type ResolvedProfile,
} from '../src/index';

export const DEMO = join(__dirname, '..', '..', '..', 'demo');

const json = (path: string): JsonObject => JSON.parse(readFileSync(path, 'utf8')) as JsonObject;

export const DEMO_PROFILES = readdirSync(join(DEMO, 'profiles')).map((file) => file.replace('.json', ''));
export const DEMO_MARKUP = ['documents', 'specimens'].flatMap((folder) =>
  readdirSync(join(DEMO, folder))
    .filter((file) => !file.endsWith('.json'))
    .map((file) => ({ name: `${folder}/${file}`, html: readFileSync(join(DEMO, folder, file), 'utf8') })),
);

export function demoHouse(): HouseLimits {
  const read = readHouseLimits(json(join(DEMO, 'house-limits.json')));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.house;
}

export function demoProfile(id: string): ResolvedProfile {
  return resolved(id, (other) => json(join(DEMO, 'profiles', `${other}.json`)));
}

export function demoRules(id: string, options?: CompileOptions): CompiledRules {
  return compileRules(demoProfile(id), options);
}

export function resolved(id: string, documentOf: (id: string) => Json | undefined): ResolvedProfile {
  const resolution = resolveProfile(id, documentOf);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved;
}

/** A profile with nothing but markup rules. */
export function profileOf(markup: JsonObject): ResolvedProfile {
  return resolved('test', () => ({ format: 'typikon-profile/1', name: 'Test', markup }));
}

export function rulesOf(markup: JsonObject, options?: CompileOptions): CompiledRules {
  return compileRules(profileOf(markup), options);
}
