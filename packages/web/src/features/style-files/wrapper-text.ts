import type { PageKind } from '@typikon/core';

export const wrapperText = (wrapper: PageKind['wrapper']): string =>
  wrapper
    .map(({ element, className = '' }) => `${element}${className === '' ? '' : `.${className.trim().replace(/\s+/g, '.')}`}`)
    .join(' > ');

/**
 * Reads the elements around content as they are written: `main.page > article.body`.
 *
 * @returns null for what cannot be read
 */
export function readWrapper(text: string): PageKind['wrapper'] | null {
  const wrapper: PageKind['wrapper'] = [];
  for (const part of text.split('>')) {
    const match = /^([a-z][a-z0-9]*)((?:\.[A-Za-z_][\w-]*)*)$/.exec(part.trim());
    if (match === null) return null;
    const className = (match[2] ?? '')
      .split('.')
      .filter((name) => name !== '')
      .join(' ');
    wrapper.push({ element: match[1]!, ...(className === '' ? {} : { className }) });
  }
  return wrapper;
}
