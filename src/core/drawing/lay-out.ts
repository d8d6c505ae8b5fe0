import type { Point } from '../circuit/geometry';
import { isPinEnd, type Part, type Sheet, type Wire } from '../circuit/lesson';
import { kindOf } from '../parts/catalogue';
import { courseOf, footprintOf, pinOf } from './placement';
import { Obstacles, route } from './route';
import { wireNets } from './wire-nets';

/** Grid steps between columns, for the wires, and between parts of a column. */
const GAP_ACROSS = 6;
const GAP_DOWN = 2;
/** Sheets with more wires than this are wired with plain corners: laying each with care would take minutes. */
const MOST_LAID = 400;
const SWEEPS = 4;
const STORING: ReadonlySet<string> = new Set(['Storage', 'Registers']);

/**
 * Gives the parts of a sheet places and its wires courses, from left to right: inputs, then each part behind those
 * that it reads, outputs last (Sugiyama, Tagawa and Toda, 1981, "Methods for visual understanding of hierarchical
 * system structures": layers by the longest path, order within a layer by barycentres).
 */
export function layOut(sheet: Sheet): Sheet {
  const parts = [...sheet.parts.values()];
  if (parts.length === 0) return sheet;
  const layers = layered(sheet, parts);
  order(sheet, layers);
  // Where a wire finds no way, or only a poor one, all is laid out once more with more room.
  let best: Laid | null = null;
  for (let wider = 0; ; wider += 1) {
    const placed = place(layers, wider);
    const bare: Sheet = {
      ...sheet,
      parts: new Map(parts.map((p) => [p.id, { ...p, at: placed.get(p.id)!, turn: 0 }])),
      wires: new Map([...sheet.wires].map(([id, w]) => [id, { ...w, course: [] }])),
    };
    if (bare.wires.size > MOST_LAID) return withCorners(bare);
    const laid = withCourses(bare);
    const isBetter =
      !best || laid.stuck < best.stuck || (laid.stuck === best.stuck && laid.roundabout < best.roundabout);
    if (isBetter) best = laid;
    if ((laid.stuck === 0 && laid.roundabout === 0) || wider === MOST_WIDER) return best!.sheet;
  }
}

/** Parts that drive a part, and those that it drives, by its id. */
function neighbours(sheet: Sheet): { before: Map<string, string[]>; after: Map<string, string[]> } {
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
    add(after, a, b);
    add(before, b, a);
  }
  return { before, after };
}

function layered(sheet: Sheet, parts: readonly Part[]): Part[][] {
  const { before, after } = neighbours(sheet);
  const layer = new Map<string, number>();
  const waits = new Map(parts.map((p) => [p.id, before.get(p.id)?.length ?? 0]));
  const rest = new Set(parts.map((p) => p.id));
  const ready = parts.filter((p) => waits.get(p.id) === 0).map((p) => p.id);
  for (const id of ready) layer.set(id, 0);
  for (let at = 0; rest.size > 0; at++) {
    // A loop is broken at storage, or where something comes in, or at the part that waits for the fewest.
    if (at === ready.length) {
      const worth = (id: string) =>
        (STORING.has(kindOf(sheet.parts.get(id)!).family) ? 0 : 1e7) +
        (layer.has(id) ? 0 : 1e6) +
        waits.get(id)!;
      let next: string | null = null;
      for (const id of rest) if (next === null || worth(id) < worth(next)) next = id;
      ready.push(next!);
      waits.set(next!, 0);
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
      if (left === 0) ready.push(reader);
    }
  }
  const last = Math.max(...layer.values());
  const layers: Part[][] = Array.from({ length: last + 1 }, () => []);
  for (const p of parts) {
    const role = kindOf(p).role?.(p.params)?.role;
    // What is read only further right stands close to its reader; outputs stand in the last column.
    const readers = (after.get(p.id) ?? []).map((r) => layer.get(r)!).filter((l) => l > layer.get(p.id)!);
    const near = role === 'constant' && readers.length ? Math.min(...readers) - 1 : layer.get(p.id)!;
    layers[role === 'output' ? last : near]!.push(p);
  }
  return layers.filter((l) => l.length > 0);
}

/** Orders each layer by where its neighbours stand; inputs and outputs keep their declared order. */
function order(sheet: Sheet, layers: Part[][]): void {
  const { before, after } = neighbours(sheet);
  const isFixed = (p: Part) => {
    const role = kindOf(p).role?.(p.params)?.role;
    return role === 'input' || role === 'output';
  };
  for (const layer of layers) layer.sort((a, b) => +isFixed(b) - +isFixed(a) || a.rank - b.rank);
  const at = new Map<string, number>();
  const note = (layer: readonly Part[]) => {
    for (const [i, p] of layer.entries()) at.set(p.id, i / Math.max(1, layer.length - 1));
  };
  for (const layer of layers) note(layer);
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const forth = sweep % 2 === 0;
    for (const layer of forth ? layers : [...layers].reverse()) {
      const middle = (p: Part) => {
        const near = (forth ? before : after).get(p.id) ?? [];
        return near.length ? near.reduce((sum, n) => sum + at.get(n)!, 0) / near.length : at.get(p.id)!;
      };
      const fixed = layer.filter(isFixed);
      const free = layer.filter((p) => !isFixed(p)).map((p) => [p, middle(p)] as const);
      free.sort((a, b) => a[1] - b[1]);
      layer.splice(0, layer.length, ...fixed, ...free.map(([p]) => p));
      note(layer);
    }
  }
}

