import {
  cleanParsed,
  cloneFragment,
  compileRules,
  lessonsOf,
  measure,
  parseFragment,
  patchToLearn,
  resolveProfile,
  takeCensus,
  type Census,
  type CompiledRules,
  type CompileOptions,
  type JsonObject,
  type ParsedFragment,
  type Lessons,
  type ResolvedProfile,
} from '@typikon/core';
import type { Proof, ProofRequest, WorkerTask } from './state/types';

/** The rules compiled last, kept as long as the same profile is asked for. */
let compiled: { key: string; resolved: ResolvedProfile; options: CompileOptions; rules: CompiledRules } | null = null;

addEventListener('message', ({ data }: MessageEvent<{ id: number; task: WorkerTask }>) => {
  const { id, task } = data;
  try {
    postMessage({ id, result: run(task) });
  } catch (error) {
    postMessage({ id, failure: error instanceof Error ? error.message : String(error) });
  }
});

function run(task: WorkerTask): Proof | Lessons | JsonObject {
  const { resolved, options, rules } = compile(task.request);
  switch (task.kind) {
    case 'prove':
      return prove(task.request, rules);
    case 'list-lessons':
      return lessonsOf(task.request.html, resolved, options);
    case 'learn':
      return patchToLearn(task.request.html, resolved, new Set(task.chosen), options);
  }
}

function compile({ profileId, documents, house, role }: ProofRequest): NonNullable<typeof compiled> {
  const key = JSON.stringify([profileId, documents, house, role]);
  if (compiled?.key === key) return compiled;
  const resolution = resolveProfile(profileId, (id) => documents[id]);
  if (!resolution.ok) throw new Error(resolution.problems.map(({ pointer, message }) => `${pointer} ${message}`.trim()).join(' '));
  const options: CompileOptions = { ...(house === null ? {} : { house }), ...(role === '' ? {} : { role }) };
  const { resolved } = resolution;
  return (compiled = { key, resolved, options, rules: compileRules(resolved, options) });
}

/** The markup parsed last: while rules change, it stays the same. */
let read: { fragment: ParsedFragment; census: Census } | null = null;

function reading(html: string): { fragment: ParsedFragment; census: Census } {
  if (read?.fragment.input === html) return read;
  const fragment = parseFragment(html);
  return (read = { fragment, census: takeCensus(fragment.root) });
}

function prove({ html }: ProofRequest, rules: CompiledRules): Proof {
  const begin = performance.now();
  const { fragment, census } = reading(html);
  const cleaned = cleanParsed(cloneFragment(fragment), rules);
  return {
    input: html,
    html: cleaned.html,
    ledger: cleaned.ledger,
    measures: measure(html, cleaned.html, cleaned.root, cleaned.ledger),
    census,
    ms: performance.now() - begin,
  };
}
