import type { PassId } from '../../profile/paste-schema';
import type { Pass } from '../pass';
import { classes } from './classes';
import { elements } from './elements';
import { findReplace } from './find-replace';
import { headings } from './headings';
import { inlineStyle } from './inline-style';
import { joinedLines } from './joined-lines';
import { links } from './links';
import { lists } from './lists';
import { notes } from './notes';
import { officeLeftovers } from './office-leftovers';
import { pictures } from './pictures';
import { spaces } from './spaces';
import { tables } from './tables';
import { typography } from './typography';
import { wrappers } from './wrappers';

/** Every pass there is, by its id. */
export const PASSES: { readonly [Id in PassId]: Pass<Id> } = {
  'joined-lines': joinedLines,
  notes,
  lists,
  'office-leftovers': officeLeftovers,
  headings,
  'inline-style': inlineStyle,
  classes,
  wrappers,
  elements,
  links,
  pictures,
  tables,
  'find-replace': findReplace,
  typography,
  spaces,
};
