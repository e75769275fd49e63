/*
 * What writing systems ask of those who tidy text (Unicode Standard Annexes 14, 24 and 29; Unicode, section 23.2
 * "Layout Controls").
 */

/** Scripts whose letters never join, so that a joiner or a non-joiner beside them does nothing. */
const INERT =
  /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Armenian}\p{Script=Georgian}\p{Script=Hebrew}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}\p{Script=Hangul}\p{Script=Thai}\p{Script=Lao}]/u;
const LETTER_OR_MARK = /[\p{L}\p{M}]/u;
const PICTURE = /[\p{Extended_Pictographic}\p{Emoji_Modifier}\ufe0f\u{1f1e6}-\u{1f1ff}]/u;
/** Scripts that write no spaces between words, where an invisible space tells where a line may break. */
const BREAKS_BY_MARK =
  /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}\p{Script=Tibetan}\p{Script=Tai_Le}\p{Script=New_Tai_Lue}\p{Script=Tai_Tham}\p{Script=Javanese}\p{Script=Balinese}]/u;
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}\p{Script=Yi}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}\u3000-\u303f\u30fb\u30fc\uff00-\uffef]/u;
const WIDE =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}\p{Script=Hangul}\p{Script=Yi}\u3000-\u303f\uff01-\uff60]/gu;
/** Scripts that have the quotation marks, dashes and ellipses that typography puts in order. */
const WESTERN = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]/u;

const JOINER = '\u200d';
const NON_JOINER = '\u200c';
const ZERO_WIDTH_SPACE = '\u200b';

/** The names of characters that nobody sees (Unicode). */
const NAMES: Readonly<Record<string, string>> = {
  '\u00ad': 'soft hyphen',
  [ZERO_WIDTH_SPACE]: 'zero width space',
  [NON_JOINER]: 'zero width non-joiner',
  [JOINER]: 'zero width joiner',
  '\u2060': 'word joiner',
  '\ufeff': 'zero width no-break space',
};

/** The name of a character that nobody sees. */
export function nameOfInvisible(character: string): string {
  return NAMES[character] ?? `control character ${character.codePointAt(0)!.toString(16).padStart(4, '0').toUpperCase()}`;
}

/**
 * Whether an invisible character does something where it stands: joiners in scripts whose letters join and in emoji, an
 * invisible space where lines break by it.
 *
 * @param before the character before it that is not invisible itself; empty at the begin
 * @param after the character behind it; empty at the end
 */
export function worksBetween(character: string, before: string, after: string): boolean {
  if (character === ZERO_WIDTH_SPACE) return BREAKS_BY_MARK.test(before) && BREAKS_BY_MARK.test(after);
  if (character === JOINER && PICTURE.test(before) && PICTURE.test(after)) return true;
  if (character !== JOINER && character !== NON_JOINER) return false;
  if (isActive(before)) return character === JOINER || isActive(after) || /\p{M}/u.test(before);
  return character === JOINER && !LETTER_OR_MARK.test(before) && isActive(after);
}

function isActive(character: string): boolean {
  return LETTER_OR_MARK.test(character) && !INERT.test(character);
}

/** Whether two lines go on into each other without a space between. */
export function joinsWithoutSpace(before: string, after: string): boolean {
  return UNSPACED.test(lastCharacter(before)) && UNSPACED.test(firstCharacter(after));
}

/** The columns that a text takes on a page: letters of East Asian scripts take two (Unicode Standard Annex 11). */
export function columnsOf(text: string): number {
  return text.length + (text.match(WIDE)?.length ?? 0);
}

/** Whether Western quotation marks, dashes and ellipses are at home at a place in a text: the nearest letters on both sides say so. */
export function isWesternAt(text: string, start: number, end: number): boolean {
  const before = /\p{L}(?=\P{L}*$)/u.exec(text.slice(Math.max(0, start - FAR), start))?.[0];
  const after = /\p{L}/u.exec(text.slice(end, end + FAR))?.[0];
  return [before, after].every((letter) => letter === undefined || WESTERN.test(letter));
}

/** So far the nearest letter is looked for. */
const FAR = 40;

export function firstCharacter(text: string): string {
  const code = text.codePointAt(0);
  return code === undefined ? '' : String.fromCodePoint(code);
}

export function lastCharacter(text: string): string {
  const { length } = text;
  if (length === 0) return '';
  const isPair = length > 1 && /[\udc00-\udfff]/.test(text[length - 1]!) && /[\ud800-\udbff]/.test(text[length - 2]!);
  return text.slice(isPair ? -2 : -1);
}

/** The zeros of the decimal digits that lists are numbered with (Unicode, general category Nd). */
const ZEROS = [0x660, 0x6f0, 0x966, 0x9e6, 0xa66, 0xae6, 0xb66, 0xbe6, 0xc66, 0xce6, 0xd66, 0xe50, 0xed0, 0x17e0, 0x1040, 0xff10];
const OTHER_DIGIT =
  /[\u0660-\u0669\u06f0-\u06f9\u0966-\u096f\u09e6-\u09ef\u0a66-\u0a6f\u0ae6-\u0aef\u0b66-\u0b6f\u0be6-\u0bef\u0c66-\u0c6f\u0ce6-\u0cef\u0d66-\u0d6f\u0e50-\u0e59\u0ed0-\u0ed9\u17e0-\u17e9\u1040-\u1049\uff10-\uff19]/g;

/** A text with the decimal digits of every script as those of ASCII; each takes one place as before. */
export function withAsciiDigits(text: string): string {
  return text.replace(OTHER_DIGIT, (digit) => {
    const code = digit.charCodeAt(0);
    return String(code - ZEROS.find((zero) => code >= zero && code < zero + 10)!);
  });
}
