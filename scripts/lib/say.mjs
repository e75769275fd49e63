/** What the scripts tell the person at the terminal. */

/** Prints one line. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Ends the program with one sentence about what is wrong and what to do. */
export class Stop extends Error {}

/** Runs a long step: says what it is, reports every ten seconds that it goes on, and how long it took. */
export async function step(what, work) {
  const begin = Date.now();
  const seconds = () => Math.round((Date.now() - begin) / 1000);
  say(`· ${what} …`);
  const ticker = setInterval(() => say(`  still ${what.charAt(0).toLowerCase()}${what.slice(1)}, ${seconds()} s`), 10_000);
  try {
    const result = await work();
    if (seconds() >= 2) say(`  done in ${seconds()} s`);
    return result;
  } finally {
    clearInterval(ticker);
  }
}

/** Runs the main function of a script; a Stop becomes its sentence and exit code 1. */
export function main(run) {
  run().catch((error) => {
    process.stderr.write(`\n${error instanceof Stop ? error.message : (error.stack ?? error)}\n`);
    process.exit(1);
  });
}