/** How often all is laid out again with more room. */
const MOST_WIDER = 3;

/** @param wider how many times more room there is between parts than usual, less one. */
function place(layers: readonly (readonly Part[])[], wider: number): Map<string, Point> {
  const down = GAP_DOWN + 2 * wider;
  const places = new Map<string, Point>();
  const boxes = layers.map((layer) => layer.map((p) => footprintOf({ ...p, at: { x: 0, y: 0 }, turn: 0 })));
  const heights = boxes.map((column) => column.reduce((sum, b) => sum + Math.ceil(b.y1 - b.y0) + down, 0));
  const tallest = Math.max(...heights);
  let x = 0;
  for (const [i, layer] of layers.entries()) {
    const column = boxes[i]!;
    const left = Math.ceil(Math.max(...column.map((b) => -b.x0)));
    const right = Math.ceil(Math.max(...column.map((b) => b.x1)));
    let y = Math.floor((tallest - heights[i]!) / 2);
    for (const [k, p] of layer.entries()) {
      const box = column[k]!;
      places.set(p.id, { x: x + left, y: y + Math.ceil(-box.y0) });
      y += Math.ceil(box.y1 - box.y0) + down;
    }
    const crowd = Math.min(24, Math.floor(layer.length / 2));
    x += left + right + GAP_ACROSS + 4 * wider + crowd;
  }
  return places;
}

/** A corner half way between the ends, at a height that the wires of a column do not share. */
function withCorners(sheet: Sheet): Sheet {
  const wires = new Map<string, Wire>();
  let turn = 0;
  for (const [id, wire] of sheet.wires) {
    const [from, to] = [wire.from, wire.to].map((e) =>
      isPinEnd(e) ? pinOf(sheet, e.part, e.port)?.at : e.at,
    );
    const x = from && to ? Math.min(from.x + 1 + (turn++ % (GAP_ACROSS - 2)), Math.max(from.x, to.x)) : 0;
    wires.set(
      id,
      from && to
        ? {
            ...wire,
            course: [
              { x, y: from.y },
              { x, y: to.y },
            ],
          }
        : wire,
    );
  }
  return { ...sheet, wires };
}

/** How often wires are laid anew with those first that had found no way, or a poor one. */
const MOST_TRIES = 4;

interface Laid {
  readonly sheet: Sheet;
  /** Wires that found no way. */
  readonly stuck: number;
  /** Wires that lead round behind what drives them, though what reads them stands before it. */
  readonly roundabout: number;
}

/** How far behind its driver a course may swing, in grid steps, before it is one that leads round. */
const BEHIND = 2;

function leadsRound(course: readonly Point[], from: Point, to: Point): boolean {
  const left = Math.min(from.x, to.x) - BEHIND;
  return course.some((p) => p.x < left);
}

function withCourses(sheet: Sheet): Laid {
  const nets = wireNets(sheet);
  const length = (w: Wire) => {
    const [a, b] = [w.from, w.to].map((e) => (isPinEnd(e) ? pinOf(sheet, e.part, e.port)?.at : e.at));
    return a && b ? Math.abs(a.x - b.x) + Math.abs(a.y - b.y) : 0;
  };
  let order = [...sheet.wires.values()].sort((a, b) => length(a) - length(b));
  for (let tries = 1; ; tries++) {
    const obstacles = new Obstacles(sheet, nets, new Set(sheet.wires.keys()));
    const wires = new Map(sheet.wires);
    const stuck = new Set<Wire>();
    const round = new Set<Wire>();
    for (const wire of order) {
      const ends = [wire.from, wire.to].map((e) => {
        const pin = isPinEnd(e) ? pinOf(sheet, e.part, e.port) : null;
        return pin ? { at: pin.at, out: pin.out } : null;
      });
      if (!ends[0] || !ends[1]) continue;
      const net = nets.ofWire(wire.id) ?? -1;
      const course = route(obstacles, ends[0], ends[1], net);
      if (!course) {
        stuck.add(wire);
        continue;
      }
      if (leadsRound(course, ends[0].at, ends[1].at)) round.add(wire);
      const laid: Wire = { ...wire, course };
      wires.set(wire.id, laid);
      obstacles.lay(courseOf({ ...sheet, wires }, laid), net);
    }
    const first = [...stuck, ...round];
    if (first.length === 0 || tries === MOST_TRIES)
      return { sheet: { ...sheet, wires }, stuck: stuck.size, roundabout: round.size };
    order = [...first, ...order.filter((w) => !stuck.has(w) && !round.has(w))];
  }
}
