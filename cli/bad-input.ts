/** What the person at the terminal has to mend: one line with file, place and reason; exit code 2. */
export class BadInput extends Error {}
