import { readConfig } from '../src/config';

test('has defaults for everything', () => {
  expect(readConfig({})).toMatchObject({ host: '127.0.0.1', port: 4710, sitePort: 4711, database: { port: 3306, name: 'typikon' } });
});

test('listens on loopback only', () => {
  expect(() => readConfig({ TYPIKON_HOST: '0.0.0.0' })).toThrow('TYPIKON_HOST');
});

test('names the setting that is wrong', () => {
  expect(() => readConfig({ TYPIKON_PORT: 'many', TYPIKON_LOG_LEVEL: 'loud' })).toThrow(/TYPIKON_PORT.*TYPIKON_LOG_LEVEL/);
});
