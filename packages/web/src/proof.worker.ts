import { clean, compileRules, measure, resolveProfile, takeCensus, type Census, type CompiledRules } from '@typikon/core';
import type { Proof, ProofRequest } from './state/types';

/** The rules compiled last, kept as long as the same profile is asked for. */
let compiled: { key: string; rules: CompiledRules } | null = null;

addEventListener('message', ({ data }: MessageEvent<{ id: number; request: ProofRequest }>) => {
  const { id, request } = data;
  try {
    postMessage({ id, proof: prove(request) });
  } catch (error) {
    postMessage({ id, failure: error instanceof Error ? error.message : String(error) });
  }
});

function prove({ profileId, documents, house, html }: ProofRequest): Proof {
  const begin = performance.now();
  const key = JSON.stringify([profileId, documents, house]);
  if (compiled?.key !== key) {
    const resolution = resolveProfile(profileId, (id) => documents[id]);
    if (!resolution.ok) throw new Error(resolution.problems.map(({ pointer, message }) => `${pointer} ${message}`.trim()).join(' '));
    compiled = { key, rules: compileRules(resolution.resolved, house === null ? {} : { house }) };
  }
  let census: Census = { elements: {}, attributes: {} };
  const cleaned = clean(html, compiled.rules, (root) => (census = takeCensus(root)));
  return {
    input: html,
    html: cleaned.html,
    ledger: cleaned.ledger,
    measures: measure(html, cleaned.html, cleaned.root, cleaned.ledger),
    census,
    ms: performance.now() - begin,
  };
}
