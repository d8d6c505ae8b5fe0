import type { Part, Sheet, Wire } from '../circuit/sheet';
import { findKind } from '../parts/catalogue';
import { defaultParams } from '../parts/params';
import { dataSheet, type PackagePlan } from './plan';
import { terminalRef, type Wiring } from './wiring';

/**
 * The plan as a circuit of its own, built of whole packages and of nothing but its wires: what somebody has on the board who has
 * laid them all. Inputs and outputs are called as in the drawing.
 */
export function sheetOfPlan(plan: PackagePlan, wiring: Pick<Wiring, 'wires'>): Sheet {
  const parts = new Map<string, Part>();
  const place = (id: string, kind: string, params: Part['params'], label = '', rank = 0) =>
    parts.set(id, {
      id,
      kind,
      at: { x: 30 * parts.size, y: 0 },
      turn: 0,
      label,
      rank,
      params: { ...defaultParams(findKind(kind)!), ...params },
    });
  place('plus', 'constant', { value: 1 });
  place('minus', 'constant', { value: 0 });
  for (const { ref, name } of plan.packages) place(ref, 'package', { type: name });
  for (const [i, { label, direction }] of plan.terminals.entries())
    place(terminalRef(i), direction === 'in' ? 'switch' : 'lamp', {}, label, i);
  const outputOf = new Map(
    plan.terminals.map(({ direction }, i) => [terminalRef(i), direction === 'in' ? 'Y' : 'A']),
  );
  const end = (text: string): Wire['from'] | null => {
    if (text === '+') return { part: 'plus', port: 'Y' };
    if (text === '-') return { part: 'minus', port: 'Y' };
    const [ref, number] = text.split('.') as [string, string];
    const port = outputOf.get(ref);
    if (port) return { part: ref, port };
    const pin = dataSheet(plan.packages.find((one) => one.ref === ref)!).pins[Number(number) - 1]!;
    const isSignal = pin.use === 'in' || pin.use === 'out' || pin.use === 'both';
    return isSignal ? { part: ref, port: pin.name } : null;
  };
  const wires = new Map<string, Wire>();
  for (const wire of wiring.wires) {
    const [from, to] = [end(wire.from), end(wire.to)];
    const id = `w${wires.size + 1}`;
    if (from && to) wires.set(id, { id, from, to, course: [] });
  }
  // An output that only pulls to 0 has a resistor to plus at what it drives.
  for (const { ref, name } of plan.packages)
    if (dataSheet({ name }).isOpenCollector)
      for (const pin of dataSheet({ name }).pins)
        if (pin.use === 'out') {
          place(`${ref}r${pin.number}`, 'pull', { to: 'up' });
          const id = `w${wires.size + 1}`;
          wires.set(id, {
            id,
            from: { part: `${ref}r${pin.number}`, port: 'A' },
            to: { part: ref, port: pin.name },
            course: [],
          });
        }
  return { id: 'board', name: 'Board', parts, wires };
}
