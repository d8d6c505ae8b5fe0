import type { Netlist, Terminal } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { type Logic, ONE, X, ZERO } from '../values/logic';

/** Most inputs a table is derived for: 2^26 rows are 8 MB a column. */
export const MOST_INPUTS = 26;

/** Machine words of 32 rows that are evaluated together, so that each gate is looked up once for them all. */
const BLOCK = 64;

/**
 * The rows of a circuit without memory. Row r gives the first-named input the most significant bit of r. The
 * columns are bit-packed: bit r % 32 of word r / 32.
 */
export interface TruthTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: number;
  /** For each output, the rows where it is 1. */
  readonly ones: readonly Uint32Array[];
  /** For each output, the rows where it is X. */
  readonly unknown: readonly Uint32Array[];
}

/** Why a circuit has no truth table, in words for the person who drew it; or null where it has one. */
export function whyNoTable(netlist: Netlist): string | null {
  if (netlist.storage.length > 0)
    return 'This sheet remembers: what its outputs do depends on what was before, not on the inputs alone.';
  if (netlist.looped.length > 0)
    return 'A signal runs in a circle here, so the inputs alone do not decide the outputs.';
  if (netlist.inputs.length === 0) return 'There is no input yet. Place a switch.';
  if (netlist.outputs.length === 0) return 'There is no output yet. Place a lamp.';
  if (netlist.inputs.length > MOST_INPUTS)
    return `${netlist.inputs.length} inputs make more rows than fit: ${MOST_INPUTS} are the most.`;
  return null;
}

/** The value of an output (by column) in a row. */
export function cell(table: TruthTable, output: number, row: number): Logic {
  const bit = 1 << (row & 31);
  if (table.unknown[output]![row >>> 5]! & bit) return X;
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
  for (let word of column) {
    word -= (word >>> 1) & 0x55555555;
    word = (word & 0x33333333) + ((word >>> 2) & 0x33333333);
    ones += (((word + (word >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
  }
  return ones;
}

/** What 32 rows hold at one input: the low five inputs alternate within a word, the others fill it. */
const WITHIN = [0xaaaaaaaa, 0xcccccccc, 0xf0f0f0f0, 0xff00ff00, 0xffff0000];

function inputWord(bitOfRow: number, word: number): number {
  return bitOfRow < 5 ? WITHIN[bitOfRow]! : (word >>> (bitOfRow - 5)) & 1 ? 0xffffffff : 0;
}

/**
 * Derives the table bit-parallel: 32 rows a word, each net in two words (rows surely 1, rows surely 0), so that
 * X spreads exactly as in the engine. Nothing is allocated per row.
 * @param progress is told after each share of the rows (0 to 1) and may throw to stop the work.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function truthTable(netlist: Netlist, progress?: (share: number) => void): TruthTable {
  const reason = whyNoTable(netlist);
  if (reason) throw new Error(reason);
  const { inputs, outputs } = netlist;
  const rows = 2 ** inputs.length;
  const words = Math.max(1, rows >>> 5);
  const one = new Uint32Array(netlist.nets * BLOCK);
  const zero = new Uint32Array(netlist.nets * BLOCK);
  for (const s of netlist.sources)
    if (s.kind === 'constant')
      (s.value === ONE ? one : zero).fill(0xffffffff, s.net * BLOCK, (s.net + 1) * BLOCK);

  const ones = outputs.map(() => new Uint32Array(words));
  const unknown = outputs.map(() => new Uint32Array(words));
  const lastMask = rows < 32 ? (1 << rows) - 1 : 0xffffffff;
  for (let base = 0; base < words; base += BLOCK) {
    const size = Math.min(BLOCK, words - base);
    for (const [i, input] of inputs.entries()) {
      const at = input.nets[0]! * BLOCK;
      for (let w = 0; w < size; w++) {
        const bits = inputWord(inputs.length - 1 - i, base + w);
        one[at + w] = bits;
        zero[at + w] = ~bits;
      }
    }
    for (const g of netlist.order) evaluateBlock(netlist, g, one, zero, size);
    for (const [i, output] of outputs.entries())
      collect(output, one, zero, ones[i]!, unknown[i]!, base, size);
    if ((base & 0x3fff) === 0) progress?.(base / words);
  }
  for (const column of [...ones, ...unknown]) column[words - 1] = column[words - 1]! & lastMask;
  return { inputs: inputs.map((t) => t.name), outputs: outputs.map((t) => t.name), rows, ones, unknown };
}

function collect(
  output: Terminal,
  one: Uint32Array,
  zero: Uint32Array,
  ones: Uint32Array,
  unknown: Uint32Array,
  base: number,
  size: number,
): void {
  const at = output.nets[0]! * BLOCK;
  for (let w = 0; w < size; w++) {
    ones[base + w] = one[at + w]!;
    unknown[base + w] = ~(one[at + w]! | zero[at + w]!);
  }
}

function evaluateBlock(netlist: Netlist, g: number, one: Uint32Array, zero: Uint32Array, size: number): void {
  const { ins, inStart } = netlist;
  const op = netlist.op[g]!;
  const from = inStart[g]!;
  const to = inStart[g + 1]!;
  const inverted =
    op === Primitive.NOT || op === Primitive.NAND || op === Primitive.NOR || op === Primitive.XNOR;
  const out = netlist.out[g]! * BLOCK;
  const y1 = inverted ? zero : one;
  const y0 = inverted ? one : zero;
  const first = ins[from]! * BLOCK;
  for (let w = 0; w < size; w++) {
    y1[out + w] = one[first + w]!;
    y0[out + w] = zero[first + w]!;
  }
  for (let i = from + 1; i < to; i++) {
    const at = ins[i]! * BLOCK;
    switch (op) {
      case Primitive.AND:
      case Primitive.NAND:
        for (let w = 0; w < size; w++) {
          y1[out + w]! &= one[at + w]!;
          y0[out + w]! |= zero[at + w]!;
        }
        break;
      case Primitive.OR:
      case Primitive.NOR:
        for (let w = 0; w < size; w++) {
          y1[out + w]! |= one[at + w]!;
          y0[out + w]! &= zero[at + w]!;
        }
        break;
      case Primitive.XOR:
      case Primitive.XNOR:
        for (let w = 0; w < size; w++) {
          const a1 = y1[out + w]!;
          const a0 = y0[out + w]!;
          const b1 = one[at + w]!;
          const b0 = zero[at + w]!;
          y1[out + w] = (a1 & b0) | (a0 & b1);
          y0[out + w] = (a1 & b1) | (a0 & b0);
        }
        break;
      default: {
        // Several drivers of one net: every one that is not undriven must agree.
        for (let w = 0; w < size; w++) {
          y1[out + w]! &= one[at + w]!;
          y0[out + w]! &= zero[at + w]!;
        }
      }
    }
  }
}
