import { PLACEABLE } from '../parts/catalogue';
import { interlock, pin, Sketch } from '../testing/sketch';
import { fits, fitted, portFor, wantedAt } from './fits';
import { pairsOf, swept } from './sweep';

const kindNamed = (kind: string) => PLACEABLE.find((k) => k.kind === kind)!;

test('a driven wire wants a reader, a loose input a driver, as wide as it is', () => {
  const s = interlock();
  expect(wantedAt(s.sheet, pin('switch1.Y'))).toEqual({ direction: 'in', width: 1 });
  expect(wantedAt(s.sheet, pin('and1.A'))).toEqual({ direction: 'in', width: 1 });
  expect(wantedAt(s.sheet, { wire: 'w1', at: { x: 4, y: 0 } })).toEqual({ direction: 'in', width: 1 });
  s.place('register', 50, 0, '', { width: 8 });
  expect(wantedAt(s.sheet, pin('register1.D'))).toEqual({ direction: 'out', width: 8 });
});

test('what fits comes best first, and is made as wide as the wire', () => {
  const readers = fits(PLACEABLE, { direction: 'in', width: 8 });
  expect(readers[0]).toMatchObject({ kind: { kind: 'lamp' }, params: { width: 8 }, port: 'A' });
  expect(readers.some((f) => f.kind.kind === 'clock')).toBe(false);
  const drivers = fits(PLACEABLE, { direction: 'out', width: 1 });
  expect(drivers[0]!.kind.kind).toBe('switch');
  expect(drivers.some((f) => f.kind.kind === 'lamp')).toBe(false);
  for (const { kind, params, port } of [...readers, ...drivers])
    expect(kind.ports(params).map((p) => p.name)).toContain(port);
});

test('what cannot be made to fit says so', () => {
  expect(fitted(kindNamed('clock'), { hertz: 1 }, { direction: 'in', width: 1 })).toBeNull();
  expect(fitted(kindNamed('digit'), {}, { direction: 'in', width: 8 })).toBeNull();
  expect(portFor(kindNamed('digit'), {}, { direction: 'in', width: 4 })!.name).toBe('A');
});

test('a sweep gathers pins of the part that it leaves, then of the last one that it came to', () => {
  const s = new Sketch();
  s.place('dff', 0, 0);
  s.place('and', 20, 0, '', { inputs: 3 });
  s.place('or', 20, 20);
  let sweep = { from: [pin('dff1.Q')], onto: [] } as Parameters<typeof swept>[1];
  for (const over of ['dff1.Q', 'dff1.D', "dff1.Q'", 'or1.A', 'and1.B'])
    sweep = swept(s.sheet, sweep, pin(over));
  expect(sweep).toEqual({ from: [pin('dff1.Q'), pin("dff1.Q'")], onto: [pin('and1.B')] });
  expect(pairsOf(s.sheet, sweep)).toEqual([
    [pin('dff1.Q'), pin('and1.B')],
    [pin("dff1.Q'"), pin('and1.C')],
  ]);
  expect(pairsOf(s.sheet, { from: sweep.from, onto: [] })).toEqual([]);
});
