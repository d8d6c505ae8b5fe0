import {
  type Box,
  boundingBoxOfPoints,
  contains,
  eachSegment,
  overlap,
  type Point,
} from '@/core/circuit/geometry';
import { crossingsOf, HOP, longestSegments, type Step, stepsOf } from '@/core/drawing/geometry/crossings';
import { type SpatialIndex, type Stroke, spatialIndexOf } from '@/core/drawing/geometry/spatial-index';
import { STEP } from '@/core/drawing/geometry/viewport';
import { type Logic, ONE, X, Z } from '@/core/values/logic';
import { type Radix, wordText } from '@/core/values/radix';
import { setFont, writeText } from '@/ui/controls/paint-text';
import { FONTS, type Palette } from '@/ui/controls/palette';
import { isOnScreen, newPath } from './paths';
import { isPainted, type Overlay, type Scene, type Signal, signalOf } from './scene';
import { SIGNALS, signalColour } from './signal-look';

/** Line widths of signals in grid steps: 1.5 px and 3.5 px at scale 1. */
export const THIN = 1.5 / STEP;
const MEDIUM = 2 / STEP;
const THICK = 3.5 / STEP;

/** The look of one signal's wires together, and their junctions. */
interface Drawn {
  readonly lines: Path2D;
  readonly marks: Path2D | null;
  readonly dots: Path2D | null;
}

/** The last painted content of a whole sheet: it stays while only the view changes. */
let whole: { readonly of: readonly unknown[]; readonly drawn: ReadonlyMap<Signal, Drawn> } | null = null;

/**
 * Fewer visible strokes than this are sorted again for each frame, which costs less than remembering them.
 */
const MANY = 600;

/**
 * Paints all wires. One signal is stroked as one path, so a stretch that two wires share is painted once.
 * @param thin least width of a line in grid steps.
 */
export function paintWires(
  g: CanvasRenderingContext2D,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  seen: Box,
  thin: number,
): void {
  const index = spatialIndexOf(scene.sheet);
  const wires = scene.some?.lifted
    ? index.some(scene.some.of.wires)
    : index.wiresIn(seen).filter(({ wire }) => isPainted(scene, 'wires', wire!));
  for (const { wire, points } of wires) {
    const colour = scene.sheet.wires.get(wire!)?.colour;
    if (colour) band(g, points, palette[`wire-${colour}`]);
    if (overlay.wires.has(wire!) || overlay.hover?.wire === wire)
      halo(g, points, palette, overlay.wires.has(wire!));
  }
  const all =
    wires.length > MANY && isOnScreen(g)
      ? wholeSheet(g, scene, index)
      : drawn(g, scene, index, scene.some ? wires : [...wires, ...index.freeIn(seen)], seen);
  for (const signal of SIGNALS) {
    const one = all.get(signal);
    if (!one) continue;
    const colour = signalColour(signal, palette);
    const heavy = signal === ONE || signal === 'bus' ? THICK : MEDIUM;
    g.strokeStyle = colour;
    g.lineWidth =
      signal === ONE || signal === 'bus' || signal === 'conflict'
        ? Math.max(heavy * palette.lines, 1.4 * thin)
        : thin;
    g.lineCap = 'butt';
    if (signal === Z) g.setLineDash([0.45, 0.4]);
    else if (signal === 'dark') g.setLineDash([0.12, 0.3]);
    g.stroke(one.lines);
    g.setLineDash([]);
    if (one.marks) g.stroke(one.marks);
    if (one.dots) {
      g.fillStyle = colour;
      g.fill(one.dots);
    }
  }
}

function wholeSheet(
  g: CanvasRenderingContext2D,
  scene: Scene,
  index: SpatialIndex,
): ReadonlyMap<Signal, Drawn> {
  const of = [scene.sheet, scene.netlist, scene.values, scene.conflicts, scene.crossings, scene.told];
  if (!whole?.of.every((w, i) => w === of[i]))
    whole = { of, drawn: drawn(g, scene, index, index.all(), null) };
  return whole.drawn;
}

