import fc from 'fast-check';
import { type Board, type BoardWire, EMPTY_BOARD } from '../circuit/board';
import { NO_CHIPS_SETUP } from '../circuit/chips-setup';
import type { Sheet } from '../circuit/sheet';
import { lessonFromKept, lessonToKeep } from '../formats/kept-lesson';
import { readLesson } from '../formats/lesson-file';
import { writeLesson } from '../formats/write-lesson';
import { prove } from '../logic/equivalence/prove-sequences';
import { compile } from '../netlist/compile';
import { planOf } from '../packages/plan';
import { type Wiring, wiringOf } from '../packages/wiring';
import { randomSheet } from '../testing/random-circuit';
import { Rig } from '../testing/rig';
import { interlock } from '../testing/sketch';
import { expectDone } from '../values/result';
import { endsOf, pinStrips } from './board-nets';
import { compareBoard } from './compare';
import { addPackage, changePackage, readBoardLine, removePackage } from './edit-board';
import { electricalBoard } from './electrical';
import { faultWords, possibleFaults, withHiddenFault } from './faults';
import { layWires, withWire } from './guide';
import { holesOf, takenHoles } from './holes';
import { boardOfPlan, wireBetween } from './lay';

const RUNS = Number(process.env.BENCH_RUNS ?? 40);

function wired(sheet: Sheet, family: '74HC' | '74LS' | '4000B' = '74HC'): { board: Board; wiring: Wiring } {
  const plan = planOf(sheet, [], { family });
  const wiring = wiringOf(plan);
  const { board, refusal } = layWires(boardOfPlan(plan), wiring, Number.POSITIVE_INFINITY);
  expect(refusal).toBeUndefined();
  return { board, wiring };
}

const severe = (board: Board) => electricalBoard(board).problems.filter(({ isSevere }) => isSevere);

test('a board that is wired by the plan does what the drawing does, in every family', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 4, gates: 9 }),
      fc.constantFrom('74HC', '74LS', '4000B'),
      (sheet, family) => {
        const { board, wiring } = wired(sheet, family);
        expect(compareBoard(board, wiring).isRight).toBe(true);
        expect(severe(board)).toEqual([]);
        const proof = expectDone(prove(compile(sheet), compile(electricalBoard(board).sheet)));
        expect(proof.verdict).toBe('equivalent');
        // No hole has two wires in it.
        const holes = board.wires
          .flatMap(({ from, to }) => [from, to])
          .filter((hole) => !hole.startsWith('X'));
        expect(new Set(holes).size).toBe(holes.length);
      },
    ),
    { numRuns: RUNS },
  );
});

test('a single wire in a wrong column is found', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), fc.nat(), fc.nat(), (sheet, which, where) => {
      const { board, wiring } = wired(sheet);
      const movable = board.wires.filter(({ to }) => !to.startsWith('X'));
      const wire = movable[which % movable.length]!;
      const strips = [...pinStrips(board)].filter(([end]) => end.startsWith('U'));
      const [, strip] = strips[where % strips.length]!;
      const hole = holesOf(strip).find((one) => !takenHoles(board).has(one));
      if (!hole) return;
      const moved: BoardWire = { ...wire, to: hole };
      const changed = { ...board, wires: board.wires.map((one) => (one.id === wire.id ? moved : one)) };
      const found = compareBoard(changed, wiring);
      const [a, b] = endsOf(moved);
      const same = compareBoard({ ...board, wires: board.wires.filter(({ id }) => id !== wire.id) }, wiring);
      // The moved wire may still lie within its own net: then no wire is wrong.
      if (found.wrong.length === 0) {
        expect(found.missing.length).toBe(a === b ? same.missing.length : found.missing.length);
        expect(compareBoard(board, wiring).isRight).toBe(true);
        return;
      }
      expect(found.wrong).toHaveLength(1);
      expect(found.isRight).toBe(false);
      // The board is right once the named wire is removed and the missing ones are laid.
      const without = { ...changed, wires: changed.wires.filter(({ id }) => id !== found.wrong[0]!.wire.id) };
      const mended = layWires(without, wiring, Number.POSITIVE_INFINITY);
      expect(compareBoard(mended.board, wiring).isRight).toBe(true);
    }),
    { numRuns: RUNS },
  );
});

