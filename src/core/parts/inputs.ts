import { ONE, ZERO } from '../values/logic';
import { whole, z } from '../values/schema';
import type { PartKind, Port } from './part-kind';
import { LINE, roundedBox } from './shape';

const output: Port = { name: 'Y', direction: 'out', width: 1, x: 2, y: 0, side: 'right', lead: 0.7 };
const roundBody = { x0: -1.3, y0: -1.3, x1: 1.3, y1: 1.3 };

export const switchKind: PartKind = {
  kind: 'switch',
  family: 'Inputs',
  name: 'Switch',
  typed: ['switch', 'sw', 'input'],
  says: 'An input that stays where it is put.',
  labelled: 'S',
  labelSide: 'left',
  params: z.object({}),
  ports: () => [output],
  body: () => roundBody,
  role: () => ({ role: 'input', by: 'switch' }),
  symbol: (_, look) => {
    const on = look.value('Y') === ONE;
    return [
      ...(on ? [{ shape: 'circle', x: 0, y: 0, r: 1.42, stroke: 'one', weight: 0.1 } as const] : []),
      { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
      { shape: 'path', d: on ? 'M0 0L0.7 -0.55' : 'M0 0L-0.7 -0.55', stroke: 'ink', weight: 0.32 },
      { shape: 'circle', x: 0, y: 0, r: 0.32, fill: 'ink' },
      {
        shape: 'text',
        x: 0,
        y: 2.15,
        text: on ? '1' : '0',
        size: 1,
        align: 'center',
        face: 'mono',
        bold: true,
      },
    ];
  },
  build: () => {},
  spoken: () => 'switch',
};

export const buttonKind: PartKind = {
  kind: 'button',
  family: 'Inputs',
  name: 'Button',
  typed: ['button', 'push', 'btn'],
  says: 'An input that is 1 only while it is held. Shift-click keeps it held.',
  labelled: 'B',
  labelSide: 'left',
  params: z.object({}),
  ports: () => [output],
  body: () => roundBody,
  role: () => ({ role: 'input', by: 'button' }),
  symbol: (_, look) => [
    { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
    {
      shape: 'circle',
      x: 0,
      y: 0,
      r: look.held ? 0.6 : 0.75,
      fill: look.held ? 'one' : 'paper',
      stroke: 'ink',
      weight: LINE,
    },
    {
      shape: 'text',
      x: 0,
      y: 2.15,
      text: look.held ? '1' : '0',
      size: 1,
      align: 'center',
      face: 'mono',
      bold: true,
    },
  ],
  build: () => {},
  spoken: () => 'push button',
};

export const constantKind: PartKind = {
  kind: 'constant',
  family: 'Inputs',
  name: 'Constant',
  typed: ['constant', 'const'],
  says: 'Always 0 or always 1.',
  labelled: '',
  labelSide: 'left',
  params: z.object({ value: z._default(whole(0, 1), 1) }),
  settings: [
    {
      param: 'value',
      label: 'Value',
      control: 'choice',
      options: [
        { value: 0, label: '0' },
        { value: 1, label: '1' },
      ],
    },
  ],
  typedWord: (word) => (word === '0' || word === '1' ? { value: Number(word) } : null),
  ports: () => [output],
  body: () => ({ x0: -0.9, y0: -0.9, x1: 1.3, y1: 0.9 }),
  role: (params) => ({ role: 'constant', value: params.value === 1 ? ONE : ZERO }),
  symbol: (params) => [
    { shape: 'path', d: roundedBox(-0.9, -0.9, 1.3, 0.9, 0.35), fill: 'raised', stroke: 'ink', weight: LINE },
    {
      shape: 'text',
      x: 0.2,
      y: 0,
      text: String(params.value),
      size: 1.1,
      align: 'center',
      face: 'mono',
      bold: true,
    },
  ],
  build: () => {},
  spoken: (params) => `constant ${params.value}`,
};

const PS_PER_SECOND = 1e12;
const FREQUENCY = /^(\d+(?:\.\d+)?)(hz|khz|mhz)?$/i;
const SCALE: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6 };

/** A frequency in the unit that reads best: `4 Hz`, `12 kHz`. */
export function frequencyText(hertz: number): string {
  const unit = hertz >= 1e6 ? 'MHz' : hertz >= 1e3 ? 'kHz' : 'Hz';
  return `${+(hertz / SCALE[unit.toLowerCase()]!).toPrecision(4)} ${unit}`;
}

export const clockKind: PartKind = {
  kind: 'clock',
  family: 'Time',
  name: 'Clock',
  typed: ['clock', 'clk'],
  says: 'Goes up and down by itself while time runs.',
  labelled: 'Clock',
  labelSide: 'left',
  params: z.object({
    /** Cycles a second. */
    hertz: z._default(
      z
        .number()
        .check(
          z.minimum(0.01, 'a clock needs at least 0.01 Hz'),
          z.maximum(1e8, 'a clock has at most 100 MHz'),
        ),
      1,
    ),
    /** Part of the period that is high, in per cent. */
    duty: z._default(whole(1, 99), 50),
  }),
  settings: [
    { param: 'hertz', label: 'Frequency', control: 'number', least: 0.01, most: 1e8, unit: 'Hz' },
    { param: 'duty', label: 'High for', control: 'number', least: 1, most: 99, unit: '%' },
  ],
  typedWord: (word) => {
    const found = FREQUENCY.exec(word);
    return found ? { hertz: Number(found[1]) * SCALE[(found[2] ?? 'hz').toLowerCase()]! } : null;
  },
  ports: () => [output],
  body: () => roundBody,
  role: (params) => {
    const period = PS_PER_SECOND / (params.hertz as number);
    const high = Math.max(1, Math.round((period * (params.duty as number)) / 100));
    return { role: 'input', by: 'clock', halves: { low: Math.max(1, Math.round(period) - high), high } };
  },
  symbol: (params, look) => [
    { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
    {
      shape: 'path',
      d: 'M-0.75 0.4H-0.35V-0.4H0.35V0.4H0.75',
      stroke: look.value('Y') === ONE ? 'one' : 'ink',
      weight: look.value('Y') === ONE ? 0.24 : LINE,
    },
    {
      shape: 'text',
      x: 0,
      y: 2.15,
      text: frequencyText(params.hertz as number),
      size: 0.9,
      align: 'center',
      paint: 'quiet',
    },
  ],
  build: () => {},
  spoken: (params) => `clock of ${frequencyText(params.hertz as number)}`,
};
