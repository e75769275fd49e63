import { mkdtempSync, readdirSync, rmSync, statfsSync } from 'node:fs';
import { freemem, tmpdir } from 'node:os';
import { join } from 'node:path';

const IN_MEMORY = '/dev/shm';
const NAME = /^typikon-test-(\d+)-/;
const NEEDED = 3 * 1024 ** 3;

/**
 * A folder for the data of one run of the tests, which nobody needs afterwards: in memory where there is room, since a
 * database of a test waits for its disk most of the time. What runs that were killed left there goes.
 *
 * @returns its path; whoever asked for it removes it
 */
export function scratchFolder() {
  const place = hasRoom() ? IN_MEMORY : tmpdir();
  for (const name of readdirSync(place)) {
    const pid = Number(NAME.exec(name)?.[1] ?? 0);
    if (pid > 0 && !isRunning(pid)) rmSync(join(place, name), { recursive: true, force: true });
  }
  return mkdtempSync(join(place, `typikon-test-${process.pid}-`));
}

function hasRoom() {
  try {
    const { bavail, bsize } = statfsSync(IN_MEMORY);
    return bavail * bsize >= NEEDED && freemem() >= NEEDED;
  } catch {
    return false;
  }
}

function isRunning(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}
