import { clean, compileRules, mergePatch, readHouseLimits, wayThrough, type HouseLimits, type JsonObject } from '../src/index';
import { demoHouse, demoProfile, resolved } from './support';

const FRAME = '<p>x</p><iframe src="https://cams.orrenstrand.example/slip"></iframe><iframe src="https://elsewhere.example/"></iframe>';
const changed = (house: HouseLimits, patch: JsonObject): HouseLimits => {
  const read = readHouseLimits(mergePatch(JSON.parse(JSON.stringify(house)) as JsonObject, patch));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.house;
};
const taken = (html: string, role?: string) =>
  clean(html, compileRules(demoProfile('story-desk'), { house: demoHouse(), ...(role === undefined ? {} : { role }) })).ledger;

describe('what the house limits took', () => {
  const profile = demoProfile('story-desk');
  const house = demoHouse();
  const entries = taken(FRAME).filter(({ start }) => start === FRAME.indexOf('<iframe'));

  test('is let through for everybody by the host alone, in the house limits and in the profile', () => {
    const way = wayThrough(entries, profile, FRAME, house, null)!;
    expect(way.label).toBe('<iframe> from cams.orrenstrand.example');
    const wider = resolved('desk', () => mergePatch({ format: 'typikon-profile/1', name: 'Desk' }, way.profile!.patch));
    const { html } = clean(FRAME, compileRules(wider, { house: changed(house, way.house) }));
    expect(html).toContain('cams.orrenstrand.example');
    expect(html).not.toContain('elsewhere.example');
  });

  test('or for one role, by an exception', () => {
    const way = wayThrough(entries, profile, FRAME, house, 'duty-office')!;
    expect(way.house).toEqual({ trustedRoles: { 'duty-office': { except: ['/elements/iframe'] } } });
    const wider = resolved('desk', () => mergePatch({ format: 'typikon-profile/1', name: 'Desk' }, way.profile!.patch));
    const limits = changed(house, way.house);
    expect(clean(FRAME, compileRules(wider, { house: limits, role: 'duty-office' })).html).toContain('cams.orrenstrand.example');
    expect(clean(FRAME, compileRules(wider, { house: limits })).html).not.toContain('iframe');
  });

  test('an attribute', () => {
    const html = '<p class="wide">x</p>';
    const own = resolved('desk', () => ({
      format: 'typikon-profile/1',
      name: 'Desk',
      markup: { elements: { p: { attributes: { class: { test: 'tokens', values: ['wide'] } } } } },
    }));
    const { ledger } = clean(html, compileRules(own, { house }));
    expect(wayThrough(ledger, own, html, house, null)).toEqual({
      label: 'class on <p>: wide',
      house: { markup: { elements: { p: { attributes: { class: { values: ['note', 'warning', 'lead', 'fare-note', 'wide'] } } } } } },
      profile: null,
    });
  });

  test('never what the safety floor takes', () => {
    expect(wayThrough(taken('<script>x</script>'), profile, '<script>x</script>', house, null)).toBeNull();
    expect(wayThrough([], profile, '', house, null)).toBeNull();
  });
});
