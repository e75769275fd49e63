/** One test of a suite: it is met, or says what came instead. */
export interface TestCase {
  name: string;
  /** Null where it is met. */
  failure: { message: string; details: string } | null;
}

export interface TestSuite {
  name: string;
  file: string;
  ms: number;
  cases: readonly TestCase[];
}

/**
 * Test results as JUnit XML, which build servers read: a suite for each specimen, a case for each expectation.
 *
 * @param name what the whole is called
 */
export function junitXml(name: string, suites: readonly TestSuite[]): string {
  const cases = suites.flatMap((suite) => suite.cases);
  const failures = (all: readonly TestCase[]): number => all.filter(({ failure }) => failure !== null).length;
  const lines = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites${attributes({ name, tests: cases.length, failures: failures(cases), time: seconds(suites.reduce((sum, { ms }) => sum + ms, 0)) })}>`,
    ...suites.flatMap((suite) => [
      `  <testsuite${attributes({ name: suite.name, file: suite.file, tests: suite.cases.length, failures: failures(suite.cases), errors: 0, skipped: 0, time: seconds(suite.ms) })}>`,
      ...suite.cases.flatMap((one) => caseLines(one, suite)),
      '  </testsuite>',
    ]),
    '</testsuites>',
  ];
  return `${lines.join('\n')}\n`;
}

function caseLines({ name, failure }: TestCase, suite: TestSuite): string[] {
  const opened = `    <testcase${attributes({ name, classname: suite.name, file: suite.file })}`;
  if (failure === null) return [`${opened}/>`];
  return [
    `${opened}>`,
    `      <failure${attributes({ message: failure.message, type: 'expectation' })}>${escaped(failure.details)}</failure>`,
    '    </testcase>',
  ];
}

const seconds = (ms: number): string => (ms / 1000).toFixed(3);

const attributes = (values: Readonly<Record<string, string | number>>): string =>
  Object.entries(values)
    .map(([name, value]) => ` ${name}="${escaped(String(value)).replace(/\n/g, '&#10;').replace(/\t/g, '&#9;')}"`)
    .join('');

/** Text as XML 1.0 can hold it: characters that it cannot (section 2.2) are marked with �. */
function escaped(text: string): string {
  return text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/\r/g, '&#13;')
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '\ufffd');
}
