// Turns a test file, with all of our own code that it comes to, into one CommonJS file for Jest. Loaded file by file, some
// hundred modules are found, read and started anew for each test file, and each name that is imported is looked up through a
// function at every use: the laws take twice as long.
const { createHash } = require('node:crypto');
const { readdirSync, statSync } = require('node:fs');
const { basename, dirname, join, resolve } = require('node:path');
const { pathToFileURL } = require('node:url');
const { createTransformer } = require('@swc/jest');
const { buildSync, version } = require('esbuild');

const ROOT = resolve(__dirname, '..', '..');

/** Tests that put something else in the place of a module, or load one anew, need each module by itself. */
const BY_MODULE = /\bjest\s*\.\s*(?:mock|doMock|isolateModules|resetModules)/;

/** What all sources and tests are like now: a test file is made anew when one of them changes. */
const sources = (() => {
  let known = null;
  return () =>
    (known ??= readdirSync(join(ROOT, 'packages'))
      .flatMap((name) => ['src', 'test'].map((part) => join(ROOT, 'packages', name, part)))
      .flatMap((folder) => filesOf(folder))
      .join('\n'));
})();

function filesOf(folder) {
  try {
    return readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && entry.name.endsWith('.ts'))
      .map((entry) => join(entry.parentPath, entry.name))
      .sort()
      .map((file) => `${file} ${statSync(file).mtimeMs} ${statSync(file).size}`);
  } catch (error) {
    if (error.code === 'ENOENT') return [];
    throw error;
  }
}

/**
 * @param options `swc`: how one module by itself is turned; `first`: modules that Jest would start before the tests, beside the
 *   test file, and that are to share its modules
 */
exports.createTransformer = ({ swc, first = [] }) => {
  const byModule = createTransformer(swc);
  return {
    getCacheKey: (text, file, rest) =>
      BY_MODULE.test(text)
        ? byModule.getCacheKey(text, file, rest)
        : createHash('sha256').update(`${version} ${file} ${first}\n${sources()}\n`).update(text).digest('hex'),
    process(text, file, rest) {
      const imports = first.map((name) => `import ${JSON.stringify(name)};\n`).join('');
      if (BY_MODULE.test(text)) return byModule.process(imports.replaceAll('\n', '') + text, file, rest);
      const { outputFiles } = buildSync({
        // On the first line: what stands behind it keeps its places.
        stdin: { contents: imports.replaceAll('\n', '') + text, loader: 'ts', resolveDir: dirname(file), sourcefile: basename(file) },
        bundle: true,
        packages: 'external',
        alias: ALIAS,
        platform: 'node',
        format: 'cjs',
        target: 'node20',
        // Jest's modules are asked for by `require` alone.
        supported: { 'dynamic-import': false },
        define: { 'import.meta.url': JSON.stringify(pathToFileURL(file).href) },
        sourcemap: 'external',
        sourcesContent: false,
        outfile: `${file}.js`,
        write: false,
        logLevel: 'error',
      });
      const [map, code] = outputFiles;
      return { code: code.text, map: map.text };
    },
  };
};

/** Our own packages are part of the file, whatever they are imported by. */
const ALIAS = Object.fromEntries(
  readdirSync(join(ROOT, 'packages')).flatMap((name) => {
    const { name: packageName, exports: entries = {} } = require(join(ROOT, 'packages', name, 'package.json'));
    return typeof entries === 'string'
      ? [[packageName, join(ROOT, 'packages', name, entries)]]
      : Object.entries(entries).map(([entry, to]) => [join(packageName, entry), join(ROOT, 'packages', name, to)]);
  }),
);
