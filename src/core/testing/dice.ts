/** Numbers from a seed in [0, 1), so that what was random can be played again. */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
