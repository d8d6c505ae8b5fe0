import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { MOST_PARTS } from '../../circuit/limits';
import { layOut } from '../../drawing/layout/lay-out';
import type { Netlist } from '../../netlist/netlist';
import { done, type Result, refused } from '../../values/result';
import { type Bit, C0, C1 } from '../verilog/cells';
import { NamedBits } from './netlist-cells';
import { simpleGates } from './simple-gates';

/*
 * And-inverter graphs in the AIGER format, version 20071012 (Biere, The AIGER And-Inverter Graph Format): a literal is twice its variable,
 * plus one if it is inverted. Literal 0 is the constant 0.
 */

class AigerError extends Error {}
function fail(message: string): never {
  throw new AigerError(message);
}

interface Graph {
  readonly most: number;
  readonly inputs: readonly number[];
  readonly latches: readonly { readonly of: number; readonly next: number; readonly begins: 0 | 1 | null }[];
  readonly outputs: readonly number[];
  readonly ands: readonly (readonly [of: number, a: number, b: number])[];
  readonly names: ReadonlyMap<string, string>;
}

/** The clock of all latches, which the format does not name. */
const CLOCK = 'clock';

/** Reads an AIGER file, ASCII or binary. @param text its bytes, each as a character (ISO 8859-1). */
export function readAiger(text: string, title: string, laidOut = true): Result<Lesson> {
  try {
    const { inputs, latches, outputs, ands, names } = graphOf(text);
    if (inputs.length + outputs.length + ands.length + latches.length > MOST_PARTS)
      return refused('bad-aiger', `it needs more than ${MOST_PARTS} parts, the most of a sheet`);
    const bits = new NamedBits('m1', title.slice(0, 60) || 'AIGER');
    const inverted = new Map<number, Bit>();
    const literal = (of: number): Bit => {
      if (of < 2) return of ? C1 : C0;
      if (of % 2 === 0) return bits.bit(`v${of}`);
      const known = inverted.get(of) ?? bits.gates.not(bits.bit(`v${of - 1}`));
      inverted.set(of, known);
      return known;
    };
    for (const [i, of] of inputs.entries()) {
      const name = names.get(`i${i}`) ?? `i${i}`;
      bits.input(name, i);
      bits.join(`v${of}`, bits.bit(name));
    }
    if (latches.length > 0) bits.input(CLOCK, inputs.length);
    for (const [of, a, b] of ands) {
      // An inverted edge becomes a bubble at the gate instead of an inverter.
      const wanted = [a, b].map((edge) => (edge % 2 ? 0 : 1) as 0 | 1);
      const read = [a, b].map((edge) => (edge < 2 ? (edge ? C0 : C0) : bits.bit(`v${edge - (edge % 2)}`)));
      bits.join(`v${of}`, bits.gates.equals(read, wanted));
    }
    for (const [i, { of, next, begins }] of latches.entries()) {
      const name = names.get(`l${i}`) ?? `l${i}`;
      bits.store(name, literal(next), bits.bit(CLOCK), 'rising', begins, begins === null);
      bits.join(`v${of}`, bits.bit(name));
    }
    for (const [i, of] of outputs.entries()) bits.output(names.get(`o${i}`) ?? `o${i}`, i, literal(of));
    const sheet = bits.sheet();
    return done({
      ...emptyLesson('from-aiger', title.slice(0, 120) || 'AIGER'),
      sheets: [laidOut ? layOut(sheet) : sheet],
    });
  } catch (error) {
    if (error instanceof AigerError) return refused('bad-aiger', error.message);
    throw error;
  }
}

