import {
  compileRules,
  dropFromNowOn,
  keepFromNowOn,
  lessonsOf,
  lettersKept,
  makeDictionary,
  markupOf,
  markupOfSpecimen,
  overtakenPasses,
  parseFragment,
  patchToKeep,
  patchToLearn,
  provePaste,
  proveSpecimen,
  proveStored,
  resolveProfile,
  runPaste,
  summarizeRules,
  takeCensus,
  takeInventory,
  verdictsOf,
  type Census,
  type ClipboardPayload,
  type CompiledRules,
  type CompileOptions,
  type ParsedFragment,
  type Pasted,
  type Proof as CoreProof,
  type PasteOptions,
  type ResolvedProfile,
} from '@typikon/core';
import type { Arrival, MatrixRow, Proof, ProofRequest, ProvedPaste, RulesRequest, Specimen, WorkerTask } from './types';

/** The rules compiled last, kept as long as the same profile is asked for. */
let compiled: { key: string; resolved: ResolvedProfile; options: CompileOptions; rules: CompiledRules } | null = null;

/**
 * Does what the worker is asked.
 *
 * @param onRow is told each row of a matrix
 * @param onProgress is told how many steps of how many are done
 */
export async function runTask(
  task: WorkerTask,
  onRow: (row: MatrixRow) => void = () => undefined,
  onProgress: (done: number, steps: number) => void = () => undefined,
): Promise<unknown> {
  const begin = performance.now();
  if (task.kind === 'read') return markupOf(task.payload, task.isMarkdown).html;
  if (task.kind === 'inventory') return task.markups.map((html) => takeInventory(html));
  const { resolved, options, rules } = compile(task.request);
  switch (task.kind) {
    case 'rules':
      return summarizeRules(rules, task.request.names);
    case 'drop':
      return dropFromNowOn(task.thing, resolved);
    case 'keeping':
      return patchToKeep(task.entries, resolved, task.request.html, options);
    case 'prove':
      return prove(task.request, resolved, options, rules, begin, onProgress);
    case 'list-lessons':
      return lessonsOf(task.request.html, resolved, options);
    case 'learn':
      return patchToLearn(task.request.html, resolved, new Set(task.chosen), options);
    case 'overtaken': {
      const paste = payloadOf(task.request);
      return paste === null
        ? []
        : overtakenPasses(paste.payload, resolved, { ...options, source: paste.source, isWord: await dictionaryFor(task.request.html) });
    }
    case 'keep': {
      const paste = payloadOf(task.request);
      if (paste === null) return null;
      return keepFromNowOn(task.thing, paste.payload, resolved, {
        ...options,
        source: paste.source,
        isWord: await dictionaryFor(task.request.html),
      });
    }
    case 'would': {
      const paste = payloadOf(task.request);
      if (paste === null) return {};
      const { trace } = runPaste(paste.payload, resolved, { ...options, source: paste.source, whatIf: true });
      return Object.fromEntries(trace.filter(({ rests }) => rests === 'off').map(({ pass, changes, offers }) => [pass, changes + offers]));
    }
    case 'matrix':
      for (const specimen of task.request.specimens) onRow(await rowOf(specimen, resolved, options, rules, task.request.isQuick));
      return null;
  }
}

function compile({ profileId, documents, house, role }: Omit<RulesRequest, 'names'>): NonNullable<typeof compiled> {
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

let dictionary: Promise<(word: string) => boolean> | null = null;

/** Whether a word is known; the dictionary is fetched once there is a hyphen at the end of a line to ask it about. */
async function dictionaryFor(html: string): Promise<(word: string) => boolean> {
  if (!/\p{L}[-\u00ad\u2010]\s*(?:<|\n)/u.test(html)) return () => false;
  dictionary ??= Promise.all(['aff', 'dic'].map(async (ending) => (await fetch(`/dictionaries/en-GB/index.${ending}`)).text())).then(
    ([aff, dic]) => makeDictionary(aff!, dic!),
  );
  try {
    return await dictionary;
  } catch {
    dictionary = null;
    return () => false;
  }
}

function payloadOf({
  html,
  arrival,
}: Pick<ProofRequest, 'html' | 'arrival'>): { payload: ClipboardPayload; source: Extract<Arrival, { way: 'paste' }>['source'] } | null {
  return arrival.way === 'paste' ? { payload: { types: { ...arrival.beside, 'text/html': html } }, source: arrival.source } : null;
}

async function prove(
  request: ProofRequest,
  resolved: ResolvedProfile,
  options: CompileOptions,
  rules: CompiledRules,
  begin: number,
  onProgress: (done: number, steps: number) => void,
): Promise<Proof> {
  const { html, arrival, expectations } = request;
  const { fragment, census } = reading(html);
  const told = (proof: CoreProof) => ({
    input: html,
    html: proof.html,
    ledger: proof.ledger,
    measures: proof.measures,
    census,
    ms: performance.now() - begin,
  });
  if (arrival.way === 'stored') return { ...told(proveStored(fragment, resolved, { ...options, rules })), paste: null, verdicts: [] };
  const isWord = await dictionaryFor(html);
  const proof = provePaste({ types: { ...arrival.beside, 'text/html': html } }, resolved, {
    ...options,
    source: arrival.source,
    parsed: fragment,
    rules,
    isWord,
    onProgress,
    trace: arrival.pass !== null ? 'html' : arrival.isDetailed ? 'sizes' : 'counts',
  });
  return { ...told(proof), paste: whatPassesDid(proof.paste!, arrival), verdicts: verdictsOf(expectations, proof) };
}

function whatPassesDid(
  { source, trace, rulesTrace, pictures, picturesToUpload, input }: Pasted,
  { pass }: Extract<Arrival, { way: 'paste' }>,
): ProvedPaste {
  const at = trace.findIndex((step) => step.pass === pass);
  return {
    source: source.source,
    trace: trace.map(({ html: _html, ...step }) => step),
    rules: rulesTrace,
    pictures: pictures.length,
    picturesToUpload,
    view:
      pass === null || at === -1 ? null : { pass, before: at === 0 ? input : (trace[at - 1]!.html ?? ''), after: trace[at]!.html ?? '' },
  };
}

async function rowOf(
  specimen: Specimen,
  resolved: ResolvedProfile,
  options: CompileOptions,
  rules: CompiledRules,
  isQuick: boolean,
): Promise<MatrixRow> {
  const isWord = await dictionaryFor(markupOfSpecimen(specimen, resolved));
  const pasteOptions: PasteOptions = { ...options, rules, isWord };
  const { paste, html, ledger, measures, verdicts } = proveSpecimen(specimen, resolved, pasteOptions);
  return {
    specimenId: specimen.id,
    kept: lettersKept(measures),
    changed: ledger.filter(({ severity }) => severity !== 'tidy').length,
    lost: measures.losses,
    expectationsMet: verdicts.filter(({ isMet }) => isMet).length,
    expectations: verdicts.length,
    passes: Object.fromEntries(
      paste?.trace.filter(({ changes, ran }) => ran && changes > 0).map(({ pass, changes }) => [pass, changes]) ?? [],
    ),
    overtaken:
      paste === null || isQuick ? [] : overtakenPasses(specimen.payload, resolved, { ...pasteOptions, source: paste.source.source }),
    html,
  };
}
