/** What the name of a lesson file ends in, and that of a packed one. */
export const ENDING = '.manege.json';
export const LARGE_ENDING = '.manege.json.gz';
