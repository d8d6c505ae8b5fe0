import { overlap } from '../../circuit/geometry';
import { findKind } from '../../parts/catalogue';
import { dice } from '../../testing/dice';
import { Sketch } from '../../testing/sketch';
import { newPart } from '../editing/gestures';
import { freePlace, standsClear } from './free-place';
import { bodyOf, captionsOf, lettersOf } from './placement';

/** Parts that are placed one after the other near one point, each where there is room. */
function crowd(seed: number, count: number): Sketch {
  const roll = dice(seed);
  const one = <T>(of: readonly T[]): T => of[Math.floor(roll() * of.length)]!;
  const s = new Sketch();
  for (let i = 0; i < count; i++) {
    const kind = findKind(one(['switch', 'lamp', 'button', 'clock', 'and', 'dff', 'counter', 'port']))!;
    const at = { x: Math.round(8 * roll()), y: Math.round(8 * roll()) };
    const trial = newPart(s.sheet, kind, at, {}, one(['A', 'Go', 'Key', 'Platform clear', '']));
    const part = { ...trial, at: freePlace(s.sheet, trial) };
    s.make({ type: 'addPart', sheet: 'sheet1', part });
  }
  return s;
}

test('parts that are placed where there is room stand clear, and no label is written over another or over a part', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const { sheet } = crowd(seed, 14);
    const parts = [...sheet.parts.values()];
    for (const part of parts) {
      expect([seed, part.id, standsClear(sheet, part)]).toEqual([seed, part.id, true]);
      for (const caption of captionsOf(part))
        for (const other of parts) {
          const written = other === part ? null : lettersOf(other);
          if (written)
            expect([part.id, other.id, overlap(caption, written)]).toEqual([part.id, other.id, false]);
        }
      const letters = lettersOf(part);
      if (!letters) continue;
      for (const other of parts) {
        if (other === part) continue;
        const others = lettersOf(other);
        expect([part.id, other.id, overlap(letters, bodyOf(other))]).toEqual([part.id, other.id, false]);
        if (others) expect([part.id, other.id, overlap(letters, others)]).toEqual([part.id, other.id, false]);
      }
    }
  }
});

test('a part keeps the place that it is given where nothing stands there', () => {
  const s = new Sketch();
  s.place('and', 0, 0);
  const far = newPart(s.sheet, findKind('lamp')!, { x: 30, y: 0 }, {}, 'Far');
  expect(freePlace(s.sheet, far)).toEqual({ x: 30, y: 0 });
  const upon = newPart(s.sheet, findKind('lamp')!, { x: 0, y: 0 }, {}, 'Upon');
  expect(freePlace(s.sheet, upon)).not.toEqual({ x: 0, y: 0 });
});