function graphOf(text: string): Graph {
  let at = 0;
  let number = 0;
  const line = (): string => {
    const end = text.indexOf('\n', at);
    const found = text.slice(at, end === -1 ? text.length : end).replace(/\r$/, '');
    at = end === -1 ? text.length : end + 1;
    number++;
    return found;
  };
  const wholes = (what: string, least: number, most = least): number[] => {
    const words = line().trim().split(/\s+/);
    if (words.length < least || words.length > most || !words.every((word) => /^\d{1,9}$/.test(word)))
      fail(`line ${number}: ${what} is expected`);
    return words.map(Number);
  };
  const [kind, ...counts] = line().trim().split(/\s+/);
  if (
    (kind !== 'aag' && kind !== 'aig') ||
    counts.length < 5 ||
    !counts.every((word) => /^\d{1,9}$/.test(word))
  )
    fail('line 1: aag or aig and five numbers are expected');
  const [most, i, l, o, a, ...later] = counts.map(Number) as [
    number,
    number,
    number,
    number,
    number,
    ...number[],
  ];
  if (later.some((count) => count > 0))
    fail('line 1: properties and constraints (bad, invariant, justice, fairness) are not read');
  if (i + l + a > most) fail(`line 1: ${most} variables are too few`);
  if (i + l + o + a > 10 * MOST_PARTS)
    fail(`line 1: it needs more than ${MOST_PARTS} parts, the most of a sheet`);
  const isBinary = kind === 'aig';
  const inputs = isBinary
    ? Array.from({ length: i }, (_, n) => 2 * (n + 1))
    : Array.from({ length: i }, () => wholes('the literal of an input', 1)[0]!);
  const latches = Array.from({ length: l }, (_, n) => {
    const found = wholes('a latch', isBinary ? 1 : 2, isBinary ? 2 : 3);
    const [of, next, begins] = isBinary
      ? [2 * (i + n + 1), found[0]!, found[1]]
      : (found as [number, number, number?]);
    // A latch that begins with itself is not told.
    return {
      of,
      next,
      begins: begins === undefined || begins === 0 ? (0 as const) : begins === 1 ? (1 as const) : null,
    };
  });
  const outputs = Array.from({ length: o }, () => wholes('the literal of an output', 1)[0]!);
  const ands: [number, number, number][] = [];
  for (let n = 0; n < a; n++) {
    if (!isBinary) {
      ands.push(wholes('an AND', 3) as [number, number, number]);
      continue;
    }
    const of = 2 * (i + l + n + 1);
    const delta = (): number => {
      let [value, shift] = [0, 0];
      for (;;) {
        if (at >= text.length) fail('the file ends within its ANDs');
        const byte = text.charCodeAt(at++);
        value += (byte & 127) * 2 ** shift;
        if (byte < 128) return value;
        shift += 7;
        if (shift > 35) fail('a number among the ANDs is too large');
      }
    };
    const first = of - delta();
    ands.push([of, first, first - delta()]);
  }
  const literals = [...latches.flatMap(({ of, next }) => [of, next]), ...outputs, ...ands.flat(), ...inputs];
  const strange = literals.find((of) => of < 0 || of > 2 * most + 1);
  if (strange !== undefined) fail(`the literal ${strange} lies outside of 0 to ${2 * most + 1}`);
  const names = new Map<string, string>();
  while (at < text.length) {
    const found = /^([ilo]\d+) (.+)$/.exec(line());
    if (!found) break;
    names.set(found[1]!, found[2]!);
  }
  return { most, inputs, latches, outputs, ands, names };
}

/**
 * The lines of a circuit as AIGER.
 * @param isBinary whether in the binary form; its lines are then bytes, each as a character.
 * @param powerUp what storage begins with where a part does not say.
 */
