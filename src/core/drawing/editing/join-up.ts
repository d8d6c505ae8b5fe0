import { apply, type Edit } from '../../circuit/edit';
import { contains, eachSegment, nearestOnSegment, type Point, samePoint } from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import {
  type End,
  freshId,
  isPinEnd,
  type Part,
  type PinEnd,
  type Sheet,
  type Wire,
} from '../../circuit/sheet';
import { kindOf } from '../../parts/catalogue';
import { bodyOf, courseOf, type Pin, pinOf, pinsOf } from '../geometry/placement';
import { type WireNets, wireNets } from '../geometry/wire-nets';
import { group, reroute, withBranches } from '../routing/reroute';
import { remove } from './gestures';

/*
 * Parts placed on a wire or against each other become joined. A part that is removed can leave its wire whole.
 */

/** The connections that follow from placing parts: the edit, or null if they touch nothing. */
export function joinUp(lesson: Lesson, sheetId: string, parts: readonly string[]): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  if (parts.length === 1) {
    const inserted = insertOnWire(lesson, sheetId, parts[0]!) ?? standOnWire(lesson, sheetId, parts[0]!);
    if (inserted) return inserted;
  }
  const wires: Wire[] = [];
  let now = sheet;
  for (const { pin, onto } of touching(sheet, new Set(parts))) {
    const wire: Wire = { id: freshId(now.wires, 'w'), from: pin, to: onto, course: [] };
    wires.push(wire);
    now = { ...now, wires: new Map(now.wires).set(wire.id, wire) };
  }
  return wires.length ? group(wires.map((wire) => ({ type: 'addWire', sheet: sheetId, wire }))) : null;
}

const pinEnd = (pin: Pin): PinEnd => ({ part: pin.part, port: pin.port.name });

/** Free pins of the given parts that stand on a pin of another part or on a wire, and may be joined to it. */
export function touching(sheet: Sheet, parts: ReadonlySet<string>): { pin: PinEnd; onto: End; at: Point }[] {
  // Where everything has moved alike, nothing has come nearer to anything.
  if (sheet.parts.size > 1 && [...sheet.parts.keys()].every((id) => parts.has(id))) return [];
  const nets = wireNets(sheet);
  const free = new Map<string, Pin>();
  for (const id of parts)
    for (const pin of pinsOf(sheet.parts.get(id)!))
      if (nets.ofEnd(pinEnd(pin)) === undefined) free.set(`${pin.at.x},${pin.at.y}`, pin);
  if (free.size === 0) return [];
  const found: { pin: PinEnd; onto: End; at: Point }[] = [];
  const take = (key: string, pin: Pin, onto: End) => {
    free.delete(key);
    found.push({ pin: pinEnd(pin), onto, at: pin.at });
  };
  for (const other of sheet.parts.values()) {
    if (parts.has(other.id)) continue;
    for (const theirs of pinsOf(other)) {
      const key = `${theirs.at.x},${theirs.at.y}`;
      const pin = free.get(key);
      const bothDrive = pin?.port.direction === 'out' && theirs.port.direction === 'out';
      if (pin && !bothDrive && pin.port.width === theirs.port.width) take(key, pin, pinEnd(theirs));
    }
  }
  // Pins by their line across and down, as wires run along such lines.
  const lines = { x: new Map<number, Map<string, Pin>>(), y: new Map<number, Map<string, Pin>>() };
  for (const [key, pin] of free)
    if (pin.port.direction !== 'out')
      for (const axis of ['x', 'y'] as const) {
        const line = lines[axis].get(pin.at[axis]) ?? new Map<string, Pin>();
        lines[axis].set(pin.at[axis], line.set(key, pin));
      }
  for (const wire of sheet.wires.values())
    eachSegment(courseOf(sheet, wire), (a, b) => {
      for (const [key, pin] of (a.x === b.x ? lines.x.get(a.x) : lines.y.get(a.y)) ?? []) {
        if (!free.has(key) || !samePoint(nearestOnSegment(a, b, pin.at), pin.at)) continue;
        if (pinsOn(sheet, nets, wire).every((p) => p.port.width === pin.port.width))
          take(key, pin, { wire: wire.id, at: pin.at });
      }
    });
  return found;
}

