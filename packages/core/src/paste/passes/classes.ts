import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import type { Pass } from '../pass';

/** Classes that office programs, mail programs and online editors give to everything. */
const OFFICE_CLASS =
  /^(?:Mso\w*|Section\d+|WordSection\d+|xl\d+|font\d+|sd(?:foot|end)note\w*|western|cjk|ctl|Apple-\w[\w-]*|\w+_(?:quote|attr|extra|signature)|c\d+|p\d+|s\d+|docs-[\w-]+|[a-z]{1,2}\d{1,3})$/;

/** Takes classes away that other programs brought along. */
export const classes: Pass<'classes'> = {
  id: 'classes',
  label: 'Classes',
  effect: 'Classes that other programs brought along go.',
  run({ root, settings, report }) {
    const isKept = (word: string): boolean => {
      if (settings.become === 'drop-all') return false;
      if (settings.become === 'drop-office') return !OFFICE_CLASS.test(word);
      return settings.keep.some((name) => (name.endsWith('*') ? word.startsWith(name.slice(0, -1)) : word === name));
    };
    transform(root, {
      element(element) {
        const value = element.attribute('class');
        if (value === undefined) return 'keep';
        const words = value.split(/\s+/).filter((word) => word !== '');
        const kept = words.filter(isKept);
        if (kept.length === words.length && words.length > 0) return 'keep';
        setAttribute(element, 'class', kept.length === 0 ? null : kept.join(' '));
        report.changed(element, kept.length === 0 ? '' : `class="${kept.join(' ')}"`);
        return 'keep';
      },
    });
  },
};
