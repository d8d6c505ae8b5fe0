import { type Box, eachSegment, type Point } from '@/core/circuit/geometry';
import type { Sheet, Wire } from '@/core/circuit/sheet';
import { bodyOf, localPinsOf } from '@/core/drawing/geometry/placement';
import { type SpatialIndex, spatialIndexOf, surveySteps } from '@/core/drawing/geometry/spatial-index';
import { kindOf } from '@/core/parts/catalogue';
import { ONE, X, Z, ZERO } from '@/core/values/logic';
import type { Steps } from '@/core/values/steps';
import type { Palette } from '@/ui/controls/palette';
import { isPainted, type Overlay, type Scene, type Signal, signalOf } from './scene';
import { SIGNALS, signalColour } from './signal-look';

/*
 * A sheet from so far away that a part is a box of a few pixels and a pattern could not be seen. All is filled as
 * upright rectangles: a canvas strokes one path of ten thousand pieces far more slowly.
 */

/** Objects that are looked at, or filled, in one step. */
const A_STEP = 1000;

/** Corner, width and height of rectangles, four numbers each. */
type Rectangles = number[];

/** Rectangles of many objects: those of each lie together. */
interface Group {
  readonly rectangles: Rectangles;
  /** The object, and the end of its rectangles. */
  readonly ids: string[];
  readonly ends: number[];
}

interface Bodies {
  readonly bodies: Group;
  /** Notes, as lines that could be text. */
  readonly notes: Group;
  /** The inputs and outputs that may be lit, each with its body. */
  readonly lit: readonly { readonly part: string; readonly port: string; readonly body: Box }[];
}

/** Begins the id of a part for the leads of its free pins. */
const LEAD = ' ';

/** Segments of wires as rectangles without thickness. */
interface Lines {
  readonly bySignal: ReadonlyMap<Signal, Group>;
  /** Of wires with a marker colour. */
  readonly marked: ReadonlyMap<Colour, Group>;
}

type Colour = NonNullable<Wire['colour']>;

const bodiesOfSheet = new WeakMap<Sheet['parts'], Bodies>();
/** The last wires of a whole sheet: they stay while only the view changes. */
let linesOfSheet: { readonly of: readonly unknown[]; readonly lines: Lines } | null = null;

/** Where more wires are selected than this, the selected parts between them tell it. */
const MOST_SINGLED_OUT = 1000;

const emptyGroup = (): Group => ({ rectangles: [], ids: [], ends: [] });

function addBox({ rectangles, ids, ends }: Group, id: string, { x0, y0, x1, y1 }: Box): void {
  rectangles.push(x0, y0, x1 - x0, y1 - y0);
  ids.push(id);
  ends.push(rectangles.length);
}

/** Grid steps from one line of a note to the next, and the share of them that is dark. */
const NOTE_LINE = 2.5;
const NOTE_DARK = 0.5;

function addNote({ rectangles, ids, ends }: Group, id: string, { x0, y0, x1, y1 }: Box): void {
  const lines = Math.max(1, Math.round((y1 - y0) / NOTE_LINE));
  const step = (y1 - y0) / lines;
  for (let line = 0; line < lines; line++)
    rectangles.push(x0, y0 + (line + (1 - NOTE_DARK) / 2) * step, x1 - x0, NOTE_DARK * step);
  ids.push(id);
  ends.push(rectangles.length);
}

function addCourse({ rectangles, ids, ends }: Group, id: string, points: readonly Point[]): void {
  eachSegment(points, (a, b) =>
    rectangles.push(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(b.x - a.x), Math.abs(b.y - a.y)),
  );
  ids.push(id);
  ends.push(rectangles.length);
}

function* bodiesOf({ sheet, some }: Scene): Steps<Bodies> {
  const lifted = some?.lifted ?? false;
  const known = lifted ? undefined : bodiesOfSheet.get(sheet.parts);
  if (known) return known;
  const bodies = emptyGroup();
  const notes = emptyGroup();
  const lit: Bodies['lit'][number][] = [];
  for (const part of lifted ? picked(sheet.parts, some!.of.parts) : sheet.parts.values()) {
    const body = bodyOf(part);
    const kind = kindOf(part);
    if (kind.isNote) addNote(notes, part.id, body);
    else addBox(bodies, part.id, body);
    const role = kind.role?.(part.params)?.role;
    const [pin] = role === 'input' || role === 'output' ? localPinsOf(part) : [];
    if (pin) lit.push({ part: part.id, port: pin.port.name, body });
    if (bodies.ids.length % A_STEP === 0) yield;
  }
  const found = { bodies, notes, lit };
  if (!lifted) bodiesOfSheet.set(sheet.parts, found);
  return found;
}

function picked<V>(all: ReadonlyMap<string, V>, ids: ReadonlySet<string>): V[] {
  return [...ids].flatMap((id) => all.get(id) ?? []);
}

