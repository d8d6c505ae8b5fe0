import type { Params } from '../circuit/sheet';
import type { Expression } from '../logic/expression/expression';
import { limitFanIn } from '../logic/expression/limit-fan-in';
import { MOST_GATE_INPUTS } from '../parts/gates';

/*
 * The gates that an expression of a statement is drawn with.
 */

/** A gate to be drawn: its kind, its operands, and its distance from the inputs. */
export interface Gate {
  readonly kind: string;
  readonly params: Params;
  readonly reads: readonly (Gate | string)[];
  readonly level: number;
}

/**
 * The gates of an expression, a NOT of a name only once, a NOT of a gate as the inverting gate; none with too many inputs.
 * @param inverseOf what on the sheet is the opposite of a name already; null where nothing is.
 * @param isShared whether equal terms are one gate.
 */
export function gatesOf(
  expression: Expression,
  width: number,
  inverseOf: (name: string) => string | null,
  isShared: boolean,
): Gate | string {
  const nots = new Map<string, Gate>();
  const made = new Map<string, Gate>();
  const numbers = new Map<Gate, number>();
  /** The gate itself, or the one that is equal to it already; the order of its inputs does not count. */
  const once = (gate: Gate): Gate => {
    if (!isShared) return gate;
    const reads = gate.reads
      .map((r) => (typeof r === 'string' ? `name ${r}` : `gate ${numbers.get(r)}`))
      .sort();
    const key = [gate.kind, JSON.stringify(gate.params), ...reads].join('|');
    const known = made.get(key) ?? gate;
    made.set(key, known);
    if (!numbers.has(known)) numbers.set(known, numbers.size);
    return known;
  };
  const level = (reads: readonly (Gate | string)[]) =>
    1 + Math.max(0, ...reads.map((r) => (typeof r === 'string' ? 0 : r.level)));
  const INVERSE: Record<string, string> = {
    and: 'nand',
    or: 'nor',
    xor: 'xnor',
    nand: 'and',
    nor: 'or',
    xnor: 'xor',
  };
  const make = (e: Expression): Gate | string => {
    switch (e.op) {
      case 'name':
        return e.name;
      case 'constant':
        return { kind: 'constant', params: { value: e.value }, reads: [], level: 0 };
      case 'not': {
        const inner = make(e.of);
        if (typeof inner === 'string') {
          const there = inverseOf(inner);
          if (there !== null) return there;
          let not = nots.get(inner);
          if (!not) {
            not = once({ kind: 'not', params: { width }, reads: [inner], level: 1 });
            nots.set(inner, not);
          }
          return not;
        }
        const turned = INVERSE[inner.kind];
        if (turned) return once({ ...inner, kind: turned });
        return inner.kind === 'not'
          ? inner.reads[0]!
          : once({ kind: 'not', params: { width }, reads: [inner], level: level([inner]) });
      }
      default: {
        const reads = e.of.map(make);
        return once({ kind: e.op, params: { inputs: reads.length, width }, reads, level: level(reads) });
      }
    }
  };
  return make(limitFanIn(expression, MOST_GATE_INPUTS));
}

/**
 * Gates in columns as far to the right as their readers allow, so that a product without a NOT stands with
 * the others.
 */
export function late(gates: readonly Gate[]): ReadonlyMap<Gate, number> {
  const levels = new Map<Gate, number>();
  for (const gate of [...gates].reverse()) {
    const readers = gates.filter((g) => g.reads.includes(gate)).map((g) => levels.get(g)!);
    levels.set(gate, readers.length ? Math.min(...readers) - 1 : gate.level);
  }
  return levels;
}
