import type { PageKind } from './page';

/** The name under which a stylesheet of the site is told. */
export const fileNameOf = (id: string): string => `${id}.css`;

/** The stylesheet of a page kind into which repairs go. */
export const overridesOf = (kind: Pick<PageKind, 'id'>): string => `overrides-${kind.id}`;
