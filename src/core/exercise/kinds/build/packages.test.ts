import { NO_CHIPS_SETUP } from '../../../circuit/chips-setup';
import { sheetPlan } from '../../../packages/sheet-plan';
import { interlock, Sketch } from '../../../testing/sketch';
import { packagesNeeded } from './packages';

const NONE: ReadonlySet<string> = new Set();

test.each<[string, number, Record<string, unknown>, number]>([
  ['nand', 4, {}, 1],
  ['nand', 5, {}, 2],
  ['nand', 4, { inputs: 3 }, 2],
  ['and', 3, { inputs: 4 }, 2],
  ['or', 2, { inputs: 5 }, 2],
  ['and', 1, { inputs: 16 }, 3],
  ['not', 6, {}, 1],
  ['not', 7, {}, 2],
  ['xor', 1, { width: 8 }, 2],
  ['and', 1, { inverted: [0] }, 2],
  ['dff', 3, {}, 2],
  ['dlatch', 4, {}, 5],
  ['register', 2, {}, 2],
  ['mux', 1, {}, 1],
  ['switch', 3, {}, 0],
  ['lamp', 3, {}, 0],
  ['label', 2, {}, 0],
  ['note', 1, {}, 0],
])('%s, %d of it with %j: %d packages', (kind, count, params, packages) => {
  const s = new Sketch();
  for (let i = 0; i < count; i++) s.place(kind, 40 * i, 0, '', params as never);
  expect(packagesNeeded(s.sheet, [s.sheet], NONE)).toBe(packages);
});

test('gates of one kind share packages across blocks, and a block that counts as one takes one', () => {
  const half = new Sketch();
  half.place('xor', 0, 0);
  half.place('and', 0, 20);
  const whole = new Sketch();
  for (const y of [0, 20, 40]) whole.place('block', 0, y, '', { sheet: 'half' });
  const sheets = [whole.sheet, { ...half.sheet, id: 'half' }];
  expect(packagesNeeded(whole.sheet, sheets, NONE)).toBe(2);
  expect(packagesNeeded(whole.sheet, sheets, new Set(['half']))).toBe(3);
});

test('it is the count of the Chips face, in the family that is chosen there', () => {
  const { sheet } = interlock();
  for (const family of ['74HC', '4000B'] as const) {
    const chosen = { ...sheet, chips: { ...NO_CHIPS_SETUP, family } };
    expect(packagesNeeded(chosen, [chosen], NONE)).toBe(sheetPlan(chosen, [chosen]).plan.packages.length);
  }
});

test('a sheet that holds itself takes none', () => {
  const s = new Sketch();
  s.place('block', 0, 0, '', { sheet: s.sheet.id });
  expect(packagesNeeded(s.sheet, [s.sheet], NONE)).toBe(0);
});
