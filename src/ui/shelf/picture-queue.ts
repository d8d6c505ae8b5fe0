/*
 * Pictures of the shelf are painted one after the other, a few milliseconds of them a frame, however many there are.
 */

/** Milliseconds of a frame that pictures may take; the one that is begun is painted whole. */
const MS_A_FRAME = 8;

const waiting = new Set<() => void>();
let isRunning = false;

/** Paints soon. @returns takes it back. */
export function paintSoon(work: () => void): () => void {
  waiting.add(work);
  if (!isRunning) {
    isRunning = true;
    requestAnimationFrame(frame);
  }
  return () => {
    waiting.delete(work);
  };
}

function frame(): void {
  const end = performance.now() + MS_A_FRAME;
  for (const work of waiting) {
    waiting.delete(work);
    work();
    if (performance.now() >= end) break;
  }
  isRunning = waiting.size > 0;
  if (isRunning) requestAnimationFrame(frame);
}
