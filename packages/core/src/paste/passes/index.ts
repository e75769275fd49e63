import type { Pass } from '../pass';
import type { PassId } from '../../profile/paste-schema';
import { classes } from './classes';
import { elements } from './elements';
import { headings } from './headings';
import { inlineStyle } from './inline-style';
import { links } from './links';
import { lists } from './lists';
import { notes } from './notes';
import { officeLeftovers } from './office-leftovers';
import { spaces } from './spaces';
import { tables } from './tables';
import { wrappers } from './wrappers';

/** Every pass, by its id. */
export const PASSES: { readonly [Id in PassId]: Pass<Id> } = {
  'office-leftovers': officeLeftovers,
  notes,
  lists,
  'inline-style': inlineStyle,
  classes,
  wrappers,
  elements,
  headings,
  links,
  tables,
  spaces,
};
