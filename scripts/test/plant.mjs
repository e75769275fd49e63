// Lints code that stands in no file, as if it stood in one. Reads `[[place, code], …]` and writes `[[rule, …], …]`, both as JSON.
import { text } from 'node:stream/consumers';
import { ESLint } from 'eslint';
import tseslint from 'typescript-eslint';
import { at } from '../lib/paths.mjs';

const eslint = new ESLint({
  cwd: at('.'),
  overrideConfig: [
    // Planted files are in no project of TypeScript: rules that ask for types are left out.
    { files: ['**/*.ts'], ...tseslint.configs.disableTypeChecked },
    { files: ['**/*.ts'], languageOptions: { parserOptions: { projectService: false } } },
  ],
});
const answers = [];
for (const [place, code] of JSON.parse(await text(process.stdin))) {
  const [result] = await eslint.lintText(code, { filePath: at(place) });
  answers.push(result.messages.map(({ ruleId, message }) => ruleId ?? message));
}
process.stdout.write(JSON.stringify(answers));
