import type { Box, Point } from '@/core/circuit/geometry';
import { eachPiece, overlap } from '@/core/circuit/geometry';
import {
  type End,
  isPinEnd,
  type Part,
  type PinEnd,
  type Settings,
  type Sheet,
  type Wire,
} from '@/core/circuit/lesson';
import type { Guide } from '@/core/drawing/arrange';
import { crossingsOf, HOP, longestPieces, type Step, stepsOf } from '@/core/drawing/crossings';
import { jointsOf } from '@/core/drawing/joints';
import {
  bodyOf,
  courseOf,
  footprintOf,
  labelSide,
  oriented,
  pinsOf,
  textSide,
} from '@/core/drawing/placement';
import type { SheetNets } from '@/core/netlist/netlist';
import { kindOf } from '@/core/parts/catalogue';
import type { Shape, TableLook } from '@/core/parts/shape';
import { type Logic, ONE, X, Z, ZERO } from '@/core/values/logic';
import { runsOf } from '@/core/values/markup';
import { type Radix, wordText } from '@/core/values/radix';
import { FONTS, type Palette } from './palette';
import { STEP, type View } from './view';

/** How a signal is drawn: its value, two drivers against each other, or several bits together. */
export type Signal = Logic | 'conflict' | 'bus';

/** What is on the sheet at the moment. */
export interface Scene {
  readonly sheet: Sheet;
  readonly netlist: SheetNets;
  readonly values: Uint8Array;
  readonly conflicts: ReadonlySet<number>;
  readonly standard: 'distinctive' | 'rectangular';
  readonly crossings: Settings['crossings'];
  /** How values of buses are written along their wires; not at all without it. */
  readonly buses?: Radix;
  /** Buttons that are held, by part. */
  readonly on: ReadonlySet<string>;
  /** The sheet's truth table, for notes that show it. */
  readonly table?: (() => TableLook | null) | undefined;
}

/** What the hand is doing on it. */
export interface Overlay {
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  readonly hover: { readonly part?: string; readonly wire?: string; readonly pin?: Point } | null;
  /** Wires that are being drawn. */
  readonly rubber: readonly (readonly Point[])[];
  readonly box: Box | null;
  /** Lines with which a part being moved is in line. */
  readonly guides: readonly Guide[];
  /** The line from which everything is being moved away. */
  readonly border: { readonly axis: 'across' | 'down'; readonly at: number } | null;
  /** Where pins will be joined. */
  readonly touches: readonly Point[];
  /** Places of pins with a complaint; one that is not grave is merely loose. */
  readonly trouble: readonly { readonly at: Point; readonly grave: boolean }[];
  readonly grid: boolean;
}

export const PLAIN: Overlay = {
  parts: new Set(),
  wires: new Set(),
  hover: null,
  rubber: [],
  box: null,
  guides: [],
  border: null,
  touches: [],
  trouble: [],
  grid: false,
};

const paths = new Map<string, Path2D>();
function pathOf(d: string): Path2D {
  let path = paths.get(d);
  if (!path) {
    path = new Path2D(d);
    paths.set(d, path);
  }
  return path;
}

/** Line widths of signals in grid steps: 1.5 px and 3.5 px at scale 1. */
const THIN = 1.5 / STEP;
const MEDIUM = 2 / STEP;
const THICK = 3.5 / STEP;

export function signalAt(scene: Scene, net: number | undefined): Signal {
  if (net === undefined) return Z;
  return scene.conflicts.has(net) ? 'conflict' : (scene.values[net] as Logic);
}

/** Paints a sheet on a canvas context that is scaled to CSS pixels already. */
export function paint(
  g: CanvasRenderingContext2D,
  size: { width: number; height: number },
  view: View,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
): void {
  g.save();
  g.fillStyle = palette.paper;
  g.fillRect(0, 0, size.width, size.height);
  if (overlay.grid) paintGrid(g, size, view, palette);
  const s = STEP * view.scale;
  g.scale(s, s);
  g.translate(-view.x, -view.y);
  g.lineJoin = 'round';
  const seen: Box = { x0: view.x, y0: view.y, x1: view.x + size.width / s, y1: view.y + size.height / s };

  const thin = Math.max(THIN, 1 / s) * palette.lines;
  paintWires(g, scene, overlay, palette, seen, thin);
  if (scene.buses) paintBusValues(g, scene, scene.buses, palette, seen);
  for (const part of scene.sheet.parts.values())
    if (overlap(footprintOf(part), seen)) paintPart(g, scene, overlay, palette, part);
  paintEnds(g, scene.sheet, overlay, palette);
  paintOverlay(g, overlay, palette, seen);
  g.restore();
}

