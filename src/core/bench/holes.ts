import type { Board, BoardDevice, BoardPackage } from '../circuit/board';
import { findPackage } from '../parts/packages';
import type { PackagePin, PackageType } from '../parts/packages/package-type';

/*
 * The holes of a wiring board, and which of them hang together: five in a column on each side of the trench, and the rails above
 * and below, all plus rails and all minus rails joined at the supply.
 */

/** Rows of holes from the lower edge to the trench, and from the trench to the upper edge. */
export const LOWER_ROWS = 'abcde';
export const UPPER_ROWS = 'fghij';

/** What hangs together inside the board: a half column (`12l`, `12u`), a rail (`+`, `-`), or a pin of a device (`X1.1`). */
export type Strip = string;

/** A hole or a pin of a device, as wires name them. */
export type Hole = string;

/** A hole taken apart. */
export type Place =
  | { readonly is: 'hole'; readonly row: string; readonly column: number }
  | { readonly is: 'rail'; readonly side: 'T' | 'B'; readonly pole: '+' | '-'; readonly column: number }
  | { readonly is: 'device'; readonly ref: string; readonly pin: string };

export function placeOf(hole: Hole): Place | null {
  const [, row, column] = /^([a-j])(\d{1,3})$/.exec(hole) ?? [];
  if (row) return { is: 'hole', row, column: Number(column) };
  const [, side, pole, at] = /^([TB])([+-])(\d{1,3})$/.exec(hole) ?? [];
  if (side) return { is: 'rail', side: side as 'T' | 'B', pole: pole as '+' | '-', column: Number(at) };
  const [, ref, pin] = /^(X\d{1,3})\.(\d|[a-g])$/.exec(hole) ?? [];
  return ref ? { is: 'device', ref, pin: pin! } : null;
}

export const stripOf = (hole: Hole): Strip | null => {
  const place = placeOf(hole);
  if (!place) return null;
  if (place.is === 'rail') return place.pole;
  if (place.is === 'device') return hole;
  return halfColumn(place.column, LOWER_ROWS.includes(place.row) ? 'l' : 'u');
};

export const halfColumn = (column: number, half: 'l' | 'u'): Strip => `${column}${half}`;

/** The five holes of a half column, that beside the trench last. */
export function holesOf(strip: Strip): Hole[] {
  const [, column, half] = /^(\d+)([lu])$/.exec(strip) ?? [];
  if (!column) return [];
  return (half === 'l' ? [...LOWER_ROWS] : [...UPPER_ROWS].reverse()).map((row) => `${row}${column}`);
}

export const columnsOf = ({ columns, boards }: Pick<Board, 'columns' | 'boards'>): number => columns * boards;

/** The data sheet of a package on the board; undefined for one that is not in the catalogue. */
export const typeOf = ({ type }: Pick<BoardPackage, 'type'>): PackageType | undefined =>
  findPackage(type)?.type;

/** Columns that a package covers. */
export const widthOf = (one: Pick<BoardPackage, 'type'>): number => (typeOf(one)?.pins.length ?? 0) / 2;

/** The hole in which a pin of a package stands, at the edge of the trench: pin 1 at the lower left, unless it is turned. */
export function holeOfPin(one: BoardPackage, number: number): Hole {
  const each = widthOf(one);
  const isFirstHalf = number <= each;
  const along = isFirstHalf ? number - 1 : 2 * each - number;
  const column = one.turned ? one.column + each - 1 - along : one.column + along;
  return `${isFirstHalf !== (one.turned === true) ? 'e' : 'f'}${column}`;
}

/** The package's pin that stands in a half column; undefined where there is none. */
export function pinAt(board: Board, strip: Strip): { one: BoardPackage; pin: PackagePin } | undefined {
  for (const one of board.packages)
    for (const pin of typeOf(one)?.pins ?? [])
      if (stripOf(holeOfPin(one, pin.number)) === strip) return { one, pin };
  return undefined;
}

/** Every hole that is taken, by a leg or by a wire. */
export function takenHoles(board: Board): Set<Hole> {
  const taken = new Set<Hole>();
  for (const { from, to } of board.wires) taken.add(from).add(to);
  for (const one of board.packages)
    for (const { number } of typeOf(one)?.pins ?? []) taken.add(holeOfPin(one, number));
  return taken;
}

/** Pins of a device, as they follow its designator. */
export const DEVICE_PINS = {
  switch: ['1'],
  button: ['1'],
  clock: ['1'],
  lamp: ['1'],
  segments: [...'abcdefg'],
} as const;

/** Whether a device drives what it is wired to. */
export const isInput = ({ kind }: Pick<BoardDevice, 'kind'>): boolean => INPUTS.has(kind);
const INPUTS: ReadonlySet<BoardDevice['kind']> = new Set(['switch', 'button', 'clock']);

/** Whether a device shows several levels together. */
export const isDisplay = ({ kind }: Pick<BoardDevice, 'kind'>): boolean => DEVICE_PINS[kind].length > 1;

/** Whether packages stand where another one stands, or beyond the board. */
export function roomProblem(board: Board, one: BoardPackage): string | null {
  const width = widthOf(one);
  if (width === 0) return `${one.type} is not in the catalogue`;
  if (one.column + width - 1 > columnsOf(board)) return `${one.ref} does not fit on the board there`;
  const other = board.packages.find(
    (p) => p.ref !== one.ref && p.column < one.column + width && one.column < p.column + widthOf(p),
  );
  return other ? `${other.ref} stands there already` : null;
}
