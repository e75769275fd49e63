import { WRAPPER_ELEMENTS, type PageKind } from '@typikon/core';

export const wrapperText = (wrapper: readonly { element: string; className?: string | undefined }[]): string =>
  wrapper
    .map(({ element, className = '' }) => `${element}${className === '' ? '' : `.${className.trim().replace(/\s+/g, '.')}`}`)
    .join(' > ');

/**
 * Reads the elements around content as they are written: `main.page > article.body`.
 *
 * @returns null for what cannot be read, and for elements that do not stand around content
 */
export function readWrapper(text: string): PageKind['wrapper'] | null {
  const wrapper: PageKind['wrapper'] = [];
  for (const part of text.split('>')) {
    const match = /^([a-z][a-z0-9]*)((?:\.[A-Za-z_][\w-]*)*)$/.exec(part.trim());
    const element = WRAPPER_ELEMENTS.find((name) => name === match?.[1]);
    if (match === null || element === undefined) return null;
    const className = (match[2] ?? '')
      .split('.')
      .filter((name) => name !== '')
      .join(' ');
    wrapper.push({ element, ...(className === '' ? {} : { className }) });
  }
  return wrapper;
}
