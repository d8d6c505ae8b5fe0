import { PLACEABLE } from '../../parts/catalogue';
import { interlock, pin } from '../../testing/sketch';
import { compatibleParts, fittingParams, matchingPort, requirementAt } from './compatible-parts';

const kindNamed = (kind: string) => PLACEABLE.find((k) => k.kind === kind)!;

test('a driven wire wants a reader, a loose input a driver, as wide as it is', () => {
  const s = interlock();
  expect(requirementAt(s.sheet, pin('switch1.Y'))).toEqual({ direction: 'in', width: 1 });
  expect(requirementAt(s.sheet, pin('and1.A'))).toEqual({ direction: 'in', width: 1 });
  expect(requirementAt(s.sheet, { wire: 'w1', at: { x: 4, y: 0 } })).toEqual({ direction: 'in', width: 1 });
  s.place('register', 50, 0, '', { width: 8 });
  expect(requirementAt(s.sheet, pin('register1.D'))).toEqual({ direction: 'out', width: 8 });
});

test('what fits comes best first, and is made as wide as the wire', () => {
  const readers = compatibleParts(PLACEABLE, { direction: 'in', width: 8 });
  expect(readers[0]).toMatchObject({ kind: { kind: 'lamp' }, params: { width: 8 }, port: 'A' });
  expect(readers.some((f) => f.kind.kind === 'clock')).toBe(false);
  const drivers = compatibleParts(PLACEABLE, { direction: 'out', width: 1 });
  expect(drivers[0]!.kind.kind).toBe('switch');
  expect(drivers.some((f) => f.kind.kind === 'lamp')).toBe(false);
  for (const { kind, params, port } of [...readers, ...drivers])
    expect(kind.ports(params).map((p) => p.name)).toContain(port);
});

test('what cannot be made to fit says so', () => {
  expect(fittingParams(kindNamed('clock'), { hertz: 1 }, { direction: 'in', width: 1 })).toBeNull();
  expect(fittingParams(kindNamed('digit'), {}, { direction: 'in', width: 8 })).toBeNull();
  expect(matchingPort(kindNamed('digit'), {}, { direction: 'in', width: 4 })!.name).toBe('A');
});
