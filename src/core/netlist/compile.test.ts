import { interlock, Sketch } from '../testing/sketch';
import { compile } from './compile';
import { drawnLevels } from './levels';

const codes = (s: Sketch) => compile(s.sheet).diagnostics.map((d) => d.code);

test('the interlock compiles to its gates, levels and terminals in declared order', () => {
  const n = compile(interlock().sheet);
  expect(n.op).toHaveLength(3);
  expect(n.inputs.map((t) => t.name)).toEqual(['Key', 'Bars', 'Clear']);
  expect(n.outputs.map((t) => t.name)).toEqual(['Drive', 'Warn']);
  expect(Math.max(...n.level)).toBe(2);
  expect(n.looped).toHaveLength(0);
  expect(n.diagnostics).toEqual([]);
});

test('each gate comes after those it reads, and fan-out is the inverse of fan-in', () => {
  const n = compile(interlock().sheet);
  const place = new Map([...n.order].map((g, i) => [n.out[g], i]));
  for (const [i, g] of n.order.entries())
    for (let k = n.inStart[g]!; k < n.inStart[g + 1]!; k++) {
      const net = n.ins[k]!;
      expect(place.get(net) ?? -1).toBeLessThan(i);
      expect([...n.fan.slice(n.fanStart[net], n.fanStart[net + 1]!)]).toContain(g);
    }
});

test('wires that branch from a wire are the same net; wires that cross are not', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 10, 'B');
  s.place('lamp', 20, 0);
  s.place('lamp', 20, 10);
  s.place('lamp', 20, 20);
  const w = s.wire('switch1.Y', 'lamp1.A');
  s.wire('switch2.Y', 'lamp2.A');
  s.branch(w, 8, 0, 'lamp3.A');
  const n = compile(s.sheet);
  const net = (part: string) => n.netsOfPin(part, 'A')![0];
  expect(net('lamp3')).toBe(net('lamp1'));
  expect(net('lamp2')).not.toBe(net('lamp1'));
});

test('a loose input is named with its part and its pin', () => {
  const s = new Sketch();
  s.place('and', 10, 10);
  const [first] = compile(s.sheet).diagnostics;
  expect(first).toMatchObject({ code: 'loose-input', pins: [{ part: 'and1', port: 'A' }] });
  expect(first!.message).toContain('Input A of AND 1 is open');
});

test('two outputs tied together are named, and so is a wire that nobody drives', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Left');
  s.place('switch', 0, 10, 'Right');
  s.place('lamp', 20, 0);
  s.wire('switch1.Y', 'lamp1.A');
  s.wire('switch2.Y', 'lamp1.A');
  expect(compile(s.sheet).diagnostics).toEqual([
    expect.objectContaining({
      code: 'outputs-tied',
      message: expect.stringContaining('The outputs of Left and Right are tied together'),
    }),
  ]);
  const t = new Sketch();
  t.place('lamp', 0, 0);
  t.place('lamp', 0, 10);
  t.wire('lamp1.A', 'lamp2.A');
  expect(codes(t)).toEqual(['undriven']);
});

test('a loop of gates is kept out of the order, with what lies behind it', () => {
  const s = new Sketch();
  s.place('not', 10, 0);
  s.place('lamp', 20, 0);
  s.wire('not1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const n = compile(s.sheet);
  expect([...n.looped]).toHaveLength(1);
  expect([...n.order]).toHaveLength(0);
});

test('a flip-flop cuts a loop', () => {
  const s = new Sketch();
  s.place('clock', 0, 0);
  s.place('dff', 20, 0);
  s.wire('clock1.Y', 'dff1.C');
  s.wire("dff1.Q'", 'dff1.D');
  const n = compile(s.sheet);
  expect(n.looped).toHaveLength(0);
  expect(n.storage).toHaveLength(1);
});

test('levels are counted in the parts that are drawn, however much is inside them', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A', { width: 8 });
  s.place('not', 10, 0, '', { width: 8 });
  s.place('adder', 24, 0, '', { width: 8 });
  s.place('lamp', 40, 0, 'S', { width: 8 });
  for (const [from, to] of [
    ['switch1.Y', 'not1.A'],
    ['not1.Y', 'adder1.A'],
    ['switch1.Y', 'adder1.B'],
    ['adder1.S', 'lamp1.A'],
  ] as const)
    s.wire(from, to);
  expect(drawnLevels(compile(s.sheet))).toBe(2);
  expect(Math.max(...compile(s.sheet).level)).toBeGreaterThan(8);
});
