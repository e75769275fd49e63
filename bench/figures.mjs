// Ratios that a bench found, kept from one run to the next: `--save` adds a line to history.jsonl, `--against` compares with the last.
import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { compared } from './compared.mjs';

const HISTORY = join(import.meta.dirname, 'history.jsonl');

export class Figures {
  /** @type {Record<string, number>} */
  #found = {};

  /**
   * @param {string} bench which bench they are of
   * @param {'higher' | 'lower'} better which of two values is the better one
   */
  constructor(bench, better) {
    this.bench = bench;
    this.better = better;
  }

  /** @param {string} name @param {number} ratio to what was measured beside it in the same run */
  add(name, ratio) {
    this.#found[name] = Math.round(ratio * 1000) / 1000;
  }

  /** Compares and keeps, as the arguments of the command say. */
  finish(args = process.argv) {
    const before = readHistory().findLast(({ bench }) => bench === this.bench);
    if (args.includes('--against')) {
      console.log(
        before === undefined ? '\nNothing was kept to compare with: run it with --save first.' : `\nBeside the run of ${before.at}:`,
      );
      if (before !== undefined) for (const line of compared(before.figures, this.#found, this.better)) console.log(`  ${line}`);
    }
    if (args.includes('--save')) {
      const line = { at: new Date().toISOString(), bench: this.bench, node: process.version, figures: this.#found };
      appendFileSync(HISTORY, `${JSON.stringify(line)}\n`);
      console.log('\nKept in bench/history.jsonl.');
    }
  }
}

function readHistory() {
  if (!existsSync(HISTORY)) return [];
  return readFileSync(HISTORY, 'utf8')
    .split('\n')
    .filter((line) => line !== '')
    .map((line) => JSON.parse(line));
}