describe('the interlock on its board', () => {
  const { sheet } = interlock();
  const { board, wiring } = wired(sheet);
  const messages = (of: Board) => electricalBoard(of).problems.map(({ message }) => message);
  const wireTo = (end: string) => {
    const planned = wiring.wires.findIndex(({ from, to }) => from === end || to === end);
    return board.wires[planned]!;
  };
  const without = (...ids: string[]): Board => ({
    ...board,
    wires: board.wires.filter(({ id }) => !ids.includes(id)),
  });

  test('a package without its supply gives nothing, and says so', () => {
    const bare = without(wireTo('U1.14').id);
    expect(messages(bare)).toContainEqual(
      expect.stringMatching(/^U1 has no supply: pin 14 \(VCC\) to plus\.$/),
    );
    expect(electricalBoard(bare).sheet.parts.has('U1')).toBe(false);
  });

  test('a package the wrong way round is told', () => {
    const turned = {
      ...board,
      packages: board.packages.map((one) => ({ ...one, turned: one.ref === 'U1' })),
    };
    expect(messages(turned).join(' ')).toMatch(/The supply of U1 is reversed/);
  });

  test('an open input is unknown in CMOS and 1 in TTL', () => {
    const { wires } = wiring;
    const driver = wires.findIndex(({ from }) => from === 'X1.1');
    const open = without(board.wires[driver]!.id);
    expect(messages(open).join(' ')).toMatch(/is open: what it reads is unknown/);
    const ttl = {
      ...open,
      packages: open.packages.map((one) => ({ ...one, type: one.type.replace('HC', 'LS') })),
    };
    expect(messages(ttl).join(' ')).toMatch(/is open: it reads 1/);
    const rig = new Rig(electricalBoard(ttl).sheet);
    rig.set({ Bars: 1, Clear: 1 });
    expect(rig.word('Drive')).toBe('1');
    expect(new Rig(electricalBoard(open).sheet).set({ Bars: 1, Clear: 1 }).word('Drive')).toBe('X');
  });

  test('joined outputs, an output at a rail, a short, and a bare lamp are told', () => {
    const join = (from: string, to: string) =>
      withWire(board, expectDone(wireBetween(board, from, to, 'red')));
    const outputs = wiring.stages.flatMap(({ pins }) => pins);
    expect(messages(join(outputs[0]!, outputs[1]!)).join(' ')).toMatch(/drive the same net: only one may/);
    expect(messages(join(outputs[0]!, '+')).join(' ')).toMatch(/joined to plus: an output must not be/);
    expect(messages(join('+', '-')).join(' ')).toMatch(/short-circuited/);
    const bare = {
      ...board,
      devices: board.devices.map((one) => ({ ...one, ...(one.kind === 'lamp' ? { bare: true } : {}) })),
    };
    expect(messages(bare).join(' ')).toMatch(/Lamp Drive has no resistor/);
  });

  test('without its supply the board is dark', () => {
    const rig = new Rig(electricalBoard({ ...board, isOn: false }).sheet);
    expect(rig.netlist.inputs).toEqual([]);
    expect(rig.word('Drive')).toBe('Z');
  });

  test('a wire one column off is told as that, and where it belongs', () => {
    const at = board.wires.find(({ from, to }) => from.startsWith('X') && /^[a-e]/.test(to))!;
    const column = Number(at.to.slice(1));
    const beside = holesOf(`${column + 1}l`).find((hole) => !takenHoles(board).has(hole))!;
    const off = {
      ...board,
      wires: board.wires.map((wire) => (wire.id === at.id ? { ...wire, to: beside } : wire)),
    };
    const [wrong] = compareBoard(off, wiring).wrong;
    expect(wrong).toMatchObject({ wire: { id: at.id }, moveTo: { end: 'to', strip: `${column}l` } });
    expect(wrong!.message).toMatch(/one column off/);
  });

  test('a wire to the wrong pole says where it hangs and what the drawing has', () => {
    const pin = wiring.wires.find(({ from, stage }) => stage > 0 && from === 'X1.1')!.to;
    const taken = without(board.wires[wiring.wires.findIndex(({ to }) => to === pin)]!.id);
    const wrong = withWire(taken, expectDone(wireBetween(taken, '-', pin, 'blue')));
    const [found] = compareBoard(wrong, wiring).wrong;
    const [ref, number] = pin.split('.');
    expect(found!.message).toBe(`${ref} pin ${number} hangs on the minus rail. The drawing has X1 there.`);
  });

  test('a dead gate and a broken wire show at probes, and nowhere else', () => {
    const broken: Board = { ...board, faults: [{ is: 'broken wire', wire: board.wires.at(-1)!.id }] };
    expect(broken.wires).toEqual(board.wires);
    expect(compareBoard(broken, wiring).isRight).toBe(true);
    const rig = new Rig(electricalBoard(broken).sheet);
    const good = new Rig(electricalBoard(board).sheet);
    const words = (of: Rig) =>
      ['Drive', 'Warn'].map((name) => of.set({ Key: 1, Bars: 0, Clear: 1 }).word(name));
    expect(words(rig)).not.toEqual(words(good));
  });
});

test('a wire into an empty column beside its pin is told as being off', () => {
  const { sheet } = interlock();
  const plan = planOf(sheet, [], { family: '74HC' });
  const wiring = wiringOf(plan);
  const { board } = layWires(boardOfPlan(plan), wiring, 0);
  const { to } = wiring.wires.find(({ from }) => from === 'X1.1')!;
  const strip = pinStrips(board).get(to)!;
  const column = Number.parseInt(strip, 10);
  const beside = [column - 2, column - 1, column + 1, column + 2].find(
    (at) => at > 0 && ![...pinStrips(board).values()].includes(`${at}${strip.slice(-1)}`),
  );
  if (beside === undefined) return;
  const hole = holesOf(`${beside}${strip.slice(-1)}`)[0]!;
  const off = withWire(board, { id: 'w99', from: 'X1.1', to: hole, colour: 'blue' });
  expect(compareBoard(off, wiring).wrong).toMatchObject([{ wire: { id: 'w99' }, moveTo: { strip } }]);
});

