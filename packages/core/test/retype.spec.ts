import fc from 'fast-check';
import {
  contentTypeSchema,
  FIELD_KINDS,
  likelyPlaces,
  mayStandIn,
  misplaced,
  retyped,
  titleField,
  valueProblem,
  type ContentType,
} from '../src/index';

const CHOICES = ['early', 'late', 'never'];
const anyType = (label: string): fc.Arbitrary<ContentType> =>
  fc
    .uniqueArray(
      fc.record({
        key: fc.constantFrom('body', 'headline', 'when', 'map', 'state', 'constructor'),
        title: fc.constantFrom('Body', 'body', 'Headline', 'When', 'State'),
        kind: fc.constantFrom(...FIELD_KINDS),
        needed: fc.boolean(),
        choices: fc.subarray(CHOICES, { minLength: 1 }),
      }),
      { selector: ({ key }) => key, maxLength: 5 },
    )
    .map((fields) => contentTypeSchema.parse({ id: label, label, pageKind: 'article', fields }));

const VALUES = { rich: '<p>Words.</p>', line: 'Words', picture: '/pictures/slip.png', date: '2026-05-04', choice: '' } as const;
const held = ({ fields }: ContentType) =>
  fields.map(({ key, kind, choices }) => ({
    key,
    value: kind === 'choice' ? choices[0]! : VALUES[kind],
    profile: kind === 'rich' ? 'notes' : null,
  }));
const make = (key: string, value: string) => ({ key, value, profile: null });

describe('documents that get another type', () => {
  test('the likely places are always possible ones', () =>
    fc.assert(
      fc.property(anyType('one'), anyType('other'), (one, other) => expect(misplaced(one, other, likelyPlaces(one, other))).toBe('')),
    ));

  test('to a type with the same fields nothing is lost', () =>
    fc.assert(
      fc.property(anyType('one'), (one) => {
        const places = likelyPlaces(one, { ...one, id: 'other' });
        expect(places).toEqual(Object.fromEntries(one.fields.map(({ key }) => [key, key])));
      }),
    ));

  test('what moves stays as it is and can stand where it goes; nothing is there twice, and the title stays', () =>
    fc.assert(
      fc.property(anyType('one'), anyType('other'), (one, other) => {
        const places = likelyPlaces(one, other);
        const before = held(one);
        const after = retyped(before, 'The title', other, places, make);
        expect(new Set(after.map(({ key }) => key)).size).toBe(after.length);
        for (const { key, value } of after)
          expect(
            valueProblem(
              other.fields.find((field) => field.key === key)!,
              value,
            ),
          ).toBeNull();
        for (const { key, value, profile } of before)
          if (Object.hasOwn(places, key)) expect(after).toContainEqual({ key: places[key], value, profile });
        const heading = titleField(other);
        if (heading !== null) expect(after.some(({ key }) => key === heading.key)).toBe(true);
      }),
    ));

  const type = (label: string, ...fields: object[]): ContentType =>
    contentTypeSchema.parse({ id: label.toLowerCase(), label, pageKind: 'article', fields });
  const tender = type(
    'Tender',
    { key: 'what', title: 'What', kind: 'line', needed: true },
    { key: 'text', title: 'Text' },
    { key: 'ends', title: 'Ends', kind: 'date' },
    { key: 'state', title: 'State', kind: 'choice', choices: CHOICES },
  );
  const notice = type('Notice', { key: 'headline', title: 'Headline', kind: 'line', needed: true }, { key: 'body', title: 'Body' });

  test('title goes to title and main text to main text, whatever they are called', () =>
    expect(likelyPlaces(tender, notice)).toEqual({ what: 'headline', text: 'body' }));

  test.each([
    [{ when: 'body' }, 'Tender has no field "when".'],
    [{ text: 'words' }, 'Notice has no field "words".'],
    [{ text: 'headline' }, 'What stands in “Text” cannot stand in “Headline”.'],
    [{ what: 'headline', ends: 'headline' }, '“What” and “Ends” cannot both go into “Headline”.'],
    [{ toString: 'body' }, 'Tender has no field "toString".'],
    [{}, ''],
  ])('%j: %s', (places, sentence) => expect(misplaced(tender, notice, places as Record<string, string>)).toBe(sentence));

  test('a choice goes where all its choices are', () => {
    const [state] = tender.fields.slice(-1);
    expect(mayStandIn(state!, { ...state!, choices: ['never', ...CHOICES, 'soon'] })).toBe(true);
    expect(mayStandIn(state!, { ...state!, choices: ['late'] })).toBe(false);
  });
});
