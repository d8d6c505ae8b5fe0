import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import type { Grid } from '../kernel/grid';
import type { GateDelays } from '../plain-engine';

/*
 * The memory of strip-module.ts. The word of net n, 8 bytes from address 8 n on, is a strip of its waveform: bit `history - 1` is
 * today, the bits below are the days before, those above the days to come. Behind the nets come words for what is within a gate of
 * more than two inputs. Then the operations, 32 bytes each, in an order in which each comes after those that it reads:
 *
 *   a, b, out   addresses of words
 *   kind        bits by which `a & b`, `a ^ b` or both, or the opposite, is the value; and how it becomes the word of `out`
 *   rise, fall  by how much, up to five times, a word is shifted to find where it has been the same for the delay
 *   from, to    addresses of the list of the operations that read `out`, each as the address of its mark
 *
 * The mark of an operation, a byte, says that it is to be evaluated: a word that it reads, or its own, is not the same on all days. The
 * words of all others are.
 */

/** Bytes of an operation, as a power of 2, and its fields by their offsets. */
export const OPERATION = 5;
export const FIELD = { a: 0, b: 4, out: 8, kind: 12, rise: 16, fall: 20, from: 24, to: 28 } as const;
/** Bits of a kind. */
export const TAKES_AND = 0;
export const TAKES_XOR = 1;
export const INVERTED = 2;
/** Within a gate: the word is the value, at once, and its changes are none of a net. */
export const INNER = 3;
/** Delays other than a day to rise and a day to fall; and of them, a delay to rise that is not the one to fall. */
export const LONG = 4;
export const UNEVEN = 5;

/** Bits of a shift, and the shifts of a delay. */
export const SHIFT = 5;
export const SHIFTS = [0, 1, 2, 3, 4] as const;
/** Days of a word that are kept, at most: five shifts reach over so many. */
const MOST_HISTORY = 32;

/** Bits of the number of changes on a day. */
export const PLANES = 31;

/** Fields of the header, by their offsets. */
export const HEADER = {
  changed: 0,
  pending: 8,
  how: 16,
  history: 20,
  days: 24,
  operations: 28,
  marks: 32,
  marksEnd: 36,
  netsEnd: 40,
  values: 44,
  planes: 48,
  events: 52,
  evaluated: 56,
  wordsEnd: 60,
  places: 64,
} as const;

/** What is to be done, as bits of `how`. */
export const EVALUATE = 1;
export const MOVE = 2;
export const REST = 4;
export const READ = 8;
export const COUNT = 16;
export const PLACE = 32;

/** Gates of which the value is `a & b`, `a ^ b` or both of them, and whether it is the opposite. */
const KINDS: Readonly<Partial<Record<number, number>>> = {
  [Primitive.BUF]: 1 << TAKES_AND,
  [Primitive.NOT]: (1 << TAKES_AND) | (1 << INVERTED),
  [Primitive.AND]: 1 << TAKES_AND,
  [Primitive.NAND]: (1 << TAKES_AND) | (1 << INVERTED),
  [Primitive.OR]: (1 << TAKES_AND) | (1 << TAKES_XOR),
  [Primitive.NOR]: (1 << TAKES_AND) | (1 << TAKES_XOR) | (1 << INVERTED),
  [Primitive.XOR]: 1 << TAKES_XOR,
  [Primitive.XNOR]: (1 << TAKES_XOR) | (1 << INVERTED),
};

export const isConstant = (op: number) => op === Primitive.CONST_0 || op === Primitive.CONST_1;

/** Days before today that a word keeps; null for a circuit that has no strips: with storage, loops, other gates or no delay. */
export function historyOf(
  netlist: Netlist,
  { rise, fall }: GateDelays,
  { day, longest }: Grid,
): number | null {
  if (netlist.storage.length + netlist.looped.length > 0 || longest / day > MOST_HISTORY) return null;
  for (let g = 0; g < netlist.op.length; g++) {
    const op = netlist.op[g]!;
    if (isConstant(op)) continue;
    if (KINDS[op] === undefined && op !== Primitive.MUX) return null;
    if (!(rise[g]! > 0 && fall[g]! > 0)) return null;
  }
  return Math.max(1, longest / day);
}

/** The gates level by level, so that an operation seldom waits for the one before. */
function byLevel(netlist: Netlist): Int32Array {
  const { order, out, ins, inStart, nets } = netlist;
  const levelOf = new Int32Array(nets);
  let deepest = 0;
  for (let i = 0; i < order.length; i++) {
    const g = order[i]!;
    let level = 0;
    for (let at = inStart[g]!; at < inStart[g + 1]!; at++) level = Math.max(level, levelOf[ins[at]!]!);
    levelOf[out[g]!] = level + 1;
    deepest = Math.max(deepest, level + 1);
  }
  const starts = new Int32Array(deepest + 2);
  for (let i = 0; i < order.length; i++) starts[levelOf[out[order[i]!]!]! + 1]!++;
  for (let level = 0; level <= deepest; level++) starts[level + 1]! += starts[level]!;
  const sorted = new Int32Array(order.length);
  for (let i = 0; i < order.length; i++) sorted[starts[levelOf[out[order[i]!]!]!]!++] = order[i]!;
  return sorted;
}

