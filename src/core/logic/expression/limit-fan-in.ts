import type { Expression, Operator } from './expression';

/** The operator by which a part of a wide gate's inputs is taken together. */
const INNER = { and: 'and', nand: 'and', or: 'or', nor: 'or', xor: 'xor', xnor: 'xor' } as const;

/**
 * An expression in which no gate has more than so many inputs. An expression of one kind of gate stays one:
 * an AND within NANDs is a NAND and its inverter, and so on.
 */
export function limitFanIn(expression: Expression, most: number): Expression {
  const kinds = new Set(operatorsIn(expression));
  const only = kinds.size === 1 ? [...kinds][0]! : null;
  const alone = only === 'nand' || only === 'nor' ? only : null;
  const narrow = (e: Expression): Expression => {
    if (e.op === 'name' || e.op === 'constant') return e;
    if (e.op === 'not') return { op: 'not', of: narrow(e.of) };
    let of = e.of.map(narrow);
    const inner = INNER[e.op];
    while (of.length > most) {
      // Neighbours are grouped, so the tree is as flat as possible.
      const groups: Expression[] = [];
      for (let i = 0; i < of.length; i += most) groups.push(together(of.slice(i, i + most), inner, alone));
      of = groups;
    }
    return { op: e.op, of };
  };
  return narrow(expression);
}

function together(
  of: readonly Expression[],
  op: 'and' | 'or' | 'xor',
  alone: 'nand' | 'nor' | null,
): Expression {
  if (of.length === 1) return of[0]!;
  if (!alone) return { op, of };
  const inverted: Expression = { op: alone, of };
  return { op: alone, of: [inverted, inverted] };
}

function operatorsIn(e: Expression): (Operator | 'not')[] {
  if (e.op === 'name' || e.op === 'constant') return [];
  return [e.op, ...(e.op === 'not' ? [e.of] : e.of).flatMap(operatorsIn)];
}