function paintGrid(
  g: CanvasRenderingContext2D,
  size: { width: number; height: number },
  view: View,
  palette: Palette,
) {
  const every = view.scale < 0.5 ? 4 : 2;
  const s = STEP * view.scale;
  g.fillStyle = palette.grid;
  const x0 = Math.ceil(view.x / every) * every;
  const y0 = Math.ceil(view.y / every) * every;
  for (let y = y0; (y - view.y) * s < size.height; y += every)
    for (let x = x0; (x - view.x) * s < size.width; x += every)
      g.fillRect(Math.round((x - view.x) * s) - 0.5, Math.round((y - view.y) * s) - 0.5, 1.5, 1.5);
}

function bounds(points: readonly Point[]): Box {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

const courses = new WeakMap<Sheet, Map<string, Point[]>>();
/** Courses of all wires of a sheet, found once for each version of it. */
export function coursesOf(sheet: Sheet): ReadonlyMap<string, Point[]> {
  let all = courses.get(sheet);
  if (!all) {
    all = new Map([...sheet.wires.values()].map((w: Wire) => [w.id, courseOf(sheet, w)]));
    courses.set(sheet, all);
  }
  return all;
}

interface Stroke {
  readonly wire?: string;
  readonly pin?: PinEnd;
  readonly points: Point[];
  readonly bounds: Box;
  /** The same with its crossings as hops, where there are any. */
  hops?: readonly Step[];
}

const strokes = new WeakMap<Sheet, Stroke[]>();
/** What is drawn as signals: each wire with the leads at its ends in one stroke, and the leads of free pins. */
function strokesOf(sheet: Sheet): readonly Stroke[] {
  let all = strokes.get(sheet);
  if (all) return all;
  all = [];
  const inside = new Map<string, Point>();
  for (const part of sheet.parts.values())
    for (const { at, out, port } of pinsOf(part))
      inside.set(`${part.id}\n${port.name}`, { x: at.x - out.x * port.lead, y: at.y - out.y * port.lead });
  const wired = new Set<string>();
  const leadOf = (end: End): Point[] => {
    if (!isPinEnd(end)) return [];
    const key = `${end.part}\n${end.port}`;
    wired.add(key);
    const p = inside.get(key);
    return p ? [p] : [];
  };
  for (const [wire, points] of coursesOf(sheet)) {
    const { from, to } = sheet.wires.get(wire)!;
    if (points.length < 2) continue;
    const whole = [...leadOf(from), ...points, ...leadOf(to)];
    all.push({ wire, points: whole, bounds: bounds(whole) });
  }
  for (const part of sheet.parts.values())
    for (const pin of pinsOf(part)) {
      const key = `${part.id}\n${pin.port.name}`;
      if (wired.has(key)) continue;
      const points = [pin.at, inside.get(key)!];
      all.push({ pin: { part: part.id, port: pin.port.name }, points, bounds: bounds(points) });
    }
  strokes.set(sheet, all);
  return all;
}

function paintWires(
  g: CanvasRenderingContext2D,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  seen: Box,
  thin: number,
): void {
  const bySignal = new Map<Signal, Stroke[]>();
  const crossings = scene.crossings === 'plain' ? null : crossingsOf(scene.sheet);
  for (const stroke of strokesOf(scene.sheet)) {
    const { wire, pin, points } = stroke;
    if (!overlap(stroke.bounds, seen)) continue;
    const colour = wire === undefined ? undefined : scene.sheet.wires.get(wire)?.colour;
    if (colour) band(g, points, palette[`wire-${colour}`]);
    const over = crossings && wire !== undefined ? crossings.get(wire) : undefined;
    if (over) stroke.hops ??= stepsOf(points, over);
    if (wire !== undefined && (overlay.wires.has(wire) || overlay.hover?.wire === wire))
      halo(g, points, palette, overlay.wires.has(wire));
    const nets =
      wire === undefined ? scene.netlist.netsOfPin(pin!.part, pin!.port) : scene.netlist.netsOfWire(wire);
    const signal = nets && nets.length > 1 ? busSignal(scene, nets) : signalAt(scene, nets?.[0]);
    const list = bySignal.get(signal);
    if (list) list.push(stroke);
    else bySignal.set(signal, [stroke]);
  }
  for (const signal of [ZERO, Z, X, ONE, 'bus', 'conflict'] as const)
    strokeSignal(g, signal, bySignal.get(signal) ?? [], palette, thin, scene.crossings);
  for (const joint of jointsOf(scene.sheet)) {
    const nets = scene.netlist.netsOfWire(joint.wire);
    const signal = nets && nets.length > 1 ? busSignal(scene, nets) : signalAt(scene, nets?.[0]);
    g.fillStyle = signalColour(signal, palette);
    g.beginPath();
    g.arc(joint.at.x, joint.at.y, signal === ONE ? 0.36 : 0.3, 0, 7);
    g.fill();
  }
}

/** Shorter pieces of a bus have no room for its value. */
const ROOM_FOR_VALUE = 4;

/** How wide each bus is and what it carries, along its longest piece. */
function paintBusValues(
  g: CanvasRenderingContext2D,
  scene: Scene,
  radix: Radix,
  palette: Palette,
  seen: Box,
): void {
  for (const { wire, a, b } of longestPieces(scene.sheet)) {
    const nets = scene.netlist.netsOfWire(wire);
    if (!nets || nets.length < 2 || !overlap(bounds([a, b]), seen)) continue;
    const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    if (right - left < 2) continue;
    g.strokeStyle = palette.ink;
    g.lineWidth = 0.12;
    g.beginPath();
    g.moveTo(left + 0.7, a.y + 0.55);
    g.lineTo(left + 1.3, a.y - 0.55);
    g.stroke();
    g.fillStyle = palette.quiet;
    setFont(g, 400, 0.8, FONTS.mono);
    writeText(g, String(nets.length), left + 1.1, a.y - 0.7, 0.8, 'center');
    if (right - left < ROOM_FOR_VALUE) continue;
    const text = wordText(
      nets.map((net) => scene.values[net] as Logic),
      radix,
    );
    const size = 0.95 * palette.letters;
    setFont(g, 600, size, FONTS.mono);
    const at = { x: (left + 2 + right) / 2, y: a.y };
    const half = g.measureText(text).width / 2 + 0.25;
    if (2 * half > right - left - 2) continue;
    g.fillStyle = palette.paper;
    g.fillRect(at.x - half, at.y - size * 0.6, 2 * half, size * 1.2);
    g.fillStyle = palette.ink;
    writeText(g, text, at.x, at.y + size * 0.35, size, 'center');
  }
}

/** A bus is one strong line of ink, whatever its bits are, but for a conflict on one of them. */
function busSignal(scene: Scene, nets: readonly number[]): Signal {
  return nets.some((net) => scene.conflicts.has(net)) ? 'conflict' : 'bus';
}

function signalColour(signal: Signal, palette: Palette): string {
  switch (signal) {
    case ZERO:
      return palette.zero;
    case ONE:
      return palette.one;
    case X:
      return palette.unknown;
    case Z:
      return palette.undriven;
    case 'bus':
      return palette.ink;
    default:
      return palette.conflict;
  }
}

function halo(
  g: CanvasRenderingContext2D,
  points: readonly Point[],
  palette: Palette,
  chosen: boolean,
): void {
  g.beginPath();
  trace(g, points);
  g.strokeStyle = chosen ? palette.accent : palette['accent-soft'];
  g.globalAlpha = chosen ? 0.35 : 1;
  g.lineWidth = 0.75;
  g.lineCap = 'round';
  g.stroke();
  g.globalAlpha = 1;
}

/** The colour that a wire is marked with: a band under it, so that its signal stays what it is. */
function band(g: CanvasRenderingContext2D, points: readonly Point[], colour: string): void {
  g.beginPath();
  trace(g, points);
  g.strokeStyle = colour;
  g.lineWidth = 0.85;
  g.lineCap = 'round';
  g.stroke();
}

/** A course with its crossings as gaps or as small bridges. */
function traceHops(g: CanvasRenderingContext2D, steps: readonly Step[], style: 'gap' | 'bridge'): void {
  for (const [i, { to, over }] of steps.entries()) {
    if (i === 0 || (over && style === 'gap')) g.moveTo(to.x, to.y);
    else if (over) {
      const forth = to.x > steps[i - 1]!.to.x;
      g.arc((to.x + steps[i - 1]!.to.x) / 2, to.y, HOP, forth ? Math.PI : 0, forth ? 0 : Math.PI, !forth);
    } else g.lineTo(to.x, to.y);
  }
}

function trace(g: CanvasRenderingContext2D, points: readonly Point[]): void {
  for (const [i, p] of points.entries()) {
    if (i === 0) g.moveTo(p.x, p.y);
    else g.lineTo(p.x, p.y);
  }
}

/**
 * One signal along several courses: told by weight and pattern as much as by colour. They are stroked as one
 * path, so that a stretch which two wires share is not painted twice.
 */
function strokeSignal(
  g: CanvasRenderingContext2D,
  signal: Signal,
  courses: readonly Stroke[],
  palette: Palette,
  thin: number,
  crossings: Settings['crossings'],
): void {
  if (courses.length === 0) return;
  g.strokeStyle = signalColour(signal, palette);
  const heavy = signal === ONE || signal === 'bus' ? THICK : MEDIUM;
  g.lineWidth = signal === ONE || signal === 'bus' || signal === 'conflict' ? heavy * palette.lines : thin;
  g.lineCap = 'butt';
  if (signal === Z) g.setLineDash([0.45, 0.4]);
  g.beginPath();
  for (const { points, hops } of courses) {
    if (signal === 'conflict') sawTooth(g, points);
    else if (hops && crossings !== 'plain') traceHops(g, hops, crossings);
    else trace(g, points);
  }
  g.stroke();
  g.setLineDash([]);
  if (signal !== X) return;
  g.beginPath();
  for (const { points } of courses) crossStrokes(g, points);
  g.stroke();
}

function crossStrokes(g: CanvasRenderingContext2D, points: readonly Point[]): void {
  eachPiece(points, (a, b) => {
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    for (let d = 0.7; d < length; d += 1.4) {
      const x = a.x + ((b.x - a.x) * d) / length;
      const y = a.y + ((b.y - a.y) * d) / length;
      g.moveTo(x - 0.22, y + 0.32);
      g.lineTo(x + 0.22, y - 0.32);
    }
  });
}

/** Teeth stand at places of the sheet, not of the wire, so that wires which share a stretch share its teeth. */
function sawTooth(g: CanvasRenderingContext2D, points: readonly Point[]): void {
  const TOOTH = 0.5;
  eachPiece(points, (a, b) => {
    const flat = a.y === b.y;
    const [from, to] = flat ? [a.x, b.x] : [a.y, b.y];
    const [least, most] = [Math.min(from, to), Math.max(from, to)];
    const at = (along: number, aside: number) =>
      flat ? ([along, a.y + aside] as const) : ([a.x + aside, along] as const);
    g.moveTo(...at(least, 0));
    for (let k = Math.ceil(least / TOOTH + 0.5); (k + 0.5) * TOOTH <= most; k++)
      g.lineTo(...at(k * TOOTH, k % 2 === 0 ? 0.35 : -0.35));
    g.lineTo(...at(most, 0));
  });
}

function paintPart(
  g: CanvasRenderingContext2D,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  part: Part,
): void {
  const kind = kindOf(part);
  const body = bodyOf(part);
  if (overlay.parts.has(part.id) || overlay.hover?.part === part.id) {
    g.beginPath();
    g.roundRect(body.x0 - 0.35, body.y0 - 0.35, body.x1 - body.x0 + 0.7, body.y1 - body.y0 + 0.7, 0.6);
    g.fillStyle = palette['accent-soft'];
    g.fill();
    if (overlay.parts.has(part.id)) {
      g.strokeStyle = palette.accent;
      g.lineWidth = 0.12;
      g.stroke();
    }
  }
  const shapes = kind.symbol(part.params, {
    standard: scene.standard,
    value: (port, bit) => {
      const net = scene.netlist.ownNet(part.id, port, bit);
      return net === undefined ? Z : (scene.values[net] as Logic);
    },
    held: scene.on.has(part.id),
    table: scene.table,
  });
  g.save();
  g.translate(part.at.x, part.at.y);
  for (const shape of shapes) paintShape(g, shape, part, palette);
  g.restore();
  paintLabel(g, part, body, palette);
}

function paintShape(g: CanvasRenderingContext2D, shape: Shape, part: Part, palette: Palette): void {
  if (shape.shape === 'text') {
    const at = oriented(shape, part);
    g.fillStyle = palette[shape.paint ?? 'ink'];
    setFont(g, shape.bold ? 700 : 400, shape.size, shape.face === 'mono' ? FONTS.mono : FONTS.text);
    const align = textSide(shape.align, part);
    writeText(g, shape.text, at.x, at.y + shape.size * 0.35, shape.size, align);
    return;
  }
  g.save();
  g.rotate((part.turn * Math.PI) / 2);
  if (part.mirrored) g.scale(-1, 1);
  let path: Path2D;
  if (shape.shape === 'circle') {
    path = new Path2D();
    path.arc(shape.x, shape.y, shape.r, 0, 7);
  } else path = pathOf(shape.d);
  if (shape.fill) {
    g.fillStyle = palette[shape.fill];
    g.fill(path);
  }
  if (shape.stroke) {
    g.strokeStyle = palette[shape.stroke];
    g.lineWidth = (shape.weight ?? 0.1) * palette.lines;
    g.lineCap = 'round';
    g.stroke(path);
  }
  g.restore();
}

/** Height of labels in grid steps. */
const LABEL = 1.15;
let font = { weight: 400, face: FONTS.text };

function setFont(g: CanvasRenderingContext2D, weight: number, size: number, face: string): void {
  font = { weight, face };
  g.font = `${weight} ${size}px ${face}`;
}

/** Writes a text with its subscripts and bars, in the font that was set last. */
function writeText(
  g: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  size: number,
  align: 'left' | 'center' | 'right',
): void {
  g.textBaseline = 'alphabetic';
  if (!/[_~]/.test(text)) {
    g.textAlign = align;
    g.fillText(text, x, y);
    return;
  }
  const { weight, face } = font;
  const sized = (low: boolean) => setFont(g, weight, low ? size * 0.72 : size, face);
  const runs = runsOf(text).map((run) => {
    sized(run.low);
    return { ...run, width: g.measureText(run.text).width };
  });
  const whole = runs.reduce((sum, run) => sum + run.width, 0);
  let at = align === 'left' ? x : align === 'right' ? x - whole : x - whole / 2;
  g.textAlign = 'left';
  for (const { text: said, low, barred, width } of runs) {
    sized(low);
    const base = low ? y + size * 0.22 : y;
    g.fillText(said, at, base);
    if (barred) g.fillRect(at, y - size * 0.86, width, size * 0.08);
    at += width;
  }
  sized(false);
}

function paintLabel(g: CanvasRenderingContext2D, part: Part, body: Box, palette: Palette): void {
  if (!part.label) return;
  const side = labelSide(part);
  g.fillStyle = palette.ink;
  const size = LABEL * palette.letters;
  setFont(g, 600, size, FONTS.text);
  const middle = (body.y0 + body.y1) / 2 + 0.4;
  if (side === 'left') {
    writeText(g, part.label, body.x0 - 0.85, middle, size, 'right');
  } else if (side === 'right') {
    writeText(g, part.label, body.x1 + 1.3, middle, size, 'left');
  } else if (side === 'top') {
    writeText(g, part.label, (body.x0 + body.x1) / 2, body.y0 - 0.6, size, 'center');
  }
}

/** Small squares at the ends of selected wires, by which they can be taken. */
function paintEnds(g: CanvasRenderingContext2D, sheet: Sheet, overlay: Overlay, palette: Palette): void {
  const all = coursesOf(sheet);
  for (const wire of overlay.wires) {
    const points = all.get(wire);
    if (!points || points.length < 2) continue;
    for (const p of [points[0]!, points.at(-1)!]) {
      g.fillStyle = palette.raised;
      g.strokeStyle = palette.accent;
      g.lineWidth = 0.14;
      g.beginPath();
      g.rect(p.x - 0.3, p.y - 0.3, 0.6, 0.6);
      g.fill();
      g.stroke();
    }
  }
}

function line(
  g: CanvasRenderingContext2D,
  axis: 'across' | 'down',
  at: number,
  from: number,
  to: number,
): void {
  g.beginPath();
  if (axis === 'across') {
    g.moveTo(from, at);
    g.lineTo(to, at);
  } else {
    g.moveTo(at, from);
    g.lineTo(at, to);
  }
  g.stroke();
}

function paintOverlay(g: CanvasRenderingContext2D, overlay: Overlay, palette: Palette, seen: Box): void {
  g.strokeStyle = palette.accent;
  g.lineWidth = 0.08;
  for (const guide of overlay.guides) line(g, guide.axis, guide.at, guide.from, guide.to);
  if (overlay.border) {
    const { axis, at } = overlay.border;
    g.lineWidth = 0.16;
    g.setLineDash([0.8, 0.5]);
    // Everything to the right of an upright line moves, or below a level one.
    if (axis === 'across') line(g, 'down', at, seen.y0, seen.y1);
    else line(g, 'across', at, seen.x0, seen.x1);
    g.setLineDash([]);
  }
  for (const p of overlay.touches) {
    g.beginPath();
    g.arc(p.x, p.y, 0.6, 0, 7);
    g.lineWidth = 0.22;
    g.stroke();
  }
  for (const rubber of overlay.rubber) {
    if (rubber.length < 2) continue;
    g.beginPath();
    trace(g, rubber);
    g.strokeStyle = palette.accent;
    g.lineWidth = 0.2;
    g.setLineDash([0.5, 0.35]);
    g.stroke();
    g.setLineDash([]);
  }
  if (overlay.hover?.pin) {
    g.beginPath();
    g.arc(overlay.hover.pin.x, overlay.hover.pin.y, 0.55, 0, 7);
    g.strokeStyle = palette.accent;
    g.lineWidth = 0.18;
    g.stroke();
  }
  for (const { at, grave } of overlay.trouble) {
    if (grave) badge(g, at, palette);
    else looseEnd(g, at, palette);
  }
  if (overlay.box) {
    const { x0, y0, x1, y1 } = overlay.box;
    g.fillStyle = palette.accent;
    g.globalAlpha = 0.1;
    g.fillRect(x0, y0, x1 - x0, y1 - y0);
    g.globalAlpha = 1;
    g.strokeStyle = palette.accent;
    g.lineWidth = 0.08;
    g.strokeRect(x0, y0, x1 - x0, y1 - y0);
  }
}

/** The small open ring at a pin that nothing is wired to. */
function looseEnd(g: CanvasRenderingContext2D, at: Point, palette: Palette): void {
  g.beginPath();
  g.arc(at.x, at.y, 0.34, 0, 7);
  g.fillStyle = palette.paper;
  g.fill();
  g.strokeStyle = palette.conflict;
  g.lineWidth = 0.16;
  g.stroke();
}

/** The round badge with an exclamation mark that stands at a pin in trouble. */
function badge(g: CanvasRenderingContext2D, at: Point, palette: Palette): void {
  g.beginPath();
  g.arc(at.x, at.y - 0.9, 0.62, 0, 7);
  g.fillStyle = palette.conflict;
  g.fill();
  g.fillStyle = palette.raised;
  g.font = `700 1px ${FONTS.text}`;
  g.textAlign = 'center';
  g.textBaseline = 'alphabetic';
  g.fillText('!', at.x, at.y - 0.55);
}
