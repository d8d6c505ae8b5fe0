import type { Part, Sheet } from '@/core/circuit/sheet';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import { driversOf, type Netlist } from '@/core/netlist/netlist';
import { wiringOf } from '@/core/netlist/sheet-wiring';
import { spokenName } from '@/core/parts/catalogue';
import { Primitive } from '@/core/parts/primitive';
import type { Conflict } from '@/core/simulate/conflicts';
import type { Run } from '@/core/simulate/run';
import { X } from '@/core/values/logic';

/*
 * Problems of a circuit that appear only while it runs, in words.
 */

/** The present problems of the running sheet that its drawing does not show. */
export function runtimeDiagnostics(
  run: Run,
  values: Uint8Array,
  sheet: Sheet,
  found: readonly Conflict[],
): Diagnostic[] {
  const { netlist } = run;
  return [
    ...unsettled(run, sheet),
    ...fights(netlist, sheet, found),
    ...(run.unsettled.size === 0 ? unknownClocks(netlist, values, sheet) : []),
  ];
}

/** Drivers that work against each other. */
function fights(netlist: Netlist, sheet: Sheet, found: readonly Conflict[]): Diagnostic[] {
  // What touches by a fault is not told.
  if (wiringOf(sheet).hasTiedWires) return [];
  const told = new Set(
    netlist.diagnostics.filter((d) => d.code === 'outputs-tied').flatMap((d) => d.pins.map((p) => p.part)),
  );
  const seen = new Set<string>();
  return found.flatMap(({ drivers }) => {
    const parts = drivers.map((id) => sheet.parts.get(id)).filter((p) => p !== undefined);
    const names = parts.map(spokenName).join(' and ');
    if (parts.length < 2 || parts.some((p) => told.has(p.id)) || seen.has(names)) return [];
    seen.add(names);
    return [
      {
        code: 'conflict',
        severity: 'problem',
        message: `${names} drive the same wire against each other: one with 0, the other with 1. Enable only one of them at a time.`,
        pins: parts.map((p) => ({ part: p.id, port: 'Y' })),
      } as const,
    ];
  });
}

/** A change inside a block is reported at the block. */
const partsAt = (paths: readonly string[], sheet: Sheet): Part[] =>
  [...new Set(paths.map((path) => path.split('/')[0]!))]
    .map((id) => sheet.parts.get(id))
    .filter((p) => p !== undefined);

/** Gates that never settle. */
function unsettled(run: Run, sheet: Sheet): Diagnostic[] {
  if (run.unsettled.size === 0) return [];
  const parts = partsAt(driversOf(run.netlist, run.unsettled), sheet);
  return [
    {
      code: 'unsettled',
      severity: 'problem',
      message: `The signal through ${parts.map(spokenName).join(', ')} never settles: it runs in a loop. Break the loop, or lead it through a flip-flop.`,
      pins: parts.map(({ id }) => ({ part: id, port: 'Y' })),
    },
  ];
}

/** Storage whose clock is driven and yet neither 0 nor 1: whether it captures its data is unknown. */
function unknownClocks(netlist: Netlist, values: Uint8Array, sheet: Sheet): Diagnostic[] {
  const paths: string[] = [];
  for (const g of netlist.storage) {
    const isEdge = netlist.op[g] === Primitive.DFF_RISE || netlist.op[g] === Primitive.DFF_FALL;
    if (isEdge && values[netlist.ins[netlist.inStart[g]! + 1]!] === X)
      paths.push(netlist.partName(netlist.owner[g]!));
  }
  if (paths.length === 0) return [];
  const loose = new Set(
    netlist.diagnostics.filter((d) => d.severity === 'problem').flatMap((d) => d.pins.map((p) => p.part)),
  );
  const parts = partsAt(paths, sheet).filter((p) => !loose.has(p.id));
  if (parts.length === 0) return [];
  return [
    {
      code: 'clock-unknown',
      severity: 'problem',
      message: `The clock of ${parts.map(spokenName).join(', ')} is X, so what it stores is unknown. Let the clock begin at 0 or 1.`,
      pins: parts.map(({ id }) => ({ part: id, port: 'C' })),
    },
  ];
}
