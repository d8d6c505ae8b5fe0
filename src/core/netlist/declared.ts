import type { Part, Sheet } from '../circuit/sheet';
import { roleOf, spokenName } from '../parts/catalogue';
import { naturalOrder } from '../values/natural-order';

/** Orders inputs, or outputs, as they are declared. */
export const byRank = (a: Part, b: Part) => a.rank - b.rank || naturalOrder(a.id, b.id);

function declared(sheet: Sheet, role: 'input' | 'output'): Part[] {
  const found: Part[] = [];
  for (const part of sheet.parts.values()) if (roleOf(part)?.role === role) found.push(part);
  return found.sort(byRank);
}

/** The sheet's inputs (switches, buttons, clocks) in declared order. */
export const declaredInputs = (sheet: Sheet): Part[] => declared(sheet, 'input');

/** The sheet's outputs (lamps) in declared order. */
export const declaredOutputs = (sheet: Sheet): Part[] => declared(sheet, 'output');

/** The rank that puts a new part behind all inputs and outputs that there are. */
export function nextRank(sheet: Sheet): number {
  let rank = -1;
  for (const part of sheet.parts.values()) if (roleOf(part)) rank = Math.max(rank, part.rank);
  return rank + 1;
}

/** The name under which an input or output stands in tables: its label as it was typed, or its kind and number. */
export function terminalName(part: Part): string {
  return part.label || spokenName(part);
}
