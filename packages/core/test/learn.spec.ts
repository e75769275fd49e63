import {
  clean,
  compileRules,
  lessonsOf,
  mergePatch,
  patchToLearn,
  resolveProfile,
  STARTING_POINTS,
  toSanitizerConfig,
  type JsonObject,
} from '../src/index';
import { DEMO_MARKUP, demoHouse, demoProfile, demoRules, resolved } from './support';

const nothing: JsonObject = { format: 'typikon-profile/1', name: 'Reply' };
const SAMPLE =
  '<p class="lead">Hello <b>there</b>, <a href="https://a.example/x">see</a> <a href="mailto:x@a.example">write</a></p>' +
  '<ul><li>one</li></ul><img src="https://pics.example/1.png" width="300"><script>x()</script>';

const learnt = (chosen: (id: string) => boolean): string => {
  const profile = resolved('reply', () => nothing);
  const { lessons } = lessonsOf(SAMPLE, profile);
  const patch = patchToLearn(SAMPLE, profile, new Set(lessons.map(({ id }) => id).filter(chosen)));
  const after = mergePatch(nothing, patch) as JsonObject;
  return clean(SAMPLE, compileRules(resolved('reply', () => after))).html;
};

describe('learning from a sample', () => {
  const { lessons, unlearnable } = lessonsOf(
    SAMPLE,
    resolved('reply', () => nothing),
  );

  test('lists elements, then what their attributes need, each with its risk', () => {
    expect(lessons.map(({ label, needs }) => `${label}${needs === null ? '' : ` (needs ${needs.split(' ')[1]})`}`).sort()).toEqual(
      [
        '<a>',
        '<b>',
        '<img> from pics.example',
        '<li>',
        '<p>',
        '<ul>',
        'class on <p>: lead (needs p)',
        'href on <a> (needs a)',
        'mailto in href (needs a)',
        'width on <img>: 300 (needs img)',
      ].sort(),
    );
    expect(lessons.find(({ label }) => label.startsWith('<img>'))!.risk).toEqual({ level: 'look', why: 'may be wider than the column' });
    expect(lessons.find(({ label }) => label.startsWith('class'))!.risk.level).toBe('look');
  });
  test('says what nothing can keep', () => {
    expect(unlearnable).toEqual([{ label: '<script>', places: 1, layer: 'safety-floor' }]);
  });
  test('ticking all keeps all that can be kept', () => {
    expect(learnt(() => true)).toBe(SAMPLE.replace('<script>x()</script>', ''));
  });
  test('ticking some keeps those, by the smallest rules', () => {
    expect(learnt((id) => / (p|a|b) /.test(`${id} `) && !id.includes('class'))).toBe(
      '<p>Hello <b>there</b>, <a href="https://a.example/x">see</a> <a href="mailto:x@a.example">write</a></p><p>one</p>',
    );
  });
  test('what is learnt is no more than the sample shows', () => {
    const profile = resolved('reply', () => nothing);
    const patch = patchToLearn(SAMPLE, profile, new Set(lessons.map(({ id }) => id)));
    const rules = compileRules(resolved('reply', () => mergePatch(nothing, patch)));
    expect(
      clean(
        '<p class="loud">x</p><img src="https://pics.example/1.png" width="301"><img src="https://other.example/1.png"><a href="tel:1">y</a><u>z</u>',
        rules,
      ).html,
    ).toBe('<p>x</p><img src="https://pics.example/1.png"><a>y</a>z');
  });
  test.each(DEMO_MARKUP.slice(0, 12).map(({ name, html }): [string, string] => [name, html]))(
    '%s under the house limits',
    (_name, html) => {
      const profile = demoProfile('reply');
      const house = demoHouse();
      const { lessons: all } = lessonsOf(html, profile, { house });
      const patch = patchToLearn(html, profile, new Set(all.map(({ id }) => id)), { house });
      const resolution = resolveProfile('reply', () => mergePatch(profile.chain[0]!.document, patch));
      if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
      const left = clean(html, compileRules(resolution.resolved, { house })).ledger.filter(({ layer }) => layer === 'profile');
      expect(lessonsOf(html, resolution.resolved, { house }).lessons).toEqual([]);
      expect(left.length).toBeLessThanOrEqual(clean(html, compileRules(profile, { house })).ledger.length);
    },
  );
});

test('each starting point is sound, and holds all of the one before', () => {
  let before: string[] = [];
  for (const { document } of STARTING_POINTS) {
    const profile = resolved('x', () => ({ ...document, name: 'X' }));
    const kept = [...compileRules(profile).kept];
    expect(kept).toEqual(expect.arrayContaining(before));
    before = kept;
  }
});

describe('as a configuration of the HTML Sanitizer API', () => {
  const { config, limits } = toSanitizerConfig(demoProfile('story-desk'), demoRules('story-desk', { house: demoHouse() }));
  test('elements with their attributes, those that keep their content, and what all may have', () => {
    expect(config.elements.find(({ name }) => name === 'a')).toEqual({ name: 'a', attributes: ['href', 'id', 'rel', 'title'] });
    expect(config.attributes).toEqual(['dir', 'lang']);
    expect(config.replaceWithChildrenElements).toEqual(expect.arrayContaining(['font', 'span', 'b', 'u']));
    expect(config.replaceWithChildrenElements).not.toContain('form');
    expect(config.comments).toBe(false);
  });
  test('and says what it cannot express', () => {
    expect(limits.join('\n')).toMatch(/Values are not tested.*start on ol/);
    expect(limits.join('\n')).toMatch(/not renamed.*b to strong/);
    expect(limits.join('\n')).toMatch(/Nothing is reported/);
  });
});
