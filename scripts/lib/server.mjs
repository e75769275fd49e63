import { spawn } from 'node:child_process';
import { at } from './paths.mjs';
import { Stop } from './say.mjs';

const READY_WITHIN_MS = 60_000;
/** One that does not end by itself within this time is killed. */
const ENDED_WITHIN_MS = 5000;
/** The thread that answers small requests needs little; each other thread has a limit of its own (lanes/open.ts). */
const NODE_OPTIONS = ['--max-old-space-size=256', '--max-semi-space-size=8'];
/** For glibc: few arenas, and large buffers go back to the system as soon as they are freed, whatever came before them (mallopt(3)). */
const ALLOCATION = { MALLOC_ARENA_MAX: '2', MALLOC_MMAP_THRESHOLD_: '131072', MALLOC_TRIM_THRESHOLD_: '131072' };

/**
 * Starts the built server and waits until it answers. It ends with this process, however this process ends.
 *
 * @param options.env settings, see packages/server/src/config.ts
 * @param options.onTold called with what it tells of while it runs
 * @param options.onLost called with the exit code when it ends by itself after it was ready
 */
export async function startServer({ env, port, log = 'ignore', onLost = () => {}, onTold = () => {} }) {
  const child = spawn(process.execPath, [...NODE_OPTIONS, at('packages/server/dist/main.js')], {
    cwd: at('.'),
    env: {
      ...ALLOCATION,
      ...process.env,
      ...env,
      TYPIKON_PORT: String(port),
      TYPIKON_SITE_PORT: String(env.TYPIKON_SITE_PORT ?? port + 1),
    },
    stdio: ['ignore', log, 'pipe', 'ipc'],
    detached: true,
  });
  child.on('message', onTold);
  let errors = '';
  let hasEnded = false;
  let isReady = false;
  let isStopping = false;
  child.stderr.on('data', (chunk) => (errors = (errors + chunk).slice(-5000)));
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.on('exit', (code) => {
    hasEnded = true;
    if (isReady && !isStopping) onLost(code);
  });
  const begin = Date.now();
  while (!isReady) {
    if (hasEnded) throw new Stop(errors.trim() || 'The server ended before it was ready.');
    if (Date.now() - begin > READY_WITHIN_MS) {
      child.kill('SIGKILL');
      throw new Stop('The server did not answer within a minute.');
    }
    isReady = await fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
      (response) => response.ok,
      () => false,
    );
    if (!isReady) await new Promise((done) => setTimeout(done, 100));
  }
  return {
    pid: child.pid,
    async stop() {
      isStopping = true;
      if (hasEnded) return;
      child.kill('SIGTERM');
      const tooLate = setTimeout(() => child.kill('SIGKILL'), ENDED_WITHIN_MS);
      await ended;
      clearTimeout(tooLate);
    },
  };
}
