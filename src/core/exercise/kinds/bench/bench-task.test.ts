import { addPackage, addWire, removePackage } from '../../../bench/edit-board';
import { layWires } from '../../../bench/guide';
import { boardOfPlan } from '../../../bench/lay';
import { type Board, EMPTY_BOARD } from '../../../circuit/board';
import type { Task } from '../../../circuit/exercise';
import { DEFAULT_SETTINGS, type Sheet } from '../../../circuit/sheet';
import { readExercise, writeExercise } from '../../../formats/exercise-file';
import { planOf } from '../../../packages/plan';
import { wiringOf } from '../../../packages/wiring';
import { drivingOf } from '../../../simulate/drive';
import { buildTask, exerciseOf } from '../../../testing/exercises';
import { interlock, Sketch } from '../../../testing/sketch';
import { expectDone } from '../../../values/result';
import { begunWork } from '../../begin';
import type { SetUpSource } from '../../expected/expected-kind';
import { runOfSheet } from '../../expected/run/expected-run';
import { tableOfSheet } from '../../expected/table/expected-table';
import { rulesForLook } from '../../marking';
import { FREE } from '../../rules';
import { type BenchAsked, type BenchTask, bench } from '.';
import { type Beginning, drawingToWire, functionToBuild } from './set-up';

const { sheet: drawn } = interlock();
const source = (sheet: Sheet): SetUpSource => ({
  sheet,
  sheets: [sheet],
  settings: DEFAULT_SETTINGS,
  on: new Set(),
});

/** A board that is wired as the drawing has it. */
function wired(sheet: Sheet, family: '74HC' | '74LS' = '74HC'): Board {
  const plan = planOf(sheet, [], { family });
  return layWires(boardOfPlan(plan), wiringOf(plan), Number.POSITIVE_INFINITY).board;
}

function taskFor(more: Partial<BenchAsked> = {}, begins: Beginning = 'nothing', sheet = drawn): BenchTask {
  const asked: BenchAsked = { does: 'wire', guide: 'shows', stock: null, most: null, ...more };
  const key = expectDone(tableOfSheet(sheet));
  return {
    id: 'task1',
    kind: 'bench',
    title: 'Wire it',
    words: '',
    points: 1,
    tells: 'wanted',
    tries: null,
    given:
      asked.does === 'wire'
        ? drawingToWire(source(sheet), begins, asked)
        : functionToBuild(source(sheet), key, asked),
    asked,
    key,
  };
}

const mark = (task: BenchTask, board?: Board, sheet = drawn) => {
  const own = board ? { ...sheet, board } : sheet;
  return bench.mark(task, { sheet: own, sheets: [own], answer: null, builtIn: () => [] });
};

test('a board that is wired as the drawing has it is right, in both families', () => {
  for (const family of ['74HC', '74LS'] as const)
    expect(mark(taskFor(), wired(drawn, family))).toMatchObject({
      solved: true,
      right: 8,
      of: 8,
      complaints: [],
    });
});

test('an empty board says so, and every wire that is missing makes it wrong', () => {
  expect(mark(taskFor())).toMatchObject({
    solved: false,
    complaints: ['No package is on the board yet.'],
    gist: '',
  });
  const whole = wired(drawn);
  for (const { id } of whole.wires) {
    const board = { ...whole, wires: whole.wires.filter((wire) => wire.id !== id) };
    expect(mark(taskFor(), board).solved).toBe(false);
  }
});

describe('beside what it does', () => {
  const whole = wired(drawn);
  const said = (board: Board, more: Partial<BenchAsked> = {}) => mark(taskFor(more), board).complaints;

  test('the supply is looked at', () => {
    expect(said({ ...whole, isOn: false })).toContain('The supply is off.');
    const [first, ...others] = whole.packages;
    const turned = said({ ...whole, packages: [{ ...first!, turned: true }, ...others] });
    expect(turned.join(' ')).toMatch(/U1.* wrong way round|U1.*reversed/);
  });

  test('an input that hangs open is told: as wrong in CMOS, as a remark in TTL', () => {
    const tied = whole.wires.find(({ from, to }) => /^[TB]-/.test(from) && /^[a-j]/.test(to));
    const open = { ...whole, wires: whole.wires.filter((wire) => wire !== tied) };
    expect(mark(taskFor(), open).solved).toBe(false);
    const ttl = wired(drawn, '74LS');
    const spare = mark(taskFor(), expectDone(addPackage({ ...ttl, boards: 2 }, '74LS08')));
    expect(spare.complaints.join(' ')).toMatch(/has no supply/);
  });

  test('the packages are held against the drawer and the most that there may be', () => {
    const types = whole.packages.map(({ type }) => type);
    expect(said(whole, { stock: types.map((type) => ({ type, count: 1 })) })).toEqual([]);
    expect(said(whole, { stock: [{ type: types[0]!, count: 1 }] })).toEqual(
      types.slice(1).map((type) => `${type} is on the board, and the drawer has none.`),
    );
    expect(said(whole, { stock: types.map((type) => ({ type, count: 0 })) })).toEqual(
      types.map((type) => `1 × ${type} is on the board, and the drawer has none.`),
    );
    expect(said(whole, { most: types.length })).toEqual([]);
    expect(said(whole, { most: 1 })).toEqual([`It has ${types.length} packages, and 1 is allowed.`]);
  });

  test('what is on the board stands in one line', () => {
    expect(mark(taskFor(), whole).gist).toBe(
      `${whole.packages.map(({ type }) => type).join(', ')}, ${whole.wires.length} wires`,
    );
    const bare = removePackage(removePackage(whole, 'U1'), 'U2');
    expect(mark(taskFor(), bare).solved).toBe(false);
  });
});

