import type { Board, BoardWire } from '../circuit/board';
import type { PlannedWire, Wiring } from '../packages/wiring';
import { type BoardNets, boardNets, endsOf, pinStrips } from './board-nets';
import { spoken } from './electrical';
import { pinAt, placeOf, type Strip } from './holes';

/*
 * The board held against the plan of the drawing, by nets: which wires are to be taken away so that no two signals are joined, and
 * which are still to be laid.
 */

/** A wire that joins two signals, or that misses its pin by a column or two. */
export interface WrongWire {
  readonly wire: BoardWire;
  /** What hangs where, in a sentence. */
  readonly message: string;
  /** Where it belongs, if moving one end sets it right. */
  readonly moveTo?: { readonly end: 'from' | 'to'; readonly strip: Strip };
}

export interface Comparison {
  readonly wrong: readonly WrongWire[];
  /** Wires of the plan whose ends are not joined yet, in order. */
  readonly missing: readonly PlannedWire[];
  /** For each wire of the plan, whether its ends are joined by whatever route, and by no wire that is wrong. */
  readonly isLaid: readonly boolean[];
  /** Pins of the plan that the board does not have. */
  readonly absent: readonly string[];
  readonly isRight: boolean;
}

/** Compares a board with the wires of a plan whose packages are called the same. Hidden faults are not looked at. */
export function compareBoard(given: Board, { wires }: Pick<Wiring, 'wires'>): Comparison {
  const board = { ...given, faults: [] };
  const netOfEnd = plannedNets(wires);
  const strips = pinStrips(board);
  const absent = [...netOfEnd.keys()].filter((end) => !strips.has(end));
  const wrong = wrongWires(board, netOfEnd);
  const without = new Set(wrong.map(({ id }) => id));
  const nets = boardNets(board, without);
  const isLaid = wires.map(({ from, to }) => {
    const net = nets.netOfPin(from);
    return net !== undefined && net === nets.netOfPin(to);
  });
  const missing = wires.filter((_, i) => !isLaid[i]);
  const stray = strayWires(board, without).flatMap((wire): WrongWire[] => {
    const moved = movedEnd(board, wire, nets, netOfEnd, missing);
    return moved ? [moved] : [];
  });
  const told = [...wrong.map((wire) => explain(board, wire, nets, netOfEnd, missing)), ...stray];
  return { wrong: told, missing, isLaid, absent, isRight: told.length === 0 && missing.length === 0 };
}

/** The signal of each end of the plan: those that wires join have the same. */
function plannedNets(wires: readonly PlannedWire[]): Map<string, string> {
  const parents = new Map<string, string>();
  const find = (end: string): string => {
    const parent = parents.get(end);
    return parent === undefined || parent === end ? end : find(parent);
  };
  for (const { from, to } of wires) {
    const [a, b] = [find(from), find(to)];
    parents.set(b, b === '+' || b === '-' ? b : a);
    if (b === '+' || b === '-') parents.set(a, b);
    else if (!parents.has(a)) parents.set(a, a);
  }
  return new Map([...parents.keys()].map((end) => [end, find(end)]));
}

/**
 * A small set of wires; without them no net of the board joins pins of different signals. One wire is tried, then two, for the
 * smallest set. If that is not enough, wires are taken one by one, each time the one that leaves the fewest signals joined.
 */
function wrongWires(board: Board, netOfEnd: ReadonlyMap<string, string>): BoardWire[] {
  const strips = pinStrips(board);
  const signals = new Map<Strip, Set<string>>();
  for (const [end, strip] of strips) {
    const signal = netOfEnd.get(end) ?? `open ${end}`;
    signals.set(strip, (signals.get(strip) ?? new Set()).add(signal));
  }
  const joined = (without: ReadonlySet<string>): number => {
    const nets = boardNets(board, without);
    const on = new Map<Strip, Set<string>>();
    for (const [strip, own] of signals) {
      const net = nets.netOf(strip);
      const all = on.get(net) ?? new Set<string>();
      for (const signal of own) all.add(signal);
      on.set(net, all);
    }
    return [...on.values()].reduce((sum, all) => sum + all.size - 1, 0);
  };
  if (joined(new Set()) === 0) return [];
  const suspects = suspectsOf(board, signals);
  const ids = (...wires: BoardWire[]) => new Set(wires.map(({ id }) => id));
  for (const wire of suspects) if (joined(ids(wire)) === 0) return [wire];
  if (suspects.length <= MOST_PAIRED)
    for (const [i, one] of suspects.entries())
      for (const other of suspects.slice(i + 1)) if (joined(ids(one, other)) === 0) return [one, other];
  const taken: BoardWire[] = [];
  for (let left = joined(new Set()); left > 0; ) {
    let best: BoardWire | null = null;
    for (const wire of suspects) {
      if (taken.includes(wire)) continue;
      const now = joined(ids(...taken, wire));
      if (now < left) [best, left] = [wire, now];
    }
    if (!best) break;
    taken.push(best);
  }
  return taken;
}

/** With more suspects than this, pairs of them are not tried. */
const MOST_PAIRED = 60;

