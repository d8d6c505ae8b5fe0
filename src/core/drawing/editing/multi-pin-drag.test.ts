import type { PinEnd } from '../../circuit/sheet';
import { pin, Sketch } from '../../testing/sketch';
import { busSweep, columnSweep, extended, type MultiPinDrag, meantSweep, pinPairs } from './multi-pin-drag';
import { gather, spreadBus } from './remedies';

/** A sweep that begins at a pin and passes over others. */
const swept = (s: Sketch, first: string, ...over: string[]): MultiPinDrag =>
  over.reduce((drag, next) => extended(s.sheet, drag, pin(next)), {
    from: [pin(first)],
    onto: [],
  } as MultiPinDrag);

test('a sweep gathers pins of the part that it leaves, then of the last one that it came to', () => {
  const s = new Sketch();
  s.place('dff', 0, 0);
  s.place('and', 20, 0, '', { inputs: 3 });
  s.place('or', 20, 20);
  let drag = { from: [pin('dff1.Q')], onto: [] } as Parameters<typeof extended>[1];
  for (const over of ['dff1.Q', 'dff1.D', "dff1.Q'", 'or1.A', 'and1.B'])
    drag = extended(s.sheet, drag, pin(over));
  expect(drag).toMatchObject({ from: [pin('dff1.Q'), pin("dff1.Q'")], onto: [pin('and1.B')] });
  expect(pinPairs(s.sheet, drag)).toEqual([
    [pin('dff1.Q'), pin('and1.B')],
    [pin("dff1.Q'"), pin('and1.C')],
  ]);
  expect(pinPairs(s.sheet, { from: drag.from, onto: [] })).toEqual([]);
});

test('a straight way from one pin to another joins no pin that it passes between', () => {
  const s = new Sketch();
  s.place('and', 0, 0, '', { inputs: 3 });
  s.place('or', 0, 12);
  const drag = swept(s, 'and1.A', 'and1.B', 'and1.C', 'or1.A', 'or1.B');
  expect(drag.from).toHaveLength(3);
  const meant = meantSweep(s.sheet, drag);
  expect(pinPairs(s.sheet, meant)).toEqual([[pin('and1.A'), pin('or1.B')]]);
  // One that turns off is meant for all of them.
  s.place('nor', 20, 0, '', { inputs: 3 });
  const turned = swept(s, 'and1.A', 'and1.B', 'and1.C', 'nor1.A');
  expect(pinPairs(s.sheet, meantSweep(s.sheet, turned))).toHaveLength(3);
});

describe('a bus and single pins', () => {
  /** Four lamps, the first on top, and a bank of four switches. */
  function bank(labels: readonly string[]): Sketch {
    const s = new Sketch();
    s.place('switch', 0, 8, 'Count', { width: 4 });
    for (const [i, label] of labels.entries()) s.place('lamp', 40, 6 * i, label);
    return s;
  }
  const lamps = ['lamp1.A', 'lamp2.A', 'lamp3.A', 'lamp4.A'];

  test.each([
    ['from the bus, the top lamp takes the highest bit', ['W', 'X', 'Y', 'Z'], '1000'],
    ['lamps with numbers take the bits of those numbers', ['L0', 'L1', 'L2', 'L3'], '0001'],
  ])('%s', (_, labels, seen) => {
    const s = bank(labels);
    const bus = busSweep(s.sheet, swept(s, 'switch1.Y', ...lamps))!;
    expect(bus.spreads).toBe(true);
    s.make(spreadBus(s.sheet, bus.bus, bus.pins));
    expect(
      s
        .columns()
        .map((column) => column[0b1000])
        .join(''),
    ).toBe(seen);
  });

  test('single drivers lead into a bus, whichever was swept first', () => {
    const s = new Sketch();
    for (const [i, label] of ['D', 'C', 'B', 'A'].entries()) s.place('switch', 0, 6 * i, label);
    s.place('lamp', 40, 8, 'Sum', { width: 4 });
    const pins = ['switch1.Y', 'switch2.Y', 'switch3.Y', 'switch4.Y'];
    const bus = busSweep(s.sheet, swept(s, 'lamp1.A', ...pins))!;
    expect(bus).toMatchObject({ spreads: false, bus: pin('lamp1.A'), pins: pins.map(pin) });
    s.make(gather(s.sheet, bus.pins, pin('lamp1.A') as PinEnd));
    expect(
      s
        .columns()
        .map((column) => column[0b1000])
        .join(''),
    ).toBe('1000');
  });

  test('nothing is joined that neither drives, or that does not fill the bus', () => {
    const s = bank(['W', 'X', 'Y', 'Z']);
    s.place('lamp', 60, 8, 'Sum', { width: 4 });
    expect(busSweep(s.sheet, swept(s, 'lamp5.A', ...lamps))).toBeNull();
    expect(busSweep(s.sheet, swept(s, 'switch1.Y', ...lamps.slice(1)))).toBeNull();
  });
});

describe('one driver along a column of gates', () => {
  function column() {
    const s = new Sketch();
    s.place('switch', 0, 0, 'Key');
    for (let i = 0; i < 4; i++) s.place('and', 20, 8 * i, '', { inputs: 3 });
    s.place('or', 40, 0);
    return s;
  }
  const pins = (s: Sketch, ...over: string[]) =>
    columnSweep(s.sheet, swept(s, 'switch1.Y', ...over)).map((end) => `${end.part}.${end.port}`);

  test('the like inputs of all gates are joined, whatever else is passed on the way', () => {
    const s = column();
    const way = ['and1', 'and2', 'and3'].flatMap((id) => ['A', 'B', 'C'].map((port) => `${id}.${port}`));
    expect(pins(s, ...way, 'and4.A')).toEqual(['and1.A', 'and2.A', 'and3.A', 'and4.A']);
    expect(pins(s, 'and2.B', 'and2.C', 'and3.A', 'and3.B')).toEqual(['and2.B', 'and3.B']);
  });

  test('not where a gate is left out, an input is taken, it ends elsewhere, or the way is straight', () => {
    const s = column();
    expect(pins(s, 'and1.A', 'and3.A')).toEqual([]);
    expect(pins(s, 'and1.A', 'and2.A', 'or1.A')).toEqual([]);
    expect(pins(s, 'and1.A', 'and1.B', 'and2.A', 'and2.B')).toEqual([]);
    const { x } = s.sheet.parts.get('and1')!.at;
    s.place('switch', x - 5, -10, 'Above');
    expect(columnSweep(s.sheet, swept(s, 'and1.A', 'and2.A', 'and3.A'))).toEqual([]);
    s.wire('switch1.Y', 'and2.A');
    expect(pins(s, 'and1.A', 'and2.A', 'and3.A')).toEqual([]);
  });
});