test('a bus is a switch for each of its wires', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A', { width: 4 });
  s.place('not', 20, 0, '', { width: 4 });
  s.place('lamp', 40, 0, 'Y', { width: 4 });
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const task = taskFor({}, 'nothing', s.sheet);
  const board = wired(s.sheet);
  expect(board.devices).toHaveLength(8);
  expect(mark(task, board, s.sheet)).toMatchObject({ solved: true, of: 16 });
});

test('a circuit that remembers is held against its run', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'CLK', { hertz: 2 });
  s.place('dff', 20, 0);
  s.place('lamp', 40, 0, 'Half');
  s.wire('clock1.Y', 'dff1.C');
  s.wire("dff1.Q'", 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  const at = source(s.sheet);
  const run = expectDone(runOfSheet(s.sheet, at, drivingOf(undefined), at.on, 8));
  const task = { ...taskFor(), key: run.expected };
  const board = wired(s.sheet);
  expect(mark(task, board, s.sheet)).toMatchObject({ solved: true, of: 8, complaints: [] });
  const still = { ...board, wires: board.wires.filter(({ from, to }) => from !== 'X1.1' && to !== 'X1.1') };
  expect(mark(task, still, s.sheet).solved).toBe(false);
});

describe('what the student begins with', () => {
  const board = wired(drawn);
  const teacher: Sheet = { ...drawn, board };
  const begun = (begins: Beginning) => taskFor({}, begins, teacher).given!.sheets[0]!.board;

  test('is nothing, the packages, or the board as it stands', () => {
    expect(begun('nothing')).toBeUndefined();
    expect(begun('packages')).toEqual({ ...board, wires: [], faults: [] });
    expect(begun('whole')).toEqual(board);
  });

  test('is the switches and lamps of the function, where it gets no drawing', () => {
    const { sheets } = taskFor({ does: 'build', stock: [{ type: '7408', count: 2 }] }).given!;
    const [only] = sheets;
    expect(only!.parts.map(({ label }) => label)).toEqual(['Key', 'Bars', 'Clear', 'Drive', 'Warn']);
    expect(only!.wires).toEqual([]);
    expect(only!.board).toMatchObject({ ...EMPTY_BOARD, devices: expect.any(Array) });
    expect(only!.board!.devices.map(({ label, kind }) => `${kind} ${label}`)).toEqual([
      'switch Key',
      'switch Bars',
      'switch Clear',
      'lamp Drive',
      'lamp Warn',
    ]);
    expect(only!.chips!.stock).toEqual([{ type: '7408', count: 2 }]);
  });

  test('comes back from a file, and the work begins with it', () => {
    const exercise = exerciseOf([
      taskFor({ does: 'build', guide: 'none', most: 2 }),
      { ...taskFor({}, 'whole', teacher), id: 'task2' },
    ]);
    const read = expectDone(readExercise(writeExercise(exercise)));
    expect(read.tasks.map(({ asked }) => asked)).toEqual(exercise.tasks.map(({ asked }) => asked));
    const work = begunWork(read, 'work');
    expect(work.sheets.map((one) => one.board)).toEqual([expect.anything(), board]);
    expect(bench.rules(read.tasks[0] as BenchTask)).toMatchObject({ guide: 'none', fixed: null });
    expect(bench.rules(read.tasks[1] as BenchTask)).toMatchObject({
      guide: 'shows',
      fixed: expect.any(String),
    });
  });
});

test('a task without a drawing that is to be wired is refused', () => {
  expect(bench.strange({ ...taskFor(), given: null })).toBe('it gives no drawing that could be wired');
  expect(bench.strange(taskFor())).toBeNull();
  expect(bench.unsealable(taskFor())).toMatch(/drawing/);
  expect(bench.unsealable(taskFor({ does: 'build' }))).toBeNull();
});

test('a wire more to the wrong pole is told electrically', () => {
  const whole = wired(drawn);
  const short = expectDone(addWire(whole, 'T+29', 'T-29', 'red'));
  expect(mark(taskFor(), short).complaints.join(' ')).toMatch(/short-circuited/);
});

test('work that is only looked at shows the board, and hides nothing', () => {
  const task = taskFor({ guide: 'none' }) as Task;
  expect(rulesForLook(task)).toEqual({ ...FREE, guide: 'none' });
  const drawnTask = buildTask(task.key as never, ['and']);
  expect(rulesForLook(drawnTask)).toEqual(FREE);
});

test('sealed, it keeps its inputs and outputs open and nothing of what it wants', () => {
  const task = taskFor({ does: 'build' });
  const open = bench.openPart(task);
  expect(open.signals).toMatchObject({ isTimed: false });
  expect(open.signals!.inputs.map(({ name }) => name)).toEqual(['Key', 'Bars', 'Clear']);
  const sealed = { ...task, asked: open, key: null } as never;
  expect(bench.rules(sealed)).toMatchObject({ guide: 'shows', needsTime: false });
});

test('a right answer is known by its hash, a wrong one and one with an open input are not', () => {
  const task = taskFor({ does: 'build' });
  const whole = wired(drawn);
  const wanted = bench.hashed.wanted(task);
  const blank = { ...task, key: bench.hashed.blank(task) };
  const given = (board: Board) => bench.hashed.given(blank, mark(blank, board));
  expect(given(whole)).toBe(wanted);
  const [last] = whole.wires.filter(({ to }) => to.startsWith('X')).slice(-1);
  const cut = { ...whole, wires: whole.wires.filter((wire) => wire !== last) };
  expect(given(cut)).not.toBe(wanted);
  expect(given({ ...whole, isOn: false })).toBeNull();
});
