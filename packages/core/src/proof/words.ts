import { sourceName } from '../paste/source-words';
import type { Expectation } from './specimen';

/** An expectation in a sentence. */
export function expectationWords(expectation: Expectation): string {
  switch (expectation.expect) {
    case 'no-inline-style':
      return 'No inline style is left';
    case 'no-hard-space':
      return 'No hard space is left';
    case 'no-office':
      return 'Nothing of an office program is left';
    case 'no-empty-paragraph':
      return 'No empty paragraph is left';
    case 'links-lead-somewhere':
      return 'Every link within the text leads somewhere';
    case 'text-kept':
      return `${expectation.percent} % of the letters are kept`;
    case 'count':
      return `There are ${expectation.is} ${nounOf(expectation.of)}`;
    case 'text-is':
      return `The text is “${short(expectation.text)}”`;
    case 'text-has':
      return `The text has “${short(expectation.text)}”`;
    case 'text-lacks':
      return `The text has no “${short(expectation.text)}”`;
    case 'markup-has':
      return `The markup has ${short(expectation.html)}`;
    case 'markup-lacks':
      return `The markup has no ${short(expectation.html)}`;
    case 'outline':
      return `The headings are ${expectation.is.map((line) => `h${line}`).join(' · ') || 'none'}`;
    case 'source':
      return `It is told as ${sourceName(expectation.is).toLowerCase()}`;
    case 'pictures-to-upload':
      return `${expectation.is} pictures have to be uploaded`;
  }
}

function nounOf(of: string): string {
  return of.startsWith('@') ? `${of.slice(1)} attributes` : of.startsWith('.') ? `elements of class ${of.slice(1)}` : `<${of}>`;
}

function short(text: string): string {
  return text.length > 90 ? `${text.slice(0, 88)}…` : text;
}
