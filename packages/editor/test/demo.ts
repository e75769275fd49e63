import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  compileRules,
  resolveProfile,
  runPaste,
  clean,
  type ClipboardPayload,
  type CompiledRules,
  type JsonObject,
  type ResolvedProfile,
} from '@typikon/core';

/** Tests and tools run from the root of the checkout. */
const DEMO = join(process.cwd(), 'demo');
const read = (...path: string[]): string => readFileSync(join(DEMO, ...path), 'utf8');

/** A demo profile with all it inherits, and its rules. */
export function demoProfile(id: string): { resolved: ResolvedProfile; rules: CompiledRules } {
  const resolution = resolveProfile(id, (name) => JSON.parse(read('profiles', `${name}.json`)) as JsonObject);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return { resolved: resolution.resolved, rules: compileRules(resolution.resolved) };
}

export const DEMO_PROFILES = readdirSync(join(DEMO, 'profiles')).map((file) => file.replace('.json', ''));

/** Every demo document, and what becomes of every pasted demo specimen: markup as it may be stored with a profile. */
export function storedMarkup(id: string): { name: string; html: string }[] {
  const { resolved, rules } = demoProfile(id);
  const documents = readdirSync(join(DEMO, 'documents')).map((file) => ({ name: file, html: clean(read('documents', file), rules).html }));
  const specimens = readdirSync(join(DEMO, 'specimens'))
    .filter((file) => file.endsWith('.html'))
    .map((file) => {
      const payload: ClipboardPayload = { types: { 'text/html': read('specimens', file) } };
      return { name: file, html: runPaste(payload, resolved, { rules }).html };
    });
  return [...documents, ...specimens];
}

export function rulesOf(markup: JsonObject): CompiledRules {
  const resolution = resolveProfile('it', () => ({ format: 'typikon-profile/1', name: 'It', markup }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return compileRules(resolution.resolved);
}
