import { spawn } from 'node:child_process';
import { Stop } from './say.mjs';

/**
 * Runs a program to its end.
 *
 * @returns what it printed; throws a Stop with the last lines of it where it fails
 */
export function run(command, args, { cwd, env, show = false, what = command } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: show ? 'inherit' : ['ignore', 'pipe', 'pipe'] });
    let output = '';
    const keep = (chunk) => (output = (output + chunk).slice(-20_000));
    child.stdout?.on('data', keep);
    child.stderr?.on('data', keep);
    child.on('error', (error) => reject(new Stop(`${what} could not be started: ${error.message}`)));
    child.on('close', (code) => {
      if (code === 0) resolve(output);
      else reject(new Stop(`${what} failed (exit code ${code}).\n${output.split('\n').slice(-25).join('\n')}`));
    });
  });
}
