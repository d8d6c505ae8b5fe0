import type { Box, Point } from '@/core/circuit/geometry';
import type { Part, Sheet } from '@/core/circuit/sheet';
import { noteTexts } from '@/core/drawing/geometry/pin-notes';
import {
  bodyOf,
  courseOf,
  LABEL_SIZE,
  labelPlace,
  oriented,
  textSide,
} from '@/core/drawing/geometry/placement';
import { spatialIndexOf } from '@/core/drawing/geometry/spatial-index';
import { STEP, type View } from '@/core/drawing/geometry/viewport';
import { circleData } from '@/core/figure/outlines';
import { kindOf } from '@/core/parts/catalogue';
import type { Shape } from '@/core/parts/shape';
import { type Logic, Z } from '@/core/values/logic';
import { atOnce, type Steps } from '@/core/values/steps';
import { setFont, writeText } from '@/ui/controls/paint-text';
import { FONTS, type Palette } from '@/ui/controls/palette';
import type { Size } from '@/ui/controls/usePainter';
import { Layer } from './layer';
import { paintFarSteps } from './paint-far';
import { paintGrid } from './paint-grid';
import { paintBusValues, paintWires, THIN, trace } from './paint-wires';
import { pathOf } from './paths';
import { commonMove, type DraggedObjects, type Overlay, type Scene } from './scene';

/** Height of letters in pixels below which they are left out. */
const READABLE = 4.5;
/** Pixels of a grid step below which symbols are mere boxes. */
const SHAPED = 2.4;

/** Parts of a gesture from which they are kept as a picture. */
const MANY_LIFTED = 1000;

const liftedLayers = new WeakMap<DraggedObjects, Layer>();

/** The picture of the objects that a gesture drags. */
function liftedLayer(of: DraggedObjects): Layer {
  const known = liftedLayers.get(of) ?? new Layer();
  liftedLayers.set(of, known);
  return known;
}

/**
 * Paints a sheet on a canvas context that is scaled to CSS pixels already.
 * @param far keeps a picture of the distant view, and asks for a sharper one later.
 */
export function paint(
  g: CanvasRenderingContext2D,
  size: Size,
  view: View,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  far: { readonly layer: Layer | null; readonly again: () => void } | null = null,
): void {
  const s = STEP * view.scale;
  const now = (of: Scene, look: Overlay) => atOnce(paintSheet(g, size, view, of, look, palette));
  g.save();
  if (far?.layer && s < SHAPED) {
    // While a gesture goes on, untouched parts stay as they were painted.
    const { netlist, values, conflicts, crossings } = scene;
    const { dragged } = overlay;
    const render = (of: Scene, look: Overlay) => (own: CanvasRenderingContext2D, wide: Size, from: View) =>
      paintSheet(own, wide, from, of, { ...look, hover: null }, palette);
    g.fillStyle = palette.paper;
    g.fillRect(0, 0, size.width, size.height);
    const by = dragged && dragged.parts.size > MANY_LIFTED ? commonMove(dragged, scene.sheet) : null;
    const above = { ...overlay, grid: false };
    const lifted = dragged && by ? liftedLayer(dragged) : null;
    // So many stay where they were until there is a picture of them that can be moved along.
    const isApart = dragged !== null && (lifted === null || lifted.isThere);
    const from = dragged ? { ...scene, sheet: dragged.from } : scene;
    const rest = isApart && dragged ? { ...from, some: { of: dragged, lifted: false } } : from;
    const of = [rest.sheet, isApart ? dragged : null, netlist, values, conflicts, crossings];
    const looks = [overlay.parts, overlay.wires, palette];
    far.layer.paint(g, size, view, [...of, ...looks], STEP, render(rest, overlay), far.again);
    if (dragged && by && lifted)
      lifted.paint(
        g,
        size,
        { ...view, x: view.x - by.x, y: view.y - by.y },
        [netlist, values, conflicts, ...looks],
        STEP,
        render({ ...from, some: { of: dragged, lifted: true } }, above),
        far.again,
      );
    else if (dragged) now({ ...scene, some: { of: dragged, lifted: true } }, above);
  } else now(scene, overlay);
  g.scale(s, s);
  g.translate(-view.x, -view.y);
  const seen: Box = { x0: view.x, y0: view.y, x1: view.x + size.width / s, y1: view.y + size.height / s };
  // From far away they would be too small to be seen, and to be taken.
  if (s >= SHAPED) paintEnds(g, scene.sheet, overlay, palette);
  paintOverlay(g, overlay, palette, seen);
  g.restore();
}

