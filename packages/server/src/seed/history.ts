import {
  clean,
  compileRules,
  idSchema,
  resolveProfile,
  runPaste,
  takenLines,
  type HouseLimits,
  type JsonObject,
  type SpecimenDocument,
} from '@typikon/core';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import * as z from 'zod';
import type { StoredDocument } from '../documents/document';
import { loadDocument } from '../documents/repository';
import { keepTaken, type TakenStep } from '../documents/taken';
import { keepVersion } from '../documents/versions';

/** Earlier states of documents of the demo: what was sent, and what was pasted into it before, by specimen or as it stood in the clipboard. */
export const historyFile = z.array(
  z.strictObject({
    document: idSchema,
    field: idSchema,
    states: z
      .array(
        z.strictObject({
          at: z.iso.datetime(),
          by: idSchema,
          pasted: z.array(z.union([idSchema, z.strictObject({ 'text/html': z.string() })])).default([]),
          html: z.string(),
        }),
      )
      .min(1),
  }),
);
type History = z.output<typeof historyFile>[number];

interface Surroundings {
  profiles: ReadonlyMap<string, JsonObject>;
  house: HouseLimits;
  specimens: readonly SpecimenDocument[];
}

/** Gives documents of the demo their past: what the rules took then is worked out as it would have been. */
export async function storeHistory(
  sequelize: Sequelize,
  histories: readonly History[],
  surroundings: Surroundings,
  transaction: Transaction,
): Promise<void> {
  for (const { document: id, field, states } of histories) {
    const now = await loadDocument(id, transaction);
    const last = now?.fields.find(({ key }) => key === field);
    if (now === null || last?.profile == null) throw new Error(`demo/history.json: ${id} has no rich text in "${field}".`);
    const { profile } = last;
    const chain = resolveProfile(profile, (other) => surroundings.profiles.get(other));
    if (!chain.ok) throw new Error(`demo/history.json: the profile ${profile} has mistakes.`);
    const rules = compileRules(chain.resolved, { house: surroundings.house });
    const of = { field, profile, edition: 1 };
    let before: StoredDocument | null = null;
    for (const [at, state] of states.entries()) {
      const { html, ledger } = clean(state.html, rules);
      const steps: TakenStep[] = state.pasted.map((pasted) => {
        const payload = typeof pasted === 'string' ? payloadOf(pasted, surroundings.specimens) : { types: pasted };
        const result = runPaste(payload, chain.resolved, { house: surroundings.house });
        return { ...of, step: 'paste', lines: takenLines(result.input, result.ledger) };
      });
      if (ledger.length > 0) steps.push({ ...of, step: 'save', lines: takenLines(state.html, ledger) });
      const fields = now.fields.map((one) => (one.key === field ? { ...one, value: html, edition: 1 } : one));
      const then: StoredDocument = {
        ...now,
        fields,
        revision: at + 1,
        publicRevision: at + 1,
        changedAt: new Date(state.at),
        changedBy: state.by,
      };
      const how = at === 0 ? 'made' : 'written';
      await keepVersion(sequelize, then, how, transaction);
      await keepTaken(sequelize, then, before, how, steps, transaction);
      before = then;
    }
    const revision = states.length + 1;
    const first = new Date(states[0]!.at);
    await sequelize.query('UPDATE documents SET revision = ?, public_revision = ?, created_at = ? WHERE id = ?', {
      replacements: [revision, revision, first, id],
      type: QueryTypes.UPDATE,
      transaction,
    });
    await keepVersion(sequelize, { ...now, revision, publicRevision: revision }, 'written', transaction);
    await keepTaken(sequelize, { ...now, revision }, before, 'written', [], transaction);
  }
}

function payloadOf(id: string, specimens: readonly SpecimenDocument[]): SpecimenDocument['payload'] {
  const specimen = specimens.find((one) => one.id === id);
  if (specimen === undefined) throw new Error(`demo/history.json: there is no specimen "${id}".`);
  return specimen.payload;
}
