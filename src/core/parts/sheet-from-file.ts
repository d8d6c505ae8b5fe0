import type { SheetFile } from '../circuit/lesson-schema';
import { isPinEnd, type Part, type Sheet, type Wire } from '../circuit/sheet';
import { located, type Result, refusal, refused, within } from '../values/result';
import type { Infer } from '../values/schema';
import { byParams } from './by-params';
import { findKind, kindOf } from './catalogue';
import { readParams } from './params';

/** Reads a sheet whose form has been checked: its parts are looked up in the catalogue, and its wires end on something. */
export function sheetFromFile(file: Infer<typeof SheetFile>): Result<Sheet> {
  const parts = new Map<string, Part>();
  for (const part of file.parts) {
    if (parts.has(part.id)) return refused('twice', `two parts have the id ${part.id}`);
    const kind = findKind(part.kind);
    if (!kind)
      return refused('unknown-kind', `part ${part.id} is a “${part.kind}”, which this Manege does not know`);
    const params = readParams(kind, part.params);
    if (!params.ok) return refusal(within(`part ${part.id}`, located(params.problem)));
    parts.set(part.id, { ...part, params: params.value });
  }
  const wires = new Map<string, Wire>();
  for (const wire of file.wires) {
    if (wires.has(wire.id)) return refused('twice', `two wires have the id ${wire.id}`);
    wires.set(wire.id, wire);
  }
  for (const wire of wires.values())
    for (const end of [wire.from, wire.to]) {
      if (isPinEnd(end)) {
        const part = parts.get(end.part);
        if (!part || !portNames(part).has(end.port))
          return refused(
            'no-such-end',
            `wire ${wire.id} ends on ${end.part}.${end.port}, which is not there`,
          );
      } else if (!wires.has(end.wire) || end.wire === wire.id)
        return refused('no-such-end', `wire ${wire.id} ends on wire ${end.wire}, which is not there`);
    }
  const circle = hostCircle(wires);
  if (circle) return refused('wire-in-circle', `wire ${circle} ends, by way of others, on itself`);
  // Whatever else a sheet has goes along as it was read.
  return { ok: true, value: { ...file, parts, wires } };
}

const portNames = byParams(
  (part): ReadonlySet<string> =>
    new Set(
      kindOf(part)
        .ports(part.params)
        .map((p) => p.name),
    ),
);

const isBranch = ({ from, to }: Wire) => !isPinEnd(from) || !isPinEnd(to);

/** A wire that refers to itself through its hosts, or null. */
function hostCircle(wires: ReadonlyMap<string, Wire>): string | null {
  const clear = new Set<string>();
  for (const { id: start } of [...wires.values()].filter(isBranch)) {
    const path = new Set<string>();
    const todo: { id: string; leave: boolean }[] = [{ id: start, leave: false }];
    for (let at = todo.pop(); at; at = todo.pop()) {
      if (at.leave) {
        path.delete(at.id);
        clear.add(at.id);
        continue;
      }
      if (clear.has(at.id)) continue;
      if (path.has(at.id)) return at.id;
      path.add(at.id);
      todo.push({ id: at.id, leave: true });
      const wire = wires.get(at.id)!;
      for (const end of [wire.from, wire.to]) if (!isPinEnd(end)) todo.push({ id: end.wire, leave: false });
    }
  }
  return null;
}
