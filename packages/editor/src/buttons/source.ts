import { Braces } from 'lucide';
import { openSource } from '../panels/source-dialog';
import type { Button } from './button';

/** Shows the markup; what was changed by hand is cleaned, and what that took is shown before it is taken. */
export const source: Button = { id: 'source', icon: Braces, open: openSource };
