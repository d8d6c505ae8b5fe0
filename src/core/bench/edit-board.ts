import type { Board, BoardColour, BoardDevice, BoardPackage, BoardWire } from '../circuit/board';
import { BOARD_COLOURS, MOST_BOARD_WIRES } from '../circuit/board';
import { noSuchPackage, packageCalled } from '../parts/packages';
import { done, type Result, refused } from '../values/result';
import { withWire } from './guide';
import {
  DEVICE_PINS,
  type Hole,
  holeOfPin,
  isDisplay,
  placeOf,
  roomProblem,
  type Strip,
  stripOf,
  takenHoles,
  typeOf,
} from './holes';
import { freeColumn, isOnBoard, nextRef, nextWire, wireBetween } from './lay';

/*
 * Changes of a board. Each gives the new board, or says why it cannot be.
 */

/** @param near the column that it should stand nearest to; without one it follows the last package. */
export function addPackage(board: Board, type: string, near?: number): Result<Board> {
  const column = freeColumn(board, type, near);
  if (column === null)
    return refused('no-room', `there is no room for ${type}: add a board, or move packages together`);
  return done({ ...board, packages: [...board.packages, { ref: nextRef(board, 'U'), type, column }] });
}

/** Moves a package along the trench, or turns it; wires in its columns go along, as far as their new holes are free. */
export function changePackage(
  board: Board,
  ref: string,
  change: Partial<Pick<BoardPackage, 'column' | 'turned' | 'type'>>,
): Result<Board> {
  const was = board.packages.find((one) => one.ref === ref);
  if (!was) return refused('no-such-package', `there is no ${ref} on the board`);
  const hidden = board.faults.find((fault) => fault.is === 'turned package' && fault.ref === ref);
  // Turned by hand it stands as it is drawn.
  if (hidden && change.turned !== undefined)
    return done({ ...board, faults: board.faults.filter((fault) => fault !== hidden) });
  const now = { ...was, ...change };
  if (now.column < 1) return refused('no-room', `${ref} does not fit on the board there`);
  const problem = roomProblem(board, now);
  if (problem) return refused('no-room', problem);
  const packages = board.packages.map((one) => (one === was ? now : one));
  const by = now.column - was.column;
  if (by === 0) return done({ ...board, packages });
  const legs = new Set((typeOf(was)?.pins ?? []).map(({ number }) => stripOf(holeOfPin(was, number))));
  const goesAlong = (hole: Hole) => legs.has(stripOf(hole));
  const moved = (hole: Hole): Hole => {
    const place = placeOf(hole);
    return place?.is === 'hole' && goesAlong(hole) ? `${place.row}${place.column + by}` : hole;
  };
  const wires = board.wires.map((wire) => ({ ...wire, from: moved(wire.from), to: moved(wire.to) }));
  const holes = wires.flatMap(({ from, to }) => [from, to]).filter((hole) => !hole.startsWith('X'));
  if (new Set(holes).size < holes.length)
    return refused('holes-taken', `wires of ${ref} would come into holes that are taken`);
  return done({ ...board, packages, wires });
}

/** Takes a package away; its wires stay in their holes. */
export const removePackage = (board: Board, ref: string): Board => ({
  ...board,
  packages: board.packages.filter((one) => one.ref !== ref),
  faults: board.faults.filter((fault) => fault.is === 'broken wire' || fault.ref !== ref),
});

/** A wire between two holes. */
export function addWire(board: Board, from: Hole, to: Hole, colour: BoardColour): Result<Board> {
  if (board.wires.length >= MOST_BOARD_WIRES)
    return refused('too-many', 'the board has as many wires as it can');
  for (const hole of [from, to])
    if (!isOnBoard(board, hole)) return refused('no-hole', `there is no hole ${hole}`);
  if (stripOf(from) === stripOf(to))
    return refused(
      'same-column',
      `${from} and ${to} hang together already: a wire between them does nothing`,
    );
  const taken = takenHoles(board);
  for (const hole of [from, to])
    if (taken.has(hole) && !hole.startsWith('X')) return refused('hole-taken', `hole ${hole} is taken`);
  return done(withWire(board, { id: nextWire(board), from, to, colour }));
}

