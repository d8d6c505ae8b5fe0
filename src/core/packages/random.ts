/** Numbers in [0, 1) from a seed, the same for the same (a linear congruential generator, Knuth 1981). */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
