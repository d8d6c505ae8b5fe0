import { overlap } from '@/core/circuit/geometry';
import { emptyLesson } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { settle } from '@/core/drawing/editing/settle';
import { roomOf } from '@/core/drawing/geometry/free-place';
import { updateDerived } from '@/core/synthesis/update-derived';
import { dice } from '@/core/testing/dice';
import { crossesLabels, looksJoined, runsOverThings } from '@/core/testing/tidy-sheet';
import { Session } from './session';
import { randomGesture } from './testing/random-gesture';

/** Parts that stand on others, their labels and captions with them. */
function stacked(sheet: Sheet): string[] {
  const parts = [...sheet.parts.values()];
  return parts.flatMap((part, i) =>
    parts
      .slice(i + 1)
      .filter((other) => overlap(roomOf(part), roomOf(other)))
      .map((other) => `${part.id} on ${other.id}`),
  );
}

/** Gestures in all; `npm run thorough` makes ten thousand. */
const GESTURES = Number(process.env.GESTURES ?? 3000);

test(`over ${GESTURES} random gestures no wire runs along another net or over a part or label, and no part stands on another`, () => {
  for (let run = 0; run < GESTURES / 200; run++) {
    const roll = dice(1 + run);
    const session = new Session(emptyLesson('l', 'L'), { updateDerived });
    session.setSettled(settle);
    for (let i = 0; i < 200; i++) {
      randomGesture(session, roll, 14);
      const { sheet } = session;
      const wrong = [
        ...looksJoined(sheet),
        ...runsOverThings(sheet),
        ...stacked(sheet),
        ...crossesLabels(sheet),
      ];
      if (wrong.length > 0) throw new Error(`run ${run}, gesture ${i}: ${wrong.slice(0, 5).join('; ')}`);
    }
  }
});
