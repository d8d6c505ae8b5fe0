/** Stands in for code for browsers that are too old for the rest of Manege. */
export {};
