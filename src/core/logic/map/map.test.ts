import fc from 'fast-check';
import { type BooleanFunction, type Cube, coversRow, DONT_CARE, OFF, ON, rowsOf } from '../minimise/cube';
import { minimise } from '../minimise/minimise';
import { primes } from '../minimise/primes';
import {
  cubeOfRows,
  essential,
  hazards,
  judged,
  layoutOf,
  loopOf,
  type MapLayout,
  rowAt,
  sizeOfAxis,
  wrongWithGroup,
} from './map';

const of = (inputs: number, text: string): BooleanFunction => ({
  inputs,
  rows: Uint8Array.from([...text].map((c) => (c === 'x' ? DONT_CARE : Number(c)))),
});
const order = fc
  .integer({ min: 2, max: 6 })
  .chain((n) => fc.shuffledSubarray([...Array(n).keys()], { minLength: n, maxLength: n }));
const cubeFor = (inputs: number): fc.Arbitrary<Cube> =>
  fc.record({ mask: fc.nat(2 ** inputs - 1), bits: fc.nat(2 ** inputs - 1) }).map(({ mask, bits }) => ({
    mask,
    value: bits & mask,
  }));

function cells(layout: MapLayout): { layer: number; down: number; across: number; row: number }[] {
  const found = [];
  for (let layer = 0; layer < sizeOfAxis(layout.layers); layer++)
    for (let down = 0; down < sizeOfAxis(layout.down); down++)
      for (let across = 0; across < sizeOfAxis(layout.across); across++)
        found.push({ layer, down, across, row: rowAt(layout, layer, down, across) });
  return found;
}

test('each row stands in one cell, and neighbours, over the edge too, differ in one input', () => {
  fc.assert(
    fc.property(order, (inputs) => {
      const layout = layoutOf(inputs);
      const all = cells(layout);
      expect(new Set(all.map((c) => c.row)).size).toBe(2 ** inputs.length);
      const [high, wide] = [sizeOfAxis(layout.down), sizeOfAxis(layout.across)];
      for (const { layer, down, across, row } of all)
        for (const next of [
          rowAt(layout, layer, (down + 1) % high, across),
          rowAt(layout, layer, down, (across + 1) % wide),
        ]) {
          const differ = row ^ next;
          expect(differ !== 0 && (differ & (differ - 1)) === 0).toBe(true);
        }
    }),
  );
});

test('the loop around a product holds exactly its cells, and is open only at edges that it crosses', () => {
  fc.assert(
    fc.property(
      order.chain((inputs) => fc.record({ inputs: fc.constant(inputs), cube: cubeFor(inputs.length) })),
      ({ inputs, cube }) => {
        const layout = layoutOf(inputs);
        const pieces = loopOf(cube, layout);
        const within = (c: ReturnType<typeof cells>[number]) =>
          pieces.filter(
            (p) =>
              p.layer === c.layer &&
              p.down[0] <= c.down &&
              c.down <= p.down[1] &&
              p.across[0] <= c.across &&
              c.across <= p.across[1],
          ).length;
        for (const c of cells(layout)) expect(within(c)).toBe(coversRow(cube, c.row) ? 1 : 0);
        for (const { open, down, across } of pieces) {
          if (open.top) expect(down[0]).toBe(0);
          if (open.bottom) expect(down[1]).toBe(sizeOfAxis(layout.down) - 1);
          if (open.left) expect(across[0]).toBe(0);
          if (open.right) expect(across[1]).toBe(sizeOfAxis(layout.across) - 1);
        }
      },
    ),
  );
});

test('the four corners are one group, open on two sides each', () => {
  const layout = layoutOf([0, 1, 2, 3]);
  const corners = loopOf({ mask: 0b0101, value: 0 }, layout);
  expect(corners).toHaveLength(4);
  expect(corners.map((p) => Object.values(p.open).filter(Boolean).length)).toEqual([2, 2, 2, 2]);
  expect(cubeOfRows(new Set([0, 2, 8, 10]), 4)).toEqual({ mask: 0b0101, value: 0 });
});

test('what is wrong with a group is said', () => {
  const f = of(3, '11011x00');
  const wrong = (...rows: number[]) => wrongWithGroup(new Set(rows), f)?.message ?? null;
  expect(wrong(0, 1)).toBeNull();
  expect(wrong(0, 1, 4)).toMatch(/3 cells are no group/);
  expect(wrong(0, 3)).toMatch(/do not make a block/);
  expect(wrong(3, 2)).toMatch(/a 0 in it, in row 2/);
  expect(wrong(5)).toMatch(/covers no 1/);
  expect(wrong(0, 1, 4, 5)).toBeNull();
});

test('a grouping is judged: what could be larger, what is bare, what is redundant', () => {
  const f = of(3, '11011x00');
  const block: Cube = { mask: 0b010, value: 0 };
  const pair: Cube = { mask: 0b101, value: 0b001 };
  expect(judged([block, pair], f)).toEqual({ groups: [null, null], bare: [], isRight: true });
  expect(judged([block], f)).toMatchObject({ bare: [3], isRight: false });
  expect(judged([{ mask: 0b110, value: 0 }, pair], f).groups[0]).toMatch(/can be larger: 4 cells/);
  expect(judged([block, pair, { mask: 0b111, value: 0 }], f).groups[2]).toMatch(/can be larger/);
  // Three pairs of which the one in the middle is redundant.
  const chain = of(3, '11010011');
  const pairs = primes(chain);
  const said = judged(pairs, chain);
  expect(said.isRight).toBe(false);
  expect(said.groups.some((s) => s?.startsWith('It is redundant'))).toBe(true);
});

test('the smallest cover is judged right, whatever the function', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(OFF, ON, DONT_CARE), { minLength: 16, maxLength: 16 }), (rows) => {
      const f = { inputs: 4, rows: Uint8Array.from(rows) };
      const { cubes } = minimise(f);
      if (cubes.some((c) => c.mask === 0)) return;
      expect(judged(cubes, f).isRight).toBe(true);
      for (const e of essential(f)) expect(cubes).toContainEqual(e);
    }),
  );
});

test('a hazard lies between two ones under no common product, and its remedy holds in both', () => {
  // A B + A' C: when B and C are 1 and A changes.
  const f = of(3, '01010011');
  const { cubes } = minimise(f);
  const [one, ...more] = hazards(cubes, f);
  expect(more).toEqual([]);
  expect(one).toEqual({ rows: [3, 7], input: 0, remedy: { mask: 0b011, value: 0b011 } });
  expect(hazards([...cubes, one!.remedy], f)).toEqual([]);
  fc.assert(
    fc.property(fc.array(fc.constantFrom(OFF, ON), { minLength: 16, maxLength: 16 }), (rows) => {
      const g = { inputs: 4, rows: Uint8Array.from(rows) };
      const sum = minimise(g).cubes;
      const remedied = [...sum, ...hazards(sum, g).map((h) => h.remedy)];
      expect(hazards(remedied, g)).toEqual([]);
      for (const { remedy } of hazards(sum, g))
        for (const row of rowsOf(remedy, 4)) expect(g.rows[row]).toBe(ON);
    }),
  );
});
