import type { Netlist } from '../../netlist/netlist';
import { Primitive, remembers } from '../../parts/primitive';
import { evaluate, hasOneInput } from '../evaluate';
import type { GateDelays } from '../plain-engine';
import type { Grid } from './grid';

/*
 * The memory that the kernel works on. Cell n, 16 bytes from address 16 n on, is net n with the gate that drives it:
 *
 *   word    bits 0-5 the values of up to three inputs, 6-9 the operation, 10-11 the value to which it will change (its target),
 *           12-13 the value that it has, 14 whether it waits to be evaluated, 15-31 the day on which the change is due
 *   delays  bits 0-15 days to rise, 16-31 days to fall
 *   from, to  addresses of its readings: each the address of a cell, and in its lowest bits by how much the change of a value is
 *           shifted to be added to that cell's word
 *
 * With nothing due, the target is the value. Behind the cells of the nets come cells that stand for more readings than a gate
 * has room for; their `from` is the cell of that gate.
 */

export const CELL = 16;
const OPERATION = 6;
export const TARGET = 10;
export const VALUE = 12;
export const WAITS = 14;
export const DAY = 15;
/** The bits of a word by which the table is looked up. */
export const PLACE = 0x3ff;

/** Operations that the table does not know, and what it says instead of a value. */
const FORWARD = 13;
const WIDE = 14;
const STORAGE = 15;
export const SAYS_FORWARD = 4;
export const SAYS_WIDE = 5;
export const SAYS_STORAGE = 6;

/** Inputs of which the values have bits of their own. */
const NARROW = 3;
/** Inputs whose values, added up, stay within the six bits. */
const MOST_ADDED = 21;
/** Values of inputs that change no gate, by its operation; where none is named, 0. */
const NEUTRAL: Readonly<Partial<Record<number, number>>> = {
  [Primitive.AND]: 1,
  [Primitive.NAND]: 1,
  [Primitive.WIRED]: 3,
};

/** A list of 32-bit entries in pieces: the address of the next one, then entries. Of as many bytes, and at a multiple of it. */
export const CHUNK = 256;
/** Changes that the log holds before it is emptied, and instants. */
const LOGGED = 1 << 15;
const ENDED = 1 << 13;

/** Fields of the header, by their offsets. */
export const HEADER = (() => {
  const names = [
    ...['today', 'elapsed', 'days', 'steps', 'mask', 'heads', 'used', 'usedDays', 'free', 'bump'],
    ...[
      'values',
      'table',
      'wide',
      'reads',
      'waiting',
      'waitingEnd',
      'planned',
      'plannedEnd',
      'stored',
      'storedEnd',
    ],
    ...['logEnd', 'logFull', 'logMost', 'logStep', 'endsEnd', 'endsFull', 'endsStep', 'begun'],
    ...['events', 'instants', 'rounds', 'bound', 'how', 'code', 'acted'],
  ] as const;
  return Object.fromEntries(names.map((name, i) => [name, 4 * i])) as Record<(typeof names)[number], number>;
})();

/** How the kernel begins: with the next day on which something is due, with what is planned, or with both. */
export const BEGIN_DUE = 1;
export const BEGIN_PLANNED = 2;

/** Why it ends: nothing is due in the days given; its steps are done or the log is full; an instant is to be gone on with. */
export const AT_REST = 1;
export const PAUSED = 2;
export const IN_INSTANT = 3;

/** Entry `operation * 64 + inputs`: the output of a gate of up to three inputs. */
const TABLE: Uint8Array = (() => {
  const table = new Uint8Array(PLACE + 1);
  for (let op = 0; op <= Primitive.PULL_DOWN; op++) {
    const inputs = hasOneInput(op) ? [0] : op === Primitive.TRI ? [0, 1] : [0, 1, 2];
    for (let place = 0; place < 64; place++) {
      const values = Uint8Array.of(place >> 4, (place >> 2) & 3, place & 3);
      table[op * 64 + place] = evaluate(op, inputs, 0, inputs.length, values);
    }
  }
  table.fill(SAYS_FORWARD, FORWARD * 64, WIDE * 64);
  table.fill(SAYS_WIDE, WIDE * 64, STORAGE * 64);
  table.fill(SAYS_STORAGE, STORAGE * 64);
  return table;
})();

/**
 * Entry `operation * 32 + which values are among the inputs * 2 + whether the ones and Xs among them are odd`: the output of a gate
 * of any number of inputs.
 */
const WIDE_TABLE: Uint8Array = (() => {
  const table = new Uint8Array(32 * (Primitive.WIRED + 1));
  for (let op = Primitive.AND; op <= Primitive.WIRED; op++)
    for (let set = 0; set < 16; set++)
      for (const odd of [0, 1]) {
        const values = [0, 1, 2, 3].filter((v) => set & (1 << v));
        if (set & 2 && odd === 0) values.push(1);
        table[op * 32 + set * 2 + odd] = evaluate(
          op,
          [...values.keys()],
          0,
          values.length,
          Uint8Array.from(values),
        );
      }
  return table;
})();

/** Where everything is, by addresses. */
export interface Packed {
  readonly header: number;
  readonly values: number;
  readonly planned: number;
  readonly mostPlanned: number;
  readonly stored: number;
  readonly log: number;
  readonly ends: number;
  readonly heads: number;
  readonly used: number;
  readonly slots: number;
}

const isWide = (op: number, inputs: number) => !remembers(op) && inputs > NARROW;

