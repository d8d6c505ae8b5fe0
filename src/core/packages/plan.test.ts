import fc from 'fast-check';
import type { Sheet } from '../circuit/sheet';
import { prove } from '../logic/equivalence/prove-sequences';
import { compile } from '../netlist/compile';
import { findPackage } from '../parts/packages';
import { randomSheet } from '../testing/random-circuit';
import { partOf, sheetOfParts } from '../testing/rig';
import { Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { arranged } from './arrange';
import { sheetOfPlan } from './as-sheet';
import { cellsOf } from './cells';
import { pinNotesOf } from './pin-notes';
import { type Freedom, planOf } from './plan';
import { gateOfKey, Realisations } from './realisations';
import { sheetPlan } from './sheet-plan';
import { type Supply, unitSorts } from './units';
import { wiringOf } from './wiring';

const HC: Supply = { family: '74HC' };
const FAMILIES: readonly Supply[] = [HC, { family: '74LS' }, { family: '4000B' }];

/** Whether the board of a sheet's plan does the same as the sheet. */
function verdict(sheet: Sheet, supply: Supply, freedom: Freedom = 'as drawn', isArranged = true) {
  const sheets: readonly Sheet[] = [];
  const planned = planOf(sheet, sheets, supply, freedom);
  const best = isArranged ? arranged(planned, 1) : null;
  if (best) expect(best.atLeast).toBeLessThanOrEqual(best.length);
  const plan = best?.plan ?? planned;
  const board = sheetOfPlan(plan, wiringOf(plan));
  const proof = expectDone(prove(compile(sheet, sheets), compile(board)));
  return { plan, verdict: proof.verdict };
}

test('the wires of a plan make a circuit that does the same, in every family', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 5, gates: 12 }),
      fc.constantFrom(...FAMILIES),
      fc.constantFrom<Freedom>('as drawn', 'whatever saves'),
      fc.integer({ min: 0, max: 7 }),
      (sheet, supply, freedom, die) => {
        expect(verdict(sheet, supply, freedom, die === 0).verdict).toBe('equivalent');
      },
    ),
    { numRuns: Number(process.env.BOARD_RUNS ?? 100) },
  );
});

test('three two-input gates of two sorts take two packages, and the rest is tied', () => {
  const sheet = sheetOfParts(
    [
      partOf('switch', 'Key', {}, 0),
      partOf('switch', 'Bars', {}, 1),
      partOf('nand', 'g1'),
      partOf('not', 'g2'),
      partOf('lamp', 'Drive', {}, 2),
    ],
    ['Key.Y-g1.A', 'Bars.Y-g1.B', 'g1.Y-g2.A', 'g2.Y-Drive.A'],
  );
  const { plan } = verdict(sheet, HC);
  expect(plan.packages.map((one) => one.name).sort()).toEqual(['74HC00', '74HC04']);
  expect(plan).toMatchObject({ atLeast: 2, changes: 0 });
  const saved = verdict(sheet, HC, 'whatever saves').plan;
  expect(saved.packages.map((one) => one.name)).toEqual(['74HC00']);
  expect(saved).toMatchObject({ atLeast: 1, changes: 1 });
  const { wires } = wiringOf(saved);
  const spare = saved.packages[0]!.units.filter(({ parts }) => parts.length === 0);
  expect(wires.filter(({ why }) => why).length).toBe(2 * spare.length);
});

/**
 * Whether the gates of a sheet fit into fewer packages, by trying, gate by gate, every way and every unit that can hold each
 * gate of it. What takes that many packages already is not followed, nor the same units in another order.
 */
