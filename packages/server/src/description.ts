import { pino } from 'pino';
import { createApp } from './app';
import { connect } from './db/connection';

/** How the API describes itself (OpenAPI 3.1). No database is asked. */
export async function apiDescription(): Promise<object> {
  const sequelize = connect({ host: '127.0.0.1', port: 1, name: 'none', user: 'none', password: '' });
  const app = createApp({ sequelize, log: pino({ level: 'silent' }), siteOrigins: ['http://127.0.0.1:4711'] });
  const response = await app.request('http://127.0.0.1/api/v1/openapi.json', { headers: { host: '127.0.0.1' } });
  return (await response.json()) as object;
}
