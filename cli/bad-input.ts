/** What the person at the terminal has to correct: one line with file, place and reason; exit code 2. */
export class BadInput extends Error {}
