import type { Sheet } from '../circuit/sheet';
import { layOut } from '../drawing/layout/lay-out';
import type { Expression } from '../logic/expression/expression';
import { sumOf } from '../logic/expression/forms';
import { limitFanIn } from '../logic/expression/limit-fan-in';
import { written } from '../logic/expression/notation';
import { type BooleanFunction, type Cube, coversRow, DONT_CARE, OFF, ON } from '../logic/minimise/cube';
import { minimise } from '../logic/minimise/minimise';
import { done, type Result, refused } from '../values/result';
import { Builder } from './draw-functions';

/** Kinds of flip-flops that a counter can be built of, and their inputs. */
export const COUNTER_KINDS = {
  dff: ['D'],
  tff: ['T'],
  jkff: ['J', 'K'],
  srff: ['S', 'R'],
} as const;
export type CounterKind = keyof typeof COUNTER_KINDS;

export const MOST_COUNTER_BITS = 8;

/** The required inputs of a flip-flop for a transition from one value to another; 2 is a don't-care. */
const EXCITATION: Record<CounterKind, (now: number, next: number) => readonly number[]> = {
  dff: (_, next) => [next],
  tff: (now, next) => [now ^ next],
  jkff: (now, next) => (now === 0 ? [next, DONT_CARE] : [DONT_CARE, 1 - next]),
  srff: (now, next) =>
    now === 0 ? [next, next === 0 ? DONT_CARE : 0] : [next === 0 ? 0 : DONT_CARE, 1 - next],
};

/** The successors of numbers outside the cycle: whatever is smallest, or the first number. */
export type Unused = 'either' | 'first';

export interface CounterSpec {
  /** The numbers in the order in which they are to come; after the last one the first comes again. */
  readonly cycle: readonly number[];
  readonly kind: CounterKind;
  readonly unused: Unused;
}

/** One row of the excitation table: a state, the next one, and the required input of each flip-flop. */
export interface ExcitationRow {
  readonly state: number;
  readonly next: number | null;
  /** By input, `J2`, `K2`, `J1` ...: `0`, `1` or `x`. */
  readonly inputs: readonly string[];
}

export interface Counter {
  readonly bits: number;
  /** Names of the inputs, the highest bit first. */
  readonly inputs: readonly string[];
  readonly table: readonly ExcitationRow[];
  readonly expressions: readonly {
    readonly name: string;
    readonly expression: Expression;
    readonly text: string;
  }[];
  /** A sheet with the circuit. */
  readonly sheet: Sheet;
}

/** Reads `0 1 2 3` or `0-9` or `3, 1, 2`. */
export function readCycle(text: string): Result<number[]> {
  const cycle: number[] = [];
  const words = text.split(/[\s,;]+/).filter(Boolean);
  if (words.length === 0) return refused('empty', 'type the numbers in their order, such as 0 1 2 3 4 5');
  const most = 2 ** MOST_COUNTER_BITS - 1;
  for (const word of words) {
    const range = /^(\d{1,9})(?:-|…|\.\.+)(\d{1,9})$/.exec(word);
    const single = /^\d{1,9}$/.exec(word);
    if (!range && !single) return refused('no-number', `“${word}” is no number: write 0 1 2, or 0-9`);
    const from = Number(range ? range[1] : word);
    const to = Number(range ? range[2] : word);
    if (Math.max(from, to) > most)
      return refused(
        'too-large',
        `${Math.max(from, to)} is too large: ${most} is the largest number of a counter here`,
      );
    for (let n = from; from <= to ? n <= to : n >= to; n += from <= to ? 1 : -1) cycle.push(n);
  }
  const twice = cycle.find((n, i) => cycle.indexOf(n) !== i);
  if (twice !== undefined)
    return refused('twice', `${twice} stands twice: in a cycle each number is followed by one only`);
  if (cycle.length < 2) return refused('too-short', 'a cycle has at least two numbers');
  return done(cycle);
}

