/** What is selected on the board. */
export type Chosen = { readonly is: 'wire' | 'package' | 'device'; readonly id: string } | null;
