import { expectationSchema, expectationWords, SPECIMEN_FORMAT, type Expectation } from '../src/index';

/** One of each kind, as an example. */
const EXAMPLES: readonly Expectation[] = [
  { expect: 'no-inline-style' },
  { expect: 'no-hard-space' },
  { expect: 'no-office' },
  { expect: 'no-empty-paragraph' },
  { expect: 'links-lead-somewhere' },
  { expect: 'text-kept', percent: 99 },
  { expect: 'count', of: 'li', is: 4 },
  { expect: 'text-is', text: 'Low water at four' },
  { expect: 'text-has', text: 'at four' },
  { expect: 'text-lacks', text: 'Page 1 of 2' },
  { expect: 'markup-has', html: '<th scope="col">' },
  { expect: 'markup-lacks', html: '<b>' },
  { expect: 'outline', is: ['2 Tides', '3 Springs'] },
  { expect: 'source', is: 'word-processor' },
  { expect: 'pictures-to-upload', is: 1 },
];

/** The page about specimens as files: what one holds, and every expectation with an example. */
export function specimenPage(): string {
  const rows = expectationSchema.options.map(({ shape, description }) => {
    const [kind] = shape.expect.values as Set<Expectation['expect']>;
    const example = EXAMPLES.find(({ expect }) => expect === kind)!;
    return `| \`${kind}\` | ${description} | \`${JSON.stringify(example)}\` | ${expectationWords(example).replace(/</g, '&lt;')}. |`;
  });
  return `${HEAD}${rows.join('\n')}\n${FOOT}`;
}

const HEAD = `# Specimens as files

A specimen is content to try a profile with: what was on a clipboard, or what stands in a document, and what must come out of it. It is one
JSON file, \`NAME.specimen.json\` (format \`${SPECIMEN_FORMAT}\`, JSON Schema: [specimen.schema.json](specimen.schema.json)):

\`\`\`json
{
  "format": "${SPECIMEN_FORMAT}",
  "id": "committee-minutes",
  "name": "Harbour committee minutes, from a word processor",
  "profile": "notices-desk",
  "arrives": "paste",
  "payload": { "types": { "text/html": { "file": "committee-minutes.html" } } },
  "expectations": [{ "expect": "no-inline-style" }, { "expect": "count", "of": "li", "is": 4 }]
}
\`\`\`

- **profile**: the profile that it is meant to be tried with first.
- **arrives**: \`paste\`, through the passes and the markup rules, or \`stored\`, through the markup rules alone.
- **payload.types**: the content by its media type (\`text/html\`, \`text/plain\`, \`text/rtf\`), as text, or as \`{"file": "name"}\`: a file
  beside the specimen, or in a folder there.
- **payload.files**: names, types and sizes of files that were on the clipboard, where there were any.
- **expectations**: what must come out, of the kinds below.

A file may also hold a list of specimens. A folder of such files is a profile's own tests: \`demo/specimens\` is the demo's.

\`\`\`sh
npx typikon prove --profile demo/profiles/notices-desk.json --house demo/house-limits.json --own demo/specimens
npx typikon prove --profile demo/profiles/notices-desk.json --own --junit results.xml demo/specimens
npx typikon prove --profile demo/profiles/notices-desk.json --own --update demo/specimens
\`\`\`

The first writes a line for each specimen, and for each expectation that is not met the entries of the ledger that explain it; it ends with
1 where there is one. \`--own\` leaves out specimens that are meant for other profiles, \`--junit\` writes the results for a build server
(a suite for each specimen, a case for each expectation), \`--json\` writes everything that is known. \`--update\` writes what now comes out
as expectations, shows what it changed, and changes nothing else of the files: look it through before you keep it.

## Expectations

| Kind | What must be | Example | In words |
|---|---|---|---|
`;

const FOOT = `
This page is written by \`npm run docs\` from the schema of specimens (\`packages/core/src/proof/specimen.ts\`).
`;
