import type { Part, Sheet } from '../src/core/circuit/sheet';
import { timingOf } from '../src/core/timing/paths';
import { type Circuit, type CircuitOptions, compiled, openCircuit } from './open-circuit';
import { writeLines } from './write-out';

/** `manege inspect`: the parts, speed and problems of a circuit, as JSON. */
export async function inspect(file: string, options: CircuitOptions): Promise<void> {
  const circuit = await openCircuit(file, options);
  const netlist = compiled(circuit);
  const gates: Record<string, number> = {};
  const counted = new Set<number>();
  let parts = 0;
  for (const owner of netlist.owner) {
    if (counted.has(owner)) continue;
    counted.add(owner);
    const kind = kindAt(circuit, netlist.partName(owner));
    if (!kind) continue;
    parts++;
    gates[kind] = (gates[kind] ?? 0) + 1;
  }
  const timing = timingOf(netlist);
  const found = {
    sheet: circuit.sheet.name,
    parts: circuit.sheet.parts.size,
    flatParts: parts,
    gates: Object.fromEntries(Object.entries(gates).sort(([a], [b]) => (a < b ? -1 : 1))),
    nets: netlist.nets,
    levels: netlist.level.reduce((most, l) => Math.max(most, l), 0),
    slowestPath: timing.slowest && { delayPs: timing.slowest.delayPs, through: timing.slowest.through },
    shortestClockPs: timing.shortestClockPs,
    diagnostics: netlist.diagnostics.map((d) => ({
      code: d.code,
      severity: d.severity,
      message: d.message,
      where: [
        ...(d.inside ? [`sheet ${d.inside}`] : []),
        ...d.pins.map((p) => (p.port ? `${p.part}.${p.port}` : p.part)),
      ],
    })),
  };
  await writeLines(JSON.stringify(found, null, 2).split('\n'));
}

/** The kind of a part by its path through the blocks. */
function kindAt({ lesson, sheet }: Circuit, path: string): string | undefined {
  let at: Sheet | undefined = sheet;
  let part: Part | undefined;
  for (const id of path.split('/')) {
    part = at?.parts.get(id);
    at = lesson.sheets.find((s) => s.id === part?.params.sheet);
  }
  return part?.kind;
}
