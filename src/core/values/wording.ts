/** A count with its noun: `1 part`, `3 parts`. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

/** Names in a sentence: `A`, `A and B`, `A, B and C`; with another word before the last one: `A, B or C`. */
export const listed = (names: readonly string[], word = 'and'): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} ${word} ${names.at(-1)}`;
