// Makes what a new thing of a kind begins with: `npm run new -- check long-label`. Ends with a test that fails, to start from.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { ensurePackages } from './lib/install.mjs';
import { KINDS, planOf } from './lib/new.mjs';
import { at } from './lib/paths.mjs';
import { Stop, main, say } from './lib/say.mjs';

main(async () => {
  const [kind, name] = process.argv.slice(2);
  if (kind === undefined || name === undefined) {
    const kinds = Object.entries(KINDS).map(([each, what]) => `  npm run new -- ${each.padEnd(8)} NAME   ${what}`);
    throw new Stop(`Say what is to be made, and its name:\n${kinds.join('\n')}`);
  }
  const read = (path) => (existsSync(at(path)) ? readFileSync(at(path), 'utf8') : null);
  let texts;
  try {
    texts = planOf(kind, name, read);
  } catch (error) {
    throw new Stop(error.message);
  }
  await ensurePackages();
  const prettier = await import('prettier');
  for (const [path, text] of texts) {
    const settings = await prettier.resolveConfig(at(path));
    const isNew = read(path) === null;
    mkdirSync(dirname(at(path)), { recursive: true });
    writeFileSync(at(path), await prettier.format(text, { ...settings, filepath: at(path) }));
    say(`${isNew ? 'new    ' : 'changed'}  ${path}`);
  }
  say('\nThe test among them fails until it does what it is for. docs/architecture.md says what else follows by itself.');
});
