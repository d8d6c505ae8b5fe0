import type { Sheet } from '../../../circuit/sheet';
import { compile } from '../../../netlist/compile';
import { drawnLevels } from '../../../netlist/levels';
import { kindOf } from '../../../parts/catalogue';
import { timingOf } from '../../../timing/paths';
import { frequencyText, PS_PER_SECOND, timeText } from '../../../values/time';
import type { Quantity } from './quantity';

/** A value that follows from a circuit. */
export interface FoundValue {
  readonly id: string;
  /** The question that it answers: `Longest delay`. */
  readonly name: string;
  readonly quantity: Quantity;
  readonly value: string;
}

/** What can be asked of a circuit: its gates, levels, storage, delays. */
export function valuesOf(sheet: Sheet, sheets: readonly Sheet[]): FoundValue[] {
  const netlist = compile(sheet, sheets);
  let gates = 0;
  for (const part of sheet.parts.values()) if (kindOf(part).isGate) gates++;
  const { slowest, shortestClockPs } = timingOf(netlist);
  const found: FoundValue[] = [];
  const count = (id: string, name: string, value: number) =>
    value > 0 && found.push({ id, name, quantity: 'number', value: String(value) });
  count('gates', 'Gates', gates);
  if (netlist.storage.length === 0 && netlist.looped.length === 0) {
    count('levels', 'Levels of gates', drawnLevels(netlist));
    count(
      'rows',
      'Rows of the truth table',
      netlist.inputColumns.length > 20 ? 0 : 2 ** netlist.inputColumns.length,
    );
  }
  count('bits', 'Bits of storage', netlist.storage.length);
  if (slowest && slowest.delayPs > 0)
    found.push({ id: 'delay', name: 'Longest delay', quantity: 'time', value: timeText(slowest.delayPs) });
  if (shortestClockPs !== null && shortestClockPs > 0) {
    found.push({
      id: 'period',
      name: 'Shortest clock period',
      quantity: 'time',
      value: timeText(shortestClockPs),
    });
    found.push({
      id: 'frequency',
      name: 'Highest clock frequency',
      quantity: 'frequency',
      value: frequencyText(PS_PER_SECOND / shortestClockPs),
    });
  }
  return found;
}
