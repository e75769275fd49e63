import {
  asBrowsersWrite,
  bestFirst,
  causeSentence,
  causeTitle,
  DESK,
  Likeness,
  proposeRepairs,
  repairSentence,
  share,
  specificityText,
  trialSentence,
  tryRepair,
  type Cause,
  type ContentToCompare,
  type LikenessInput,
  type PlaceDifference,
  type RuleNote,
  type Setting,
  type TriedRepair,
} from '@typikon/core';
import { readArguments, required } from '../arguments';
import { Failure } from '../failure';
import { readText } from '../files';
import { print } from '../output';
import { readSheetList, readWidth, splitPaths } from '../sheets';
import type { Command } from './command';

const usage =
  'likeness --editor A.css,… --page B.css,… [--editing C.css,…] [--editor-width PX] [--page-width PX] [--json] FILE.html [MORE.html …]';

/** Tells where content looks different in the editor and on the page, why, and what would repair it. */
export const likenessCommand: Command = {
  name: 'likeness',
  usage,
  examples: [
    'likeness --editor demo/stylesheets/general.css --page demo/stylesheets/general.css,demo/stylesheets/site.css --json page.html',
  ],
  purpose:
    'Compares how content looks with the stylesheets of the editor and with those of the page: what differs, by which cause, and which repair would settle it. --editing names sheets that are only for editing. Exit code 1 says that something differs.',
  run(args) {
    const { values, positionals } = readArguments(
      args,
      {
        editor: { type: 'string' },
        page: { type: 'string' },
        editing: { type: 'string' },
        'editor-width': { type: 'string' },
        'page-width': { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    if (positionals.length === 0) throw new Failure(`At least one page must be given. Usage: typikon ${usage}`);
    const editor = required(values.editor, 'editor', usage);
    const page = required(values.page, 'page', usage);
    const editing = values.editing ?? '';
    const paths = [editor, page, editing].flatMap(splitPaths);
    const setting = (list: string, widthPx: number): Setting => ({
      sheets: readSheetList(list, paths),
      media: { ...DESK, widthPx },
      wrapper: null,
      title: '',
      columnPx: null,
    });
    const input: LikenessInput = {
      // A sheet that is only for editing is part of the surface, whether it was listed there or not.
      editor: setting(
        [editor, ...splitPaths(editing).filter((path) => !splitPaths(editor).includes(path))].join(','),
        readWidth('editor-width', values['editor-width']),
      ),
      page: setting(page, readWidth('page-width', values['page-width'])),
      editingSheets: readSheetList(editing, paths).map(({ name }) => name),
    };
    const documents: ContentToCompare[] = positionals.map((path) => ({ id: path, html: readText(path) }));
    const likeness = new Likeness(input);
    for (const document of documents) likeness.add(document);
    const report = likeness.report();
    const contents = new Map(documents.map(({ id, html }) => [id, html]));
    const mayLoad = (sheet: string): boolean => input.editingSheets?.includes(sheet) !== true;
    const repairs = report.causes.map((cause): TriedRepair[] =>
      bestFirst(
        proposeRepairs(cause, input, contents, { mayLoad }).map((repair) => ({
          repair,
          trial: tryRepair(repair, cause, input, documents, report),
        })),
      ),
    );
    const leftOut = [...likeness.editor.styles.cascade.leftOut, ...likeness.page.styles.cascade.leftOut].filter(
      ({ reason }) => reason === 'selector' || reason === 'import' || reason === 'container' || reason === 'scope',
    );
    if (values.json === true)
      print(
        `${JSON.stringify(
          {
            elements: report.elements,
            alike: report.alike,
            share: round(share(report)),
            editor: { sheets: input.editor.sheets.map(({ name }) => name), widthPx: input.editor.media.widthPx },
            page: { sheets: input.page.sheets.map(({ name }) => name), widthPx: input.page.media.widthPx },
            causes: report.causes.map((cause, at) => causeAsJson(cause, at + 1, repairs[at]!)),
            // The same, element by element.
            differences: report.causes.flatMap((cause, at) => differencesOf(cause, at + 1)),
            leftOut: [...new Set(leftOut.map(({ sheet, line, text, reason }) => JSON.stringify({ sheet, line, text, reason })))].map(
              (text) => JSON.parse(text) as unknown,
            ),
          },
          null,
          2,
        )}\n`,
      );
    else
      print(
        [
          `${report.alike} of ${report.elements} elements look the same (${(share(report) * 100).toFixed(1)} %).`,
          ...report.causes.flatMap((cause, at) => [
            '',
            `${at + 1}. ${causeTitle(cause)}`,
            `   ${causeSentence(cause)}`,
            ...cause.places
              .slice(0, 5)
              .map(
                ({ document, line, element, pseudo, differences }) =>
                  `   ${document}:${line}: ${element}${pseudo}${differences.length === 0 ? '' : `: ${differences.map((one) => `${one.property} ${one.editor} / ${one.page}`).join('; ')}`}`,
              ),
            ...(cause.places.length > 5 ? [`   and ${cause.places.length - 5} more places`] : []),
            ...repairs[at]!.flatMap(({ repair, trial }) => [
              `   Repair: ${repairSentence(repair)} ${trialSentence(trial)}`,
              ...(repair.kind === 'add-rule' ? repair.css.split('\n').map((line) => `     ${line}`) : []),
            ]),
          ]),
          '',
        ].join('\n'),
      );
    return report.causes.length > 0 ? 1 : 0;
  },
};

const written = ({ property, editor, page }: PlaceDifference): PlaceDifference => ({
  property,
  editor: asBrowsersWrite(property, editor),
  page: asBrowsersWrite(property, page),
});

const differencesOf = ({ places, kind }: Cause, cause: number) =>
  places.flatMap(({ document, path, pseudo, differences }) =>
    differences.map((one) => ({ document, path: `${path}${pseudo}`, ...written(one), cause, kind })),
  );

const round = (value: number): number => Math.round(value * 10_000) / 10_000;

const ruleAsJson = (rule: RuleNote | null) => (rule === null ? null : { ...rule, specificity: specificityText(rule.specificity) });

function causeAsJson(cause: Cause, number: number, repairs: readonly TriedRepair[]) {
  const { kind, because, side, reason, lack, condition, from, variables, properties, places } = cause;
  return {
    number,
    kind,
    because,
    title: causeTitle(cause),
    explanation: causeSentence(cause),
    side,
    rule: ruleAsJson(cause.rule),
    instead: ruleAsJson(cause.instead),
    reason,
    lack,
    condition,
    from,
    variables,
    properties,
    count: places.length,
    documents: new Set(places.map(({ document }) => document)).size,
    places: places.map(({ document, path, line, element, pseudo, differences, fit }) => ({
      document,
      path,
      line,
      element,
      ...(pseudo === '' ? {} : { pseudo }),
      differences: differences.map(written),
      ...(fit === undefined ? {} : { fit }),
    })),
    repairs: repairs.map(({ repair, trial }) => ({
      ...repair,
      ...(repair.kind === 'add-rule' ? { specificity: specificityText(repair.specificity) } : {}),
      does: repairSentence(repair),
      tried: trialSentence(trial),
      trial: { ...trial, before: round(trial.before), after: round(trial.after) },
    })),
  };
}
