import { HouseLimitsPage } from '../src/features/house/house-limits';
import { fieldText, withField, ATTRIBUTE_TEST_FORMS, STYLE_TEST_FORMS } from '../src/features/workshop/test-fields';
import { Screen } from './support';

describe('the house limits', () => {
  const open = () => Screen.of(HouseLimitsPage);

  test('say what they hold and which role is excepted from what', async () => {
    const screen = await open();
    expect(screen.texts('.about > p')[0]).toMatch(/the most that any profile can allow: 45 elements/);
    expect(screen.texts('h3')).toEqual(['Web team']);
    expect(screen.texts('.about li > span')).toEqual(['is not bound by /elements/iframe']);
    expect(screen.has('.go[disabled]')).toBe(true);
  });

  test('an exception is withdrawn under their entity tag', async () => {
    const screen = await open();
    await screen.click('.about li button');
    const request = screen.http.expectOne('/api/v1/house-limits');
    expect(request.request.method).toBe('PUT');
    expect(request.request.headers.get('If-Match')).toBe('"1"');
    expect((request.request.body as { trustedRoles: unknown }).trustedRoles).toEqual({ 'web-team': { except: [] } });
    request.flush(request.request.body as object, { headers: { ETag: '"2"' } });
    await screen.settle();
    expect(screen.texts('.ty-notice')).toEqual(['The exception is withdrawn.']);
    expect(screen.texts('.about .ty-soft')).toEqual(['No role is excepted from anything.']);
  });

  test('a refused change is said, and nothing is changed', async () => {
    const screen = await open();
    await screen.click('.about li button');
    screen.http.expectOne('/api/v1/house-limits').flush({ detail: 'Somebody else has changed them.' }, { status: 412, statusText: 'x' });
    await screen.settle();
    expect(screen.texts('.ty-notice.bad')).toEqual(['Not saved. Somebody else has changed them.']);
    expect(screen.texts('h3')).toEqual(['Web team']);
  });
});

describe('the fields of a test', () => {
  const field = (test: keyof typeof ATTRIBUTE_TEST_FORMS, key: string) =>
    ATTRIBUTE_TEST_FORMS[test].fields.find((known) => known.keys[0] === key)!;
  const styleField = (test: keyof typeof STYLE_TEST_FORMS, key: string) =>
    STYLE_TEST_FORMS[test].fields.find((known) => known.keys[0] === key)!;

  test.each<[object, ReturnType<typeof field>, string, object]>([
    [{ test: 'list', values: ['a'] }, field('list', 'values'), 'left, far right', { test: 'list', values: ['left', 'far right'] }],
    [
      { test: 'tokens', values: ['a'] },
      field('tokens', 'prefixes'),
      'is- has-',
      { test: 'tokens', values: ['a'], prefixes: ['is-', 'has-'] },
    ],
    [{ test: 'tokens', values: ['a'] }, field('tokens', 'ofStyles'), 'true', { test: 'tokens', values: ['a'], ofStyles: true }],
    [{ test: 'integer', min: 1 }, field('integer', 'min'), '', { test: 'integer' }],
    [{ test: 'url' }, field('url', 'hosts'), 'https://a.example, *.b.example', { test: 'url', hosts: ['a.example', '*.b.example'] }],
    [{ test: 'url', hosts: ['a.example'] }, field('url', 'hosts'), ' ', { test: 'url' }],
  ])('%j becomes what was typed', (before, where, text, test) =>
    expect(withField('attribute', before, where, text)).toEqual({ ok: true, test }),
  );

  test.each<['attribute' | 'style', object, ReturnType<typeof field>, string, RegExp]>([
    ['attribute', { test: 'integer' }, field('integer', 'min'), 'many', /Least: it must be a whole number, or nothing/],
    ['attribute', { test: 'integer' }, field('integer', 'min'), '1.5', /Least/],
    ['attribute', { test: 'tokens', values: ['a'] }, field('tokens', 'values'), '', /must allow at least one/],
    ['attribute', { test: 'url' }, field('url', 'hosts'), 'no host!', /must be a host name/],
    ['attribute', { test: 'pattern', pattern: 'a' }, field('pattern', 'pattern'), '(?=x)', /cannot be used/],
    ['style', { test: 'colour', values: ['red'] }, styleField('colour', 'values'), 'not-a-colour', /must be a CSS colour/],
  ])('%s %j refuses what cannot be, with the reason', (kind, before, where, text, message) => {
    const made = withField(kind, before, where, text);
    expect(made.ok).toBe(false);
    expect(made.ok ? '' : made.message).toMatch(message);
  });
});
