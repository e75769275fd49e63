import { Image } from 'lucide';
import { NodeSelection } from 'prosemirror-state';
import { openPicture } from '../panels/picture-dialog';
import { nodeNameOf } from '../schema/compile';
import { selectedElement } from '../selection';
import type { Button } from './button';

/** Puts in a picture from the library or the author's computer; with a picture selected, changes it. */
export const picture: Button = {
  id: 'picture',
  icon: Image,
  isTolerant: true,
  isActive: (state) => selectedElement(state, 'img') !== null,
  isPossible: ({ selection, schema }) =>
    (selection instanceof NodeSelection && selection.node.type === schema.nodes[nodeNameOf('img')]) || selection.$from.parent.inlineContent,
  whyNot: 'A picture cannot stand here.',
  open: openPicture,
};