/** The shifts after which a bit of a word tells of so many bits, itself and those before it. */
function shiftsOf(bits: number): number {
  let shifts = 0;
  for (let i = 0, known = 1; known < bits; i++) {
    const by = Math.min(known, bits - known);
    shifts |= by << (SHIFT * i);
    known += by;
  }
  return shifts;
}

/** Where everything is, by addresses. */
export interface Strips {
  readonly header: number;
  readonly values: number;
  readonly planes: number;
  readonly places: number;
  readonly marks: number;
  readonly end: number;
  readonly history: number;
  /** Where in the memory, in words of 32 bits, the list of the operations that read each net begins; and, last, ends. */
  readonly readers: Int32Array;
}

/**
 * Fills a memory with a circuit at rest.
 * @param values of the nets, each 0 or 1.
 * @param memoryOf gives a memory of at least so many bytes, all 0.
 */
export function packStrips(
  netlist: Netlist,
  values: Uint8Array,
  delays: GateDelays,
  day: number,
  history: number,
  memoryOf: (bytes: number) => ArrayBuffer,
): Strips {
  const { nets, op, out, ins, inStart } = netlist;
  let words = nets;
  let count = 0;
  for (let g = 0; g < op.length; g++) {
    if (isConstant(op[g]!)) continue;
    const more = op[g] === Primitive.MUX ? 2 : Math.max(0, inStart[g + 1]! - inStart[g]! - 2);
    words += more;
    count += more + 1;
  }
  let end = 0;
  const room = (bytes: number) => {
    const at = end;
    end += 8 * Math.ceil(bytes / 8);
    return at;
  };
  room(8 * words);
  const operations = room(count << OPERATION);
  const lists = room(4 * 2 * count);
  const marks = room(count);
  const marksEnd = end;
  const valuesAt = room(nets);
  const header = room(72);
  const planes = room(8 * PLANES);
  const places = room(4 * 64);
  const ints = new Int32Array(memoryOf(end));
  const fill = (word: number, all: number) => {
    ints[2 * word] = all;
    ints[2 * word + 1] = all;
  };
  for (let net = 0; net < nets; net++) if (values[net] === 1) fill(net, -1);

  let inner = nets;
  let at = operations >> 2;
  const readers = new Int32Array(words + 1);
  const write = (a: number, b: number, to: number, kind: number) => {
    ints[at] = 8 * a;
    ints[at + 1] = 8 * b;
    ints[at + 2] = 8 * to;
    ints[at + 3] = kind;
    readers[a + 1]!++;
    if (b !== a) readers[b + 1]!++;
    at += 1 << (OPERATION - 2);
  };
  const within = (a: number, b: number, kind: number): number => {
    write(a, b, inner, kind | (1 << INNER));
    const one = ints[2 * a]!;
    const other = ints[2 * b]!;
    fill(inner, (kind & (1 << TAKES_AND) ? one & other : 0) ^ (kind & (1 << TAKES_XOR) ? one ^ other : 0));
    return inner++;
  };
  const sorted = byLevel(netlist);
  for (let i = 0; i < sorted.length; i++) {
    const g = sorted[i]!;
    const from = inStart[g]!;
    const to = inStart[g + 1]!;
    if (isConstant(op[g]!)) continue;
    let a = ins[from]!;
    let kind: number;
    let b: number;
    if (op[g] === Primitive.MUX) {
      // The one at 0, unless the two differ and the other is selected.
      b = ins[from + 1]!;
      a = within(a, within(b, ins[from + 2]!, 1 << TAKES_XOR), 1 << TAKES_AND);
      kind = 1 << TAKES_XOR;
    } else {
      kind = KINDS[op[g]!]!;
      for (let more = from + 1; more < to - 1; more++) a = within(a, ins[more]!, kind & ~(1 << INVERTED));
      b = ins[to - 1]!;
    }
    const rise = delays.rise[g]! / day;
    const fall = delays.fall[g]! / day;
    const entry = at;
    if (rise !== fall) {
      kind |= (1 << LONG) | (1 << UNEVEN);
      ints[entry + 4] = shiftsOf(rise);
      ints[entry + 5] = shiftsOf(fall);
    } else if (rise > 1) {
      kind |= 1 << LONG;
      // It is asked where the value has not changed for that time: between so many days, one less.
      ints[entry + 4] = shiftsOf(rise - 1);
    }
    write(a, b, out[g]!, kind);
  }
  readers[0] = lists >> 2;
  for (let word = 0; word < words; word++) readers[word + 1]! += readers[word]!;
  const next = readers.slice();
  for (let i = 0, entry = operations >> 2; i < count; i++, entry += 1 << (OPERATION - 2)) {
    const a = ints[entry]! >> 3;
    const b = ints[entry + 1]! >> 3;
    const to = ints[entry + 2]! >> 3;
    ints[next[a]!++] = marks + i;
    if (b !== a) ints[next[b]!++] = marks + i;
    ints[entry + 6] = 4 * readers[to]!;
    ints[entry + 7] = 4 * readers[to + 1]!;
  }
  const put = (field: keyof typeof HEADER, value: number) => {
    ints[(header + HEADER[field]) >> 2] = value;
  };
  put('history', history);
  put('operations', operations);
  put('marks', marks);
  put('marksEnd', marksEnd);
  put('wordsEnd', 8 * words);
  put('netsEnd', 8 * nets);
  put('values', valuesAt);
  put('planes', planes);
  put('places', places);
  return { header, values: valuesAt, planes, places, marks, end, history, readers };
}
