/** Names are matched without regard to case and to blanks around them. */
export const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
