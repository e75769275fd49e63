import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MARIADB, ensureDebian, findProgram } from './install.mjs';
import { freePort } from './ports.mjs';
import { run } from './run.mjs';
import { Stop } from './say.mjs';

const READY_WITHIN_MS = 60_000;
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/**
 * Starts a private MariaDB on loopback, with its data in a folder of its own. Every acknowledged change is on the disk
 * (innodb-flush-log-at-trx-commit=1), so a kill at any moment loses none.
 *
 * @param folder where the data is; made where it is absent
 * @param options.onLost called when the database ends by itself
 * @returns how to reach it, and how to stop it
 */
export async function startDatabase(folder, { onLost = () => {} } = {}) {
  await ensureDebian('mariadb-server', MARIADB);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const data = join(folder, 'data');
  const pidFile = join(folder, 'mariadb.pid');
  const errorLog = join(folder, 'error.log');
  await endLeftOver(folder);
  if (!existsSync(data)) await makeDataFolder(folder, data);
  const port = await freePort();
  const socket = join(mkdtempSync(join(tmpdir(), 'typikon-')), 'db.sock');
  const child = spawn(
    findProgram(...MARIADB[0]),
    [
      '--no-defaults',
      ...(process.getuid?.() === 0 ? ['--user=root'] : []),
      `--datadir=${data}`,
      `--socket=${socket}`,
      `--pid-file=${pidFile}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--innodb-flush-log-at-trx-commit=1',
      '--innodb-buffer-pool-size=128M',
      '--innodb-log-file-size=32M',
      '--max-allowed-packet=64M',
      '--performance-schema=OFF',
      '--skip-log-bin',
      `--log-error=${errorLog}`,
    ],
    { stdio: 'ignore', detached: true },
  );
  let hasEnded = false;
  let isStopping = false;
  child.on('error', () => (hasEnded = true));
  child.on('exit', () => {
    hasEnded = true;
    if (!isStopping) onLost();
  });
  const sql = (statements) => run(findProgram(...MARIADB[2]), ['--no-defaults', `--socket=${socket}`, '--user=root', '-e', statements]);
  const begin = Date.now();
  for (;;) {
    if (hasEnded) throw new Stop(`MariaDB did not start. The end of ${errorLog}:\n${lastLines(errorLog)}`);
    if (
      await sql('SELECT 1').then(
        () => true,
        () => false,
      )
    )
      break;
    if (Date.now() - begin > READY_WITHIN_MS)
      throw new Stop(`MariaDB did not answer within a minute. The end of ${errorLog}:\n${lastLines(errorLog)}`);
    await pause(100);
  }
  const password = passwordIn(folder);
  await sql(`CREATE DATABASE IF NOT EXISTS typikon CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
    CREATE OR REPLACE USER 'typikon'@'127.0.0.1' IDENTIFIED BY '${password}'; GRANT ALL ON typikon.* TO 'typikon'@'127.0.0.1';
    GRANT ALL ON \`typikon\\_%\`.* TO 'typikon'@'127.0.0.1';`);
  return {
    pid: child.pid,
    env: {
      TYPIKON_DB_HOST: '127.0.0.1',
      TYPIKON_DB_PORT: String(port),
      TYPIKON_DB_NAME: 'typikon',
      TYPIKON_DB_USER: 'typikon',
      TYPIKON_DB_PASSWORD: password,
    },
    /** Runs statements as the administrator; returns what the client prints. */
    sql,
    async stop() {
      isStopping = true;
      if (!hasEnded) await endProcess(child.pid);
      rmSync(join(socket, '..'), { recursive: true, force: true });
    },
  };
}

/** The data folder is made beside its place and then moved there, so that a half-made one is never used. */
async function makeDataFolder(folder, data) {
  const fresh = join(folder, `data.${process.pid}`);
  rmSync(fresh, { recursive: true, force: true });
  await run(
    findProgram(...MARIADB[1]),
    [
      '--no-defaults',
      `--datadir=${fresh}`,
      ...(process.getuid?.() === 0 ? ['--user=root'] : []),
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--skip-name-resolve',
    ],
    { what: 'Making the database folder' },
  );
  renameSync(fresh, data);
}

/** Ends a database that was left over from a start that was killed: it still holds its folder. */
export async function endLeftOver(folder) {
  const pidFile = join(folder, 'mariadb.pid');
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8').trim());
  if (!Number.isInteger(pid) || pid <= 1) return;
  let commandLine = '';
  try {
    commandLine = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
  } catch {
    return;
  }
  if (commandLine.includes(`--datadir=${join(folder, 'data')}`)) await endProcess(pid);
}

async function endProcess(pid) {
  const isAlive = () => {
    try {
      process.kill(pid, 0);
      return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
    } catch {
      return false;
    }
  };
  if (!isAlive()) return;
  process.kill(pid, 'SIGTERM');
  for (let waited = 0; isAlive() && waited < 20_000; waited += 50) await pause(50);
  if (isAlive()) process.kill(pid, 'SIGKILL');
}

function passwordIn(folder) {
  const file = join(folder, 'password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

function lastLines(file) {
  return existsSync(file) ? readFileSync(file, 'utf8').split('\n').slice(-12).join('\n') : '(it is empty)';
}