/** A part without wires that lies across a wire goes into it: the wire then leads to it and on from it. */
function insertOnWire(lesson: Lesson, sheetId: string, partId: string): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const part = sheet.parts.get(partId)!;
  const pins = pinsOf(part);
  const nets = wireNets(sheet);
  if (pins.some((pin) => nets.ofEnd(pinEnd(pin)) !== undefined)) return null;
  const under = wireUnder(sheet, partId);
  const output = pins.find((p) => p.port.direction === 'out');
  if (!under || !output) return null;
  const { width } = output.port;
  const inputs = pins.filter((p) => p.port.direction === 'in' && p.port.width === width);
  if (pinsOn(sheet, nets, under.wire).some((p) => p.port.width !== width)) return null;
  const away = (pin: Pin) => Math.abs(pin.at.x - under.at.x) + Math.abs(pin.at.y - under.at.y);
  const input = inputs.sort((a, b) => away(a) - away(b))[0];
  if (!input) return null;
  // The part is shifted so that the wire runs straight into it.
  const by =
    under.flat && input.out.x !== 0
      ? { x: 0, y: under.at.y - input.at.y }
      : !under.flat && input.out.y !== 0
        ? { x: under.at.x - input.at.x, y: 0 }
        : { x: 0, y: 0 };
  const { wire } = under;
  const forwards = isUpstream(sheet, wire, 'from');
  const [near, far] = forwards ? (['from', 'to'] as const) : (['to', 'from'] as const);
  const points = forwards ? courseOf(sheet, wire) : [...courseOf(sheet, wire)].reverse();
  const second: Wire = {
    id: freshId(sheet.wires, 'w'),
    from: pinEnd(output),
    to: wire[far],
    course: [],
    ...(wire.colour ? { colour: wire.colour } : {}),
  };
  const edits: Edit[] = [
    {
      type: 'changePart',
      sheet: sheetId,
      id: partId,
      change: { at: { x: part.at.x + by.x, y: part.at.y + by.y } },
    },
    {
      type: 'changeWire',
      sheet: sheetId,
      id: wire.id,
      change: { from: wire[near], to: pinEnd(input), course: [], drawn: undefined },
    },
    { type: 'addWire', sheet: sheetId, wire: second },
  ];
  const border = distanceTo(points, under.at);
  for (const branch of sheet.wires.values())
    for (const key of ['from', 'to'] as const) {
      const end = branch[key];
      if (!isPinEnd(end) && end.wire === wire.id && distanceTo(points, end.at) > border)
        edits.push({
          type: 'changeWire',
          sheet: sheetId,
          id: branch.id,
          change: { [key]: { wire: second.id, at: end.at } },
        });
    }
  const applied = apply(lesson, group(edits));
  if (!applied.ok) return null;
  const after = sheetOf(applied.value, sheetId)!;
  return group([...edits, ...reroute(after, withBranches(after, new Set([wire.id, second.id])))]);
}

/** A probe that is put over a wire stands on it by its foot, and is as wide as the wire. */
function standOnWire(lesson: Lesson, sheetId: string, partId: string): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const part = sheet.parts.get(partId)!;
  const nets = wireNets(sheet);
  if (!kindOf(part).isProbe || pinsOf(part).some((pin) => nets.ofEnd(pinEnd(pin)) !== undefined)) return null;
  const under = wireUnder(sheet, partId);
  return under && probeEdit(sheet, { ...part }, under.wire.id, under.at, under.flat, false);
}

/**
 * A probe as it stands at a point of a wire: above one that runs from left to right, right of one that runs down.
 * @param away steps of the grid by which its foot stands away from the wire; below 0 on the other side of it.
 */
export function probeOn(part: Part, at: Point, flat: boolean, away = 0): Part {
  const turn = away < 0 ? (flat ? 2 : 3) : flat ? 0 : 1;
  const foot = pinsOf({ ...part, at: { x: 0, y: 0 }, turn })[0]!.at;
  const place = { x: at.x - foot.x + (flat ? 0 : away), y: at.y - foot.y - (flat ? away : 0) };
  return { ...part, at: place, turn };
}

/** A probe as wide as a wire. */
export function probeFor(sheet: Sheet, part: Part, wire: string): Part {
  const width = pinsOn(sheet, wireNets(sheet), sheet.wires.get(wire)!)[0]?.port.width ?? 1;
  return { ...part, params: { ...part.params, width } };
}

/**
 * Puts a probe onto a wire.
 * @param fresh whether it is still to be added to the sheet.
 */
export function probeEdit(
  sheet: Sheet,
  part: Part,
  wire: string,
  at: Point,
  flat: boolean,
  fresh: boolean,
  away = 0,
): Edit {
  const standing = probeOn(probeFor(sheet, part, wire), at, flat, away);
  const { at: place, turn, params } = standing;
  const placed: Edit = fresh
    ? { type: 'addPart', sheet: sheet.id, part: standing }
    : { type: 'changePart', sheet: sheet.id, id: part.id, change: { at: place, turn, params } };
  const joint: Wire = {
    id: freshId(sheet.wires, 'w'),
    from: { part: part.id, port: 'A' },
    to: { wire, at },
    course: [],
  };
  return group([placed, { type: 'addWire', sheet: sheet.id, wire: joint }]);
}

/** The wire that runs through a part's body nearest its middle, and where. */
function wireUnder(sheet: Sheet, partId: string): { wire: Wire; at: Point; flat: boolean } | null {
  const body = bodyOf(sheet.parts.get(partId)!);
  const middle = { x: (body.x0 + body.x1) / 2, y: (body.y0 + body.y1) / 2 };
  let best: { wire: Wire; at: Point; flat: boolean } | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const wire of sheet.wires.values())
    eachSegment(courseOf(sheet, wire), (a, b) => {
      const at = nearestOnSegment(a, b, middle);
      const distance = Math.hypot(at.x - middle.x, at.y - middle.y);
      if (!contains(body, at) || distance >= least) return;
      least = distance;
      best = { wire, at: { x: Math.round(at.x), y: Math.round(at.y) }, flat: a.y === b.y };
    });
  return best;
}

