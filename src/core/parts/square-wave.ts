/**
 * Where a square wave stands at a time: in the first stretch of its period or in the second, and when it changes next.
 * Times in ps. Edges are whole numbers of ps; beyond 2^53 ps each is the number nearest to it, so that edges
 * of several waves that belong together stay together.
 * @param first length of the first stretch.
 * @param begins when a period begins.
 */
export function squareAt(
  time: number,
  period: number,
  first: number,
  begins: number,
): { readonly isFirst: boolean; readonly next: number } {
  if (time + period < Number.MAX_SAFE_INTEGER) {
    const within = (((time - begins) % period) + period) % period;
    return within < first
      ? { isFirst: true, next: time + first - within }
      : { isFirst: false, next: time + period - within };
  }
  const [length, begun] = [BigInt(period), BigInt(begins)];
  // The period before may still go on: its end may have been rounded up.
  let start = ((BigInt(time) - begun) / length - 1n) * length + begun;
  for (;;) {
    const turn = Number(start + BigInt(first));
    if (time < turn) return { isFirst: true, next: turn };
    start += length;
    if (time < Number(start)) return { isFirst: false, next: Number(start) };
  }
}
