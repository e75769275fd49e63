import { pino } from 'pino';
import { createApp } from '../src/app';
import { demoDatabase } from './database';

const HOST = '127.0.0.1:4710';

/**
 * The application over the demo's data, for the tests of one file.
 *
 * @param name of the database
 * @param composed how many documents there are beside those of the demo's folder
 * @returns a function that asks a path of the API, or one that an answer named; before any test it is there
 */
export function useDemoApp(name: string, composed: number) {
  let app: ReturnType<typeof createApp>;
  let drop: () => Promise<void>;
  beforeAll(async () => {
    const database = await demoDatabase(name, composed);
    ({ drop } = database);
    app = createApp({ sequelize: database.sequelize, log: pino({ level: 'silent' }), siteOrigins: [] });
  });
  afterAll(() => drop());
  return async function ask<Body>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
    const response = await app.request(`http://${HOST}${path.startsWith('/api/') ? path : `/api/v1${path}`}`, {
      method,
      headers: { host: HOST, 'content-type': 'application/json', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    return {
      status: response.status,
      body: (response.status === 204 ? null : await response.json()) as Body & { detail: string },
      etag: response.headers.get('etag') ?? '',
      next: /<([^>]+)>; rel="next"/.exec(response.headers.get('link') ?? '')?.[1],
    };
  };
}
