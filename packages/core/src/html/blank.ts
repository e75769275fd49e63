/** White space as HTML counts it (Infra, "ASCII whitespace"): not the hard space, which readers see. */
export const isBlankCode = (code: number): boolean => code === 0x20 || code === 0x0a || code === 0x09 || code === 0x0c || code === 0x0d;

/** How many characters of white space a text begins with. */
export function blankAtBegin(text: string): number {
  let at = 0;
  while (at < text.length && isBlankCode(text.charCodeAt(at))) at++;
  return at;
}

/** How many characters of white space a text ends with. */
export function blankAtEnd(text: string): number {
  let at = text.length;
  while (at > 0 && isBlankCode(text.charCodeAt(at - 1))) at--;
  return text.length - at;
}
