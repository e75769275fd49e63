import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const SOURCES = join(__dirname, '..', 'src');

/** Native controls that Material has nothing for: files, colours, a range, and what a form posts into a frame. */
const WITHOUT_COUNTERPART = /\btype="(?:file|color|range|hidden)"/;

/** The only other place: elements in groups, each with what is said of it in a row below, which whoever uses the table gives as a template. */
const NATIVE: Readonly<Record<string, number>> = { 'shared/rules/rule-table.html': 1 };

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

test('controls come from Material, but for the one place that is listed', () => {
  const found = Object.fromEntries(
    templates()
      .map(({ file, template }) => [file, nativeControls(template).length] as const)
      .filter(([, count]) => count > 0)
      .sort(([one], [other]) => (one < other ? -1 : 1)),
  );
  expect(found).toEqual(NATIVE);
});

test('what is native is told from what is not', () => {
  expect(nativeControls('<button type="button">x</button><button mat-button (click)="a > b">y</button>')).toHaveLength(1);
  expect(nativeControls('<input type="file" /><input matInput [value]="x" /><input class="a" />')).toEqual(['<input class="a" />']);
  expect(nativeControls('<table mat-table></table><table></table>')).toEqual(['<table>']);
});
