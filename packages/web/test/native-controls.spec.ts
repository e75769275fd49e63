import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const SOURCES = join(__dirname, '..', 'src');

/** Native controls that Material has nothing for: files, colours, a range, and what a form posts into a frame. */
const WITHOUT_COUNTERPART = /\btype="(?:file|color|range|hidden)"/;

/** Places that are still to become Material's; none is added, and one that is done leaves the list. */
const STILL_NATIVE: Readonly<Record<string, number>> = {
  'features/assignments/assignment-grid.ts': 1,
  'features/assignments/assignments-page.html': 1,
  'features/bench/author-view.ts': 1,
  'features/bench/bench.html': 6,
  'features/bench/ledger-view.html': 3,
  'features/bench/left-view.html': 1,
  'features/bench/let-through-dialog.html': 2,
  'features/compare/compare-page.html': 1,
  'features/likeness/contest-tables.ts': 1,
  'features/likeness/likeness-page.html': 7,
  'features/likeness/page-frame.ts': 1,
  'features/paste/compare-dialog.html': 1,
  'features/paste/matrix-dialog.html': 3,
  'features/paste/pass-settings.html': 2,
  'features/paste/paste-chapter.html': 3,
  'features/paste/replacements.html': 2,
  'features/specimens/expectations-editor.html': 2,
  'features/specimens/specimens-page.html': 2,
  'features/style-files/page-kind-editor.html': 1,
  'features/styles/styles-chapter.html': 3,
  'features/styles/styles-from-css.ts': 1,
  'features/surface/surface-chapter.html': 2,
  'features/toolbar/button-details.html': 2,
  'features/toolbar/task-check.html': 1,
  'features/toolbar/toolbar-board.html': 7,
  'features/toolbar/toolbar-chapter.html': 3,
  'features/toolbar/typed-marks.ts': 1,
  'features/types/give-dialog.html': 1,
  'features/workshop/attribute-rules.html': 1,
  'features/workshop/changes-table.ts': 1,
  'features/workshop/element-demands.html': 5,
  'features/workshop/element-details.html': 2,
  'features/workshop/findings-chapter.ts': 1,
  'features/workshop/markup-chapter.html': 2,
  'features/workshop/rest-of-markup.html': 1,
  'features/workshop/test-form.ts': 1,
  'ui/name-badge.ts': 1,
  'ui/tabs.ts': 1,
};

function templates(): { file: string; template: string }[] {
  return readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(html|ts)$/.test(file) && !file.endsWith('.spec.ts'))
    .map((file) => {
      const text = readFileSync(join(SOURCES, file), 'utf8');
      const template = file.endsWith('.html') ? text : (/\btemplate: `([\s\S]*?)`,\n/.exec(text)?.[1] ?? '');
      return { file: relative(SOURCES, join(SOURCES, file)), template };
    });
}

/** Tags of controls without a directive of Material or its kit. */
function nativeControls(template: string): string[] {
  const tags = template.matchAll(/<(button|input|select|textarea|table|details|dialog)\b(?:[^>"]|"[^"]*")*>/g);
  return [...tags].map(([tag]) => tag).filter((tag) => !/\s(?:mat[A-Z-]|cdk)/.test(tag) && !WITHOUT_COUNTERPART.test(tag));
}

test('controls come from Material, but for the places that are listed', () => {
  const found = Object.fromEntries(
    templates()
      .map(({ file, template }) => [file, nativeControls(template).length] as const)
      .filter(([, count]) => count > 0)
      .sort(([one], [other]) => (one < other ? -1 : 1)),
  );
  expect(found).toEqual(STILL_NATIVE);
});

test('what is native is told from what is not', () => {
  expect(nativeControls('<button type="button">x</button><button mat-button (click)="a > b">y</button>')).toHaveLength(1);
  expect(nativeControls('<input type="file" /><input matInput [value]="x" /><input class="a" />')).toEqual(['<input class="a" />']);
  expect(nativeControls('<table mat-table></table><table></table>')).toEqual(['<table>']);
});
