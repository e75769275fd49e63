import { clean, cleanWithoutLedger, compileRules, measure, type CompiledRules } from '@typikon/core';
import { readArguments } from '../arguments';
import { Failure } from '../failure';
import { readText } from '../files';
import { print } from '../output';
import { readRuleOptions, RULE_OPTIONS } from '../rule-options';
import type { Command } from './command';

const usage = 'clean --profile P.json [--house H.json] [--role R] [--json | --jsonl] [FILE|-]';

/** Cleans markup by a profile's rules. */
export const cleanCommand: Command = {
  name: 'clean',
  usage,
  examples: [
    'clean --profile demo/profiles/story-desk.json page.html',
    'clean --profile demo/profiles/story-desk.json --json - < page.html',
  ],
  purpose: 'Cleans markup by the markup rules of a profile and writes what may be stored; with --json also the ledger and the measures.',
  run(args) {
    const { values, positionals } = readArguments(args, RULE_OPTIONS, usage);
    if (positionals.length > 1) throw new Failure(`Only one file can be given, not ${positionals.length}. Usage: typikon ${usage}`);
    const { resolved, options } = readRuleOptions(values, usage);
    const rules = compileRules(resolved, options);
    const input = readText(positionals[0] ?? '-');
    if (values.jsonl === true) cleanLines(input, rules, positionals[0] ?? 'standard input');
    else if (values.json === true) {
      const { html, root, ledger } = clean(input, rules);
      print(`${JSON.stringify({ html, ledger, measures: measure(input, html, root, ledger) })}\n`);
    } else print(cleanWithoutLedger(input, rules));
    return 0;
  },
};

function cleanLines(input: string, rules: CompiledRules, name: string): void {
  input.split('\n').forEach((line, index) => {
    if (line.trim() === '') return;
    let item: { id?: unknown; html?: unknown };
    try {
      item = JSON.parse(line) as typeof item;
    } catch (error) {
      throw new Failure(`${name}:${index + 1}: is not JSON, ${(error as Error).message}.`);
    }
    if (typeof item !== 'object' || item === null || typeof item.html !== 'string')
      throw new Failure(`${name}:${index + 1}: needs an object {"id", "html"} with html as a string.`);
    const { html, ledger } = clean(item.html, rules);
    print(`${JSON.stringify({ id: item.id, html, ledger })}\n`);
  });
}
