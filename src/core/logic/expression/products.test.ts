import fc from 'fast-check';
import { compile } from '../../netlist/compile';
import { interlock, Sketch } from '../../testing/sketch';
import { coversRow, reordered } from '../minimise/cube';
import { productsOf } from './products';

test('the gates of the drive interlock are the products that they make', () => {
  const found = productsOf(compile(interlock().sheet));
  const of = (part: string) => found.find((p) => p.part === part);
  // Key, Bars, Clear
  expect(of('and1')).toEqual({ part: 'and1', cube: { mask: 0b111, value: 0b111 }, inverted: false });
  expect(of('and2')).toEqual({ part: 'and2', cube: { mask: 0b110, value: 0b100 }, inverted: false });
  expect(of('not1')).toEqual({ part: 'not1', cube: { mask: 0b010, value: 0 }, inverted: false });
});

test('a NAND is the product that it turns over; an exclusive or is none', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('switch', 0, 6, 'Bars');
  s.place('nand', 10, 0);
  s.place('xor', 10, 8);
  s.place('lamp', 20, 0, 'Warn');
  s.place('lamp', 20, 8, 'Odd');
  for (const gate of ['nand1', 'xor1']) {
    s.wire('switch1.Y', `${gate}.A`);
    s.wire('switch2.Y', `${gate}.B`);
  }
  s.wire('nand1.Y', 'lamp1.A');
  s.wire('xor1.Y', 'lamp2.A');
  const gates = productsOf(compile(s.sheet)).filter((p) => !p.part.startsWith('lamp'));
  expect(gates).toEqual([{ part: 'nand1', cube: { mask: 3, value: 3 }, inverted: true }]);
});

test('a product over inputs in another order has the same rows', () => {
  const names = ['Key', 'Bars', 'Clear', 'Mode'];
  const orders = fc.shuffledSubarray(names, { minLength: 4 });
  fc.assert(
    fc.property(orders, fc.nat(15), fc.nat(15), fc.nat(15), (to, mask, some, row) => {
      const value = mask & some;
      const moved = reordered({ mask, value }, names, to)!;
      const values = new Map(names.map((name, i) => [name, (row >> (3 - i)) & 1]));
      const there = to.reduce((sum, name) => sum * 2 + values.get(name)!, 0);
      expect(coversRow(moved, there)).toBe(coversRow({ mask, value }, row));
    }),
  );
  expect(reordered({ mask: 1, value: 1 }, ['Key'], ['Bars'])).toBeNull();
});
