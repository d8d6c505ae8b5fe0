import type { Edit } from '../../circuit/edit';
import type { Point } from '../../circuit/geometry';
import { type End, isPinEnd, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { nextRank } from '../../netlist/declared';
import { kindOf, roleOf } from '../../parts/catalogue';

/** The chosen parts and the wires that lie wholly among them, as a sheet of their own. */
export function excerpt(sheet: Sheet, parts: ReadonlySet<string>): Sheet {
  const kept = new Map([...sheet.parts].filter(([id]) => parts.has(id)));
  const wires = new Map(sheet.wires);
  for (let fell = true; fell; ) {
    fell = false;
    for (const w of wires.values()) {
      const inside = (end: End) => (isPinEnd(end) ? kept.has(end.part) : wires.has(end.wire));
      if (!inside(w.from) || !inside(w.to)) {
        wires.delete(w.id);
        fell = true;
      }
    }
  }
  return { id: 'excerpt', name: 'Excerpt', parts: kept, wires };
}

/**
 * Puts a copy of a sheet's parts and wires onto another (or the same), with fresh ids and labels, shifted by
 * whole grid steps.
 * @returns the edit and the ids of the new parts; the edit is null where there is nothing to copy.
 */
export function paste(onto: Sheet, from: Sheet, by: Point): { edit: Edit | null; parts: string[] } {
  const partIds = new Set(onto.parts.keys());
  const wireIds = new Set(onto.wires.keys());
  const labels = new Set([...onto.parts.values()].map((p) => p.label));
  const newPartId = new Map<string, string>();
  const newWireId = new Map<string, string>();
  const shift = (p: Point) => ({ x: p.x + by.x, y: p.y + by.y });
  const edits: Edit[] = [];
  let rank = nextRank(onto);
  for (const part of from.parts.values()) {
    const id = numbered(part.kind, 1, partIds);
    newPartId.set(part.id, id);
    const copy: Part = {
      ...part,
      id,
      at: shift(part.at),
      label: kindOf(part).labelled ? freshLabel(part.label, labels) : part.label,
      rank: roleOf(part) ? rank++ : 0,
    };
    edits.push({ type: 'addPart', sheet: onto.id, part: copy });
  }
  for (const wire of from.wires.keys()) newWireId.set(wire, numbered('w', 1, wireIds));
  const end = (e: End): End =>
    isPinEnd(e)
      ? { part: newPartId.get(e.part)!, port: e.port }
      : { wire: newWireId.get(e.wire)!, at: shift(e.at) };
  for (const wire of from.wires.values()) {
    const copy: Wire = {
      id: newWireId.get(wire.id)!,
      from: end(wire.from),
      to: end(wire.to),
      course: wire.course.map(shift),
    };
    edits.push({ type: 'addWire', sheet: onto.id, wire: copy });
  }
  return { edit: edits.length ? { type: 'group', edits } : null, parts: [...newPartId.values()] };
}

function numbered(prefix: string, from: number, taken: Set<string>): string {
  let n = from;
  while (taken.has(prefix + n)) n++;
  taken.add(prefix + n);
  return prefix + n;
}

/** `Key` becomes `Key 2`, `A0` becomes the next free of `A1`, `A2` ... */
function freshLabel(label: string, taken: Set<string>): string {
  if (!label || !taken.has(label)) {
    taken.add(label);
    return label;
  }
  const found = /^(.*?)(\d+)$/.exec(label);
  return found ? numbered(found[1]!, Number(found[2]) + 1, taken) : numbered(`${label} `, 2, taken);
}