/**
 * Fills a memory with a circuit and the values of its nets, nothing due.
 * @param delays in ps by gate, whole days each.
 * @param memoryOf gives a memory of at least so many bytes, all 0.
 */
export function pack(
  netlist: Netlist,
  values: Uint8Array,
  { rise, fall }: GateDelays,
  { day, longest }: Grid,
  isLogged: boolean,
  memoryOf: (bytes: number) => ArrayBuffer,
): Packed {
  const { nets, op, out, ins, inStart, fanStart, fan, storage } = netlist;
  const width = (g: number) => inStart[g + 1]! - inStart[g]!;
  let cells = nets;
  let wideInts = 0;
  for (let g = 0; g < op.length; g++) {
    if (!isWide(op[g]!, width(g))) continue;
    wideInts += 1 + width(g);
    if (width(g) > MOST_ADDED) cells += Math.ceil(width(g) / MOST_ADDED);
  }
  let slots = 32;
  while (slots < longest / day + 2) slots *= 2;
  let end = 0;
  const room = (bytes: number, align = 16) => {
    const at = Math.ceil(end / align) * align;
    end = at + bytes;
    return at;
  };
  room(CELL * cells);
  const readings = room(4 * fan.length);
  const reads = room(wideInts > 0 ? 4 * nets : 0);
  const lists = room(4 * wideInts);
  const table = room(TABLE.length);
  const wide = room(WIDE_TABLE.length);
  const valuesAt = room(nets);
  const header = room(256);
  const waiting = room(4 * cells);
  const mostPlanned = cells + 64;
  const planned = room(4 * mostPlanned);
  const stored = room(4 * storage.length);
  const logged = isLogged ? LOGGED : 0;
  const log = room(4 * (logged + (isLogged ? 2 * mostPlanned : 1)));
  const ends = room(8 * (isLogged ? ENDED + 1 : 1));
  const heads = room(8 * slots);
  const used = room(slots / 8);
  const chunks = room(0, CHUNK);
  const bytes = new Uint8Array(memoryOf(end));
  const ints = new Int32Array(bytes.buffer);
  bytes.set(TABLE, table);
  bytes.set(WIDE_TABLE, wide);
  bytes.set(values, valuesAt);

  const word = (n: number) => (CELL * n) >> 2;
  for (let n = 0; n < nets; n++) {
    ints[word(n)] = (values[n]! << TARGET) | (values[n]! << VALUE);
    ints[word(n) + 2] = readings + 4 * fanStart[n]!;
    ints[word(n) + 3] = readings + 4 * fanStart[n + 1]!;
  }
  // Readings are in the netlist in the order of the gates.
  const next = fanStart.slice();
  let list = lists >> 2;
  let more = nets;
  for (let g = 0; g < op.length; g++) {
    const own = out[g]!;
    const from = inStart[g]!;
    const to = inStart[g + 1]!;
    const kind = op[g]!;
    ints[word(own) + 1] = (rise[g]! / day) | ((fall[g]! / day) << 16);
    let place = 0;
    if (remembers(kind) || isWide(kind, to - from)) {
      let cell = own;
      if (!remembers(kind)) {
        ints[(reads >> 2) + own] = 4 * list;
        ints[list++] = (kind << 24) | (to - from);
        for (let i = from; i < to; i++) ints[list++] = valuesAt + ins[i]!;
      }
      for (let i = from; i < to; i++) {
        if (to - from > MOST_ADDED && (i - from) % MOST_ADDED === 0) {
          cell = more++;
          ints[word(cell)] = FORWARD << OPERATION;
          ints[word(cell) + 2] = CELL * own;
        }
        ints[(readings >> 2) + next[ins[i]!]!++] = CELL * cell;
        if (cell === own) place += values[ins[i]!]!;
        else ints[word(cell)] = ints[word(cell)]! + values[ins[i]!]!;
      }
      place |= (remembers(kind) ? STORAGE : WIDE) << OPERATION;
    } else {
      const neutral = NEUTRAL[kind] ?? 0;
      for (let i = 0; i < NARROW; i++) {
        const shift = 2 * (NARROW - 1 - i);
        const isRead = from + i < to;
        place |= (isRead ? values[ins[from + i]!]! : neutral) << shift;
        if (isRead) ints[(readings >> 2) + next[ins[from + i]!]!++] = (CELL * own) | shift;
      }
      // Constants have no inputs, and are never evaluated.
      if (kind <= Primitive.PULL_DOWN) place |= kind << OPERATION;
    }
    ints[word(own)] = ints[word(own)]! | place;
  }

  const put = (field: keyof typeof HEADER, value: number) => {
    ints[(header + HEADER[field]) >> 2] = value;
  };
  put('mask', slots - 1);
  put('heads', heads);
  put('used', used);
  put('bump', chunks);
  put('values', valuesAt);
  put('table', table);
  put('wide', wide);
  put('reads', reads);
  put('waiting', waiting);
  put('planned', planned);
  put('plannedEnd', planned);
  put('stored', stored);
  put('storedEnd', stored);
  put('logEnd', log);
  put('begun', log);
  put('logFull', log + 4 * (logged || 1));
  put('logMost', log + 4 * (logged + mostPlanned));
  put('logStep', isLogged ? 4 : 0);
  put('endsEnd', ends);
  put('endsFull', ends + 8 * ENDED);
  put('endsStep', isLogged ? 8 : 0);
  return { header, values: valuesAt, planned, mostPlanned, stored, log, ends, heads, used, slots };
}
