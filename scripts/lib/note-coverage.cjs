/* global afterAll, expect */
// Runs in every test file: notes which statements its tests came to, as they stand in the code that Jest ran.
const { mkdirSync, writeFileSync } = require('node:fs');
const { basename, join } = require('node:path');

afterAll(() => {
  const { testPath } = expect.getState();
  const folder = process.env.TYPIKON_COVERAGE;
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, `${basename(testPath)}.json`), JSON.stringify({ testPath, coverage: globalThis.__coverage__ ?? {} }));
});
