/** Stands in for calls to functions on a server: Manege has none. */
export function serverActionReducer(): never {
  throw new Error('Manege has no server to call');
}