test('a board and a plan of packages go into the lesson file and come back', () => {
  const { sheet, lesson } = interlock();
  const { board } = wired(sheet);
  const chips = { ...NO_CHIPS_SETUP, without: ['02'], stock: [{ type: '08', count: 2 }], shown: true };
  const whole = { ...lesson, sheets: lesson.sheets.map((one) => ({ ...one, board, chips })) };
  expect(expectDone(readLesson(writeLesson(whole)))).toEqual(whole);
  expect(lessonFromKept(structuredClone(lessonToKeep(whole)))).toEqual(whole);
});

test('every fault that can be hidden changes what the board does, is told in words, and is not seen by the comparison', () => {
  const { sheet } = interlock();
  const plan = planOf(sheet, [], { family: '74HC' });
  const { board, wiring } = wired(sheet);
  const rows = (of: Board) => {
    const rig = new Rig(electricalBoard(of).sheet);
    return Array.from({ length: 8 }, (_, row) => {
      rig.set({ Key: row >> 2, Bars: (row >> 1) & 1, Clear: row & 1 });
      return `${rig.word('Drive')}${rig.word('Warn')}`;
    }).join(' ');
  };
  const faults = possibleFaults(board, plan);
  expect(faults.length).toBeGreaterThan(8);
  for (const [i, fault] of faults.entries()) {
    const faulty = withHiddenFault(board, plan, i / faults.length)!;
    expect(faulty.faults).toEqual([fault]);
    expect(rows(faulty)).not.toBe(rows(board));
    expect(compareBoard(faulty, wiring).isRight).toBe(true);
    expect(faultWords(faulty, fault)).toMatch(/is dead|is broken inside|the wrong way round/);
  }
});

test('a package that hides that it is turned is right again when it is turned, or taken away and placed anew', () => {
  const { board } = wired(interlock().sheet);
  const fault = { is: 'turned package', ref: 'U1' } as const;
  const faulty = { ...board, faults: [fault] };
  expect(severe(faulty)).toEqual([]);
  expect(expectDone(changePackage(faulty, 'U1', { turned: true }))).toEqual(board);
  expect(removePackage(faulty, 'U1').faults).toEqual([]);
  expect(expectDone(changePackage(faulty, 'U2', { turned: true })).faults).toEqual([fault]);
});

test('a package is placed as near as there is room to where it is asked for, and behind the last one otherwise', () => {
  const at = (board: Board) => board.packages.map(({ type, column }) => `${type} ${column}`);
  const first = expectDone(addPackage(EMPTY_BOARD, '74HC08', 12));
  expect(at(first)).toEqual(['74HC08 12']);
  // Its own columns are taken: the nearest beside it.
  expect(at(expectDone(addPackage(first, '74HC00', 13)))).toEqual(['74HC08 12', '74HC00 19']);
  expect(at(expectDone(addPackage(first, '74HC00', 7)))).toEqual(['74HC08 12', '74HC00 5']);
  expect(at(expectDone(addPackage(first, '74HC00', 900)))).toEqual(['74HC08 12', '74HC00 24']);
  expect(expectDone(addPackage(first, '74HC00')).packages[1]!.column).toBeGreaterThan(18);
  let full = EMPTY_BOARD;
  for (let column = 1; column <= 29; column += 7) {
    const more = addPackage(full, '74HC08', column);
    if (!more.ok) break;
    full = more.value;
  }
  expect(full.packages).toHaveLength(4);
  expect(addPackage(full, '74HC08', 1)).toMatchObject({ problem: { code: 'no-room' } });
});

test('lines for the board that mean nothing say what they lack, and change nothing', () => {
  const board = expectDone(readBoardLine(EMPTY_BOARD, '7408')).board;
  const said = (line: string) => {
    const read = readBoardLine(board, line);
    return read.ok ? 'done' : read.problem.message;
  };
  expect(said('7499')).toBe('the catalogue has no 7499; the nearest are 7493 and 74107');
  expect(said('4002')).toBe('the catalogue has no 4002; the nearest are 4001 and 4011');
  expect(said('wire U1.3')).toMatch(/needs two ends/);
  expect(said('wire U9.1 U1.1')).toMatch(/no U9/);
  expect(said('wire U1.15 U1.1')).toMatch(/no pin 15/);
  expect(said('wire U1.1 U1.2 pink')).toMatch(/no colour/);
  expect(said('wire a1 b1')).toMatch(/hang together already/);
  expect(said('wire k1 U1.1')).toMatch(/no pin .*, no hole/);
  expect(said('hello')).toMatch(/no package of the catalogue/);
  expect(said('')).toMatch(/type a package/);
  expect(said('wire U1.14 + rose')).toBe('done');
});