function* linesOf(scene: Scene, index: SpatialIndex): Steps<Lines> {
  const { sheet, netlist, values, conflicts, some } = scene;
  const of = [sheet, netlist, values, conflicts, scene.told];
  const lifted = some?.lifted ?? false;
  if (!lifted && linesOfSheet?.of.every((one, i) => one === of[i])) return linesOfSheet.lines;
  const bySignal = new Map<Signal, Group>();
  const marked = new Map<Colour, Group>();
  let looked = 0;
  for (const { wire, pin, points } of lifted ? index.some(some!.of.wires) : index.all()) {
    const nets = wire === undefined ? netlist.netsOfPin(pin!.part, pin!.port) : netlist.netsOfWire(wire);
    addCourse(groupIn(bySignal, signalOf(scene, nets)), wire ?? LEAD + pin!.part, points);
    const colour = wire === undefined ? undefined : sheet.wires.get(wire)?.colour;
    if (wire !== undefined && colour) addCourse(groupIn(marked, colour), wire, points);
    if (++looked % A_STEP === 0) yield;
  }
  const lines = { bySignal, marked };
  if (!lifted) linesOfSheet = { of, lines };
  return lines;
}

function groupIn<K>(groups: Map<K, Group>, key: K): Group {
  const known = groups.get(key);
  if (known) return known;
  const group = emptyGroup();
  groups.set(key, group);
  return group;
}

/**
 * Fills rectangles, each made larger on all sides by a length in grid steps, or smaller if it is negative.
 * @param isLeft whether an object is left out.
 */
function* fill(
  g: CanvasRenderingContext2D,
  { rectangles, ids, ends }: Group,
  by: number,
  isLeft: ((id: string) => boolean) | null,
): Steps<void> {
  for (let at = 0, i = 0; at < ids.length; at++) {
    if (at % A_STEP === A_STEP - 1) yield;
    if (isLeft?.(ids[at]!)) {
      i = ends[at]!;
      continue;
    }
    for (; i < ends[at]!; i += 4) {
      const width = rectangles[i + 2]! + 2 * by;
      const height = rectangles[i + 3]! + 2 * by;
      if (width > 0 && height > 0) g.fillRect(rectangles[i]! - by, rectangles[i + 1]! - by, width, height);
    }
  }
}

/**
 * Paints wires and parts, in steps.
 * @param thin least width of a line in grid steps.
 */
export function* paintFarSteps(
  g: CanvasRenderingContext2D,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  thin: number,
): Steps<void> {
  yield* surveySteps(scene.sheet);
  const index = spatialIndexOf(scene.sheet);
  const { bySignal, marked } = yield* linesOf(scene, index);
  const { some } = scene;
  const dragged = some && !some.lifted ? some.of : null;
  // Selected parts are filled with the accent anyway.
  const isPartLeft = (id: string) => overlay.parts.has(id) || dragged?.parts.has(id) === true;
  const isLineLeft =
    dragged &&
    ((id: string) => (id.startsWith(LEAD) ? dragged.parts.has(id.slice(1)) : dragged.wires.has(id)));
  for (const [colour, own] of marked) {
    g.fillStyle = palette[`wire-${colour}`];
    yield* fill(g, own, 0.42, isLineLeft);
  }
  if (overlay.wires.size <= MOST_SINGLED_OUT) {
    const chosenWires = emptyGroup();
    for (const { wire, points } of index.some(overlay.wires))
      if (isPainted(scene, 'wires', wire!)) addCourse(chosenWires, wire!, points);
    g.fillStyle = palette.accent;
    g.globalAlpha = 0.35;
    yield* fill(g, chosenWires, 0.37, null);
    g.globalAlpha = 1;
  }
  for (const signal of SIGNALS) {
    const own = bySignal.get(signal);
    if (!own) continue;
    g.fillStyle = signalColour(signal, palette);
    const isHeavy = signal !== ZERO && signal !== Z && signal !== X && signal !== 'dark';
    yield* fill(g, own, (isHeavy ? 1.4 * thin : thin) / 2, isLineLeft);
  }
  const { bodies, notes, lit } = yield* bodiesOf(scene);
  g.fillStyle = palette.quiet;
  g.globalAlpha = 0.3;
  yield* fill(g, notes, 0, isPartLeft);
  g.globalAlpha = 1;
  g.fillStyle = palette.ink;
  yield* fill(g, bodies, thin / 2, isPartLeft);
  g.fillStyle = palette.raised;
  yield* fill(g, bodies, -thin / 2, isPartLeft);
  g.fillStyle = palette.one;
  for (const { part, port, body } of lit) {
    if (!isPainted(scene, 'parts', part)) continue;
    const net = scene.netlist.ownNet(part, port);
    if (net !== undefined && scene.values[net] === ONE)
      g.fillRect(body.x0, body.y0, body.x1 - body.x0, body.y1 - body.y0);
  }
  g.fillStyle = palette.accent;
  const chosen = emptyGroup();
  for (const id of overlay.parts) {
    const part = scene.sheet.parts.get(id);
    if (part && isPainted(scene, 'parts', id)) addBox(chosen, id, bodyOf(part));
  }
  yield* fill(g, chosen, 0.5, null);
}
