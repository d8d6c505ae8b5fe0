import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { type Logic, ONE, X, Z, ZERO } from '../../values/logic';
import { onesIn } from '../../values/ones';
import { type Problem, problem } from '../../values/result';

/** Most inputs a table is derived for: 2^26 rows are 8 MB a column. */
export const MOST_INPUTS = 26;

/** Machine words of 32 rows that are evaluated together, so that each gate is looked up once for them all. */
const BLOCK = 64;

/**
 * The rows of a circuit without memory. Row r gives the first-named input the most significant bit of r. The
 * columns are bit-packed: bit r % 32 of word r / 32. A bus has a column for each bit, the highest first.
 */
export interface TruthTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: number;
  /** For each output, the rows in which it is 1. */
  readonly ones: readonly Uint32Array[];
  /** For each output, the rows in which it is X or Z; null if no row can be. */
  readonly unknown: readonly (Uint32Array | null)[];
  /** For each output, the rows in which it is Z. */
  readonly floating: readonly (Uint32Array | null)[];
}

/** Why a circuit has no truth table, for the person who drew it; null if it has one. */
export function whyNoTable(netlist: Netlist): Problem | null {
  const inputs = netlist.inputColumns.length;
  if (netlist.storage.length > 0)
    return problem(
      'remembers',
      'this sheet stores state: its outputs depend on earlier states, not on the inputs alone',
    );
  if (netlist.looped.length > 0)
    return problem('loop', 'a signal runs in a loop here, so the inputs alone do not determine the outputs');
  if (inputs === 0) return problem('no-input', 'there is no input yet: place a switch');
  if (netlist.outputs.length === 0) return problem('no-output', 'there is no output yet: place a lamp');
  if (inputs > MOST_INPUTS)
    return problem('too-many-rows', `${inputs} inputs give too many rows: ${MOST_INPUTS} are the most`);
  return null;
}

/** The value of an output (by column) in a row. */
export function cell(table: TruthTable, output: number, row: number): Logic {
  const bit = 1 << (row & 31);
  const unknown = table.unknown[output];
  if (unknown && unknown[row >>> 5]! & bit) {
    const floating = table.floating[output];
    return floating && floating[row >>> 5]! & bit ? Z : X;
  }
  return table.ones[output]![row >>> 5]! & bit ? ONE : ZERO;
}

/** The value of an input (by column) in a row of a table with that many inputs. */
export function inputAt(inputs: number, column: number, row: number): 0 | 1 {
  return ((row >>> (inputs - 1 - column)) & 1) as 0 | 1;
}

/** The row in which the inputs have these values; X and Z count as 0. */
export function rowOf(values: readonly Logic[]): number {
  return values.reduce<number>((row, v) => row * 2 + (v === ONE ? 1 : 0), 0);
}

/** How many ones a column has. */
export function countOnes(column: Uint32Array): number {
  let ones = 0;
  for (const word of column) ones += onesIn(word);
  return ones;
}

/** The values of 32 rows at one input: the low five inputs alternate within a word, the others fill it. */
const WITHIN = [0xaaaaaaaa, 0xcccccccc, 0xf0f0f0f0, 0xff00ff00, 0xffff0000];

function inputWord(bitOfRow: number, word: number): number {
  return bitOfRow < 5 ? WITHIN[bitOfRow]! : (word >>> (bitOfRow - 5)) & 1 ? 0xffffffff : 0;
}

/** The first row in which two columns differ, or -1. */
export function firstDifference(a: Uint32Array, b: Uint32Array): number {
  for (let w = 0; w < a.length; w++) {
    const differ = a[w]! ^ b[w]!;
    if (differ !== 0) return w * 32 + 31 - Math.clz32(differ & -differ);
  }
  return -1;
}

/** Fills one input's words of 32 rows, from row 32 * base on. */
function fillInput(into: Uint32Array, at: number, bitOfRow: number, base: number, size: number): void {
  for (let w = 0; w < size; w++) into[at + w] = inputWord(bitOfRow, base + w);
}

/**
 * Bit-parallel over plain words: 32 rows a word, each net in two words, the rows where it may be 1 and those
 * where it may be 0, so that X (both) and Z (neither) spread exactly as in the engine. Nothing is allocated per
 * row.
 * @param progress is told after each share of the rows (0 to 1) and may throw to stop the work.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function truthTable(netlist: Netlist, progress?: (share: number) => void): TruthTable {
  const reason = whyNoTable(netlist);
  if (reason) throw new Error(reason.message);
  const { inputColumns: inputs, outputColumns: outputs } = netlist;
  const rows = 2 ** inputs.length;
  const words = Math.max(1, rows >>> 5);
  const one = new Uint32Array(netlist.nets * BLOCK);
  const zero = new Uint32Array(netlist.nets * BLOCK);
  for (const s of netlist.sources) {
    const value = s.kind === 'constant' ? s.value : ZERO;
    const [from, to] = [s.net * BLOCK, (s.net + 1) * BLOCK];
    if (value === ONE || value === X) one.fill(0xffffffff, from, to);
    if (value === ZERO || value === X) zero.fill(0xffffffff, from, to);
  }

  const column = () => outputs.map(() => new Uint32Array(words));
  const [ones, unknown, floating] = [column(), column(), column()];
  for (let base = 0; base < words; base += BLOCK) {
    const size = Math.min(BLOCK, words - base);
    for (const [i, input] of inputs.entries()) {
      const at = input.nets[0] * BLOCK;
      fillInput(one, at, inputs.length - 1 - i, base, size);
      for (let w = 0; w < size; w++) zero[at + w] = ~one[at + w]!;
    }
    for (const g of netlist.order) evaluateBlock(netlist, g, one, zero, size);
    for (const [i, output] of outputs.entries()) {
      const at = output.nets[0] * BLOCK;
      for (let w = 0; w < size; w++) {
        const [p, q] = [one[at + w]!, zero[at + w]!];
        ones[i]![base + w] = p & ~q;
        unknown[i]![base + w] = ~(p ^ q);
        floating[i]![base + w] = ~(p | q);
      }
    }
    if ((base & 0x3fff) === 0) progress?.(base / words);
  }
  return packed(netlist, rows, ones, unknown, floating);
}

/** The table of its columns; rows past the last are cleared. */
export function packed(
  netlist: Netlist,
  rows: number,
  ones: Uint32Array[],
  unknown: (Uint32Array | null)[],
  floating: (Uint32Array | null)[],
): TruthTable {
  const mask = rows < 32 ? (1 << rows) - 1 : 0xffffffff;
  for (const column of [...ones, ...unknown, ...floating])
    if (column) column[column.length - 1] = column[column.length - 1]! & mask;
  return {
    inputs: netlist.inputColumns.map((c) => c.name),
    outputs: netlist.outputColumns.map((c) => c.name),
    rows,
    ones,
    unknown,
    floating,
  };
}

