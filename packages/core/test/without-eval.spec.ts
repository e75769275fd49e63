/** Counts who asks for making code from text, and refuses it as a page's policy does. */
const refusing = () =>
  jest.spyOn(globalThis, 'Function').mockImplementation(() => {
    throw new EvalError('Refused to evaluate a string as JavaScript.');
  });

const schemaOf = async () => {
  const z = await import('zod');
  return z.object({ name: z.string() });
};

beforeEach(() => {
  jest.resetModules();
  delete (globalThis as { __zod_globalConfig?: object }).__zod_globalConfig;
});
afterEach(() => jest.restoreAllMocks());

test('schemas make no code from text where the first import says so', async () => {
  const asked = refusing();
  await import('../src/without-eval');
  const schema = await schemaOf();
  expect(schema.parse({ name: 'a' })).toEqual({ name: 'a' });
  expect(schema.safeParse({ name: 1 }).success).toBe(false);
  expect(asked).not.toHaveBeenCalled();
});

test('without it they try to', async () => {
  const asked = refusing();
  (await schemaOf()).parse({ name: 'a' });
  expect(asked).toHaveBeenCalled();
});