/** Sorts the visible wires by signal; all of the sheet without a box. */
function drawn(
  g: CanvasRenderingContext2D,
  scene: Scene,
  index: SpatialIndex,
  strokes: readonly Stroke[],
  seen: Box | null,
): Map<Signal, Drawn> {
  const all = new Map<Signal, { lines: Path2D; marks: Path2D | null; dots: Path2D | null }>();
  const of = (signal: Signal) => {
    let one = all.get(signal);
    if (!one) {
      one = { lines: newPath(g), marks: signal === X ? newPath(g) : null, dots: null };
      all.set(signal, one);
    }
    return one;
  };
  const { crossings: style } = scene;
  const crossings = style === 'plain' ? null : crossingsOf(scene.sheet);
  for (const stroke of strokes) {
    const { wire, pin, points } = stroke;
    const signal = signalOf(
      scene,
      wire === undefined ? scene.netlist.netsOfPin(pin!.part, pin!.port) : scene.netlist.netsOfWire(wire),
    );
    const { lines, marks } = of(signal);
    const over = crossings && wire !== undefined ? crossings.get(wire) : undefined;
    if (signal === 'conflict') sawTooth(lines, points);
    else if (over && style !== 'plain') {
      if (stroke.hops?.over !== over) stroke.hops = { over, steps: stepsOf(points, over) };
      traceHops(lines, stroke.hops.steps, style);
    } else trace(lines, points);
    if (marks) crossStrokes(marks, points);
  }
  for (const dots of index.joints().values())
    for (const { at, wire } of dots) {
      if ((seen && !contains(seen, at)) || !isPainted(scene, 'wires', wire)) continue;
      const signal = signalOf(scene, scene.netlist.netsOfWire(wire));
      const one = of(signal);
      one.dots ??= newPath(g);
      const r = signal === ONE ? 0.36 : 0.3;
      one.dots.moveTo(at.x + r, at.y);
      one.dots.arc(at.x, at.y, r, 0, 7);
    }
  return all;
}

/** The wires of a sheet that carry several bits, found once for each netlist. */
const buses = new WeakMap<Scene['netlist'], readonly string[]>();
function busesOf({ netlist, sheet }: Scene): readonly string[] {
  let found = buses.get(netlist);
  if (!found) {
    found = [...sheet.wires.keys()].filter((wire) => (netlist.netsOfWire(wire)?.length ?? 0) > 1);
    buses.set(netlist, found);
  }
  return found;
}

/** Shorter pieces of a bus have no room for its value. */
const ROOM_FOR_VALUE = 4;

/** The width and the value of each bus, along its longest segment. */
export function paintBusValues(
  g: CanvasRenderingContext2D,
  scene: Scene,
  radix: Radix,
  palette: Palette,
  seen: Box,
): void {
  for (const { wire, a, b } of longestSegments(scene.sheet, busesOf(scene))) {
    const nets = scene.netlist.netsOfWire(wire);
    if (!nets || nets.length < 2 || !overlap(boundingBoxOfPoints([a, b])!, seen)) continue;
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
    if (right - left < ROOM_FOR_VALUE || scene.isStill || scene.told?.has(nets[0]!) === false) continue;
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

/** The marker colour of a wire: a band under it, so that its signal stays visible. */
function band(g: CanvasRenderingContext2D, points: readonly Point[], colour: string): void {
  g.beginPath();
  trace(g, points);
  g.strokeStyle = colour;
  g.lineWidth = 0.85;
  g.lineCap = 'round';
  g.stroke();
}

/** A course with its crossings as gaps or as small bridges. */
function traceHops(g: Path2D, steps: readonly Step[], style: 'gap' | 'bridge'): void {
  for (const [i, { to, over }] of steps.entries()) {
    if (i === 0 || (over && style === 'gap')) g.moveTo(to.x, to.y);
    else if (over) {
      const forth = to.x > steps[i - 1]!.to.x;
      g.arc((to.x + steps[i - 1]!.to.x) / 2, to.y, HOP, forth ? Math.PI : 0, forth ? 0 : Math.PI, !forth);
    } else g.lineTo(to.x, to.y);
  }
}

export function trace(g: CanvasRenderingContext2D | Path2D, points: readonly Point[]): void {
  for (const [i, p] of points.entries()) {
    if (i === 0) g.moveTo(p.x, p.y);
    else g.lineTo(p.x, p.y);
  }
}

function crossStrokes(g: Path2D, points: readonly Point[]): void {
  eachSegment(points, (a, b) => {
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    for (let d = 0.7; d < length; d += 1.4) {
      const x = a.x + ((b.x - a.x) * d) / length;
      const y = a.y + ((b.y - a.y) * d) / length;
      g.moveTo(x - 0.22, y + 0.32);
      g.lineTo(x + 0.22, y - 0.32);
    }
  });
}

/** Teeth are at fixed places of the sheet, not of the wire, so wires that share a stretch share its teeth. */
function sawTooth(g: Path2D, points: readonly Point[]): void {
  const TOOTH = 0.5;
  eachSegment(points, (a, b) => {
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
