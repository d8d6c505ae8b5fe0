import type { Board, BoardColour, BoardWire } from '../circuit/board';
import { GAP } from '../packages/arrange';
import { dataSheet, type PackagePlan } from '../packages/plan';
import { terminalRef } from '../packages/wiring';
import { done, type Result, refused } from '../values/result';
import { boardNets, pinStrips } from './board-nets';
import {
  columnsOf,
  DEVICE_PINS,
  type Hole,
  holesOf,
  placeOf,
  type Strip,
  takenHoles,
  widthOf,
} from './holes';

/*
 * Putting things on a board: packages side by side, a wire between two pins by holes that are free.
 */

/** The smallest board on which a plan's packages stand side by side, with its switches and lamps and no wire. */
export function boardOfPlan({ packages, terminals }: PackagePlan): Board {
  let column = 2;
  const placed = packages.map(({ ref, name }) => {
    const one = { ref, type: name, column };
    column += dataSheet({ name }).pins.length / 2 + GAP;
    return one;
  });
  const needed = Math.max(1, column - GAP);
  const columns = needed <= 30 ? 30 : 63;
  return {
    columns,
    boards: Math.max(1, Math.ceil(needed / columns)),
    isOn: true,
    packages: placed,
    devices: terminals.map(({ label, direction, by }, i) => ({
      ref: terminalRef(i),
      kind: direction === 'out' ? 'lamp' : by === 'button' ? 'button' : by === 'clock' ? 'clock' : 'switch',
      label,
    })),
    wires: [],
    faults: [],
  };
}

/** The name of the next wire, package or device. */
export const nextWire = ({ wires }: Board): string =>
  `w${Math.max(0, ...wires.map(({ id }) => Number(id.slice(1)))) + 1}`;

export const nextRef = (board: Board, letter: 'U' | 'X'): string => {
  const of = letter === 'U' ? board.packages : board.devices;
  return `${letter}${Math.max(0, ...of.map(({ ref }) => Number(ref.slice(1)))) + 1}`;
};

/** The column from which a package fits, nearest to one or behind the last package; null where there is no room. */
export function freeColumn(board: Board, type: string, near?: number): number | null {
  const width = widthOf({ type });
  const last = Math.max(0, ...board.packages.map((one) => one.column + widthOf(one) - 1));
  const behind = board.packages.length === 0 ? 2 : last + 1 + GAP;
  const fits = (column: number) =>
    column + width - 1 <= columnsOf(board) &&
    board.packages.every((one) => one.column + widthOf(one) <= column || column + width <= one.column);
  if (near === undefined && fits(behind)) return behind;
  const fitting = Array.from({ length: columnsOf(board) }, (_, i) => i + 1).filter(fits);
  const away = (column: number) => Math.abs(column - (near ?? 1));
  return fitting.sort((a, b) => away(a) - away(b))[0] ?? null;
}

/**
 * A hole for a wire to a pin (`U1.3`, `X1.1`, `+`, `-`). In a half column the hole farthest from the trench comes first; on a
 * rail the one nearest to the wire's other end. If the column is full, a free hole of a column wired to it.
 */
export function freeHole(board: Board, end: string, near: number, taken = takenHoles(board)): Result<Hole> {
  const strip = pinStrips(board).get(end);
  if (strip === undefined) return refused('no-such-pin', `there is no pin ${end} on the board`);
  const found = holeIn(board, strip, near, taken);
  if (found) return done(found);
  const nets = boardNets(board);
  const net = nets.netOf(strip);
  if (net === '+' || net === '-') return done(railHole(board, net, near, 'B', taken));
  for (const other of nets.pinsOf(net)) {
    const instead = holeIn(board, pinStrips(board).get(other)!, near, taken);
    if (instead) return done(instead);
  }
  return refused(
    'column-full',
    `every hole at ${end} is taken: take a wire away, or go on from another one of its net`,
  );
}

function holeIn(board: Board, strip: Strip, near: number, taken: ReadonlySet<Hole>): Hole | null {
  if (strip === '+' || strip === '-') return railHole(board, strip, near, 'B', taken);
  if (strip.startsWith('X')) return strip;
  return holesOf(strip).find((hole) => !taken.has(hole)) ?? null;
}

/** The free hole of a rail that is nearest to a column. */
function railHole(
  board: Board,
  pole: '+' | '-',
  near: number,
  side: 'T' | 'B',
  taken: ReadonlySet<Hole>,
): Hole {
  const all = columnsOf(board);
  for (let away = 0; away < all; away++)
    for (const column of [near + away, near - away]) {
      const hole = `${side}${pole}${column}`;
      if (column >= 1 && column <= all && isRailHole(column) && !taken.has(hole)) return hole;
    }
  return `${side}${pole}${Math.min(all, Math.max(1, near))}`;
}

/** Rails have a hole in five columns, and none in the sixth. */
export const isRailHole = (column: number): boolean => column % 6 !== 0;

/** The column of a pin, for what lies near it. */
function columnOfPin(board: Board, end: string): number | null {
  const strip = pinStrips(board).get(end);
  const column = strip === undefined ? null : /^(\d+)[lu]$/.exec(strip);
  return column ? Number(column[1]) : null;
}

/** A wire between two pins, by holes that are free. */
export function wireBetween(board: Board, from: string, to: string, colour: BoardColour): Result<BoardWire> {
  const taken = takenHoles(board);
  const middle = columnOfPin(board, from) ?? columnOfPin(board, to) ?? 1;
  const side = (end: string) => {
    const strip = pinStrips(board).get(end);
    return strip?.endsWith('u') ? 'T' : 'B';
  };
  const holeFor = (end: string, other: string): Result<Hole> => {
    const near = columnOfPin(board, other) ?? middle;
    if (end === '+' || end === '-') return done(railHole(board, end, near, side(other), taken));
    return freeHole(board, end, near, taken);
  };
  const first = holeFor(from, to);
  if (!first.ok) return first;
  taken.add(first.value);
  const second = holeFor(to, from);
  if (!second.ok) return second;
  return done({ id: nextWire(board), from: first.value, to: second.value, colour });
}

/** The pins of everything beside the board, as wires name them. */
function pinsOfDevices(board: Board): Hole[] {
  return board.devices.flatMap(({ ref, kind }) => DEVICE_PINS[kind].map((pin) => `${ref}.${pin}`));
}

/** Whether a hole is on the board. */
export function isOnBoard(board: Board, hole: Hole): boolean {
  const place = placeOf(hole);
  if (!place) return false;
  if (place.is === 'device') return pinsOfDevices(board).includes(hole);
  const isColumn = place.column >= 1 && place.column <= columnsOf(board);
  return isColumn && (place.is === 'hole' || isRailHole(place.column));
}
