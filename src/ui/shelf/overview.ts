import type { Sheet } from '@/core/circuit/sheet';
import { bodyOf, courseOf } from '@/core/drawing/geometry/placement';
import type { View } from '@/core/drawing/geometry/viewport';
import { STEP } from '@/core/drawing/geometry/viewport';
import type { Palette } from '@/ui/controls/palette';

/** A large sheet from far away: wires as lines and bodies as boxes, without signals, for which it would be compiled. */
export function paintOverview(g: CanvasRenderingContext2D, sheet: Sheet, view: View, palette: Palette): void {
  const s = STEP * view.scale;
  g.save();
  g.scale(s, s);
  g.translate(-view.x, -view.y);
  g.lineWidth = 1 / s;
  g.strokeStyle = palette.quiet;
  g.beginPath();
  for (const wire of sheet.wires.values()) {
    const [first, ...rest] = courseOf(sheet, wire);
    if (!first) continue;
    g.moveTo(first.x, first.y);
    for (const { x, y } of rest) g.lineTo(x, y);
  }
  g.stroke();
  g.fillStyle = palette.ink;
  for (const part of sheet.parts.values()) {
    const { x0, y0, x1, y1 } = bodyOf(part);
    g.fillRect(x0, y0, x1 - x0, y1 - y0);
  }
  g.restore();
}
