import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Classes that office programs, mail programs, chats and online editors give to everything. */
const OFFICE_CLASS =
  /^(?:Mso\w*|mso\w+|(?:Word)?Section\d+|xl\d+|et\d+|font\d+|sd(?:foot|end)note\w*|western|cjk|ctl|Apple-\w[\w-]*|\w+_(?:quote|attr|extra|signature|default)|docs-[\w-]+|lst-kix[\w-]*|[a-z]{1,2}\d{1,3}|[cp]-\w+_[\w-]*|(?:Bullet|Number)ListStyle\d*|ListContainerWrapper|OutlineElement|(?:Normal)?TextRun|NormalTextRun|Paragraph|EOP|LineBreakBlob|TabRun|TabChar|SCX\w*|BCX\d*|Ltr|Rtl|Superscript|Subscript|moz-[\w-]+|textLayer)$/;

/** Takes classes away that other programs brought along. */
export const classes: Pass<'classes'> = {
  id: 'classes',
  finds: ({ attributes }) => attributes.has('class'),
  run({ root, settings, styleClasses, report }) {
    const isNamed = (names: readonly string[], word: string): boolean =>
      names.some((name) => (name.endsWith('*') ? word.startsWith(name.slice(0, -1)) : word === name));
    const isKept = (word: string): boolean => {
      if (isNamed(settings.drop, word)) return false;
      switch (settings.become) {
        case 'drop-all':
          return false;
        case 'drop-office':
          return styleClasses.has(word) || !OFFICE_CLASS.test(word);
        case 'keep-styles':
          return styleClasses.has(word) || isNamed(settings.keep, word);
        case 'keep-named':
          return isNamed(settings.keep, word);
      }
    };
    transform(root, {
      element(element) {
        const value = element.attribute('class');
        if (value === undefined) return 'keep';
        const words = value.split(/\s+/).filter((word) => word !== '');
        const kept = words.filter(isKept);
        if (kept.length === words.length && words.length > 0) return 'keep';
        const after = kept.join(' ');
        report.attribute(element, 'class', kept.length === 0 ? '' : `class="${after}"`);
        setAttribute(element, 'class', kept.length === 0 ? null : after);
        return 'keep';
      },
    });
  },
};
