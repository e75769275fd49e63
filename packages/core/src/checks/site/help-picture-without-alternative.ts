import { elementsIn } from '../../css/cascade';
import { parseFragment } from '../../html/parse';
import type { SiteCheck } from './check';

export const helpPictureWithoutAlternative: SiteCheck = {
  id: 'help-picture-without-alternative',
  label: 'Pictures in help without an alternative text',
  *run({ fields }) {
    for (const { type, field, pointer } of fields) {
      const pictures = [...elementsIn(parseFragment(field.help.long).root)].filter(({ name }) => name === 'img');
      const silent = pictures.filter((picture) => (picture.attribute('alt') ?? '').trim() === '');
      if (silent.length > 0)
        yield {
          check: this.id,
          severity: 'amiss',
          sentence: `${silent.length === 1 ? 'A picture' : `${silent.length} pictures`} in the help of “${field.title}” of ${type.label} ${silent.length === 1 ? 'says' : 'say'} nothing to those who do not see it.`,
          pointer: `${pointer}/help/long`,
          type: type.id,
          field: field.key,
        };
    }
  },
};
