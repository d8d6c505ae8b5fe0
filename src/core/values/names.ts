const plain = (name: string) => name.trim().toLowerCase().replaceAll(/\s+/g, '_');

/** Names are matched without regard to case and to blanks around them; within them a blank is as good as an underscore. */
export const sameName = (a: string, b: string) => plain(a) === plain(b);
