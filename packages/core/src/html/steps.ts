/**
 * How many nodes were looked at, over everything that walks trees. It tells by count, not by the clock, that work grows
 * with the content and not with its square.
 */
export const steps = { taken: 0 };
