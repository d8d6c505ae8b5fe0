import fc from 'fast-check';
import type { Lesson } from '../../../circuit/lesson';
import type { Sheet } from '../../../circuit/sheet';
import { readExercise, writeExercise } from '../../../formats/exercise-file';
import { cell, inputAt, truthTable } from '../../../logic/table/truth-table';
import { compile } from '../../../netlist/compile';
import { PLACEABLE } from '../../../parts/catalogue';
import { newKeyPair } from '../../../sealing/seal';
import { buildTask, exerciseOf } from '../../../testing/exercises';
import { randomSheet } from '../../../testing/random-circuit';
import { randomDesign } from '../../../testing/random-design';
import { interlock, Sketch } from '../../../testing/sketch';
import { letterOf } from '../../../values/logic';
import { expectDone } from '../../../values/result';
import { check } from '../../check';
import { faultsOf, injected } from '../../kinds/fault/inject';
import { sealedExercise, unsealedExercise } from '../../sealing';
import { circuit } from '.';
import { ofSheet } from './set-up';

const NONE: ReadonlySet<string> = new Set();
const ALL: ReadonlySet<string> = new Set(PLACEABLE.map(({ kind }) => kind));

const wantedOf = (sheet: Sheet, { sheets, settings }: Pick<Lesson, 'sheets' | 'settings'>) =>
  ofSheet.make({ sheet, sheets, settings, on: NONE }, {}, null);
const interlocked = interlock();
const wanted = expectDone(wantedOf(interlocked.sheet, interlocked.lesson));

/** A flip-flop that turns over, behind as many inverters, or none. */
function divider(inverters: number, kind = 'tff'): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 8, 'Clk', { hertz: 1e6 });
  s.place('switch', 0, 0, 'Turn');
  s.place(kind, 12, 4);
  s.place('lamp', 60, 2, 'Half');
  s.wire('switch1.Y', `${kind}1.${kind === 'tff' ? 'T' : 'D'}`);
  s.wire('clock1.Y', `${kind}1.C`);
  let from = `${kind}1.Q`;
  for (let i = 1; i <= inverters; i++) {
    s.place('not', 20 + 8 * i, 2);
    s.wire(from, `not${i}.A`);
    from = `not${i}.Y`;
  }
  s.wire(from, 'lamp1.A');
  return s;
}

test('whatever is drawn is the same as itself, and a fault in it is shown where it does something else', () => {
  let told = 0;
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), fc.nat(), (sheet, at) => {
      const made = wantedOf(sheet, { sheets: [sheet], settings: interlocked.lesson.settings });
      if (!made.ok) return;
      expect(check(sheet, made.value, ALL)).toMatchObject({ solved: true, right: 1, difference: null });
      const faults = [...sheet.parts.values()].flatMap((part) =>
        faultsOf(part).map((fault) => ({ part: part.id, fault })),
      );
      if (faults.length === 0) return;
      const { part, fault } = faults[at % faults.length]!;
      const other = injected(sheet, { part, fault });
      const { difference, solved, wrongOutputs } = check(other, made.value, ALL);
      const [mine, theirs] = [truthTable(compile(sheet, [sheet])), truthTable(compile(other, [other]))];
      const rows = Array.from({ length: mine.rows }, (_, row) => row);
      const differing = rows.filter((row) =>
        mine.outputs.some((_, o) => cell(mine, o, row) !== cell(theirs, o, row)),
      );
      expect(solved).toBe(differing.length === 0);
      if (!difference) return;
      told++;
      // What it says of that row is so.
      const row = rows.find((r) =>
        mine.inputs.every((name, i) => inputAt(mine.inputs.length, i, r) === difference.inputs[0]![name]),
      )!;
      expect(differing).toContain(row);
      for (const [o, name] of mine.outputs.entries()) {
        expect(difference.wanted[name]).toBe(letterOf(cell(mine, o, row) as never));
        expect(difference.given[name]).toBe(letterOf(cell(theirs, o, row) as never));
      }
      expect(wrongOutputs[0]!.length).toBeGreaterThan(0);
    }),
    { numRuns: 30 },
  );
  // About half of the faults can be told from outside.
  expect(told).toBeGreaterThan(5);
});