function fitsInFewer(sheet: Sheet, supply: Supply, than: number): boolean {
  const sorts = [...unitSorts(supply).values()];
  const ways = new Realisations(unitSorts(supply));
  const packages = (used: readonly number[]) =>
    used.reduce((sum, units, i) => sum + Math.ceil(units / sorts[i]!.each), 0);
  const holders = (key: string) => {
    const own = gateOfKey(key)!;
    return sorts.flatMap((sort, at) => {
      const gate = gateOfKey(sort.key);
      if (!gate) return [];
      const isWider = gate.kind === own.kind && (gate.inputs === own.inputs || gate.inputs > own.inputs);
      const inverts = own.kind === 'not' && ['nand', 'nor', 'xor', 'xnor'].includes(gate.kind);
      return isWider || inverts ? [at] : [];
    });
  };
  let reached = [sorts.map(() => 0)];
  for (const { sort, pins } of cellsOf(sheet, [], supply.family).cells) {
    const next = new Map<string, number[]>();
    for (const { uses } of ways.all(sort, pins.size - 1)) {
      let some = reached;
      for (const { key } of uses) {
        const more = new Map<string, number[]>();
        for (const used of some)
          for (const at of holders(key)) {
            const now = used.map((units, i) => (i === at ? units + 1 : units));
            if (packages(now) < than) more.set(now.join(), now);
          }
        some = [...more.values()];
      }
      for (const used of some) next.set(used.join(), used);
    }
    reached = [...next.values()];
  }
  return reached.length > 0;
}

/** PLAN_GATES=12 takes ten seconds for each circuit. */
const MOST_GATES = Number(process.env.PLAN_GATES ?? 7);

test('no plan takes more packages than trying everything', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 4, gates: MOST_GATES }),
      fc.constantFrom(...FAMILIES),
      (sheet, supply) => {
        const { packages, atLeast } = planOf(sheet, [], supply, 'whatever saves');
        expect(atLeast).toBe(packages.length);
        expect(fitsInFewer(sheet, supply, packages.length)).toBe(false);
      },
    ),
    { numRuns: Number(process.env.PLAN_RUNS ?? 4) },
  );
});

test('a sheet has the same plan in whatever order its parts were drawn', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), (sheet) => {
      const turned = {
        ...sheet,
        parts: new Map([...sheet.parts].reverse()),
        wires: new Map([...sheet.wires].reverse()),
      };
      const shape = (of: Sheet) =>
        sheetPlan(of, []).wiring.wires.map(({ from, to, stage }) => `${stage} ${from} ${to}`);
      expect(shape(turned)).toEqual(shape(sheet));
    }),
    { numRuns: 6 },
  );
});

test('a fault that is hidden in the drawing is not told by its plan', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 3, gates: 6 }),
      fc.constantFrom('stuck 1', 'inverted A', 'other nor'),
      (sheet, fault) => {
        const gate = sheet.parts.get('g0')!;
        const faulty = { ...gate, params: { ...gate.params, fault } };
        const shape = (of: Sheet) => sheetPlan(of, []).wiring.wires;
        expect(shape({ ...sheet, parts: new Map(sheet.parts).set('g0', faulty) })).toEqual(shape(sheet));
      },
    ),
    { numRuns: 5 },
  );
});

describe('designators and numbers on the drawing', () => {
  const notesOf = (kind: string, params: Record<string, string>) => {
    const s = new Sketch();
    const part = s.place(kind, 0, 0, '', params);
    return pinNotesOf(planOf(s.sheet, [], { family: '74HC' })).get(part)!;
  };

  test('of a whole package are its own, at every pin', () => {
    const { ref, pins } = notesOf('package', { type: '74HC00', unit: '' });
    expect(ref).toBe('U1');
    for (const { name, number } of findPackage('74HC00')!.type.pins)
      expect(pins.get(name)).toBe(String(number));
    expect(notesOf('package', { type: '74HC283', unit: '' }).pins.get('C0')).toBe('7');
  });

  test('of one unit are those of its pins', () => {
    const { ref, pins } = notesOf('package', { type: '74HC08', unit: 'b' });
    expect(ref).toBe('U1b');
    expect([...pins].filter(([name]) => 'ABY'.includes(name))).toEqual([
      ['A', '4'],
      ['B', '5'],
      ['Y', '6'],
    ]);
  });
});
