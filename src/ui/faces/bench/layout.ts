import {
  columnsOf,
  DEVICE_PINS,
  type Hole,
  holeOfPin,
  isInput,
  LOWER_ROWS,
  placeOf,
  UPPER_ROWS,
  widthOf,
} from '@/core/bench/holes';
import { isRailHole } from '@/core/bench/lay';
import type { Board, BoardPackage } from '@/core/circuit/board';

/*
 * Where everything of a board is drawn, in units of the drawing: holes are PITCH apart.
 */

export const PITCH = 22;
const LEFT = 52;
export const RAILS = { 'T+': 48, 'T-': 70, 'B+': 412, 'B-': 434 } as const;
/** The line of the numbers of columns. */
export const NUMBERS_Y = 30;
const UPPER_TOP = 114;
const LOWER_TOP = 272;
export const BOARD_HEIGHT = 464;
/** The row of the devices beside the board. */
const DEVICES_Y = 532;
const LEAST_DEVICE_STEP = 78;
/** Width of a letter of a label. */
const LETTER = 8;
/** Longer labels are cut. */
export const MOST_LABEL = 14;

/** Room for one thing beside the board, by the longest label. */
function deviceStep({ devices }: Board): number {
  const longest = Math.max(0, ...devices.map(({ label }) => Math.min(MOST_LABEL, label.length)));
  return Math.max(LEAST_DEVICE_STEP, longest * LETTER + 14);
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export const columnX = (column: number): number => LEFT + (column - 1) * PITCH;

export const boardWidth = (board: Board): number =>
  Math.max(columnX(columnsOf(board)) + LEFT, board.devices.length * deviceStep(board) + 40);

export const drawingHeight = (board: Board): number =>
  board.devices.length > 0 ? DEVICES_Y + 58 : BOARD_HEIGHT + 16;

/** The last column in which something is. */
const lastColumn = ({ packages, wires }: Board): number =>
  Math.max(
    0,
    ...packages.map((one) => one.column + widthOf(one) - 1),
    ...wires.flatMap(({ from, to }) => [from, to].map((hole) => Number(/^[a-j](\d+)$/.exec(hole)?.[1] ?? 0))),
  );

/** Inputs stand from the left, outputs behind them, the last below the last column in which something is. */
export function devicePlaces(board: Board): Map<string, Point> {
  const places = new Map<string, Point>();
  const step = deviceStep(board);
  const inputs = board.devices.filter(isInput);
  const outputs = board.devices.filter((one) => !isInput(one));
  for (const [i, { ref }] of inputs.entries()) places.set(ref, { x: 50 + i * step, y: DEVICES_Y });
  const needed = 50 + (board.devices.length - 1) * step;
  const right = Math.min(boardWidth(board) - 50, Math.max(needed, columnX(lastColumn(board))));
  for (const [i, { ref }] of outputs.entries())
    places.set(ref, { x: right - (outputs.length - 1 - i) * step, y: DEVICES_Y });
  return places;
}

export const rowY = (row: string): number =>
  LOWER_ROWS.includes(row)
    ? LOWER_TOP + (4 - LOWER_ROWS.indexOf(row)) * PITCH
    : UPPER_TOP + (4 - UPPER_ROWS.indexOf(row)) * PITCH;

/** The middle of a hole, or of the pin of a device. */
export function holePoint(hole: Hole, devices: ReadonlyMap<string, Point>, board: Board): Point | null {
  const place = placeOf(hole);
  if (!place) return null;
  if (place.is === 'rail') return { x: columnX(place.column), y: RAILS[`${place.side}${place.pole}`] };
  if (place.is === 'hole') return { x: columnX(place.column), y: rowY(place.row) };
  const at = devices.get(place.ref);
  const device = board.devices.find(({ ref }) => ref === place.ref);
  if (!at || !device) return null;
  const pins = DEVICE_PINS[device.kind] as readonly string[];
  const i = Math.max(0, pins.indexOf(place.pin));
  return { x: at.x + (i - (pins.length - 1) / 2) * 10, y: at.y - 26 };
}

/** The hole, or pin of a device, nearest to a point, within reach. */
export function holeAt(
  point: Point,
  board: Board,
  devices: ReadonlyMap<string, Point>,
  reach = PITCH * 0.55,
): Hole | null {
  for (const { ref, kind } of board.devices)
    for (const pin of DEVICE_PINS[kind]) {
      const hole = `${ref}.${pin}`;
      const at = holePoint(hole, devices, board)!;
      if (Math.hypot(at.x - point.x, at.y - point.y) <= Math.min(12, reach + 2)) return hole;
    }
  const column = Math.round((point.x - LEFT) / PITCH) + 1;
  if (column < 1 || column > columnsOf(board)) return null;
  const rows = [...UPPER_ROWS, ...LOWER_ROWS].map((row) => [`${row}${column}`, rowY(row)] as const);
  const rails = isRailHole(column)
    ? Object.entries(RAILS).map(([rail, y]) => [`${rail}${column}`, y] as const)
    : [];
  for (const [hole, y] of [...rows, ...rails])
    if (Math.hypot(columnX(column) - point.x, y - point.y) <= reach) return hole;
  return null;
}

/** The hole beside one, by an arrow key; itself at an edge. */
export function holeBeside(hole: Hole, key: string, board: Board): Hole {
  const place = placeOf(hole);
  if (!place || place.is === 'device') return key === 'ArrowUp' ? 'B-1' : hole;
  const order = ['T+', 'T-', ...[...UPPER_ROWS].reverse(), ...[...LOWER_ROWS].reverse(), 'B+', 'B-'];
  const line = place.is === 'rail' ? `${place.side}${place.pole}` : place.row;
  const across = key === 'ArrowLeft' ? -1 : key === 'ArrowRight' ? 1 : 0;
  const down = key === 'ArrowUp' ? -1 : key === 'ArrowDown' ? 1 : 0;
  const at = order.indexOf(line) + down;
  if (at < 0) return hole;
  if (at >= order.length) {
    const [device] = board.devices;
    return device ? `${device.ref}.${DEVICE_PINS[device.kind][0]}` : hole;
  }
  const next = order[at]!;
  let column = Math.min(columnsOf(board), Math.max(1, place.column + across));
  if (next.length === 2 && !isRailHole(column)) column += across || 1;
  return `${next}${column}`;
}

/** The outline of a package, between its rows of legs. */
export function packageBox(one: BoardPackage): { x: number; y: number; width: number; height: number } {
  const upper = rowY('f');
  const lower = rowY('e');
  const x = columnX(one.column) - PITCH / 2 + 1;
  return { x, y: upper + 7, width: widthOf(one) * PITCH - 2, height: lower - upper - 14 };
}

/** The place of a package's leg. */
export const legPoint = (one: BoardPackage, number: number): Point => {
  const place = placeOf(holeOfPin(one, number));
  return place?.is === 'hole' ? { x: columnX(place.column), y: rowY(place.row) } : { x: 0, y: 0 };
};

/** The course of a wire: a bow, the more the longer it is, up above the trench and down below it. */
export function wirePath(a: Point, b: Point): string {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const isStraight = Math.abs(a.x - b.x) < 1 && length < 4 * PITCH;
  if (isStraight) return `M${a.x} ${a.y}L${b.x} ${b.y}`;
  const sag = Math.min(46, 8 + length * 0.14);
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const isLevel = Math.abs(b.x - a.x) >= Math.abs(b.y - a.y);
  const up = middle.y < (UPPER_TOP + LOWER_TOP + 4 * PITCH) / 2 ? -1 : 1;
  const control = isLevel
    ? { x: middle.x, y: middle.y + up * sag }
    : { x: middle.x + (b.x >= a.x ? 1 : -1) * sag * 0.6, y: middle.y };
  return `M${a.x} ${a.y}Q${control.x} ${control.y} ${b.x} ${b.y}`;
}

/** The point of a wire that is nearest to a place, and how far it is. */
export function distanceToWire(point: Point, a: Point, b: Point): number {
  const path = wirePath(a, b);
  const numbers = path.match(/-?[\d.]+/g)!.map(Number);
  const at = (t: number): Point => {
    if (numbers.length === 4) return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t };
    const [, , cx, cy] = numbers as [number, number, number, number];
    const s = 1 - t;
    return {
      x: s * s * a.x + 2 * s * t * cx + t * t * b.x,
      y: s * s * a.y + 2 * s * t * cy + t * t * b.y,
    };
  };
  let nearest = Number.POSITIVE_INFINITY;
  for (let i = 0; i <= 24; i++) {
    const p = at(i / 24);
    nearest = Math.min(nearest, Math.hypot(p.x - point.x, p.y - point.y));
  }
  return nearest;
}
