import type { Box } from '../circuit/geometry';
import type { Port } from './part-kind';
import { bubble, LINE, outline, roundedBox, type Shape } from './shape';

/** One pin of a part that is drawn as a box. */
export interface BoxPin {
  readonly name: string;
  readonly direction?: 'in' | 'out' | 'both';
  readonly width?: number;
  /** The text beside the pin inside the box; the name if none is given. */
  readonly text?: string;
  /** Drawn with a bubble. */
  readonly inverted?: boolean;
  /** Drawn with the wedge of an edge-triggered input. */
  readonly clock?: boolean;
}

export interface BoxLayout {
  readonly title?: string;
  /** Under the title, smaller. */
  readonly subtitle?: string;
  readonly left?: readonly BoxPin[];
  readonly right?: readonly BoxPin[];
  readonly top?: readonly BoxPin[];
  readonly bottom?: readonly BoxPin[];
  /** Grid steps from the middle to the sides; otherwise as the texts need. */
  readonly halfWidth?: number;
}

const LETTER = 0.55;
const PITCH = 2;

const textOf = (pin: BoxPin) => pin.text ?? pin.name;
const longest = (pins: readonly BoxPin[] = []) => Math.max(0, ...pins.map((p) => textOf(p).length));

interface Measures {
  readonly halfWidth: number;
  readonly halfHeight: number;
}

function measure(layout: BoxLayout): Measures {
  const rows = Math.max(layout.left?.length ?? 0, layout.right?.length ?? 0, 1);
  const columns = Math.max(layout.top?.length ?? 0, layout.bottom?.length ?? 0, 1);
  const titleWidth = Math.max((layout.title ?? '').length * 0.62, (layout.subtitle ?? '').length * 0.5);
  const texts = (longest(layout.left) + longest(layout.right)) * LETTER + titleWidth + 1.6;
  const halfWidth = layout.halfWidth ?? Math.max(2, Math.ceil(Math.max(texts, columns * PITCH + 1) / 2));
  const room = (layout.top?.length || layout.bottom?.length) && rows % 2 === 0 ? 1 : 0;
  return { halfWidth, halfHeight: Math.max(2, rows + room) };
}

/** Distance along a side of the i-th of n pins from its middle, in whole grid steps. */
const along = (i: number, n: number) => PITCH * i - (n - 1);

export function boxPorts(layout: BoxLayout): Port[] {
  const { halfWidth, halfHeight } = measure(layout);
  const ports: Port[] = [];
  const side = (pins: readonly BoxPin[] | undefined, where: Port['side']) => {
    const upright = where === 'top' || where === 'bottom';
    const away = (where === 'left' || where === 'top' ? -1 : 1) * ((upright ? halfHeight : halfWidth) + 1);
    for (const [i, pin] of (pins ?? []).entries()) {
      const at = along(i, pins!.length);
      ports.push({
        name: pin.name,
        direction: pin.direction ?? (where === 'right' ? 'out' : 'in'),
        width: pin.width ?? 1,
        x: upright ? at : away,
        y: upright ? away : at,
        side: where,
        lead: pin.inverted ? 0.4 : 1,
      });
    }
  };
  side(layout.left, 'left');
  side(layout.top, 'top');
  side(layout.bottom, 'bottom');
  side(layout.right, 'right');
  return ports;
}

export function boxBody(layout: BoxLayout): Box {
  const { halfWidth, halfHeight } = measure(layout);
  return { x0: -halfWidth, y0: -halfHeight, x1: halfWidth, y1: halfHeight };
}

export function boxSymbol(layout: BoxLayout): Shape[] {
  const { halfWidth: w, halfHeight: h } = measure(layout);
  const shapes: Shape[] = [outline(roundedBox(-w, -h, w, h, 0.4))];
  const text = (x: number, y: number, said: string, align: 'left' | 'center' | 'right'): Shape => ({
    shape: 'text',
    x,
    y,
    text: said,
    size: 0.9,
    align,
  });
  const pins = (list: readonly BoxPin[] | undefined, where: 'left' | 'right') => {
    const edge = where === 'left' ? -w : w;
    const into = where === 'left' ? 1 : -1;
    for (const [i, pin] of (list ?? []).entries()) {
      const y = along(i, list!.length);
      if (pin.inverted) shapes.push(bubble(edge - 0.3 * into, y));
      if (pin.clock)
        shapes.push({
          shape: 'path',
          d: `M${edge} ${y - 0.6}L${edge + 0.9 * into} ${y}L${edge} ${y + 0.6}`,
          stroke: 'ink',
          weight: LINE,
        });
      const said = pin.clock ? '' : textOf(pin);
      if (said) shapes.push(text(edge + 0.4 * into, y, said, where));
    }
  };
  pins(layout.left, 'left');
  pins(layout.right, 'right');
  for (const [list, edge, into] of [
    [layout.top, -h, 1],
    [layout.bottom, h, -1],
  ] as const)
    for (const [i, pin] of (list ?? []).entries()) {
      const x = along(i, list!.length);
      if (pin.inverted) shapes.push(bubble(x, edge - 0.3 * into));
      if (textOf(pin)) shapes.push(text(x, edge + 0.75 * into, textOf(pin), 'center'));
    }
  // In the middle of the room between the texts at the sides.
  const middle = ((longest(layout.left) - longest(layout.right)) * LETTER) / 2;
  if (layout.title)
    shapes.push({
      shape: 'text',
      x: middle,
      y: layout.subtitle ? -0.5 : 0,
      text: layout.title,
      size: 1.05,
      align: 'center',
      bold: true,
    });
  if (layout.subtitle)
    shapes.push({
      shape: 'text',
      x: middle,
      y: 0.7,
      text: layout.subtitle,
      size: 0.8,
      align: 'center',
      paint: 'quiet',
    });
  return shapes;
}
