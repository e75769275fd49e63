import { renameSync, writeFileSync } from 'node:fs';
import {
  compileRules,
  expectationWords,
  explanationOf,
  groupEntries,
  lettersKept,
  proveSpecimen,
  sentenceOf,
  SPECIMEN_FORMAT,
  updatedExpectations,
  type Expectation,
  type JsonObject,
  type LedgerEntry,
  type PasteOptions,
  type SpecimenProof,
} from '@typikon/core';
import { readArguments } from '../arguments';
import { dictionary } from '../dictionary';
import { Failure } from '../failure';
import { readJson } from '../files';
import { junitXml, type TestSuite } from '../junit';
import { print } from '../output';
import { readRuleOptions, RULE_OPTIONS } from '../rule-options';
import { readSpecimens, type SpecimenFile } from '../specimens';
import type { Command } from './command';

const usage = 'prove --profile P.json [--house H.json] [--role R] [--own] [--update] [--junit FILE] [--json] SPECIMEN…|DIR';

/** Runs specimens through a profile and tells which expectations are not met, and by which rule. */
export const proveCommand: Command = {
  name: 'prove',
  usage,
  examples: [
    'prove --profile demo/profiles/notices-desk.json --house demo/house-limits.json --own demo/specimens',
    'prove --profile demo/profiles/notices-desk.json --junit results.xml minutes.specimen.json',
  ],
  purpose: `Runs specimens (${SPECIMEN_FORMAT}) through the passes and the rules of a profile; exit code 1 says that an expectation is not met. With --update writes what now comes out as expectations, for review.`,
  run(args) {
    const { values, positionals } = readArguments(
      args,
      {
        ...RULE_OPTIONS,
        jsonl: { type: 'boolean', default: false },
        own: { type: 'boolean' },
        update: { type: 'boolean' },
        junit: { type: 'string' },
      },
      usage,
    );
    if (values.jsonl) throw new Failure(`prove has no --jsonl; --json writes everything. Usage: typikon ${usage}`);
    if (positionals.length === 0) throw new Failure(`Give specimens, or a folder of them. Usage: typikon ${usage}`);
    const { resolved, options } = readRuleOptions({ ...values, jsonl: undefined }, usage);
    const proofOptions: PasteOptions = { ...options, rules: compileRules(resolved, options), isWord: dictionary() };
    const specimens = readSpecimens(positionals).filter(({ specimen }) => values.own !== true || specimen.profile === resolved.id);
    if (specimens.length === 0) throw new Failure(`None of the specimens is meant for the profile "${resolved.id}".`);
    const proved = specimens.map((one): Proved => {
      const begin = performance.now();
      const proof = proveSpecimen(one.specimen, resolved, proofOptions);
      return { ...one, proof, ms: performance.now() - begin };
    });
    if (values.junit !== undefined) writeWhole(values.junit, junitXml(`typikon prove ${resolved.id}`, proved.map(suiteOf)));
    if (values.update === true) return update(proved);
    if (values.json === true) print(`${JSON.stringify({ profile: resolved.id, specimens: proved.map(told) })}\n`);
    else for (const one of proved) print(linesOf(one));
    return proved.every(({ proof }) => proof.verdicts.every(({ isMet }) => isMet)) ? 0 : 1;
  },
};

interface Proved extends SpecimenFile {
  proof: SpecimenProof;
  ms: number;
}

/** Everything that is known of a specimen. */
function told({ file, specimen, proof }: Proved): object {
  return {
    file,
    id: specimen.id ?? null,
    name: specimen.name,
    kept: lettersKept(proof.measures),
    html: proof.html,
    ledger: proof.ledger,
    verdicts: proof.verdicts.map(({ expectation, isMet, found }) => ({
      expectation,
      isMet,
      found,
      explanation: isMet ? [] : explanationOf(expectation, proof),
    })),
  };
}

const nameOf = ({ specimen }: SpecimenFile): string => specimen.id ?? specimen.name;

/** A line for the specimen, and some for each expectation that is not met. */
function linesOf(proved: Proved): string {
  const { verdicts, measures, ledger } = proved.proof;
  const unmet = verdicts.filter(({ isMet }) => !isMet);
  const kept = `${lettersKept(measures).toFixed(1)} % of the letters kept, ${ledger.length} changes`;
  const met = verdicts.length === 0 ? 'no expectations' : `${verdicts.length - unmet.length} of ${verdicts.length} expectations met`;
  const lines = [`${unmet.length === 0 ? 'met  ' : 'UNMET'} ${nameOf(proved)}: ${met}; ${kept}`];
  for (const { expectation, found } of unmet) lines.push(`      ${failureOf(expectation, found)}`, ...reasonsOf(expectation, proved));
  return `${lines.join('\n')}\n`;
}

const failureOf = (expectation: Expectation, found: string): string => `${expectationWords(expectation)}: found ${found}`;

/** Why an expectation is not met: what was done, by which rule, and where. */
function reasonsOf(expectation: Expectation, { proof }: Proved): string[] {
  return explanationOf(expectation, proof).map((entry) => `        ${sentenceOf(groupEntries([entry])[0]!)} (${placeOf(entry)})`);
}

const placeOf = ({ layer, origin, rule, line, column }: LedgerEntry): string =>
  `${rule === '' ? layer : `${origin ?? layer} ${rule}`}, line ${line}, column ${column}`;

function suiteOf(proved: Proved): TestSuite {
  return {
    name: nameOf(proved),
    file: proved.file,
    ms: proved.ms,
    cases: proved.proof.verdicts.map(({ expectation, isMet, found }) => ({
      name: expectationWords(expectation),
      failure: isMet
        ? null
        : {
            message: `found ${found}`,
            details: reasonsOf(expectation, proved)
              .map((line) => line.trim())
              .join('\n'),
          },
    })),
  };
}

/** Writes what now comes out into the files of the specimens, each file once and whole. */
function update(proved: readonly Proved[]): 0 {
  const documents = new Map<string, JsonObject | JsonObject[]>();
  for (const { file, place, document, specimen, proof } of proved) {
    const expectations = updatedExpectations(specimen.expectations, proof);
    const before = specimen.expectations.map((one) => JSON.stringify(one));
    const after = expectations.map((one) => JSON.stringify(one));
    const gone = specimen.expectations.filter((_one, at) => !after.includes(before[at]!));
    const come = expectations.filter((_one, at) => !before.includes(after[at]!));
    print(`${gone.length + come.length === 0 ? 'as it was' : 'updated  '} ${nameOf({ file, place, document, specimen })}\n`);
    for (const one of gone) print(`  - ${expectationWords(one)}\n`);
    for (const one of come) print(`  + ${expectationWords(one)}\n`);
    if (gone.length + come.length === 0) continue;
    const updated = { ...document, expectations: expectations } as JsonObject;
    if (place === null) documents.set(file, updated);
    else {
      const list = (documents.get(file) ?? readJson(file)) as JsonObject[];
      documents.set(
        file,
        list.map((one, at) => (at === place ? updated : one)),
      );
    }
  }
  for (const [file, document] of documents) writeWhole(file, `${JSON.stringify(document, null, 2)}\n`);
  return 0;
}

/** Writes a file beside its place and moves it there, so that none is ever half written. */
function writeWhole(file: string, text: string): void {
  const beside = `${file}.${process.pid}.part`;
  try {
    writeFileSync(beside, text);
    renameSync(beside, file);
  } catch (error) {
    throw new Failure(`${file}: cannot be written, ${(error as NodeJS.ErrnoException).code ?? String(error)}.`);
  }
}
