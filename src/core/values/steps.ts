/** Work in steps of some milliseconds each, between which other things may be done. */
export type Steps<T> = Generator<void, T>;

/** Does all steps of some work one after the other. */
export function atOnce<T>(steps: Steps<T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/**
 * Does some work, and lets other things happen in between.
 * @param rest resolves when the next steps may be done.
 * @param slice milliseconds of work between two rests; a step is not interrupted.
 */
export async function withRests<T>(steps: Steps<T>, rest: () => Promise<void>, slice = 12): Promise<T> {
  for (;;) {
    const begun = performance.now();
    do {
      const { done, value } = steps.next();
      if (done) return value;
    } while (performance.now() - begun < slice);
    await rest();
  }
}
