/** What is known of a property that a reader can see. */
export interface PropertyFacts {
  initial: string;
  isInherited: boolean;
  /** Where it shows: on any box, on text, on list items, tables, captions, pictures, or on boxes that are not inline. */
  on: 'box' | 'text' | 'item' | 'table' | 'cell' | 'caption' | 'picture' | 'block';
}

/** Initial values by the property definition tables of the CSS specifications; `*` marks inherited ones. */
const TABLE = `
text: color* #000000; font-family* (browser); font-size* 16px; font-style* normal; font-weight* 400; font-stretch* 100%; font-variant* normal; font-variant-caps* normal; font-variant-numeric* normal; font-variant-ligatures* normal; font-feature-settings* normal; font-variation-settings* normal; font-kerning* auto; letter-spacing* 0; word-spacing* 0; line-height* normal; text-transform* none; text-shadow* none; white-space* normal; white-space-collapse* collapse; text-wrap* wrap; text-wrap-mode* wrap; text-wrap-style* auto; word-break* normal; overflow-wrap* normal; hyphens* manual; tab-size* 8; direction* ltr; writing-mode* horizontal-tb; visibility* visible; quotes* auto; text-underline-offset* auto; text-underline-position* auto; text-emphasis-style* none; text-emphasis-color* currentcolor; text-orientation* mixed; text-decoration-line none; text-decoration-style solid; text-decoration-color currentcolor; text-decoration-thickness auto
block: text-align* left; text-align-last* auto; text-indent* 0; width auto; height auto; min-width auto; min-height auto; max-width none; max-height none; margin-top 0; margin-bottom 0; overflow-x visible; overflow-y visible; aspect-ratio auto; column-count auto; column-width auto; column-gap normal; row-gap normal; column-rule-width 3px; column-rule-style none; column-rule-color currentcolor; column-span none; flex-direction row; flex-wrap nowrap; justify-content normal; align-items normal; align-content normal; justify-items legacy; grid-template-columns none; grid-template-rows none; grid-template-areas none; grid-auto-flow row; grid-auto-columns auto; grid-auto-rows auto; text-overflow clip; clear none; transform none; rotate none; scale none; translate none; -webkit-line-clamp none; resize none
box: display inline; position static; float none; top auto; right auto; bottom auto; left auto; z-index auto; box-sizing content-box; margin-right 0; margin-left 0; padding-top 0; padding-right 0; padding-bottom 0; padding-left 0; border-top-width 3px; border-right-width 3px; border-bottom-width 3px; border-left-width 3px; border-top-style none; border-right-style none; border-bottom-style none; border-left-style none; border-top-color currentcolor; border-right-color currentcolor; border-bottom-color currentcolor; border-left-color currentcolor; border-top-left-radius 0; border-top-right-radius 0; border-bottom-right-radius 0; border-bottom-left-radius 0; border-image-source none; background-color transparent; background-image none; background-position-x 0%; background-position-y 0%; background-size auto; background-repeat repeat; background-attachment scroll; background-origin padding-box; background-clip border-box; box-shadow none; opacity 1; vertical-align baseline; outline-width 3px; outline-style none; outline-color currentcolor; outline-offset 0; filter none; backdrop-filter none; clip-path none; mask-image none; mix-blend-mode normal; shape-outside none; order 0; flex-grow 0; flex-shrink 1; flex-basis auto; align-self auto; justify-self auto; grid-row-start auto; grid-row-end auto; grid-column-start auto; grid-column-end auto; content normal; counter-reset none; counter-increment none; appearance none
item: list-style-type* disc; list-style-position* outside; list-style-image* none
table: border-collapse* separate; border-spacing* 0; table-layout auto
cell: empty-cells* show
caption: caption-side* top
picture: object-fit fill; object-position 50% 50%; image-rendering* auto; image-orientation* from-image
`;

/** The properties that a reader can see, by name. Those of pointers, scrolling, printing and motion are not among them. */
export const SEEN: ReadonlyMap<string, PropertyFacts> = new Map(
  TABLE.trim()
    .split('\n')
    .flatMap((line) => {
      const [on = '', all = ''] = line.split(/:(.*)/s);
      return all.split(';').map((entry): [string, PropertyFacts] => {
        const [, name = '', star, initial = ''] = /^\s*([\w-]+)(\*)?\s+(.+?)\s*$/.exec(entry) ?? [];
        return [name, { initial, isInherited: star === '*', on: on as PropertyFacts['on'] }];
      });
    }),
);

/** Whether a property passes from parent to child by itself; custom properties do (CSS Custom Properties Level 1, section 2). */
export const isInherited = (property: string): boolean => property.startsWith('--') || SEEN.get(property)?.isInherited === true;
