import { basename } from 'node:path';
import { Cascade, DESK, elementsIn, parseDocument, pathOf, Styles, type Contender } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { Failure } from '../failure';
import { readText } from '../files';
import { print, warn } from '../output';
import { readWidth, splitPaths } from '../sheets';
import type { Command } from './command';

const usage = 'cascade --sheets A.css,B.css [--width PX] [--properties p,q] --jsonl FILE.html';

/** How many lines are written at once. */
const BATCH = 500;

/** Tells for every element which declaration of the stylesheets wins each property, and which ones lose. */
export const cascadeCommand: Command = {
  name: 'cascade',
  usage,
  examples: [
    'cascade --sheets demo/stylesheets/reset.css,demo/stylesheets/site.css --jsonl page.html',
    'cascade --sheets demo/stylesheets/site.css --width 390 --properties color,margin-top --jsonl page.html',
  ],
  purpose:
    'Works out for every element of a page which declaration wins each property, and which lose, by CSS Cascading and Inheritance Level 5.',
  run(args) {
    const { values, positionals } = readArguments(
      args,
      { sheets: { type: 'string' }, width: { type: 'string' }, properties: { type: 'string' }, jsonl: { type: 'boolean' } },
      usage,
    );
    const [page, ...more] = positionals;
    if (page === undefined || more.length > 0) throw new Failure(`Exactly one page must be given. Usage: typikon ${usage}`);
    const paths = splitPaths(required(values.sheets, 'sheets', usage));
    const widthPx = readWidth('width', values.width);
    const asked = values.properties
      ?.split(',')
      .map((name) => (name.trim().startsWith('--') ? name.trim() : name.trim().toLowerCase()))
      .filter((name) => name !== '');
    const names = new Map<string, string>();
    const sheets = paths.map((path) => {
      names.set(path, basename(path));
      return { name: path, css: readText(path) };
    });
    const cascade = new Cascade(sheets, { ...DESK, widthPx });
    // Containers are as wide as the styles of what stands around make them.
    new Styles(cascade, { ...DESK, widthPx });
    const shown = ({ sheet, selector, value, important, line }: Contender) => ({
      sheet: names.get(sheet) ?? sheet,
      selector,
      value,
      important,
      line,
    });
    let lines: string[] = [];
    const flush = (): void => {
      if (lines.length > 0) print(`${lines.join('\n')}\n`);
      lines = [];
    };
    for (const element of elementsIn(parseDocument(readText(page)))) {
      const path = pathOf(element);
      const contests = new Map(cascade.contests(element).map((contest) => [contest.property, contest]));
      for (const property of asked ?? [...contests.keys()].sort()) {
        const contest = contests.get(property);
        lines.push(
          JSON.stringify({
            path,
            property,
            winner: contest === undefined ? null : shown(contest.winner),
            losers: contest?.losers.map(shown) ?? [],
          }),
        );
      }
      if (lines.length > BATCH) flush();
    }
    flush();
    for (const { sheet, line, text, reason } of cascade.leftOut)
      if (reason === 'selector' || reason === 'import' || reason === 'container' || reason === 'scope')
        warn(`${names.get(sheet) ?? sheet}:${line}: left out, ${text} (${reason})\n`);
    return 0;
  },
};
