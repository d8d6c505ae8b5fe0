import type { Expression } from '@/core/logic/expression/expression';
import { drawnForm, type Form, type Formula } from '@/core/logic/expression/forms';
import type { Netlist } from '@/core/netlist/netlist';
import { sameName } from '@/core/values/names';
import { done, type Result, refused } from '@/core/values/result';

export const FORM_NAMES: Record<Form, string> = {
  drawn: 'as drawn',
  sop: 'smallest sum of products',
  pos: 'smallest product of sums',
  minterms: 'all minterms',
  maxterms: 'all maxterms',
  nand: 'NAND only',
  nor: 'NOR only',
  xor: 'exclusive or (Reed-Muller)',
  mixed: 'exclusive or where it helps',
};

/** A function in a form, or why it cannot be written in it. */
export function expressionIn(formula: Formula, form: Form, netlist: Netlist): Result<Expression> {
  if (form !== 'drawn') return done(formula.in(form));
  const column = netlist.outputColumns.find((c) => sameName(c.name, formula.name));
  if (column) return drawnForm(netlist, column.nets[0]);
  return formula.name.endsWith('+')
    ? refused('next-state', 'the next state is not drawn as one expression')
    : refused('not-drawn', 'it is not drawn yet');
}

export const countedOf = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;
