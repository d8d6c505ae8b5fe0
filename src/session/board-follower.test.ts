import { BoardRun } from '@/core/bench/board-run';
import { layWires } from '@/core/bench/guide';
import { boardOfPlan } from '@/core/bench/lay';
import { type Board, EMPTY_BOARD } from '@/core/circuit/board';
import { emptyLesson } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { planOf } from '@/core/packages/plan';
import { wiringOf } from '@/core/packages/wiring';
import { Sketch } from '@/core/testing/sketch';
import { type Logic, letterOf, ONE, ZERO } from '@/core/values/logic';
import { expectDone } from '@/core/values/result';
import { PS_PER_SECOND } from '@/core/values/time';
import { BoardFollower } from './board-follower';
import { typedLine } from './changes/statement';
import { Session } from './session';

/** A session with typed statements drawn, and the board that is wired as the drawing has it. */
function wired(...lines: string[]): { session: Session; board: Board } {
  const session = new Session(emptyLesson('bench-test', 'Bench'));
  for (const line of lines) expectDone(typedLine(session, line, { x: 4, y: 4 }));
  return { session, board: laid(session.sheet) };
}

function laid(sheet: Sheet): Board {
  const plan = planOf(sheet, [], { family: '74HC' });
  const { board, refusal } = layWires(boardOfPlan(plan), wiringOf(plan), Number.POSITIVE_INFINITY);
  expect(refusal).toBeUndefined();
  return board;
}

/** What the lamps of the board show, by their names. */
const lamps = ({ run }: BoardFollower, board: Board): Record<string, string> =>
  Object.fromEntries(
    board.devices
      .filter(({ kind }) => kind === 'lamp')
      .map(({ ref, label }) => [label, letterOf(run.levelAt(`${ref}.1`))]),
  );

const drawnLamps = ({ state }: Session): Record<string, string> =>
  Object.fromEntries(
    state.netlist.outputColumns.map(({ name, nets }) => [name, letterOf(state.values[nets[0]!] as Logic)]),
  );

test('switches of the board stand as those of the drawing do', () => {
  const { session, board } = wired('Y = A B', 'Z = A + B');
  const follower = new BoardFollower(session, board);
  for (const { part, bit } of session.state.netlist.inputColumns) {
    session.flip(part, bit);
    expect(follower.follow()).toBe(true);
    expect(lamps(follower, board)).toEqual(drawnLamps(session));
  }
  expect(follower.follow()).toBe(false);
});

/** A ripple counter of three flip-flops on a clock of 1 kHz. */
function rippleCounter(): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 0, 'CLK', { hertz: 1000 });
  for (let i = 1; i <= 3; i++) {
    s.place('dff', 20 * i, 0);
    s.place('lamp', 20 * i, 20, `Q${i - 1}`);
    s.wire(`dff${i}.Q`, `lamp${i}.A`);
    s.wire(`dff${i}.Q'`, `dff${i}.D`);
    s.wire(i === 1 ? 'clock1.Y' : `dff${i - 1}.Q'`, `dff${i}.C`);
  }
  return s;
}

test('every edge reaches the board, however many are in a frame, and the past is shown as it was', () => {
  const { lesson, sheet } = rippleCounter();
  const session = new Session(lesson);
  const board = laid(sheet);
  const follower = new BoardFollower(session, board);
  session.time.setPace(PS_PER_SECOND);
  session.time.play(true);
  const seen = new Set<string>();
  const shown: { time: number; lamps: Record<string, string> }[] = [];
  for (const ms of [3, 17, 40, 5, 101, 33, 9, 14, 62]) {
    session.time.tick(ms);
    follower.follow();
    expect(lamps(follower, board)).toEqual(drawnLamps(session));
    seen.add(JSON.stringify(lamps(follower, board)));
    shown.push({ time: session.state.now, lamps: lamps(follower, board) });
  }
  expect(seen.size).toBeGreaterThan(3);
  session.time.play(false);
  for (const { time, lamps: then } of shown.toReversed()) {
    session.time.goToTime(time);
    follower.follow();
    expect(lamps(follower, board)).toEqual(then);
  }
});

test('a switch that the drawing does not have is turned by hand, and stays as the wires change', () => {
  const session = new Session(emptyLesson('bench-test', 'Bench'));
  const board: Board = {
    ...EMPTY_BOARD,
    devices: [
      { ref: 'X1', kind: 'switch', label: 'Key' },
      { ref: 'X2', kind: 'lamp', label: 'Drive' },
    ],
  };
  const follower = new BoardFollower(session, board);
  expect(follower.run.levelAt('X1.1')).toBe(ZERO);
  expect(follower.turn('X2')).toBe(false);
  expect(follower.turn('X1')).toBe(true);
  const joined: Board = { ...board, wires: [{ id: 'w1', from: 'X1.1', to: 'X2.1', colour: 'blue' }] };
  follower.take(joined);
  expect(follower.run.levelAt('X2.1')).toBe(ONE);
  follower.turn('X1');
  expect(follower.run.levelAt('X2.1')).toBe(ZERO);
  expect(new BoardRun(joined).levelAt('X2.1')).not.toBe(ONE);
});