/** Sets where gate g's output may be 1 (`one`) and may be 0 (`zero`). At an input of a gate Z counts as X. */
function evaluateBlock(netlist: Netlist, g: number, one: Uint32Array, zero: Uint32Array, size: number): void {
  const { ins, inStart } = netlist;
  const op = netlist.op[g]!;
  const from = inStart[g]!;
  const to = inStart[g + 1]!;
  const out = netlist.out[g]! * BLOCK;
  const at = (i: number) => ins[from + i]! * BLOCK;
  switch (op) {
    case Primitive.WIRED:
      one.fill(0, out, out + size);
      zero.fill(0, out, out + size);
      for (let i = from; i < to; i++) {
        const a = ins[i]! * BLOCK;
        for (let w = 0; w < size; w++) {
          one[out + w]! |= one[a + w]!;
          zero[out + w]! |= zero[a + w]!;
        }
      }
      return;
    case Primitive.CONST_0:
    case Primitive.CONST_1:
    case Primitive.CONST_X:
      one.fill(op === Primitive.CONST_0 ? 0 : 0xffffffff, out, out + size);
      zero.fill(op === Primitive.CONST_1 ? 0 : 0xffffffff, out, out + size);
      return;
    case Primitive.PULL_UP:
    case Primitive.PULL_DOWN: {
      const a = at(0);
      const pulled = op === Primitive.PULL_UP ? one : zero;
      for (let w = 0; w < size; w++) {
        const none = ~(one[a + w]! | zero[a + w]!);
        one[out + w] = one[a + w]!;
        zero[out + w] = zero[a + w]!;
        pulled[out + w]! |= none;
      }
      return;
    }
    case Primitive.TRI: {
      const [d, e] = [at(0), at(1)];
      for (let w = 0; w < size; w++) {
        const noData = ~(one[d + w]! | zero[d + w]!);
        const noEnable = ~(one[e + w]! | zero[e + w]!);
        const may = one[e + w]! | noEnable;
        const not = zero[e + w]! | noEnable;
        one[out + w] = may & (one[d + w]! | noData | not);
        zero[out + w] = may & (zero[d + w]! | noData | not);
      }
      return;
    }
    case Primitive.MUX: {
      const [s, a, b] = [at(0), at(1), at(2)];
      for (let w = 0; w < size; w++) {
        const noSelect = ~(one[s + w]! | zero[s + w]!);
        const s1 = one[s + w]! | noSelect;
        const s0 = zero[s + w]! | noSelect;
        const noA = ~(one[a + w]! | zero[a + w]!);
        const noB = ~(one[b + w]! | zero[b + w]!);
        one[out + w] = (s0 & (one[a + w]! | noA)) | (s1 & (one[b + w]! | noB));
        zero[out + w] = (s0 & (zero[a + w]! | noA)) | (s1 & (zero[b + w]! | noB));
      }
      return;
    }
    default:
      evaluateGate(op, ins, from, to, out, one, zero, size);
  }
}

function evaluateGate(
  op: number,
  ins: Int32Array,
  from: number,
  to: number,
  out: number,
  one: Uint32Array,
  zero: Uint32Array,
  size: number,
): void {
  const inverted =
    op === Primitive.NOT || op === Primitive.NAND || op === Primitive.NOR || op === Primitive.XNOR;
  const y1 = inverted ? zero : one;
  const y0 = inverted ? one : zero;
  const first = ins[from]! * BLOCK;
  for (let w = 0; w < size; w++) {
    const p = one[first + w]!;
    const q = zero[first + w]!;
    const none = ~(p | q);
    y1[out + w] = p | none;
    y0[out + w] = q | none;
  }
  for (let i = from + 1; i < to; i++) {
    const at = ins[i]! * BLOCK;
    for (let w = 0; w < size; w++) {
      const none = ~(one[at + w]! | zero[at + w]!);
      const p = one[at + w]! | none;
      const q = zero[at + w]! | none;
      const a1 = y1[out + w]!;
      const a0 = y0[out + w]!;
      if (op === Primitive.AND || op === Primitive.NAND) {
        y1[out + w] = a1 & p;
        y0[out + w] = a0 | q;
      } else if (op === Primitive.OR || op === Primitive.NOR) {
        y1[out + w] = a1 | p;
        y0[out + w] = a0 & q;
      } else {
        y1[out + w] = (a1 & q) | (a0 & p);
        y0[out + w] = (a1 & p) | (a0 & q);
      }
    }
  }
}
