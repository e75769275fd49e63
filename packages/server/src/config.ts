import * as z from 'zod';

const port = z.coerce.number().int().min(0).max(65535);

const environmentSchema = z.object({
  TYPIKON_HOST: z.enum(['127.0.0.1', '::1']).default('127.0.0.1'),
  TYPIKON_PORT: port.default(4710),
  TYPIKON_SITE_PORT: port.default(4711),
  TYPIKON_DB_HOST: z.string().default('127.0.0.1'),
  TYPIKON_DB_PORT: port.default(3306),
  TYPIKON_DB_NAME: z.string().default('typikon'),
  TYPIKON_DB_USER: z.string().default('typikon'),
  TYPIKON_DB_PASSWORD: z.string().default(''),
  /** The folder with the demo scenario; it is read into an empty database. */
  TYPIKON_DEMO_DIR: z.string().optional(),
  /** How many composed documents the demo has beside those that are written by hand. */
  TYPIKON_DEMO_DOCUMENTS: z.coerce.number().int().min(0).max(100_000).optional(),
  /** The folder with the built web application. */
  TYPIKON_WEB_DIR: z.string().optional(),
  /** So long a thread waits for more work before it ends, in milliseconds: a short time keeps memory small, a long one answers sooner. */
  TYPIKON_THREADS_WAIT_MS: z.coerce.number().int().min(100).max(3_600_000).default(3000),
  /** So long nothing may change before figures of likeness are taken, in milliseconds. */
  TYPIKON_FIGURES_WAIT_MS: z.coerce.number().int().min(0).max(3_600_000).default(400),
  TYPIKON_LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

export interface Config {
  /** Loopback only, until there is sign-in. */
  host: string;
  port: number;
  /** The port of the published site stand-in, which makes it another origin. */
  sitePort: number;
  database: { host: string; port: number; name: string; user: string; password: string };
  demoDir: string | undefined;
  demoDocuments: number | undefined;
  webDir: string | undefined;
  threadsWaitMs: number;
  figuresWaitMs: number;
  logLevel: string;
}

/** Reads the settings from environment variables; throws a sentence that names every wrong one. */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const parsed = environmentSchema.safeParse(environment);
  if (!parsed.success) throw new Error(parsed.error.issues.map(({ path, message }) => `${path.join('.')}: ${message}`).join('; '));
  const env = parsed.data;
  return {
    host: env.TYPIKON_HOST,
    port: env.TYPIKON_PORT,
    sitePort: env.TYPIKON_SITE_PORT,
    database: {
      host: env.TYPIKON_DB_HOST,
      port: env.TYPIKON_DB_PORT,
      name: env.TYPIKON_DB_NAME,
      user: env.TYPIKON_DB_USER,
      password: env.TYPIKON_DB_PASSWORD,
    },
    demoDir: env.TYPIKON_DEMO_DIR,
    demoDocuments: env.TYPIKON_DEMO_DOCUMENTS,
    webDir: env.TYPIKON_WEB_DIR,
    threadsWaitMs: env.TYPIKON_THREADS_WAIT_MS,
    figuresWaitMs: env.TYPIKON_FIGURES_WAIT_MS,
    logLevel: env.TYPIKON_LOG_LEVEL,
  };
}
