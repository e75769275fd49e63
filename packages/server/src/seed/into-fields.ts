import { mainField, renderedText, parseFragment, serialize, titleField, type ContentType, type Site } from '@typikon/core';

/** A field of a document of the demo: what stands in it, and the profile by which rich text was written. */
export interface Filled {
  key: string;
  value: string;
  profile: string | null;
}

const FERRIES = ['Marram', 'Dunlin', 'Old Tansy'];

/**
 * Puts the markup of a document of the demo into the fields of its type: most of it into the main one, and what has a field of
 * its own there: the title, the conditions of a tender, the short text of a story, the ferry that a note is about.
 *
 * @param profile by which the markup was written
 * @param profileOf by which profile other rich texts of the type are written, by the key of the field
 */
export function intoFields(
  type: ContentType,
  { title, html, profile }: { title: string; html: string; profile: string },
  profileOf: (key: string) => string | null,
): Filled[] {
  const filled: Filled[] = [];
  const put = (key: string, value: string): void => {
    const field = type.fields.find((one) => one.key === key);
    if (field === undefined || value === '') return;
    filled.push({ key, value, profile: field.kind === 'rich' ? profileOf(key) : null });
  };
  const main = mainField(type);
  let text = html;
  if (type.id === 'tender') {
    const at = text.indexOf('<h2>Conditions</h2>');
    if (at !== -1) {
      put('conditions', text.slice(at));
      text = text.slice(0, at).trimEnd();
    }
  }
  if (type.id === 'story') {
    const lead = firstParagraph(html);
    put('teaser', lead === '' ? '' : `<p>${lead}</p>`);
  }
  if (type.id === 'ferry-note') put('ferry', FERRIES.find((ferry) => `${title} ${html}`.includes(ferry)) ?? '');
  const heading = titleField(type);
  if (heading !== null) put(heading.key, title);
  if (main !== null) filled.push({ key: main.key, value: text, profile });
  return filled;
}

/** The first paragraph that is long enough to tell something. */
function firstParagraph(html: string): string {
  const found = parseFragment(html).root.children.find(
    (child) => child.type === 'element' && child.name === 'p' && renderedText(child).length > 40,
  );
  if (found?.type !== 'element') return '';
  return serialize(found)
    .replace(/<\/?(?:a|span|font)\b[^>]*>/g, '')
    .trim();
}

/** With which profile the first role that may writes in a field. */
export function usualProfile(
  site: Site,
  why: (question: { roles: string[]; type: string; field: string }) => { profile: string | null },
  type: string,
): (key: string) => string | null {
  return (field) => {
    for (const { id } of site.roles) {
      const { profile } = why({ roles: [id], type, field });
      if (profile !== null) return profile;
    }
    return null;
  };
}