/** Paper, wires and parts; from far away in steps. */
function* paintSheet(
  g: CanvasRenderingContext2D,
  size: Size,
  view: View,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
): Steps<void> {
  g.save();
  if (!scene.some?.lifted) {
    g.fillStyle = palette.paper;
    g.fillRect(0, 0, size.width, size.height);
  }
  const s = STEP * view.scale;
  if (overlay.grid && s >= READABLE) paintGrid(g, size, view, palette);
  g.scale(s, s);
  g.translate(-view.x, -view.y);
  g.lineJoin = 'round';
  const seen: Box = { x0: view.x, y0: view.y, x1: view.x + size.width / s, y1: view.y + size.height / s };

  const thin = Math.max(THIN, 1 / s) * palette.lines;
  if (s < SHAPED) yield* paintFarSteps(g, scene, overlay, palette, thin);
  else {
    paintWires(g, scene, overlay, palette, seen, thin);
    if (scene.buses && s >= READABLE) paintBusValues(g, scene, scene.buses, palette, seen);
    for (const part of spatialIndexOf(scene.sheet).partsIn(seen))
      paintPart(g, scene, overlay, palette, part, READABLE / s);
  }
  g.restore();
}

/** @param smallest height in grid steps of letters that can still be read. */
function paintPart(
  g: CanvasRenderingContext2D,
  scene: Scene,
  overlay: Overlay,
  palette: Palette,
  part: Part,
  smallest: number,
): void {
  const kind = kindOf(part);
  const body = bodyOf(part);
  if (overlay.parts.has(part.id) || overlay.hover?.part === part.id || overlay.lit.has(part.id)) {
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
    standard: part.symbols ?? scene.standard,
    value: (port, bit) => {
      const net = scene.netlist.ownNet(part.id, port, bit);
      return net === undefined ? Z : (scene.values[net] as Logic);
    },
    held: scene.on.has(part.id),
    drivenAs: scene.drivenAs?.get(part.id),
    table: scene.table,
  });
  g.translate(part.at.x, part.at.y);
  const turns = part.turn !== 0 || part.mirrored === true;
  for (const shape of shapes) {
    if (shape.shape !== 'text') paintShape(g, shape, turns ? part : null, palette);
    else if (shape.size >= smallest && !(shape.isSignal && scene.isStill)) paintText(g, shape, part, palette);
  }
  g.translate(-part.at.x, -part.at.y);
  if (LABEL_SIZE * palette.letters >= smallest) paintLabel(g, part, palette);
  const note = scene.notes?.get(part.id);
  if (note && smallest <= 1)
    for (const { at, text, size, align, isRef } of noteTexts(scene.sheet, part, note)) {
      g.fillStyle = isRef ? palette.accent : palette.quiet;
      setFont(g, isRef ? 700 : 400, size, isRef ? FONTS.text : FONTS.mono);
      writeText(g, text, at.x, at.y, size, align);
    }
}

function paintText(
  g: CanvasRenderingContext2D,
  shape: Extract<Shape, { shape: 'text' }>,
  part: Part,
  palette: Palette,
): void {
  const at = oriented(shape, part);
  g.fillStyle = palette[shape.paint ?? 'ink'];
  // For a projector small texts grow as far as their parts have room for.
  const size = Math.max(shape.size, Math.min(shape.size * palette.letters, LARGEST_SMALL));
  setFont(g, shape.bold ? 700 : 400, size, shape.face === 'mono' ? FONTS.mono : FONTS.text);
  writeText(g, shape.text, at.x, at.y + size * 0.35, size, textSide(shape.align, part));
}

/** Height in grid steps up to which pin letters, digits and captions grow for a projector. */
const LARGEST_SMALL = 1.1;

/** @param turned the part, if it is rotated. */
function paintShape(
  g: CanvasRenderingContext2D,
  shape: Exclude<Shape, { shape: 'text' }>,
  turned: Part | null,
  palette: Palette,
): void {
  if (turned) {
    g.save();
    g.rotate((turned.turn * Math.PI) / 2);
    if (turned.mirrored) g.scale(-1, 1);
  }
  const data = shape.shape === 'circle' ? circleData(shape.x, shape.y, shape.r) : shape.d;
  const path = pathOf(g, data);
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
  if (turned) g.restore();
}

function paintLabel(g: CanvasRenderingContext2D, part: Part, palette: Palette): void {
  const place = labelPlace(part);
  if (!place) return;
  g.fillStyle = palette.ink;
  const size = LABEL_SIZE * palette.letters;
  setFont(g, 600, size, FONTS.text);
  writeText(g, part.label, place.at.x, place.at.y, size, place.align);
}

/** Small squares at the ends of selected wires, by which they can be taken. */
function paintEnds(g: CanvasRenderingContext2D, sheet: Sheet, overlay: Overlay, palette: Palette): void {
  for (const id of overlay.wires) {
    const wire = sheet.wires.get(id);
    const points = wire ? courseOf(sheet, wire) : [];
    if (points.length < 2) continue;
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
  for (const rubber of overlay.wirePreview) {
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
  for (const { at, grave } of overlay.problems) {
    if (grave) badge(g, at, palette);
    else openEnd(g, at, palette);
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
function openEnd(g: CanvasRenderingContext2D, at: Point, palette: Palette): void {
  g.beginPath();
  g.arc(at.x, at.y, 0.34, 0, 7);
  g.fillStyle = palette.paper;
  g.fill();
  g.strokeStyle = palette.quiet;
  g.lineWidth = 0.16;
  g.stroke();
}

/** The round badge with an exclamation mark that stands at a pin with a problem. */
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
