/** What an administrator takes on by allowing something. */
export interface Risk {
  /** `none`: nothing to think about. `look`: the look of the site. `trust`: readers, their data, or what other sites put into ours. */
  level: 'none' | 'look' | 'trust';
  /** Why, in a few words; empty for none. */
  why: string;
}

const NONE: Risk = { level: 'none', why: '' };
const look = (why: string): Risk => ({ level: 'look', why });
const trust = (why: string): Risk => ({ level: 'trust', why });

const ELEMENTS: Readonly<Record<string, Risk | undefined>> = Object.assign(Object.create(null) as object, {
  h1: look('a second title on the page'),
  u: look('reads as a link'),
  font: look('typeface and colour from elsewhere'),
  center: look('centres what the stylesheet would not'),
  big: look('sizes from elsewhere'),
  blink: look('moves'),
  marquee: look('moves'),
  span: look('a wrapper without meaning'),
  div: look('a wrapper without meaning'),
  table: look('may be wider than a phone'),
  pre: look('may be wider than the column'),
  img: look('may be wider than the column'),
  iframe: trust('another site’s page inside ours'),
  video: trust('loads large files, perhaps from elsewhere'),
  audio: trust('loads large files, perhaps from elsewhere'),
  source: trust('loads files, perhaps from elsewhere'),
  form: trust('asks readers for data'),
  input: trust('asks readers for data'),
  textarea: trust('asks readers for data'),
  select: trust('asks readers for data'),
  button: trust('looks as if it did something'),
  dialog: trust('can lie over the page'),
  map: look('areas that need a fixed picture'),
});

const ATTRIBUTES: Readonly<Record<string, Risk | undefined>> = Object.assign(Object.create(null) as object, {
  style: look('design in the content instead of the stylesheet'),
  class: look('takes on whatever the stylesheets do with it'),
  id: trust('may clash with the page’s own ids'),
  name: trust('may clash with the page’s own names'),
  target: look('opens windows readers did not ask for'),
  align: look('design in the content'),
  bgcolor: look('design in the content'),
  color: look('design in the content'),
  face: look('design in the content'),
  size: look('design in the content'),
  width: look('may be wider than the column'),
  src: trust('loads from where it says'),
  allow: trust('lets a frame use the reader’s device'),
  sandbox: trust('loosens what a frame may do'),
  action: trust('sends readers’ data away'),
  poster: trust('loads from where it says'),
  contenteditable: trust('readers could type into the page'),
  tabindex: look('changes the order in which the keyboard moves'),
  accesskey: look('takes keys from the page'),
});

/** The risk of letting authors keep an element. */
export function riskOfElement(name: string): Risk {
  return ELEMENTS[name] ?? (name.includes('-') ? trust('becomes whatever a script of the page makes of it') : NONE);
}

/** The risk of letting authors keep an attribute. */
export function riskOfAttribute(name: string): Risk {
  return ATTRIBUTES[name] ?? (name.startsWith('data-') ? trust('scripts of the page may act on it') : NONE);
}