/** An end of a wire in another hole. */
export function moveEnd(board: Board, id: string, end: 'from' | 'to', hole: Hole): Result<Board> {
  const wire = board.wires.find((one) => one.id === id);
  if (!wire) return refused('no-such-wire', 'the wire is not there any more');
  const without = { ...board, wires: board.wires.filter((one) => one !== wire) };
  const [from, to] = end === 'from' ? [hole, wire.to] : [wire.from, hole];
  const added = addWire(without, from, to, wire.colour);
  if (!added.ok) return added;
  return done({ ...board, wires: board.wires.map((one) => (one === wire ? { ...wire, from, to } : one)) });
}

export const removeWires = (board: Board, ids: ReadonlySet<string>): Board => ({
  ...board,
  wires: board.wires.filter(({ id }) => !ids.has(id)),
  faults: board.faults.filter((fault) => fault.is !== 'broken wire' || !ids.has(fault.wire)),
});

export const changeWire = (board: Board, id: string, change: Partial<Pick<BoardWire, 'colour'>>): Board => ({
  ...board,
  wires: board.wires.map((wire) => (wire.id === id ? { ...wire, ...change } : wire)),
});

export const addDevice = (board: Board, kind: BoardDevice['kind'], label: string): Board => ({
  ...board,
  devices: [...board.devices, { ref: nextRef(board, 'X'), kind, label }],
});

/** Takes a device away, and the wires that end on it. */
export const removeDevice = (board: Board, ref: string): Board => {
  const hangs = (hole: Hole) => hole.startsWith(`${ref}.`);
  return removeWires(
    { ...board, devices: board.devices.filter((one) => one.ref !== ref) },
    new Set(board.wires.filter(({ from, to }) => hangs(from) || hangs(to)).map(({ id }) => id)),
  );
};

/** The colour of the next wire: red at plus, black at minus, one after the other otherwise. */
export function colourFor(board: Board, ...strips: (Strip | null)[]): BoardColour {
  if (strips.includes('+')) return 'red';
  if (strips.includes('-')) return 'black';
  return BOARD_COLOURS[2 + (board.wires.length % (BOARD_COLOURS.length - 2))]!;
}

const DEVICES: Readonly<Record<string, BoardDevice['kind']>> = {
  switch: 'switch',
  sw: 'switch',
  button: 'button',
  clock: 'clock',
  lamp: 'lamp',
  led: 'lamp',
  segments: 'segments',
  display: 'segments',
};

/** What a typed line did. */
export interface TypedChange {
  readonly board: Board;
  /** As it follows “Undo:”. */
  readonly what: string;
}

/**
 * Reads a line that is typed for the board: `7408` places a package, `wire U1.3 U2.1` lays a wire (`+` and `-` are the rails, a hole
 * is named as it is: `a12`), `lamp U3.6` and `switch Key U1.1` place something beside the board and wire it to a pin.
 */
export function readBoardLine(board: Board, line: string): Result<TypedChange> {
  const words = line
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const [first = '', ...rest] = words;
  const word = first.toLowerCase();
  if (!first)
    return refused('empty', 'type a package (7408), a wire (wire U1.3 U2.1), or a lamp (lamp U3.6)');
  if (word === 'wire' || (/^[UX]\d+\.\w+$/i.test(first) && rest.length === 1))
    return typedWire(board, word === 'wire' ? rest : words);
  const kind = Object.hasOwn(DEVICES, word) ? DEVICES[word] : undefined;
  if (kind) return typedDevice(board, kind, rest);
  const found = packageCalled(first);
  if (found && rest.length === 0) {
    const added = addPackage(board, found.name);
    return added.ok ? done({ board: added.value, what: `place ${found.name}` }) : added;
  }
  const noPackage = noSuchPackage(line);
  if (noPackage) return refused('no-such-package', noPackage);
  return refused(
    'not-understood',
    `“${line.trim()}” is no package of the catalogue, and no wire, lamp or switch`,
  );
}

