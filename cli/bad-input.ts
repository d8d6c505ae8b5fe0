/** An error in the user's input: one line with file, place and reason; exit code 2. */
export class BadInput extends Error {}