/** The pins of the net on which an end or a wire lies. */
function pinsOn(sheet: Sheet, nets: WireNets, at: End | Wire): Pin[] {
  const net = 'id' in at ? nets.ofWire(at.id) : nets.ofEnd(at);
  if (net === undefined) return [];
  return [...sheet.parts.values()].flatMap((part) =>
    pinsOf(part).filter((pin) => nets.ofEnd(pinEnd(pin)) === net),
  );
}

/** Whether the driver of a wire's net is reached through that end of it. */
function isUpstream(sheet: Sheet, wire: Wire, key: 'from' | 'to'): boolean {
  const wires = new Map(sheet.wires);
  wires.delete(wire.id);
  const without = wireNets({ ...sheet, wires });
  const drives = (end: End): boolean =>
    (isPinEnd(end) && pinOf(sheet, end.part, end.port)?.port.direction === 'out') ||
    pinsOn(sheet, without, end).some((p) => p.port.direction === 'out');
  return drives(wire[key]) || !drives(wire[key === 'from' ? 'to' : 'from']);
}

/** How far along a course the point of it lies that is nearest to another. */
function distanceTo(points: readonly Point[], to: Point): number {
  let walked = 0;
  let least = Number.POSITIVE_INFINITY;
  let far = 0;
  eachSegment(points, (a, b) => {
    const at = nearestOnSegment(a, b, to);
    const away = Math.hypot(at.x - to.x, at.y - to.y);
    if (away < least) {
      least = away;
      far = walked + Math.abs(at.x - a.x) + Math.abs(at.y - a.y);
    }
    walked += Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
  });
  return far;
}

/**
 * Removes parts and reconnects around each: its first wired input is joined to the wires of its first wired
 * output.
 */
export function removeHealing(lesson: Lesson, sheetId: string, parts: ReadonlySet<string>): Edit {
  const edits: Edit[] = [];
  let now = lesson;
  const make = (edit: Edit): boolean => {
    const applied = apply(now, edit);
    if (applied.ok) {
      now = applied.value;
      edits.push(edit);
    }
    return applied.ok;
  };
  const relaid = new Set<string>();
  for (const id of parts) {
    const healed = bypass(sheetOf(now, sheetId)!, id);
    if (healed && make(group(healed.edits))) relaid.add(healed.wire);
    make(remove(sheetOf(now, sheetId)!, new Set([id]), new Set()));
  }
  const sheet = sheetOf(now, sheetId)!;
  const there = [...relaid].filter((w) => sheet.wires.has(w));
  return group([...edits, ...reroute(sheet, withBranches(sheet, new Set(there)))]);
}

/** The edits that lead a part's first wired input past it, and the wire that carries on. */
function bypass(sheet: Sheet, id: string): { edits: Edit[]; wire: string } | null {
  const wires = [...sheet.wires.values()];
  const at = (end: End, port: string) => isPinEnd(end) && end.part === id && end.port === port;
  const side = (wire: Wire, port: string) => (at(wire.from, port) ? 'from' : at(wire.to, port) ? 'to' : null);
  const wired = (direction: 'in' | 'out') =>
    pinsOf(sheet.parts.get(id)!)
      .filter((p) => p.port.direction === direction)
      .map((p) => p.port.name)
      .find((port) => wires.some((w) => side(w, port)));
  const input = wired('in');
  const output = wired('out');
  if (!input || !output) return null;
  const into = wires.find((w) => side(w, input))!;
  const onward = wires.filter((w) => side(w, output) && w.id !== into.id);
  const first = onward[0];
  if (!first) return null;
  const away = (wire: Wire, port: string) => (side(wire, port) === 'from' ? wire.to : wire.from);
  const edits: Edit[] = [
    {
      type: 'changeWire',
      sheet: sheet.id,
      id: into.id,
      change: { from: away(into, input), to: away(first, output), course: [], drawn: undefined },
    },
    { type: 'removeWire', sheet: sheet.id, id: first.id },
  ];
  const start = pinOf(sheet, id, output)!.at;
  for (const wire of onward.slice(1))
    edits.push({
      type: 'changeWire',
      sheet: sheet.id,
      id: wire.id,
      change: { from: { wire: into.id, at: start }, to: away(wire, output), course: [], drawn: undefined },
    });
  for (const branch of wires)
    for (const key of ['from', 'to'] as const) {
      const end = branch[key];
      if (!isPinEnd(end) && end.wire === first.id)
        edits.push({
          type: 'changeWire',
          sheet: sheet.id,
          id: branch.id,
          change: { [key]: { wire: into.id, at: end.at } },
        });
    }
  return { edits, wire: into.id };
}
