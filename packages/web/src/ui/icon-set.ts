import type { IconNode } from 'lucide';

/** The icons that ship with the application, by their names in lower-case words. They are loaded when one is first shown. */
let loaded: Promise<ReadonlyMap<string, IconNode>> | null = null;

export function iconSet(): Promise<ReadonlyMap<string, IconNode>> {
  loaded ??= import('lucide').then(
    ({ icons }) => new Map(Object.entries(icons).map(([name, node]): [string, IconNode] => [inWords(name), node])),
  );
  return loaded;
}

/** An icon of the set; a plain sheet where there is none of the name. */
export async function iconNamed(name: string): Promise<IconNode> {
  const set = await iconSet();
  return set.get(name) ?? set.get('file') ?? [];
}

/** `TriangleAlert` as `triangle-alert`. */
export const inWords = (name: string): string =>
  name
    .replace(/([a-z])([A-Z0-9])/g, '$1-$2')
    .replace(/([0-9])([A-Z])/g, '$1-$2')
    .replace(/([A-Z])([A-Z][a-z])/g, '$1-$2')
    .toLowerCase();
