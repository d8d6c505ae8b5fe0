import type { Sheet } from '../circuit/sheet';
import type { SpecTable } from '../circuit/spec-table';
import { layOut } from '../drawing/layout/lay-out';
import { type Form, Formula, multiOutputForms } from '../logic/expression/forms';
import { functionOfSpec } from '../logic/specification/spec-edits';
import { compile } from '../netlist/compile';
import { kindOf } from '../parts/catalogue';
import { timingOf } from '../timing/paths';
import { unplacedCircuit } from './draw-functions';

/*
 * The circuits that a table which is filled in can become.
 */

/** How the circuit of a table is built. */
export interface CircuitForm {
  readonly form: Exclude<Form, 'drawn'>;
  readonly mostInputs: number;
  /** Whether logic shared by several outputs is built once. */
  readonly isShared: boolean;
}

/** The size of a circuit. */
export interface Cost {
  readonly gates: number;
  /** Inputs of all its gates. */
  readonly inputs: number;
  /** Gates that a signal passes through at most. */
  readonly levels: number;
  /** Along its slowest way, with the parts' own delays. */
  readonly delayPs: number;
}

function built(
  plan: SpecTable,
  { form, mostInputs, isShared }: CircuitForm,
  id: string,
  name: string,
): Sheet {
  const formulas = plan.outputs.map((o, i) => new Formula(o.name, plan.inputs, functionOfSpec(plan, i)));
  const expressions = isShared ? multiOutputForms(form, formulas) : formulas.map((f) => f.in(form));
  const functions = plan.outputs.map((o, i) => ({ name: o.name, expression: expressions[i]! }));
  return unplacedCircuit(id, name, plan.inputs, functions, { mostInputs, isShared });
}

/** The circuit of a table on a sheet of its own, laid out. Takes as long as finding the smallest sums does. */
export function circuitOfSpec(plan: SpecTable, as: CircuitForm, id: string, name: string): Sheet {
  return layOut(built(plan, as, id, name));
}

/** The size of a table's circuit, without laying it out. */
export function costOf(plan: SpecTable, as: CircuitForm): Cost {
  const sheet = built(plan, as, 'weighed', 'Weighed');
  const netlist = compile(sheet, [sheet]);
  const isGate = (id: string) => kindOf(sheet.parts.get(id)!).isGate === true;
  return {
    gates: [...sheet.parts.keys()].filter(isGate).length,
    inputs: [...sheet.wires.values()].filter((w) => 'part' in w.to && isGate(w.to.part)).length,
    levels: netlist.level.reduce((most, l) => Math.max(most, l), 0),
    delayPs: timingOf(netlist).slowest?.delayPs ?? 0,
  };
}