export function writeAiger(netlist: Netlist, isBinary: boolean, powerUp: 0 | 1 | null): Result<string[]> {
  const simple = simpleGates(netlist, powerUp);
  if (!simple.ok) return simple;
  const { inputs, outputs, gates, stores } = simple.value;
  const clocks = new Set(stores.map(({ clock, edge }) => `${edge} ${clock}`));
  if (clocks.size > 1) return refused('not-simple', 'the format has one clock only, and one edge of it');
  const clock = stores[0]?.clock;
  if (clock !== undefined && !inputs.includes(clock))
    return refused('not-simple', 'in the format the clock is an input');
  if (
    clock !== undefined &&
    (gates.some((g) => g.ins.includes(clock)) || stores.some((s) => s.data === clock))
  )
    return refused('not-simple', 'in the format the clock goes to storage alone');
  const own = inputs.filter((name) => name !== clock);
  const literals = new Map<string, number>();
  let next = 1;
  for (const name of own) literals.set(name, 2 * next++);
  for (const { out } of stores) literals.set(out, 2 * next++);
  const ands: [number, number, number][] = [];
  const known = new Map<string, number>();
  const and = (a: number, b: number): number => {
    const [high, low] = a > b ? [a, b] : [b, a];
    if (low === 0 || high === (low ^ 1)) return 0;
    if (low === 1 || low === high) return high;
    const key = `${high} ${low}`;
    const made = known.get(key) ?? 2 * next++;
    if (!known.has(key)) {
      known.set(key, made);
      ands.push([made, high, low]);
    }
    return made;
  };
  const or = (a: number, b: number) => and(a ^ 1, b ^ 1) ^ 1;
  const xor = (a: number, b: number) => or(and(a, b ^ 1), and(a ^ 1, b));
  const byOut = new Map(gates.map((gate) => [gate.out, gate]));
  const open = new Set<string>();
  /** The literal of a net. Its fan-in is visited with a stack of its own: netlists may be deeper than the call stack. */
  const literalOf = (name: string): Result<number> => {
    const stack = [name];
    while (stack.length > 0) {
      const top = stack.at(-1)!;
      if (literals.has(top)) {
        stack.pop();
        continue;
      }
      const gate = byOut.get(top);
      if (!gate) return refused('not-simple', `nothing drives ${top}: the format has no open inputs`);
      const missing = gate.ins.filter((of) => !literals.has(of));
      if (missing.length > 0) {
        if (open.has(top)) return refused('not-simple', 'the format has no loops without storage');
        open.add(top);
        stack.push(...missing);
        continue;
      }
      const ins = gate.ins.map((of) => literals.get(of)!);
      const all = () => ins.reduce(and);
      const some = () => ins.reduce(or);
      const odd = () => ins.reduce(xor);
      const [a, b, c] = ins as [number, number, number];
      const made: Record<typeof gate.op, () => number> = {
        '0': () => 0,
        '1': () => 1,
        buf: () => a,
        not: () => a ^ 1,
        and: all,
        nand: () => all() ^ 1,
        or: some,
        nor: () => some() ^ 1,
        xor: odd,
        xnor: () => odd() ^ 1,
        mux: () => or(and(a ^ 1, b), and(a, c)),
      };
      literals.set(top, made[gate.op]());
      stack.pop();
    }
    return done(literals.get(name)!);
  };
  const ends: number[] = [];
  for (const name of [...stores.map(({ data }) => data), ...outputs]) {
    const literal = literalOf(name);
    if (!literal.ok) return literal;
    ends.push(literal.value);
  }
  const latches = stores.map(({ out, begins }, n) => {
    const of = literals.get(out)!;
    const first = begins === null ? ` ${of}` : begins === 1 ? ' 1' : '';
    return isBinary ? `${ends[n]}${first}` : `${of} ${ends[n]}${first}`;
  });
  const lines = [
    `${isBinary ? 'aig' : 'aag'} ${next - 1} ${own.length} ${stores.length} ${outputs.length} ${ands.length}`,
    ...(isBinary ? [] : own.map((name) => `${literals.get(name)}`)),
    ...latches,
    ...ends.slice(stores.length).map(String),
  ];
  const symbols = [
    ...own.map((name, n) => `i${n} ${name}`),
    ...stores.map(({ out }, n) => `l${n} ${out}`),
    ...outputs.map((name, n) => `o${n} ${name}`),
  ];
  if (!isBinary) return done([...lines, ...ands.map((and) => and.join(' ')), ...symbols]);
  let bytes = '';
  const delta = (value: number) => {
    let rest = value;
    for (; rest >= 128; rest = Math.floor(rest / 128)) bytes += String.fromCharCode((rest % 128) + 128);
    bytes += String.fromCharCode(rest);
  };
  for (const [of, a, b] of ands) {
    delta(of - a);
    delta(a - b);
  }
  const [first = '', ...others] = symbols;
  return done([...lines, bytes + first, ...others]);
}
