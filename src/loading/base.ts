/** The path under which the application is served, without a slash behind it: `/manege`, or nothing. */
export const BASE: string = process.env.BASE_PATH ?? '';

/** A path of the application as its server has it. Links and the router of the framework do so by themselves. */
export const pathTo = (path: string): string => BASE + path;
