/** Specificity of a selector (Selectors Level 4, section 17): ids; classes, attributes and pseudo-classes; elements. */
export type Specificity = readonly [ids: number, classes: number, elements: number];

/** Positive where the first is the greater. */
export const bySpecificity = (one: Specificity, other: Specificity): number => one[0] - other[0] || one[1] - other[1] || one[2] - other[2];

export const sum = (one: Specificity, other: Specificity): Specificity => [one[0] + other[0], one[1] + other[1], one[2] + other[2]];

/** The greatest of a list of selectors; nothing for none. */
export const greatest = (all: readonly { specificity: Specificity }[]): Specificity =>
  all.reduce<Specificity>((most, { specificity }) => (bySpecificity(specificity, most) > 0 ? specificity : most), [0, 0, 0]);
