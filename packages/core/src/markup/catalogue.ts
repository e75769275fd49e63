/** The elements of HTML that may stand in content, by what they mean to an author. */
export interface ElementGroup {
  id: string;
  name: string;
  /** What the group is for, in a few words. */
  gloss: string;
  elements: readonly { name: string; meaning: string }[];
}

const of = (list: string): { name: string; meaning: string }[] =>
  list.split('\n').flatMap((line) => {
    const [name, meaning] = line.trim().split(/: (.*)/);
    return name && meaning ? [{ name, meaning }] : [];
  });

/** Meanings follow the HTML standard's chapters 4.3 to 4.11; the obsolete ones its section 16.2. */
export const ELEMENT_CATALOGUE: readonly ElementGroup[] = [
  {
    id: 'headings',
    name: 'Headings',
    gloss: 'the page owns level 1',
    elements: of(`h1: the title of the whole page
      h2: a main part of the content
      h3: a part of a part
      h4: a smaller part
      h5: a still smaller part
      h6: the smallest part`),
  },
  {
    id: 'blocks',
    name: 'Paragraphs and blocks',
    gloss: 'what stands on lines of its own',
    elements: of(`p: a paragraph
      blockquote: a quotation of whole paragraphs
      pre: text whose spaces and line breaks count
      hr: a change of topic, drawn as a rule
      div: a block without meaning of its own
      address: how to reach the author
      center: a centred block, from before stylesheets`),
  },
  {
    id: 'text',
    name: 'Text',
    gloss: 'words inside a line',
    elements: of(`strong: important words
      em: stressed words
      b: bold words, without more weight
      i: words in another voice
      u: underlined words, which readers may take for a link
      s: words that no longer hold
      small: side remarks and small print
      mark: words highlighted for the reader
      sub: below the line
      sup: above the line
      code: a piece of computer code
      kbd: keys to press
      samp: what a program printed
      var: a variable
      cite: the title of a work
      q: a quotation inside a line
      dfn: a term where it is explained
      abbr: an abbreviation, with what it stands for
      time: a date or time that machines can read
      data: a value that machines can read
      bdi: words of unknown direction
      bdo: words of a set direction
      del: words that were taken out
      ins: words that were put in
      br: a line break
      wbr: a place where a long word may break
      span: words without meaning of their own
      font: typeface and colour, from before stylesheets
      big: larger words, from before stylesheets
      strike: struck words, from before stylesheets
      tt: typewriter words, from before stylesheets
      ruby: signs with their reading
      rt: the reading of a sign
      rp: brackets around a reading`),
  },
  { id: 'links', name: 'Links', gloss: 'ways out of the text', elements: of(`a: a link, or a place to link to`) },
  {
    id: 'lists',
    name: 'Lists',
    gloss: 'one thing after another',
    elements: of(`ul: a list with bullets
      ol: a list with numbers
      li: one item of a list
      dl: a list of terms and explanations
      dt: a term
      dd: its explanation
      menu: a list of commands`),
  },
  {
    id: 'tables',
    name: 'Tables',
    gloss: 'rows and columns',
    elements: of(`table: a table
      caption: what the table shows
      colgroup: columns taken together
      col: one column
      thead: the head rows
      tbody: the body rows
      tfoot: the foot rows
      tr: a row
      th: a cell that heads a row or column
      td: a cell`),
  },
  {
    id: 'pictures',
    name: 'Pictures',
    gloss: 'and what is said about them',
    elements: of(`img: a picture
      figure: a picture or the like, with its caption
      figcaption: the caption of a figure
      picture: a picture in several sizes
      source: one of several files`),
  },
  {
    id: 'embeds',
    name: 'Embeds',
    gloss: "other people's pages in ours",
    elements: of(`iframe: another page in a frame
      video: a film
      audio: a sound
      track: subtitles
      object: something run by another program
      embed: something run by another program
      map: a picture with places to press
      area: one such place`),
  },
  {
    id: 'structure',
    name: 'Structure',
    gloss: 'parts of a page',
    elements: of(`section: a part of the content
      article: a piece that stands by itself
      aside: something beside the point
      header: the head of a part
      footer: the foot of a part
      nav: a list of ways through the site
      main: the main part of the page
      hgroup: a heading with its subtitle
      search: a way to search`),
  },
  {
    id: 'interactive',
    name: 'Interactive',
    gloss: 'what a reader opens, presses or fills in',
    elements: of(`details: text that opens on a press
      summary: what to press
      form: a form
      input: a field
      button: a button
      select: a choice
      option: one of the choices
      textarea: a large field
      label: the name of a field
      fieldset: fields taken together
      legend: the name of such a group
      progress: how far something is
      meter: how much of something there is
      output: the result of a calculation
      dialog: a window`),
  },
  {
    id: 'code',
    name: 'Code and page parts',
    gloss: 'never stored: the safety floor removes them',
    elements: of(`script: a program that runs in the page
      style: style rules for the whole page
      link: a file that the page loads
      meta: a note to the browser
      base: where relative addresses start
      template: markup kept for a program
      noscript: what shows without programs
      svg: a drawing in markup
      math: a formula in markup`),
  },
];
