import type { Certainty, CertainReach, Effects } from '@typikon/core';
import type { Sequelize } from 'sequelize';
import type { TextName } from './candidates';
import { heldByName, heldFeatures, type HeldFeature, type HeldText } from './held';

/** A text that a change can touch. */
export interface Decided extends TextName {
  /** Whether it is known to come out differently; what becomes of any other has to be seen. */
  isSure: boolean;
}

/** Of a part of the texts this much has to be told, so that it is worth going on. */
const LEAST_TOLD = 0.1;

/**
 * Tells by what they hold what a change does to texts: none of them is read, or cleaned. Those that come out the same are left out.
 *
 * @param reachFor the change, for texts that were written with a role
 */
export async function decide(
  sequelize: Sequelize,
  texts: readonly TextName[],
  reachFor: (role: string) => CertainReach,
): Promise<Decided[]> {
  const judges = new Map<string, Judge>();
  const features = new Map<number, HeldFeature>();
  const decided: Decided[] = [];
  let [looked, told] = [0, 0];
  for await (const held of heldByName(sequelize, texts)) {
    await heldFeatures(sequelize, held, features);
    for (const text of held) {
      let judge = judges.get(text.role);
      if (judge === undefined) judges.set(text.role, (judge = new Judge(reachFor(text.role), features)));
      const certainty = judge.of(text);
      if (certainty !== 'open') told++;
      if (certainty !== 'same') decided.push({ document: text.document, field: text.field, isSure: certainty === 'touched' });
    }
    looked += held.length;
    if (told < looked * LEAST_TOLD) break;
  }
  // Where next to nothing can be told, looking up what the others hold would take longer than it spares.
  for (const { document, field } of texts.slice(looked)) decided.push({ document, field, isSure: false });
  return decided;
}

class Judge {
  private readonly known = new Map<number, Effects>();

  constructor(
    private readonly reach: CertainReach,
    private readonly features: ReadonlyMap<number, HeldFeature>,
  ) {}

  of(text: HeldText): Certainty {
    if (!text.isKnown || !text.isSameByItself) return 'open';
    let effects = 0;
    for (const id of text.features) {
      const feature = this.features.get(id);
      if (feature === undefined || feature.isCut) return 'open';
      let own = this.known.get(id);
      if (own === undefined) this.known.set(id, (own = this.reach.ofFeature(feature)));
      effects |= own;
    }
    return this.reach.of(effects, text);
  }
}
