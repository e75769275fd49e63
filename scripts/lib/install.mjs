import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, readFileSync, statfsSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { at } from './paths.mjs';
import { run } from './run.mjs';
import { Stop, say, step } from './say.mjs';

const LEAST_FREE_MB = 1500;

/** Refuses to begin where the disk is nearly full. */
export function checkDisk() {
  const { bavail, bsize } = statfsSync(at('.'));
  const freeMb = Math.floor((bavail * bsize) / 1e6);
  const needMb = existsSync(at('node_modules')) ? 200 : LEAST_FREE_MB;
  if (freeMb < needMb) throw new Stop(`The disk has ${freeMb} MB left; Typikon needs ${needMb} MB. Make room and start again.`);
}

/** Installs the npm packages of package-lock.json where they are absent or older than it. */
export async function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) throw new Stop(`Typikon needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
  const stamp = at('node_modules', '.typikon-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(at('package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  await step('Installing the npm packages (some minutes the first time)', async () => {
    try {
      await run('npm', ['ci', '--prefer-offline', '--no-progress'], { cwd: at('.'), what: 'npm ci' });
    } catch (error) {
      say('  one more try …');
      await run('npm', ['ci', '--prefer-offline', '--no-progress'], { cwd: at('.'), what: 'npm ci' });
    }
  });
  writeFileSync(stamp, wanted);
}

/** Where a program is, also in the folders that an ordinary user's PATH leaves out; undefined where it is nowhere. */
export function findProgram(...names) {
  const folders = [
    ...(process.env.PATH ?? '').split(delimiter),
    '/usr/sbin',
    '/usr/local/sbin',
    '/sbin',
    '/usr/bin',
    '/usr/local/bin',
    '/usr/local/mysql/bin',
    '/opt/homebrew/bin',
  ];
  for (const name of names)
    for (const folder of folders) {
      const path = join(folder, name);
      try {
        accessSync(path, constants.X_OK);
        return path;
      } catch {
        // Look further.
      }
    }
  return undefined;
}

/** Debian's lists are read once, however many packages are missing; it installs one after another. */
let listed = null;
let installing = Promise.resolve();

/**
 * Makes sure that programs are there, from Debian's packages where they are not.
 *
 * @param debianPackage the package that has them
 * @param programs for each program the names it may have
 */
export async function ensureDebian(debianPackage, programs) {
  const isThere = () => programs.every((names) => findProgram(...names) !== undefined);
  if (isThere()) return;
  const byHand = `Please install the package ${debianPackage} (on Debian: apt-get install ${debianPackage}) and start again.`;
  const apt = findProgram('apt-get');
  if (apt === undefined) throw new Stop(`${debianPackage} is missing. ${byHand}`);
  const isRoot = process.getuid?.() === 0;
  const sudo = findProgram('sudo');
  if (
    !isRoot &&
    (sudo === undefined ||
      (await run(sudo, ['-n', 'true']).then(
        () => false,
        () => true,
      )))
  )
    throw new Stop(`${debianPackage} is missing, and you may not install it. ${byHand}`);
  const asRoot = (args) =>
    isRoot
      ? run(apt, args, { env: { DEBIAN_FRONTEND: 'noninteractive' } })
      : run(sudo, ['-n', 'DEBIAN_FRONTEND=noninteractive', apt, ...args]);
  installing = installing
    .catch(() => undefined)
    .then(() =>
      step(`Installing ${debianPackage} from Debian's packages (a minute or two)`, async () => {
        await (listed ??= asRoot(['update']).catch(() => undefined));
        await asRoot(['install', '-y', '--no-install-recommends', debianPackage]);
      }),
    );
  await installing;
  if (!isThere())
    throw new Stop(`${debianPackage} was installed, but ${programs.map((names) => names[0]).join(' and ')} cannot be found. ${byHand}`);
}

export const MARIADB = [
  ['mariadbd', 'mysqld'],
  ['mariadb-install-db', 'mysql_install_db'],
  ['mariadb', 'mysql'],
];
/** Chromium without a window of its own, which starts and draws sooner, and with one. */
const HEADLESS = ['chromium-headless-shell'];
const WITH_WINDOWS = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable'];

/** Makes sure that there is a Chromium: the one without windows where Debian has it, else any. */
export async function ensureChromium() {
  if (findProgram(...HEADLESS) !== undefined) return;
  try {
    await ensureDebian('chromium-headless-shell', [HEADLESS]);
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    await ensureDebian('chromium', [WITH_WINDOWS]);
  }
}

/** The Chromium that is there, and whether it has no windows. */
export function findChromium() {
  const headless = findProgram(...HEADLESS);
  return headless === undefined ? { path: findProgram(...WITH_WINDOWS), isHeadless: false } : { path: headless, isHeadless: true };
}

/** Makes sure that all is there that the tests and the tools need; packages of npm and of Debian come at the same time. */
export async function ensureAll({ mariadb = false, chromium = false } = {}) {
  const debian = async () => {
    if (mariadb) await ensureDebian('mariadb-server', MARIADB);
    if (chromium) await ensureChromium();
  };
  const all = await Promise.allSettled([ensurePackages(), debian()]);
  const failed = all.find(({ status }) => status === 'rejected');
  if (failed !== undefined) throw failed.reason;
}
