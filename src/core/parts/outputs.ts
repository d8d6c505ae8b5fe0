import { ONE, X, Z } from '../values/logic';
import { z } from '../values/schema';
import type { PartKind } from './part-kind';
import { LINE, type Shape } from './shape';

const RAYS = [0, 1, 2, 3, 4, 5, 6, 7]
  .map((i) => {
    const c = Math.cos((i * Math.PI) / 4);
    const s = Math.sin((i * Math.PI) / 4);
    return i === 4
      ? ''
      : `M${(c * 1.5).toFixed(3)} ${(s * 1.5).toFixed(3)}L${(c * 2).toFixed(3)} ${(s * 2).toFixed(3)}`;
  })
  .join('');

export const lampKind: PartKind = {
  kind: 'lamp',
  family: 'Outputs',
  name: 'Lamp',
  typed: ['lamp', 'light', 'output', 'led'],
  says: 'An output: shines while its input is 1.',
  labelled: 'L',
  labelSide: 'right',
  params: z.object({}),
  ports: () => [{ name: 'A', direction: 'in', width: 1, x: -2, y: 0, side: 'left', lead: 0.9 }],
  body: () => ({ x0: -1.1, y0: -1.1, x1: 1.1, y1: 1.1 }),
  role: () => ({ role: 'output' }),
  symbol: (_, look) => {
    const value = look.value('A');
    const shapes: Shape[] = [
      {
        shape: 'circle',
        x: 0,
        y: 0,
        r: 1.1,
        fill: value === ONE ? 'one' : 'raised',
        stroke: 'ink',
        weight: LINE,
      },
    ];
    if (value === ONE) shapes.push({ shape: 'path', d: RAYS, stroke: 'one', weight: 0.2 });
    if (value === X || value === Z)
      shapes.push({
        shape: 'text',
        x: 0,
        y: 0,
        text: '?',
        size: 1.1,
        align: 'center',
        paint: 'quiet',
        bold: true,
      });
    return shapes;
  },
  build: () => {},
  spoken: () => 'lamp',
};
