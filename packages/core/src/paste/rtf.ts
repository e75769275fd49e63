/** Groups whose text no reader sees (RTF 1.9, destinations). */
const HIDDEN =
  /^\\(?:\*|fonttbl|colortbl|stylesheet|info|pict|object|header|footer|themedata|datastore|xmlnstbl|listtable|listoverridetable|rsidtbl|generator|fldinst)/;
const BREAKS: Readonly<Record<string, string>> = { par: '\n\n', line: '\n', tab: '\t', cell: '\t', row: '\n', sect: '\n\n', page: '\n\n' };
const SIGNS: Readonly<Record<string, string>> = {
  emdash: '\u2014',
  endash: '\u2013',
  lquote: '\u2018',
  rquote: '\u2019',
  ldblquote: '\u201c',
  rdblquote: '\u201d',
  bullet: '\u2022',
};

/**
 * The words of rich text (RTF 1.9), for payloads that hold nothing else. Formatting is left out; paragraphs stay apart.
 * Characters outside ASCII that are written by code page are read as Windows-1252.
 */
export function textOfRtf(rtf: string): string {
  let text = '';
  /** For each open group, whether it is hidden and how many stand-in characters follow a Unicode one. */
  const groups: { hidden: boolean; skip: number }[] = [{ hidden: false, skip: 1 }];
  const decoder = new TextDecoder('windows-1252');
  let toSkip = 0;
  for (let i = 0; i < rtf.length;) {
    const group = groups[groups.length - 1]!;
    const character = rtf[i]!;
    if (character === '{') {
      groups.push({ hidden: group.hidden || HIDDEN.test(rtf.slice(i + 1, i + 24)), skip: group.skip });
      i++;
    } else if (character === '}') {
      if (groups.length > 1) groups.pop();
      i++;
    } else if (character === '\\') {
      const word = /^\\([a-z]+)(-?\d+)? ?/i.exec(rtf.slice(i, i + 48));
      if (word !== null) {
        i += word[0].length;
        const [, name = '', number] = word;
        if (name === 'bin') i += Number(number ?? 0);
        if (name === 'uc') group.skip = Number(number ?? 1);
        if (group.hidden) continue;
        if (name === 'u') {
          text += String.fromCharCode(Number(number) & 0xffff);
          toSkip = group.skip;
        } else text += BREAKS[name] ?? SIGNS[name] ?? '';
        continue;
      }
      const hex = /^\\'([0-9a-f]{2})/i.exec(rtf.slice(i, i + 4));
      i += hex === null ? 2 : 4;
      if (group.hidden) continue;
      if (toSkip > 0) toSkip--;
      else if (hex !== null) text += decoder.decode(Uint8Array.of(parseInt(hex[1]!, 16)));
      else if (rtf[i - 1] === '~') text += '\u00a0';
      else if (/[\\{}]/.test(rtf[i - 1] ?? '')) text += rtf[i - 1];
    } else {
      i++;
      if (group.hidden || character === '\r' || character === '\n') continue;
      if (toSkip > 0) toSkip--;
      else text += character;
    }
  }
  return text.replace(/\n{3,}/g, '\n\n').trim();
}
