/** A number of things in words: "1 document", "12 documents". */
export const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