/** The next number of each number; null where the cycle does not have it and either will do. */
function nexts({ cycle, unused }: CounterSpec, states: number): (number | null)[] {
  const next = new Array<number | null>(states).fill(unused === 'first' ? cycle[0]! : null);
  for (const [i, n] of cycle.entries()) next[n] = cycle[(i + 1) % cycle.length]!;
  return next;
}

/**
 * A counter that goes through a cycle of numbers: the excitation table of its flip-flops, the smallest expression of
 * each of their inputs, and the circuit, which powers up at the first number.
 */
export function counterOf(spec: CounterSpec): Counter {
  const { cycle, kind } = spec;
  const bits = Math.max(1, Math.ceil(Math.log2(Math.max(...cycle) + 1)));
  const states = 2 ** bits;
  const next = nexts(spec, states);
  const letters = COUNTER_KINDS[kind];
  const places = Array.from({ length: bits }, (_, i) => bits - 1 - i);
  const inputs = places.flatMap((bit) => letters.map((letter) => `${letter}${bit}`));
  const wanted = (state: number): number[] =>
    places.flatMap((bit) => {
      const to = next[state]!;
      return to === null
        ? letters.map(() => DONT_CARE)
        : [...EXCITATION[kind]((state >> bit) & 1, (to >> bit) & 1)];
    });
  const rows = Array.from({ length: states }, (_, state) => wanted(state));
  const table = rows.map(
    (row, state): ExcitationRow => ({
      state,
      next: next[state]!,
      inputs: row.map((v) => (v === DONT_CARE ? 'x' : String(v))),
    }),
  );
  const names = places.map((bit) => `Q${bit}`);
  const expressions: { name: string; expression: Expression; text: string }[] = [];
  let before: readonly Cube[] = [];
  for (const [i, name] of inputs.entries()) {
    // Set and Reset are never 1 together, not even where no state of the cycle asks.
    const isReset = kind === 'srff' && i % 2 === 1;
    const column = rows.map((row, state): number => {
      if (row[i] === DONT_CARE)
        return isReset && before.some((cube) => coversRow(cube, state)) ? OFF : DONT_CARE;
      return row[i] ? ON : OFF;
    });
    const wished: BooleanFunction = { inputs: bits, rows: Uint8Array.from(column) };
    before = minimise(wished).cubes;
    const expression = sumOf(before, names);
    expressions.push({ name, expression, text: written(expression, 'prime') });
  }
  return { bits, inputs, table, expressions, sheet: drawn(spec, bits, expressions) };
}

/** Most inputs of one gate; wider terms become trees. */
const MOST_INPUTS = 8;

function drawn(
  { kind, cycle: [first] }: CounterSpec,
  bits: number,
  expressions: Counter['expressions'],
): Sheet {
  const builder = new Builder();
  const names = Array.from({ length: bits }, (_, bit) => `Q${bit}`);
  const parts = new Map(
    names.map((name, bit) => {
      const part = builder.place(kind, { powerUp: String((first! >> bit) & 1) }, name, 0);
      builder.source(name, { part, port: 'Q' }, { part, port: "Q'" });
      return [name, part];
    }),
  );
  for (const { name, expression } of expressions) {
    // Each input has gates of its own, as its formula is written.
    builder.forget();
    const driver = builder.signal(limitFanIn(expression, MOST_INPUTS));
    builder.join(driver, parts.get(`Q${name.slice(1)}`)!, name[0]!);
  }
  const clock = { part: builder.place('clock', {}, 'Clock', 0), port: 'Y' };
  for (const [bit, name] of names.entries()) {
    const part = parts.get(name)!;
    builder.join(clock, part, 'C');
    builder.output(`N${bit}`, { part, port: 'Q' }, bit);
  }
  return layOut({ id: 'counter', name: 'Counter', parts: builder.parts, wires: builder.wires });
}
