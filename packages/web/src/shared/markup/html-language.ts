import { LanguageSupport, LRLanguage } from '@codemirror/language';
import { parser } from '@lezer/html';

/** HTML for the source views: its tags and attributes. What scripts and styles hold is not read: content has none. */
export const htmlLanguage = new LanguageSupport(LRLanguage.define({ name: 'html', parser }));
