import { aroundPoints, type Box, type Point } from '@/core/circuit/geometry';
import { type End, isPinEnd, type Part, type PinEnd, type Sheet } from '@/core/circuit/lesson';
import type { Step } from '@/core/drawing/crossings';
import { courseOf, type Pin, pinsOf } from '@/core/drawing/placement';
import { type WireNets, wireNets } from '@/core/drawing/wire-nets';

const courses = new WeakMap<Sheet, ReadonlyMap<string, readonly Point[]>>();

/** Courses of all wires of a sheet, found once for each version of it. */
export function coursesOf(sheet: Sheet): ReadonlyMap<string, readonly Point[]> {
  let all = courses.get(sheet);
  if (!all) {
    all = new Map([...sheet.wires.values()].map((w) => [w.id, courseOf(sheet, w)]));
    courses.set(sheet, all);
  }
  return all;
}

/** What is drawn as one signal: a wire with the leads at its ends, or the lead of a free pin. */
export interface Stroke {
  readonly wire?: string;
  readonly pin?: PinEnd;
  readonly points: readonly Point[];
  readonly bounds: Box;
  /** The same with its crossings as hops, where there are any. */
  hops?: { readonly over: readonly Point[]; readonly steps: readonly Step[] };
}

/** Strokes made before; a course is another array as soon as anything about it has changed. */
const ofCourse = new WeakMap<readonly Point[], Stroke>();
const freeOf = new WeakMap<Part, { readonly nets: WireNets; readonly strokes: readonly Stroke[] }>();
const strokes = new WeakMap<Sheet, readonly Stroke[]>();

export function strokesOf(sheet: Sheet): readonly Stroke[] {
  const ready = strokes.get(sheet);
  if (ready) return ready;
  const all: Stroke[] = [];
  for (const [wire, points] of coursesOf(sheet)) {
    if (points.length < 2) continue;
    let stroke = ofCourse.get(points);
    if (!stroke) {
      const { from, to } = sheet.wires.get(wire)!;
      const whole = [...leadAt(sheet, from), ...points, ...leadAt(sheet, to)];
      stroke = { wire, points: whole, bounds: aroundPoints(whole)! };
      ofCourse.set(points, stroke);
    }
    all.push(stroke);
  }
  const nets = wireNets(sheet);
  for (const part of sheet.parts.values()) {
    let free = freeOf.get(part);
    if (free?.nets !== nets) {
      free = { nets, strokes: freeLeads(part, nets) };
      freeOf.set(part, free);
    }
    if (free.strokes.length > 0) all.push(...free.strokes);
  }
  strokes.set(sheet, all);
  return all;
}

/** The leads of a part's pins to which nothing is wired. */
function freeLeads(part: Part, nets: WireNets): Stroke[] {
  return pinsOf(part)
    .filter((pin) => nets.ofEnd({ part: part.id, port: pin.port.name }) === undefined)
    .map((pin) => {
      const points = [pin.at, inner(pin)];
      return { pin: { part: part.id, port: pin.port.name }, points, bounds: aroundPoints(points)! };
    });
}

/** Where a pin's lead meets the body. */
function inner({ at, out, port }: Pin): Point {
  return { x: at.x - out.x * port.lead, y: at.y - out.y * port.lead };
}

function leadAt(sheet: Sheet, end: End): Point[] {
  const part: Part | undefined = isPinEnd(end) ? sheet.parts.get(end.part) : undefined;
  const pin = part && pinsOf(part).find((p) => isPinEnd(end) && p.port.name === end.port);
  return pin ? [inner(pin)] : [];
}
