/** Letters of 0, 1 and x without what they tell: where either will do stays to be seen. */
export const blanked = (letters: string): string => letters.replaceAll('1', '0');

/** Letters with an x wherever either would have done. @param wanted as long as the letters. */
export const withDontCares = (wanted: string, letters: string): string =>
  Array.from(letters, (letter, i) => (wanted[i] === 'x' ? 'x' : letter)).join('');

/** Letters that are not don't-cares. */
export const caredFor = (letters: string): number => letters.replaceAll('x', '').length;
