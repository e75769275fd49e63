/** Less than this share of a figure is noise. */
const NOISE = 0.15;

/**
 * Says which figures are worse than before, then which are better; what differs by less than the noise counts as the same.
 *
 * @param {Record<string, number>} before
 * @param {Record<string, number>} now
 * @param {'higher' | 'lower'} better
 * @returns {string[]}
 */
export function compared(before, now, better) {
  const lines = { worse: [], better: [], new: [], gone: [] };
  for (const [name, value] of Object.entries(now)) {
    const was = before[name];
    if (was === undefined) lines.new.push(`new: ${name} ${value}`);
    else if (Math.abs(value / was - 1) > NOISE) {
      const isBetter = better === 'higher' ? value > was : value < was;
      lines[isBetter ? 'better' : 'worse'].push(`${isBetter ? 'faster' : 'SLOWER'}: ${name} ${was} → ${value}`);
    }
  }
  for (const name of Object.keys(before)) if (now[name] === undefined) lines.gone.push(`no longer measured: ${name}`);
  const all = [...lines.worse, ...lines.better, ...lines.new, ...lines.gone];
  return all.length === 0 ? [`nothing differs by more than ${NOISE * 100} %`] : all;
}
