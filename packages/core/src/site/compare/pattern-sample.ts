/**
 * Writes texts that match a pattern (RE2 syntax), and some that come close. What is written is only tried, so syntax that is
 * not known here costs a sample and nothing else.
 *
 * @returns a few texts, the shortest first
 */
export function samplesOf(pattern: string): string[] {
  const samples = new Set<string>();
  for (const style of ['least', 'most', 'other'] as const)
    try {
      samples.add(new Sampler(pattern, style).all());
    } catch {
      // A pattern that is read otherwise gives no sample of this style.
    }
  return [...samples].filter((sample) => sample.length <= MOST).sort((a, b) => a.length - b.length);
}

type Style = 'least' | 'most' | 'other';
/** Longer samples are of no use to a reader, in UTF-16 units. */
const MOST = 300;
/** A repetition without an end is tried so often. */
const OFTEN = 3;
const CLASSES: Readonly<Record<string, string | undefined>> = { d: '07', w: 'aZ', s: ' ', D: 'x', W: '-', S: 'x' };

/** Reads a pattern by recursive descent and writes one text as it goes. */
class Sampler {
  private at = 0;

  constructor(
    private readonly pattern: string,
    private readonly style: Style,
  ) {}

  all(): string {
    const text = this.alternatives();
    if (this.at < this.pattern.length) throw new Error('unread');
    return text;
  }

  private alternatives(): string {
    const all = [this.sequence()];
    while (this.pattern[this.at] === '|') {
      this.at++;
      all.push(this.sequence());
    }
    return this.style === 'least' ? all[0]! : all[all.length - 1]!;
  }

  private sequence(): string {
    let text = '';
    while (this.at < this.pattern.length && !'|)'.includes(this.pattern[this.at]!)) {
      const one = this.atom();
      text += one.repeat(this.times());
      if (text.length > MOST * 4) throw new Error('long');
    }
    return text;
  }

  private atom(): string {
    const sign = this.pattern[this.at++]!;
    if (sign === '^' || sign === '$') return '';
    if (sign === '.') return this.style === 'other' ? '-' : 'x';
    if (sign === '(') return this.group();
    if (sign === '[') return this.characters();
    if (sign === '\\') return this.escaped()[0] ?? '';
    return sign;
  }

  private group(): string {
    const flags = /^\?(P?<\w+>|[a-zA-Z-]*:|[a-zA-Z-]+\))/.exec(this.pattern.slice(this.at));
    if (flags !== null) this.at += flags[0].length;
    if (flags?.[0].endsWith(')') === true) return '';
    const text = this.alternatives();
    if (this.pattern[this.at++] !== ')') throw new Error('unclosed');
    return text;
  }

  /** The characters that an escape may stand for; none for a place such as the edge of a word. */
  private escaped(): string {
    const sign = this.pattern[this.at++] ?? '';
    if (sign === 'b' || sign === 'B' || sign === 'A' || sign === 'z') return '';
    if (sign === 'p' || sign === 'P') {
      const name = /^(\{[^}]*\}|.)/.exec(this.pattern.slice(this.at))?.[0] ?? '';
      this.at += name.length;
      return sign === 'P' ? '-' : /L|Letter|Latin/.test(name) ? 'a' : /N/.test(name) ? '7' : '-';
    }
    if (sign === 'x' || sign === 'u') throw new Error('by number');
    const plain: Record<string, string | undefined> = { n: '\n', t: '\t', r: '\r', f: '\f' };
    return CLASSES[sign] ?? plain[sign] ?? sign;
  }

  private characters(): string {
    const isNot = this.pattern[this.at] === '^';
    if (isNot) this.at++;
    const ranges: [string, string][] = [];
    for (let first = true; first || this.pattern[this.at] !== ']'; first = false) {
      if (this.at >= this.pattern.length) throw new Error('unclosed');
      const named = /^\[:\^?\w+:\]/.exec(this.pattern.slice(this.at))?.[0];
      if (named !== undefined) throw new Error('named class');
      const from = this.one();
      if (from.length === 1 && this.pattern[this.at] === '-' && this.pattern[this.at + 1] !== ']') {
        this.at++;
        ranges.push([from, this.one()]);
      } else for (const sign of from) ranges.push([sign, sign]);
    }
    this.at++;
    const holds = (sign: string): boolean => ranges.some(([from, to]) => sign >= from && sign <= to);
    if (!isNot) return this.style === 'least' ? ranges[0]![0] : ranges[ranges.length - 1]![1];
    const other = [...'xa7-Z_ .é'].find((sign) => !holds(sign));
    if (other === undefined) throw new Error('nothing left');
    return other;
  }

  private one(): string {
    const sign = this.pattern[this.at++]!;
    return sign === '\\' ? this.escaped() : sign;
  }

  private times(): number {
    const sign = this.pattern[this.at];
    let [from, to] = [1, 1];
    const counted = /^\{(\d+)(,(\d*))?\}/.exec(this.pattern.slice(this.at));
    if (sign === '*') [from, to] = [0, OFTEN];
    else if (sign === '+') [from, to] = [1, OFTEN];
    else if (sign === '?') [from, to] = [0, 1];
    else if (counted !== null) {
      from = Number(counted[1]);
      to = counted[2] === undefined ? from : counted[3] === '' ? from + OFTEN : Number(counted[3]);
    } else return 1;
    this.at += counted === null ? 1 : counted[0].length;
    if (this.pattern[this.at] === '?') this.at++;
    if (from > MOST) throw new Error('long');
    return this.style === 'least' ? from : Math.min(to, Math.max(from, MOST));
  }
}
