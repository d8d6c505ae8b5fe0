import { type Box, boundingBoxOfPoints, eachSegment, overlap, type Point } from '../../circuit/geometry';
import { type End, isPinEnd, type Part, type PinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { atOnce, type Steps } from '../../values/steps';
import type { Step } from './crossings';
import { cellCount, GridIndex } from './grid-index';
import { type Junction, junctionsOfNet } from './junctions';
import { courseOf, footprintOf, type Pin, pinsOf } from './placement';
import { type WireNets, wireNets } from './wire-nets';

/** One drawn signal: a wire with the leads at its ends, or the lead of a free pin. */
export interface Stroke {
  readonly wire?: string;
  readonly pin?: PinEnd;
  readonly points: readonly Point[];
  readonly bounds: Box;
  /** The same with its crossings as hops, where there are any. */
  hops?: { readonly over: readonly Point[]; readonly steps: readonly Step[] };
}

/** A part as it was surveyed. */
interface Surveyed {
  readonly part: Part;
  readonly bounds: Box;
  /** The leads of its pins to which nothing is wired. */
  readonly free: readonly Stroke[];
  /** Parts that lie over each other are painted in this order. */
  readonly place: number;
}

/** Objects that changed, and parts whose free leads may have. */
interface Unfinished {
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  readonly touched: ReadonlySet<string>;
}
const NOTHING_LEFT: Unfinished = { parts: new Set(), wires: new Set(), touched: new Set() };

/** Objects that are surveyed in one step. */
const A_STEP = 500;

/** Parts per cell on a dense sheet: asking so many parts costs as much as asking one cell. */
const PARTS_A_TILE = 8;

/**
 * The index of a sheet's geometry. It is carried from one version of the sheet to the next and looks only at
 * objects that changed, so the cost of an edit, and of each step of a drag, depends on the change and not on
 * the size of the sheet.
 */
export class SpatialIndex {
  private parts: Sheet['parts'] = new Map();
  private wires: Sheet['wires'] = new Map();
  private readonly surveyed = new Map<string, Surveyed>();
  private readonly strokes = new Map<string, Stroke>();
  /** The wires that end on a part, by the part, and the parts by the wire. */
  private readonly onPart = new Map<string, Set<string>>();
  private readonly held = new Map<string, readonly string[]>();
  /** What an interrupted run of `steps` may have surveyed already. */
  private unfinished: Unfinished = NOTHING_LEFT;
  private runs = 0;

  /** @param aStep objects that are surveyed in one step. */
  constructor(private readonly aStep = A_STEP) {}
  /** The cells of the index, filled when a small part of a large sheet is first asked for. */
  private tiles: { readonly parts: GridIndex<string>; readonly wires: GridIndex<string> } | null = null;
  private places = 0;
  private nets: WireNets | null = null;
  /** The wires of each net that has several, and their junctions. */
  private groups: ReadonlyMap<number, readonly string[]> = new Map();
  private readonly dots = new Map<number, readonly Junction[]>();
  /** Wires whose course changed since the junctions were found. */
  private readonly rerun = new Set<string>();

  /** Whether it stands at this version of a sheet. */
  isOf(sheet: Sheet): boolean {
    const { parts, wires } = this.unfinished;
    return parts.size === 0 && wires.size === 0 && sheet.parts === this.parts && sheet.wires === this.wires;
  }

  /** Whether it stands at another version of the same sheet: one of its first parts or wires is the same object. */
  isNear(sheet: Sheet): boolean {
    return shares(this.parts, sheet.parts) || shares(this.wires, sheet.wires);
  }

  /** Brings it to a version of the sheet: any, be it an older one. */
  to(sheet: Sheet): this {
    if (!this.isOf(sheet)) atOnce(this.steps(sheet));
    return this;
  }

  /** As `to`, in steps. They end early if another call brings the index to another version meanwhile. */
  *steps(sheet: Sheet): Steps<void> {
    const run = ++this.runs;
    const parts = changedIds(this.parts, sheet.parts);
    const wires = changedIds(this.wires, sheet.wires);
    for (const id of this.unfinished.parts) parts.add(id);
    for (const id of this.unfinished.wires) wires.add(id);
    const touched = new Set([...parts, ...this.unfinished.touched]);
    this.unfinished = { parts, wires, touched };
    for (const id of wires) {
      const [was, is] = [this.held.get(id) ?? [], holders(sheet.wires.get(id))];
      for (const part of [...was, ...is]) touched.add(part);
      for (const part of was) this.onPart.get(part)?.delete(id);
      for (const part of is) {
        const hung = this.onPart.get(part);
        if (hung) hung.add(id);
        else this.onPart.set(part, new Set([id]));
      }
      if (is.length > 0) this.held.set(id, is);
      else this.held.delete(id);
    }
    // A wire's course changes when it, or a part at one of its ends, has changed.
    const rerun = new Set(wires);
    for (const id of parts) for (const wire of this.onPart.get(id) ?? []) rerun.add(wire);
    let looked = 0;
    for (const id of rerun) {
      this.surveyWire(sheet, id);
      this.rerun.add(id);
      if (++looked % this.aStep > 0) continue;
      yield;
      if (this.runs !== run) return;
    }
    for (const id of touched) {
      this.surveyPart(sheet, id, parts.has(id));
      if (++looked % this.aStep > 0) continue;
      yield;
      if (this.runs !== run) return;
    }
    this.parts = sheet.parts;
    this.wires = sheet.wires;
    this.unfinished = NOTHING_LEFT;
  }

  private surveyWire(sheet: Sheet, id: string): void {
    this.tiles?.wires.remove(id);
    const wire = sheet.wires.get(id);
    const points = wire ? courseOf(sheet, wire) : [];
    if (!wire || points.length < 2) {
      this.strokes.delete(id);
      return;
    }
    const whole = [...leadAt(sheet, wire.from), ...points, ...leadAt(sheet, wire.to)];
    const stroke = { wire: id, points: whole, bounds: boundingBoxOfPoints(whole)! };
    this.strokes.set(id, stroke);
    if (this.tiles) spreadOut(this.tiles.wires, id, stroke);
  }

  private surveyPart(sheet: Sheet, id: string, moved: boolean): void {
    const part = sheet.parts.get(id);
    if (moved) this.tiles?.parts.remove(id);
    if (!part) {
      this.surveyed.delete(id);
      return;
    }
    const bounds = footprintOf(part);
    if (moved) this.tiles?.parts.add(id, bounds);
    const wired = new Set<string>();
    for (const wire of this.onPart.get(id) ?? [])
      for (const end of ends(sheet.wires.get(wire)))
        if (isPinEnd(end) && end.part === id) wired.add(end.port);
    const place = this.surveyed.get(id)?.place ?? this.places++;
    this.surveyed.set(id, { part, bounds, free: freeLeads(part, wired), place });
  }

  /** The cells of a box, if they are few enough to search only there. */
  private near(box: Box) {
    if (cellCount(box) * PARTS_A_TILE > this.surveyed.size) return null;
    if (!this.tiles) {
      this.tiles = { parts: new GridIndex(), wires: new GridIndex() };
      for (const [id, { bounds }] of this.surveyed) this.tiles.parts.add(id, bounds);
      for (const [id, stroke] of this.strokes) spreadOut(this.tiles.wires, id, stroke);
    }
    return this.tiles;
  }

  /** The parts that are painted at least partly in a box, always in the same order. */
  partsIn(box: Box): Part[] {
    return this.surveyedIn(box).map(({ part }) => part);
  }

  private surveyedIn(box: Box): Surveyed[] {
    const found: Surveyed[] = [];
    for (const id of this.near(box)?.parts.near(box) ?? this.surveyed.keys()) {
      const one = this.surveyed.get(id)!;
      if (overlap(one.bounds, box)) found.push(one);
    }
    return found.sort((a, b) => a.place - b.place);
  }

  /** The wires that pass through a box or come near it. */
  wiresIn(box: Box): Stroke[] {
    const found: Stroke[] = [];
    for (const id of this.near(box)?.wires.near(box) ?? this.strokes.keys()) {
      const stroke = this.strokes.get(id)!;
      if (overlap(stroke.bounds, box)) found.push(stroke);
    }
    return found;
  }

  /** Of some wires those that run anywhere. */
  some(wires: Iterable<string>): Stroke[] {
    return [...wires].flatMap((id) => this.strokes.get(id) ?? []);
  }

  /** The leads of free pins of the parts in a box. */
  freeIn(box: Box): Stroke[] {
    return this.surveyedIn(box).flatMap(({ free }) => free);
  }

  /** All that is drawn as a signal. */
  all(): Stroke[] {
    const free: Stroke[] = [];
    for (const part of this.surveyed.values()) free.push(...part.free);
    return [...this.strokes.values(), ...free];
  }

  /** The dots where three or more ways of one net meet, by the number of the net. */
  joints(): ReadonlyMap<number, readonly Junction[]> {
    const nets = wireNets({ parts: this.parts, wires: this.wires });
    if (nets !== this.nets) {
      // The same wires may be a net of another number now.
      const before = new Map([...this.groups].map(([net, wires]) => [wires[0]!, { net, wires }]));
      const dots = new Map(this.dots);
      this.nets = nets;
      this.groups = grouped(this.wires, nets);
      this.dots.clear();
      for (const [net, wires] of this.groups) {
        const was = before.get(wires[0]!);
        const stays =
          was?.wires.length === wires.length &&
          wires.every((id, i) => id === was.wires[i] && !this.rerun.has(id));
        this.dots.set(net, stays ? dots.get(was.net)! : this.dotsOf(wires));
      }
    } else {
      const again = new Set<number>();
      for (const wire of this.rerun) again.add(nets.ofWire(wire)!);
      for (const net of again) {
        const wires = this.groups.get(net);
        if (wires) this.dots.set(net, this.dotsOf(wires));
      }
    }
    this.rerun.clear();
    return this.dots;
  }

  private dotsOf(ids: readonly string[]): readonly Junction[] {
    const sheet = { parts: this.parts, wires: this.wires };
    return junctionsOfNet(
      sheet,
      ids.map((id) => this.wires.get(id)!),
    );
  }
}

/** Tells the tiles of each piece of a stroke. */
function spreadOut(grid: GridIndex<string>, id: string, { points }: Stroke): void {
  eachSegment(points, (a, b) => grid.add(id, boundingBoxOfPoints([a, b])!));
}

/** The wires of each net that has more than one. */
function grouped(wires: Sheet['wires'], nets: WireNets): Map<number, string[]> {
  const groups = new Map<number, string[]>();
  for (const id of wires.keys()) {
    const net = nets.ofWire(id)!;
    const group = groups.get(net);
    if (group) group.push(id);
    else groups.set(net, [id]);
  }
  for (const [net, ids] of groups) if (ids.length < 2) groups.delete(net);
  return groups;
}

/** Surveys that are kept: of the sheets that were looked at last, the last one first; as many as a shelf shows. */
const kept: SpatialIndex[] = [];
const MOST_KEPT = 24;

/** The survey of a version of a sheet; good until it is asked for another version. */
export const spatialIndexOf = (sheet: Sheet): SpatialIndex => indexFor(sheet).to(sheet);

/** Brings the survey of a sheet to this version in steps, so that `spatialIndexOf` has little left to do. */
export function* surveySteps(sheet: Sheet): Steps<void> {
  const index = indexFor(sheet);
  if (!index.isOf(sheet)) yield* index.steps(sheet);
}

/** The survey that stands at this version, or at one near it, or a fresh one; the first among those kept from now on. */
function indexFor(sheet: Sheet): SpatialIndex {
  const exact = kept.findIndex((index) => index.isOf(sheet));
  const at = exact === -1 ? kept.findIndex((index) => index.isNear(sheet)) : exact;
  const index = at === -1 ? new SpatialIndex() : kept[at]!;
  if (at !== 0) {
    if (at > 0) kept.splice(at, 1);
    kept.unshift(index);
    kept.length = Math.min(kept.length, MOST_KEPT);
  }
  return index;
}

/** Ids under which two maps hold different objects, or only one of them anything. */
export function changedIds<V>(was: ReadonlyMap<string, V>, is: ReadonlyMap<string, V>): Set<string> {
  const found = new Set<string>();
  if (was === is) return found;
  let same = 0;
  for (const [id, value] of is) {
    const old = was.get(id);
    if (old === value) same++;
    else found.add(id);
  }
  if (same < was.size) for (const id of was.keys()) if (!is.has(id)) found.add(id);
  return found;
}

const ends = (wire: Wire | undefined): readonly End[] => (wire ? [wire.from, wire.to] : []);
const holders = (wire: Wire | undefined): string[] =>
  ends(wire).flatMap((end) => (isPinEnd(end) ? [end.part] : []));

function freeLeads(part: Part, wired: ReadonlySet<string>): Stroke[] {
  return pinsOf(part)
    .filter((pin) => !wired.has(pin.port.name))
    .map((pin) => {
      const points = [pin.at, inner(pin)];
      return { pin: { part: part.id, port: pin.port.name }, points, bounds: boundingBoxOfPoints(points)! };
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

const A_FEW = 8;

function shares<V>(was: ReadonlyMap<string, V>, is: ReadonlyMap<string, V>): boolean {
  let looked = 0;
  for (const [id, value] of was) {
    if (is.get(id) === value) return true;
    if (++looked === A_FEW) return false;
  }
  return false;
}
