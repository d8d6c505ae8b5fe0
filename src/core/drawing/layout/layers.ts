import FlatQueue from 'flatqueue';
import { isPinEnd, type Part, type Sheet } from '../../circuit/sheet';
import { kindOf, roleOf } from '../../parts/catalogue';
import { pinOf } from '../geometry/placement';
import { type Flow, flowAlong, type PartRow, STORING } from './rows';

/*
 * In which column each part of a sheet stands that is laid out from left to right.
 */

/** @param without pins that do not count. */
export function flowOf(sheet: Sheet, without?: (part: Part, port: string) => boolean): Flow {
  const before = new Map<string, string[]>();
  const after = new Map<string, string[]>();
  const add = (map: Map<string, string[]>, key: string, value: string) => {
    const list = map.get(key);
    if (list) list.push(value);
    else map.set(key, [value]);
  };
  for (const { from, to } of sheet.wires.values()) {
    if (!isPinEnd(from) || !isPinEnd(to)) continue;
    const out = pinOf(sheet, from.part, from.port)?.port.direction === 'out';
    const [a, b] = out ? [from.part, to.part] : [to.part, from.part];
    const reader = out ? to : from;
    if (without?.(sheet.parts.get(reader.part)!, reader.port)) continue;
    add(after, a, b);
    add(before, b, a);
  }
  return { before, after };
}

/**
 * Assigns parts to columns: inputs first, then each part behind the parts that it reads, outputs last. A gate
 * that fits several columns goes where most of its kind are, so that product terms line up, and the gates
 * that combine them do too; inverters of inputs stand beside the inputs.
 * @param rows parts that follow one another in one row, each in a column of its own.
 */
export function layersOf(sheet: Sheet, rows: readonly PartRow[] = []): Part[][] {
  const near = flowAlong(sheet, flowOf(sheet), rows);
  const layer = byLongestPath(sheet, near);
  const last = Math.max(...layer.values());
  for (const part of sheet.parts.values()) if (roleOf(part)?.role === 'output') layer.set(part.id, last);
  align(sheet, near, layer);
  const columns: Part[][] = Array.from({ length: last + 1 }, () => []);
  for (const part of sheet.parts.values()) columns[layer.get(part.id)!]!.push(part);
  return columns.filter((column) => column.length > 0);
}

/** How many parts stand before each at least: the longest path from an input; loops are broken, at storage first. */
function byLongestPath(sheet: Sheet, { before, after }: Flow): Map<string, number> {
  const layer = new Map<string, number>();
  const waits = new Map([...sheet.parts.keys()].map((id) => [id, before.get(id)?.length ?? 0]));
  const rest = new Set(sheet.parts.keys());
  const ready = [...rest].filter((id) => waits.get(id) === 0);
  for (const id of ready) layer.set(id, 0);
  // A loop is broken at storage, or where something comes in, or at the part that waits for the fewest.
  const all = [...rest];
  const numbers = new Map(all.map((id, i) => [id, i]));
  const stores = all.map((id) => STORING.has(kindOf(sheet.parts.get(id)!).family));
  const worth = (i: number) => {
    const id = all[i]!;
    return ((stores[i] ? 0 : 1e7) + (layer.has(id) ? 0 : 1e6) + waits.get(id)!) * all.length + i;
  };
  /** Parts by their worth; entries that were overtaken by better ones are passed over. */
  const open = new FlatQueue<number>();
  for (const i of all.keys()) open.push(i, worth(i));
  for (let at = 0; rest.size > 0; at++) {
    if (at === ready.length) {
      let next = open.pop()!;
      while (!rest.has(all[next]!)) next = open.pop()!;
      ready.push(all[next]!);
      waits.set(all[next]!, 0);
    }
    const id = ready[at]!;
    if (!rest.delete(id)) continue;
    const own = layer.get(id) ?? 0;
    layer.set(id, own);
    for (const reader of after.get(id) ?? []) {
      if (!rest.has(reader)) continue;
      layer.set(reader, Math.max(layer.get(reader) ?? 0, own + 1));
      const left = waits.get(reader)! - 1;
      waits.set(reader, left);
      const number = numbers.get(reader)!;
      open.push(number, worth(number));
      if (left === 0) ready.push(reader);
    }
  }
  return layer;
}

/** Moves gates, constants and what takes bits off a bus to the right where there is room before their readers. */
function align(sheet: Sheet, { before, after }: Flow, layer: Map<string, number>): void {
  const isGate = (part: Part) => kindOf(part).isGate === true;
  const readers = (id: string) => (after.get(id) ?? []).filter((r) => layer.get(r)! > layer.get(id)!);
  const latest = (id: string) => Math.min(...readers(id).map((r) => layer.get(r)!)) - 1;
  const inverts = (part: Part) => new Set(before.get(part.id)).size === 1;
  const called = (part: Part) => `${part.kind} ${inverts(part)}`;
  const readsInput = (part: Part) =>
    (before.get(part.id) ?? []).some((d) => roleOf(sheet.parts.get(d)!)?.role === 'input');
  const isMoved = (part: Part) =>
    readers(part.id).length > 0 &&
    (roleOf(part)?.role === 'constant' || (isGate(part) && !(inverts(part) && readsInput(part))));
  // From right to left: the readers of a gate already have their columns.
  const all = [...sheet.parts.values()].filter(isGate).sort((a, b) => layer.get(b.id)! - layer.get(a.id)!);
  const crowd = new Map<string, number>();
  const standing = (part: Part, column: number) => crowd.get(`${called(part)} ${column}`) ?? 0;
  const count = (part: Part, column: number, by: number) =>
    crowd.set(`${called(part)} ${column}`, standing(part, column) + by);
  for (const part of all) count(part, layer.get(part.id)!, 1);
  for (const part of all) {
    if (!isMoved(part)) continue;
    const own = layer.get(part.id)!;
    count(part, own, -1);
    const only = readers(part.id).every((r) => roleOf(sheet.parts.get(r)!)?.role === 'output');
    // Among columns with equally many of its kind, a term stands next to its reader, a last gate next to its
    // inputs.
    let [best, most] = [own, -1];
    for (let column = own; column <= latest(part.id); column++) {
      const there = standing(part, column);
      if (there > most || (there === most && !only)) [best, most] = [column, there];
    }
    count(part, best, 1);
    layer.set(part.id, best);
  }
  // One bus runs along, and its bits leave it where they are read.
  const isTap = (part: Part) => kindOf(part).family === 'Wiring' && before.get(part.id)?.length === 1;
  for (const part of sheet.parts.values())
    if ((roleOf(part)?.role === 'constant' || isTap(part)) && readers(part.id).length > 0)
      layer.set(part.id, latest(part.id));
}
