// Turns a package that is published as ES modules alone into one CommonJS file for Jest. Transformed file by file, each name that
// is imported would be looked up through a function at every use: reading markup, character by character, takes twice as long.
const { createHash } = require('node:crypto');
const { buildSync, version } = require('esbuild');

module.exports = {
  getCacheKey: (source, path) => createHash('sha256').update(`${version} ${path} `).update(source).digest('hex'),
  process(_source, path) {
    const { outputFiles } = buildSync({
      entryPoints: [path],
      bundle: true,
      // What belongs to another package is asked for as ever, so that there is one of it.
      packages: 'external',
      platform: 'node',
      format: 'cjs',
      target: 'node20',
      write: false,
      logLevel: 'error',
    });
    return { code: outputFiles[0].text };
  },
};