/** A pin, a pole or a hole as it is typed. */
function typedEnd(board: Board, text: string): Result<{ end: string; isHole: boolean }> {
  if (/^[+]$|^plus$|^vcc$/i.test(text)) return done({ end: '+', isHole: false });
  if (/^[-−]$|^minus$|^gnd$/i.test(text)) return done({ end: '-', isHole: false });
  const pin = /^([ux]\d+)\.(\w+)$/i.exec(text);
  if (pin) {
    const ref = pin[1]!.toUpperCase();
    const one = board.packages.find((p) => p.ref === ref);
    const device = board.devices.find((d) => d.ref === ref);
    if (!one && !device) return refused('no-such-part', `there is no ${ref} on the board`);
    const named =
      one &&
      typeOf(one)?.pins.find(
        ({ name, number }) => String(number) === pin[2] || name.toLowerCase() === pin[2]!.toLowerCase(),
      );
    if (one && !named) return refused('no-such-pin', `${ref} has no pin ${pin[2]}`);
    return done({ end: named ? `${ref}.${named.number}` : `${ref}.${pin[2]!.toLowerCase()}`, isHole: false });
  }
  const label = board.devices.find((d) => d.label.toLowerCase() === text.toLowerCase());
  if (label) return done({ end: `${label.ref}.1`, isHole: false });
  const hole = /^[tb][+-]\d+$/i.test(text) ? text.toUpperCase() : text.toLowerCase();
  if (isOnBoard(board, hole)) return done({ end: hole, isHole: true });
  return refused('no-such-end', `“${text}” is no pin (U1.3), no hole (a12) and no rail (+, -)`);
}

function typedWire(board: Board, words: readonly string[]): Result<TypedChange> {
  const [a, b, colourWord] = words;
  if (a === undefined || b === undefined) return refused('two-ends', 'a wire needs two ends: wire U1.3 U2.1');
  const colour = BOARD_COLOURS.find((one) => one === colourWord?.toLowerCase());
  if (colourWord !== undefined && !colour)
    return refused('no-colour', `“${colourWord}” is no colour of a wire: ${BOARD_COLOURS.join(', ')}`);
  const [from, to] = [typedEnd(board, a), typedEnd(board, b)];
  if (!from.ok) return from;
  if (!to.ok) return to;
  const laid = between(board, from.value, to.value, colour);
  return laid.ok ? done({ board: laid.value, what: `the wire from ${a} to ${b}` }) : laid;
}

function between(
  board: Board,
  from: { readonly end: string; readonly isHole: boolean },
  to: { readonly end: string; readonly isHole: boolean },
  colour?: BoardColour,
): Result<Board> {
  const paint = colour ?? colourFor(board, stripOf(from.end) ?? from.end, stripOf(to.end) ?? to.end);
  const holeFor = (one: typeof from, other: typeof from): Result<Hole> => {
    if (one.isHole) return done(one.end);
    // A wire to a pin of which only one end is a hole is found by laying it to a pole beside it.
    const laid = wireBetween(board, one.end, other.isHole ? '+' : other.end, paint);
    return laid.ok ? done(laid.value.from) : laid;
  };
  if (!from.isHole && !to.isHole) {
    const wire = wireBetween(board, from.end, to.end, paint);
    return wire.ok ? addWire(board, wire.value.from, wire.value.to, paint) : wire;
  }
  const [a, b] = [holeFor(from, to), holeFor(to, from)];
  if (!a.ok) return a;
  if (!b.ok) return b;
  return addWire(board, a.value, b.value, paint);
}

function typedDevice(board: Board, kind: BoardDevice['kind'], words: readonly string[]): Result<TypedChange> {
  const last = words.at(-1);
  const end = last === undefined ? null : typedEnd(board, last);
  const isEnd = last !== undefined && (/[.]/.test(last) || end?.ok === true);
  const label = (isEnd ? words.slice(0, -1) : words).join(' ').slice(0, 60);
  const placed = addDevice(board, kind, label);
  const { ref } = placed.devices.at(-1)!;
  const what = `place ${isDisplay({ kind }) ? 'a display' : `a ${kind}`}`;
  if (!isEnd) return done({ board: placed, what });
  if (!end!.ok) return end!;
  const [pin] = DEVICE_PINS[kind];
  const laid = between(placed, end!.value, { end: `${ref}.${pin}`, isHole: false });
  return laid.ok ? done({ board: laid.value, what }) : laid;
}
