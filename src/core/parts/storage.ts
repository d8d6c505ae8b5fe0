import { letterOf } from '../values/logic';
import { z } from '../values/schema';
import { CLOCK_TO_Q } from './delays';
import type { PartKind } from './part-kind';
import { NO_DELAY, Primitive } from './primitive';
import { bubble, LINE, outline, roundedBox } from './shape';

export const dFlipFlop: PartKind = {
  kind: 'dff',
  family: 'Storage',
  name: 'D flip-flop',
  typed: ['d', 'dff', 'd flip-flop'],
  says: 'At the clock edge it takes the value of D, shows it on Q, and keeps it until the next edge.',
  labelled: '',
  labelSide: 'top',
  params: z.object({ edge: z._default(z.enum(['rising', 'falling']), 'rising') }),
  settings: [
    {
      param: 'edge',
      label: 'Takes D on the',
      control: 'choice',
      options: [
        { value: 'rising', label: 'rising edge' },
        { value: 'falling', label: 'falling edge' },
      ],
    },
  ],
  typedWord: (word) => {
    if (word === 'rise' || word === 'rising') return { edge: 'rising' };
    return word === 'fall' || word === 'falling' ? { edge: 'falling' } : null;
  },
  ports: () => [
    { name: 'D', direction: 'in', width: 1, x: -4, y: -2, side: 'left', lead: 1 },
    { name: 'C', direction: 'in', width: 1, x: -4, y: 2, side: 'left', lead: 1 },
    { name: 'Q', direction: 'out', width: 1, x: 4, y: -2, side: 'right', lead: 1 },
    { name: "Q'", direction: 'out', width: 1, x: 4, y: 2, side: 'right', lead: 1 },
  ],
  body: () => ({ x0: -3, y0: -3.4, x1: 3, y1: 3.4 }),
  symbol: (params, look) => {
    const held = look.value('Q');
    return [
      outline(roundedBox(-3, -3.4, 3, 3.4, 0.4)),
      { shape: 'text', x: -2.5, y: -2, text: 'D', size: 1, align: 'left' },
      { shape: 'path', d: 'M-3 1.4L-2.1 2L-3 2.6', stroke: 'ink', weight: LINE },
      ...(params.edge === 'falling' ? [bubble(-3.3, 2)] : []),
      { shape: 'text', x: 2.5, y: -2, text: 'Q', size: 1, align: 'right' },
      { shape: 'text', x: 2.5, y: 2, text: 'Q′', size: 1, align: 'right' },
      {
        shape: 'circle',
        x: 0,
        y: 0,
        r: 0.85,
        fill: held === 1 ? 'one' : 'paper',
        stroke: 'hairline',
        weight: LINE,
      },
      { shape: 'text', x: 0, y: 0, text: letterOf(held), size: 1, align: 'center', face: 'mono', bold: true },
    ];
  },
  build: (params, b) => {
    const state = b.inner('state');
    const op = params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE;
    b.add(op, [b.pin('D'), b.pin('C')], state, NO_DELAY);
    b.add(Primitive.BUF, [state], b.pin('Q'), CLOCK_TO_Q);
    b.add(Primitive.NOT, [state], b.pin("Q'"), CLOCK_TO_Q);
  },
  spoken: (params) => `D flip-flop, ${params.edge} edge`,
};
