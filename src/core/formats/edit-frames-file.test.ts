import { applyWithInverse, type Edit } from '../circuit/edit';
import { sheetOfFlat } from '../exercise/begin';
import { editFrames } from '../exercise/edit-frames';
import { dice } from '../testing/dice';
import { Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { LONGEST_FRAMES, packFrames, readFrames } from './edit-frames-file';

/** A sketch that is drawn on step by step, each of them with what takes it back. */
function drawn(count: number) {
  const s = new Sketch();
  const roll = dice(3);
  const steps: { name: string; inverse: Edit }[] = [];
  const states = [s.sheet];
  for (let i = 0; i < count; i++) {
    const kind = ['and', 'or', 'xor', 'switch', 'lamp'][Math.floor(roll() * 5)]!;
    const before = s.lesson;
    s.place(kind, Math.floor(roll() * 90), 9 * i, `N${i}`);
    const part = [...s.sheet.parts.values()].at(-1)!;
    const made = applyWithInverse(before, { type: 'addPart', sheet: s.sheet.id, part });
    steps.push({ name: `place ${kind}`, inverse: expectDone(made).inverse });
    states.push(s.sheet);
  }
  return { lesson: s.lesson, steps, states };
}

test('each step of a drawing comes back as it was, the oldest first', () => {
  const { lesson, steps, states } = drawn(12);
  const frames = expectDone(readFrames(packFrames(editFrames(lesson, steps))));
  expect(frames.map(({ step }) => step)).toEqual(['', ...steps.map(({ name }) => name)]);
  expect(frames.map(({ sheet }) => sheetOfFlat(sheet))).toEqual(states);
});

test('what is too long loses its oldest steps, and what is damaged is told', () => {
  const { lesson, steps } = drawn(280);
  const all = editFrames(lesson, steps);
  const packed = packFrames(all);
  expect(packed.length).toBeLessThanOrEqual(LONGEST_FRAMES);
  const frames = expectDone(readFrames(packed));
  expect(frames.at(-1)).toEqual(all.at(-1));
  expect(readFrames(packed.slice(0, -200))).toMatchObject({ problem: { code: 'damaged-frames' } });
  expect(readFrames('nonsense')).toMatchObject({ problem: { code: 'damaged-frames' } });
  expect(readFrames(packed + 'A'.repeat(LONGEST_FRAMES))).toMatchObject({ ok: false });
});