test('a circuit with storage is the same in every state, or differs after the fewest clocks', () => {
  const own = expectDone(wantedOf(divider(0).sheet, divider(0).lesson));
  expect(circuit.isTimed(own)).toBe(true);
  expect(circuit.signals(own).inputs).toEqual([
    { name: 'Clk', width: 1, period: 1_000_000 },
    { name: 'Turn', width: 1, period: null },
  ]);
  expect(check(divider(2).sheet, own, ALL)).toMatchObject({ solved: true, complaints: [] });
  // A D flip-flop does the same until its input falls: then it does not stay where it is.
  const { difference } = check(divider(0, 'dff').sheet, own, ALL);
  expect(difference).toEqual({
    inputs: [{ Turn: 1 }, { Turn: 0 }, { Turn: 0 }],
    wanted: { Half: '1' },
    given: { Half: '0' },
  });
});

test('designs with storage and blocks are the same as themselves', () => {
  let made = 0;
  fc.assert(
    fc.property(randomDesign({ storage: true, loops: false, blocks: true }, 8), (lesson) => {
      const sheet = lesson.sheets[0]!;
      const own = wantedOf(sheet, lesson);
      if (!own.ok) return;
      made++;
      const found = check(sheet, own.value, ALL, lesson.sheets);
      expect(found.difference).toBeNull();
    }),
    { numRuns: 15 },
  );
  expect(made).toBeGreaterThan(10);
});

test('a missing input is told by name, and a lamp more does no harm', () => {
  const less = interlock();
  less.place('lamp', 90, 0, 'Extra');
  less.wire('switch1.Y', 'lamp3.A');
  expect(check(less.sheet, wanted, ALL)).toMatchObject({ solved: true });
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 10, 0, 'Drive');
  s.wire('switch1.Y', 'lamp1.A');
  const { complaints, solved, difference } = check(s.sheet, wanted, ALL);
  expect([solved, difference]).toEqual([false, null]);
  expect(complaints).toContain('The input “Bars” is missing.');
  expect(complaints).toContain('The output “Warn” is missing.');
});

test('what cannot be decided is left to the teacher, with the reason', () => {
  const wide = new Sketch();
  wide.place('clock', 0, 0, 'Clk', { hertz: 1 });
  wide.place('switch', 0, 8, 'Word', { width: 16 });
  wide.place('register', 12, 4, 'R', { width: 16 });
  wide.place('lamp', 30, 4, 'Kept', { width: 16 });
  wide.wire('switch1.Y', 'register1.D');
  wide.wire('clock1.Y', 'register1.C');
  wide.wire('register1.Q', 'lamp1.A');
  const own = expectDone(wantedOf(wide.sheet, wide.lesson));
  const found = check(wide.sheet, own, ALL, wide.lesson.sheets);
  expect(found.solved).toBeNull();
  expect(found.complaints.join()).toContain('could not be decided: 16 inputs make more rows a clock');
});

test('the wanted circuit goes through a file, sealed or not, and a broken one is refused', async () => {
  const task = buildTask(wanted, [...ALL], { tells: 'nothing' });
  const keys = newKeyPair();
  const sealed = await sealedExercise(exerciseOf([task]), keys.publicKey);
  const opened = expectDone(unsealedExercise(expectDone(readExercise(writeExercise(sealed))), keys));
  expect(opened.tasks[0]!.key).toEqual(wanted);
  const [flat] = wanted.circuit.sheets;
  const broken = {
    ...wanted,
    circuit: { ...wanted.circuit, sheets: [{ ...flat!, parts: [{ ...flat!.parts[0]!, kind: 'riddle' }] }] },
  };
  expect(readExercise(writeExercise(exerciseOf([{ ...task, key: broken }])))).toMatchObject({
    problem: { message: expect.stringMatching(/“T”: the wanted circuit: .*“riddle”, which this Manege/) },
  });
});
