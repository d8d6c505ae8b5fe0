import { useEffect, useMemo, useReducer, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { SpecTable } from '@/core/circuit/spec-table';
import { Formula, functionOf } from '@/core/logic/expression/forms';
import { MOST_TO_MINIMISE } from '@/core/logic/minimise/minimise';
import { functionOfSpec } from '@/core/logic/specification/spec-edits';
import { stateLabel } from '@/core/logic/table/state-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { type Netlist, stateName } from '@/core/netlist/netlist';
import { rowOfNames } from '@/session/moment';
import { stateTableOf } from '@/ui/derived/state-table';
import { useSessionState } from '@/ui/session/session-context';
import { minimiser } from '@/workers/minimise-client';

/** Functions of up to this many inputs are minimised between two frames, larger ones by a worker. */
const AT_ONCE = 6;

const known = new WeakMap<TruthTable, readonly Formula[]>();

/** Each output of a table as a formula; the same ones for the same table. */
export function formulasOf(table: TruthTable): readonly Formula[] {
  let all = known.get(table);
  if (!all) {
    all = table.outputs.map((name, o) => new Formula(name, table.inputs, functionOf(table, o)));
    known.set(table, all);
  }
  return all;
}

const ofPlans = new WeakMap<SpecTable, readonly Formula[]>();

/** Each output of a table that is filled in as a formula. */
function formulasPlanned(plan: SpecTable): readonly Formula[] {
  let all = ofPlans.get(plan);
  if (!all) {
    all = plan.outputs.map(({ name }, o) => new Formula(name, plan.inputs, functionOfSpec(plan, o)));
    ofPlans.set(plan, all);
  }
  return all;
}

export type Formulas =
  | {
      readonly state: 'ready';
      readonly all: readonly Formula[];
      readonly inputs: readonly string[];
      /** Whether they are of the table that was filled in, and not of the circuit. */
      readonly isPlanned: boolean;
    }
  | { readonly state: 'working'; readonly all: readonly Formula[]; readonly done: number }
  | { readonly state: 'none'; readonly reason: string };

const NONE: readonly Formula[] = [];

/** The formulas of the sheet that runs: of the table that was filled in for it, or else of its circuit. */
export function useFormulas(): Formulas {
  const table = useSessionState((s) => s.table);
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan);
  const netlist = useSessionState((s) => s.netlist);
  const stores = netlist.storage.length > 0;
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const states = stores && !plan ? stateTableOf(netlist, sheet) : null;
  const ready = table.state === 'ready' ? table.table : states?.ok ? states.value : null;
  const names = plan?.inputs ?? ready?.inputs ?? [];
  const inputs = names.length;
  const all = useMemo(() => {
    if (plan) return formulasPlanned(plan);
    return ready && ready.inputs.length <= MOST_TO_MINIMISE ? formulasOf(ready) : NONE;
  }, [plan, ready]);
  const [, again] = useReducer((n: number) => n + 1, 0);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    setProblem('');
    if (inputs <= AT_ONCE) return;
    let cancel: (() => void) | null = null;
    let left = false;
    const next = () => {
      const open = all.find((f) => !f.isMinimised);
      if (!open || left) return;
      const work = minimiser(open.fn);
      cancel = work.cancel;
      work.result.then(
        (both) => {
          open.take(both);
          again();
          next();
        },
        (error: Error) => {
          if (!left) setProblem(`The formulas could not be minimised: ${error.message}.`);
        },
      );
    };
    next();
    return () => {
      left = true;
      cancel?.();
    };
  }, [all, inputs]);
  if (!plan && !ready && stores)
    return {
      state: 'none',
      reason:
        states?.ok === false
          ? `There is no formula: ${states.problem.message}.`
          : 'The circuit has too many bits of state for next-state formulas.',
    };
  if (!plan && !ready && table.state === 'none') return { state: 'none', reason: table.reason };
  if (!plan && !ready) return { state: 'working', all: [], done: 0 };
  if (inputs > MOST_TO_MINIMISE)
    return {
      state: 'none',
      reason: `A formula of ${inputs} inputs is unreadable: the limit is ${MOST_TO_MINIMISE} inputs.`,
    };
  if (problem) return { state: 'none', reason: problem };
  const done = all.filter((f) => f.isMinimised).length;
  return inputs <= AT_ONCE || done === all.length
    ? { state: 'ready', all, inputs: names, isPlanned: plan !== undefined }
    : { state: 'working', all, done };
}

const storesOf = (netlist: Netlist, sheet: Sheet) =>
  [...netlist.storage].map((g, i) => ({
    name: stateLabel(sheet, stateName(netlist, i)),
    nets: [netlist.out[g]!],
  }));

/** The row of the moment, for inputs in an order; -1 where the circuit does not have all of them. */
export function useLiveRow(inputs: readonly string[]): number {
  return useSessionState((s) =>
    rowOfNames(
      inputs,
      [...s.netlist.inputColumns, ...storesOf(s.netlist, sheetOf(s.lesson, s.rootId)!)],
      s.values,
    ),
  );
}
