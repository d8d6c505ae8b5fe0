import type { Steps } from '@/core/values/steps';

/*
 * Pictures of the shelf are painted one after the other, a few milliseconds of them a frame, however many there are.
 */

/** Milliseconds of a frame that pictures may take; a step that is begun is made whole. */
const MS_A_FRAME = 8;

const waiting = new Set<Steps<void>>();
let isRunning = false;

/** Paints soon, in steps. @returns takes it back. */
export function paintSoon(work: Steps<void>): () => void {
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
    let step = work.next();
    while (!step.done && performance.now() < end) step = work.next();
    if (step.done) waiting.delete(work);
    if (performance.now() >= end) break;
  }
  isRunning = waiting.size > 0;
  if (isRunning) requestAnimationFrame(frame);
}
