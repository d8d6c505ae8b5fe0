/** The stretch of its period in which a square wave stands, and when it changes next in ps. */
export interface Turn {
  isFirst: boolean;
  next: number;
}

/**
 * Where a square wave stands at a time: in the first stretch of its period or in the second, and when it changes next.
 * Times in ps. Edges are whole numbers of ps; beyond 2^53 ps each is the number nearest to it, so that edges
 * of several waves that belong together stay together.
 * @param first length of the first stretch.
 * @param begins when a period begins.
 * @param into is filled in and returned, so that a run allocates nothing at an edge of a clock.
 */
export function squareAt(
  time: number,
  period: number,
  first: number,
  begins: number,
  into: Turn = { isFirst: true, next: 0 },
): Turn {
  if (time + period < Number.MAX_SAFE_INTEGER) {
    const within = (((time - begins) % period) + period) % period;
    into.isFirst = within < first;
    into.next = time + (into.isFirst ? first : period) - within;
    return into;
  }
  const [length, begun] = [BigInt(period), BigInt(begins)];
  // The period before may still go on: its end may have been rounded up.
  let start = ((BigInt(time) - begun) / length - 1n) * length + begun;
  for (;;) {
    into.isFirst = true;
    into.next = Number(start + BigInt(first));
    if (time < into.next) return into;
    start += length;
    into.isFirst = false;
    into.next = Number(start);
    if (time < into.next) return into;
  }
}
