import type { Sheet } from '@/core/circuit/sheet';
import { bodyOf, courseOf } from '@/core/drawing/geometry/placement';
import type { View } from '@/core/drawing/geometry/viewport';
import { STEP } from '@/core/drawing/geometry/viewport';
import type { Steps } from '@/core/values/steps';
import type { Palette } from '@/ui/controls/palette';

/** Objects that are painted in one step. */
const A_STEP = 1000;

/**
 * A large sheet from far away, in steps: wires as lines and bodies as boxes, without signals, for which it would be compiled.
 */
export function* overviewSteps(
  g: CanvasRenderingContext2D,
  sheet: Sheet,
  view: View,
  palette: Palette,
): Steps<void> {
  const s = STEP * view.scale;
  g.save();
  g.scale(s, s);
  g.translate(-view.x, -view.y);
  g.lineWidth = 1 / s;
  g.strokeStyle = palette.quiet;
  g.fillStyle = palette.ink;
  g.beginPath();
  let done = 0;
  for (const wire of sheet.wires.values()) {
    const [first, ...rest] = courseOf(sheet, wire);
    if (!first) continue;
    g.moveTo(first.x, first.y);
    for (const { x, y } of rest) g.lineTo(x, y);
    if (++done % A_STEP !== 0) continue;
    g.stroke();
    yield;
    g.beginPath();
  }
  g.stroke();
  for (const part of sheet.parts.values()) {
    const { x0, y0, x1, y1 } = bodyOf(part);
    g.fillRect(x0, y0, x1 - x0, y1 - y0);
    if (++done % A_STEP === 0) yield;
  }
  g.restore();
}
