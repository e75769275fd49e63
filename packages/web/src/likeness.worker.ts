import {
  bestFirst,
  contestFor,
  Likeness,
  LikenessCounter,
  Looks,
  proposeRepairs,
  TooMuch,
  tryRepair,
  type Cause,
  type ContentToCompare,
  type ContestTable,
  type LikenessInput,
  type LikenessReport,
  type Repair,
  type TriedRepair,
} from '@typikon/core';
import type { CountedLikeness, LikenessSummary, LikenessTask, ToldLook } from './state/likeness-tasks';

/** What was compared last: repairs and contests are asked about it. */
let compared: {
  input: LikenessInput;
  documents: readonly ContentToCompare[];
  contents: ReadonlyMap<string, string>;
  likeness: Likeness;
  report: LikenessReport;
  /** Files of the site, which a page may load. */
  files: ReadonlySet<string>;
} | null = null;

addEventListener('message', ({ data }: MessageEvent<{ id: number; task: LikenessTask }>) => {
  const { id, task } = data;
  try {
    postMessage({ id, result: run(task) });
  } catch (error) {
    postMessage({ id, failure: error instanceof Error ? error.message : String(error) });
  }
});

function run(task: LikenessTask): unknown {
  switch (task.kind) {
    case 'compare': {
      const { input, documents, files } = task;
      const begin = performance.now();
      const likeness = new Likeness(input);
      for (const document of documents) likeness.add(document);
      const report = likeness.report();
      const contents = new Map(documents.map(({ id, html }) => [id, html]));
      compared = { input, documents, contents, likeness, report, files: new Set(files) };
      const { elements, alike, documentsUnlike, causes } = report;
      return {
        elements,
        alike,
        documents: documents.length,
        documentsUnlike,
        causes,
        ms: performance.now() - begin,
      } satisfies LikenessSummary;
    }
    case 'looks':
      return looksOf(task);
    case 'count':
      return countOf(task);
    case 'repairs': {
      const cause = causeOf(task.cause);
      return cause === null ? [] : repairsOf(cause);
    }
    case 'try': {
      const cause = causeOf(task.cause);
      return cause === null ? null : tried(task.repair, cause);
    }
    case 'contest': {
      if (compared === null) return null;
      const { likeness, contents } = compared;
      const html = contents.get(task.document) ?? '';
      const at = (scene: Likeness['page']): ContestTable | null => {
        const element = scene.place(html).elements[task.index];
        return element === undefined ? null : contestFor(scene, element, task.property, task.pseudo);
      };
      return { editor: at(likeness.editor), page: at(likeness.page) };
    }
    default:
      return null;
  }
}

/** The settings in which texts were counted last. */
let counted: { of: string; counter: LikenessCounter } | null = null;

function countOf({ of, input, texts }: Extract<LikenessTask, { kind: 'count' }>): CountedLikeness {
  if (counted?.of !== of) counted = { of, counter: new LikenessCounter(input) };
  const { counter } = counted;
  const sum: CountedLikeness = { elements: 0, alike: 0, compared: 0 };
  for (const html of texts) {
    try {
      const { elements, alike } = counter.count(html);
      sum.elements += elements;
      sum.alike += alike;
      sum.compared++;
    } catch (error) {
      if (!(error instanceof TooMuch)) throw error;
    }
  }
  return sum;
}

/** The settings that texts were looked at in last. */
let looked: { of: string; looks: Looks } | null = null;

function looksOf({ of, before, after, texts }: Extract<LikenessTask, { kind: 'looks' }>): ToldLook[] {
  if (looked?.of !== of) looked = { of, looks: new Looks(before, after) };
  const { looks } = looked;
  return texts.map((html): ToldLook => {
    try {
      return looks.look(html);
    } catch (error) {
      return { failure: error instanceof Error ? error.message : String(error) };
    }
  });
}

const causeOf = (id: string): Cause | null => compared?.report.causes.find((cause) => cause.id === id) ?? null;

function repairsOf(cause: Cause): TriedRepair[] {
  const { input, contents, files } = compared!;
  // What only the surface lacks cannot be loaded there without loading it on pages too.
  const mayLoad = (sheet: string): boolean => cause.side === 'page' && files.has(sheet);
  return bestFirst(proposeRepairs(cause, input, contents, { mayLoad }).map((repair) => tried(repair, cause)));
}

const tried = (repair: Repair, cause: Cause): TriedRepair => ({
  repair,
  trial: tryRepair(repair, cause, compared!.input, compared!.documents, compared!.report),
});