/** Wires of nets on which several signals are, those first that were laid last. */
function suspectsOf(board: Board, signals: ReadonlyMap<Strip, ReadonlySet<string>>): BoardWire[] {
  const nets = boardNets(board);
  const on = new Map<Strip, Set<string>>();
  for (const [strip, own] of signals) {
    const all = on.get(nets.netOf(strip)) ?? new Set<string>();
    for (const signal of own) all.add(signal);
    on.set(nets.netOf(strip), all);
  }
  return board.wires.filter((wire) => (on.get(nets.netOf(endsOf(wire)[0]))?.size ?? 0) > 1).reverse();
}

/** What is wrong with a wire, in words. @param nets those without the wires that are wrong. */
function explain(
  board: Board,
  wire: BoardWire,
  nets: BoardNets,
  netOfEnd: ReadonlyMap<string, string>,
  missing: readonly PlannedWire[],
): WrongWire {
  const moved = movedEnd(board, wire, nets, netOfEnd, missing);
  if (moved) return moved;
  const [a, b] = endsOf(wire);
  const isPole = (strip: Strip) => nets.netOf(strip) === '+' || nets.netOf(strip) === '-';
  const [at, from] = isPole(a) || (!isPole(b) && !pinAt(board, a)) ? [b, a] : [a, b];
  const [own, other] = [pinsAt(board, nets, at), pinsAt(board, nets, from)];
  const pin = own.find((end) => end.startsWith('U')) ?? own[0];
  const wanted = pin === undefined ? undefined : missing.find(({ from, to }) => from === pin || to === pin);
  const hangs = other.includes('-')
    ? 'the minus rail'
    : other.includes('+')
      ? 'the plus rail'
      : spoken(other.slice(0, 2)) || 'nothing';
  const has = wanted
    ? ` The drawing has ${spoken([wanted.from === pin ? wanted.to : wanted.from])} there.`
    : '';
  return {
    wire,
    message: `${pin === undefined ? `The wire at ${wire.from}` : spoken([pin])} hangs on ${hangs}.${has || ' The drawing does not join them.'}`,
  };
}

/** Wires that end in a half column in which nothing else is. */
function strayWires(board: Board, without: ReadonlySet<string>): BoardWire[] {
  const ends = new Map<Strip, number>();
  for (const wire of board.wires)
    for (const strip of endsOf(wire)) ends.set(strip, (ends.get(strip) ?? 0) + 1);
  const pins = new Set(pinStrips(board).values());
  const isAlone = (strip: Strip) => ends.get(strip) === 1 && !pins.has(strip);
  return board.wires.filter((wire) => !without.has(wire.id) && endsOf(wire).some(isAlone));
}

/** A wire that would be right with one end a column or two beside where it is. */
function movedEnd(
  board: Board,
  wire: BoardWire,
  nets: BoardNets,
  netOfEnd: ReadonlyMap<string, string>,
  missing: readonly PlannedWire[],
): WrongWire | null {
  const moved = shiftedEnd(board, wire, nets, netOfEnd, missing);
  if (!moved) return null;
  const by = Math.abs(moved.columns);
  const columns = by === 1 ? 'one column' : `${by} columns`;
  const at = moved.end === 'from' ? wire.from : wire.to;
  return {
    wire,
    message: `The wire from ${wire.from} to ${wire.to} is ${columns} off at ${at}: ${moved.pin} is at column ${moved.column}.`,
    moveTo: { end: moved.end, strip: moved.strip },
  };
}

const pinsAt = (board: Board, nets: BoardNets, strip: Strip): readonly string[] => {
  const own = pinAt(board, strip);
  const there = nets.pinsOf(nets.netOf(strip));
  if (!own) return there;
  const end = `${own.one.ref}.${own.pin.number}`;
  return [end, ...there.filter((pin) => pin !== end)];
};

/** How far an end of a wire may be from its column to be told as being off. */
const MOST_OFF = 2;

/** The end of a wire that would be right a column or two beside where it is. */
function shiftedEnd(
  board: Board,
  wire: BoardWire,
  nets: BoardNets,
  netOfEnd: ReadonlyMap<string, string>,
  missing: readonly PlannedWire[],
) {
  const signalAt = (strip: Strip): string | undefined => {
    for (const pin of pinsAt(board, nets, strip)) {
      const signal = netOfEnd.get(pin);
      if (signal !== undefined) return signal;
    }
    return undefined;
  };
  for (const end of ['to', 'from'] as const) {
    const place = placeOf(wire[end]);
    if (place?.is !== 'hole') continue;
    const strips = endsOf(wire);
    const fixed = strips[end === 'to' ? 0 : 1];
    const signal = signalAt(fixed);
    if (signal === undefined) continue;
    const half = strips[end === 'to' ? 1 : 0].slice(-1);
    for (let away = 1; away <= MOST_OFF; away++)
      for (const columns of [away, -away]) {
        const column = place.column + columns;
        const strip = `${column}${half}`;
        const pin = pinAt(board, strip);
        const ref = pin && `${pin.one.ref}.${pin.pin.number}`;
        if (!ref || netOfEnd.get(ref) !== signal) continue;
        if (!missing.some(({ from, to }) => from === ref || to === ref)) continue;
        return { end, strip, columns, column, pin: spoken([ref]) };
      }
  }
  return null;
}
