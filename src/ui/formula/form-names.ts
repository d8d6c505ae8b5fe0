import type { Expression } from '@/core/logic/expression';
import { drawnForm, type Form, type Formula } from '@/core/logic/forms';
import type { Netlist } from '@/core/netlist/netlist';
import { sameName } from '@/core/values/names';

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
export function expressionIn(formula: Formula, form: Form, netlist: Netlist): Expression | string {
  if (form !== 'drawn') return formula.in(form);
  const column = netlist.outputColumns.find((c) => sameName(c.name, formula.name));
  if (column) return drawnForm(netlist, column.nets[0]);
  return formula.name.endsWith('+') ? 'the next state is not drawn as one expression' : 'it is not drawn yet';
}

export const counted = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;
