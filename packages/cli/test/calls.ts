import { spawnSync } from 'node:child_process';
import type * as files from 'node:fs';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { call } from '../src/call';

/** The module itself, whose functions can be stood in for. */
const fs = jest.requireActual<typeof files>('node:fs');

export const BIN = join(__dirname, '..', 'bin', 'typikon.mjs');
export const DEMO = join(__dirname, '..', '..', '..', 'demo');
export const STORY = join(DEMO, 'profiles', 'story-desk.json');
export const HOUSE = join(DEMO, 'house-limits.json');

export const folder = mkdtempSync(join(tmpdir(), 'typikon-cli-'));
/** Writes a file for a test; what is not text becomes JSON. */
export const file = (name: string, content: unknown): string => {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
};

interface Result {
  status: number | null;
  out: string;
  error: string;
}

/** Calls a command as the thread does that it runs in; what it reads and writes goes through here. */
export function typikon(args: string[], input = ''): Result {
  const written: Record<number, Buffer[]> = { 1: [], 2: [] };
  const { readFileSync: read, writeSync: write } = fs;
  const reads = jest
    .spyOn(fs, 'readFileSync')
    .mockImplementation(((path: Parameters<typeof read>[0], ...rest: never[]) =>
      path === 0 ? Buffer.from(input) : read(path, ...rest)) as typeof read);
  const writes = jest.spyOn(fs, 'writeSync').mockImplementation(((to: number, bytes: Buffer, from: number) => {
    if (written[to] === undefined) return write(to, bytes, from);
    written[to].push(Buffer.from(bytes.subarray(from)));
    return bytes.length - from;
  }) as typeof write);
  try {
    const { exitCode, failure } = call(args);
    const [out, error] = [1, 2].map((to) => Buffer.concat(written[to]!).toString('utf8'));
    return { status: exitCode, out: out!, error: `${error}${failure === '' ? '' : `typikon: ${failure.replace(/\s*\n\s*/g, ' ')}\n`}` };
  } finally {
    reads.mockRestore();
    writes.mockRestore();
  }
}

/** Starts the command line as a person does. */
export function started(args: string[], input = ''): Result {
  const { status, stdout, stderr } = spawnSync(process.execPath, [BIN, ...args], { input, encoding: 'utf8', maxBuffer: 1 << 28 });
  return { status, out: stdout, error: stderr };
}
