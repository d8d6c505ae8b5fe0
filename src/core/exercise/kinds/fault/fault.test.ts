import fc from 'fast-check';
import { DEFAULT_SETTINGS, type Sheet } from '../../../circuit/sheet';
import { compile } from '../../../netlist/compile';
import { FAULT_TEXT, faultOf, faultText, wireFaultOf, withFault, withWireFault } from '../../../parts/fault';
import { dice } from '../../../testing/dice';
import { buildTask } from '../../../testing/exercises';
import { randomSheet } from '../../../testing/random-circuit';
import { interlock } from '../../../testing/sketch';
import { expectDone } from '../../../values/result';
import { excerptFor } from '../../begin';
import { tableOfSheet } from '../../expected/table/expected-table';
import { type FaultAnswer, type FaultTask, fault } from '.';
import {
  FAULT_SORTS,
  faultsOf,
  faultsOn,
  faultWords,
  injected,
  nameOfWire,
  PART_FAULTS,
  type Place,
  type PutFault,
  rowsThatTell,
  seenFault,
} from './inject';

const placeOf = (put: PutFault): Place =>
  'part' in put ? { part: put.part, wire: null } : { part: null, wire: put.wire };
/** A task in which a fault is found on a sheet. */
const taskOn = (sheet: Sheet, place: Place, wanted: FaultTask['key']['wanted'], needsRow = true): FaultTask =>
  buildTask({ kind: 'table' }, [], {
    kind: 'fault',
    given: excerptFor(sheet, [sheet], DEFAULT_SETTINGS),
    asked: { does: 'find', needsRow, isDark: false },
    key: { ...place, wanted },
  }) as FaultTask;
const solution = (answer: FaultAnswer | null, sheet = interlock().sheet) => ({
  sheet,
  sheets: [sheet],
  answer,
  builtIn: () => [],
});

test('every fault of a part stands among its parameters, and comes back from them', () => {
  for (const part of interlock().sheet.parts.values())
    for (const one of faultsOf(part)) {
      expect(faultText(one)).toMatch(FAULT_TEXT);
      expect(faultOf(withFault(part, one))).toEqual(one);
      expect(faultWords(one, interlock().sheet)).toMatch(/^it/);
      expect(withFault(withFault(part, one), null)).toEqual({ ...part, params: { ...part.params } });
    }
});

test('switches and lamps have no faults; a gate has several of each sort', () => {
  const { parts } = interlock().sheet;
  expect(faultsOf(parts.get('switch1')!)).toEqual([]);
  expect(faultsOf(parts.get('lamp1')!)).toEqual([]);
  expect(new Set(faultsOf(parts.get('and1')!).map(({ is }) => is))).toEqual(new Set(PART_FAULTS));
});

const told = new Set<string>();

test('a fault that is put in shows in each of the rows that are said to tell it, and in no other', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 10 }), fc.nat(1e6), (sheet, seed) => {
      const wanted = expectDone(tableOfSheet(sheet));
      expect(rowsThatTell(sheet, [sheet], wanted)).toEqual([]);
      const sorts = new Set([FAULT_SORTS[seed % FAULT_SORTS.length]!]);
      const made = seenFault(sheet, [sheet], wanted, faultsOn(sheet, sorts, dice(seed)), dice(seed));
      if (!made.ok) return;
      const { put, tells } = made.value;
      told.add(put.fault.is);
      const place = placeOf(put);
      expect(tells.length).toBeGreaterThan(0);
      const faulty = injected(sheet, put);
      // The drawing gives nothing away.
      expect(compile(faulty, [faulty]).diagnostics).toEqual(compile(sheet, [sheet]).diagnostics);
      expect(rowsThatTell(faulty, [faulty], wanted)).toEqual(tells);
      const task = taskOn(faulty, place, wanted);
      expect(fault.strange(task)).toBeNull();
      const own: FaultAnswer = { kind: 'fault', ...place, row: tells[0]!, tried: 3, probed: 2 };
      expect(fault.mark(task, solution(own))).toMatchObject({ solved: true, complaints: [], wrong: null });
      const silent = Array.from({ length: 16 }, (_, row) => row).find((row) => !tells.includes(row));
      if (silent !== undefined)
        expect(fault.mark(task, solution({ ...own, row: silent }))).toMatchObject({
          solved: false,
          right: 1,
          wrong: `row ${silent} does not show it`,
        });
      const other = [...sheet.parts.values()].find((p) => p.id !== place.part && p.kind === 'switch')!;
      expect(fault.mark(task, solution({ ...own, part: other.id, wire: null })).wrong).toContain('is sound');
      expect(fault.mark(task, solution(null)).complaints).toHaveLength(2);
      // Repaired, the sound sheet is right and the faulty one is not.
      const repair: FaultTask = { ...task, asked: { does: 'repair', needsRow: false, isDark: false } };
      expect(fault.mark(repair, solution(null, sheet)).solved).toBe(true);
      expect(fault.mark(repair, solution(null, faulty)).solved).toBe(false);
    }),
    { numRuns: 120 },
  );
  // To exchange the inputs of such gates changes nothing.
  expect(told).toEqual(new Set(FAULT_SORTS.filter((sort) => sort !== 'exchanged')));
});

test('a task whose fault cannot be seen, or whose part is gone, is refused', () => {
  const { sheet } = interlock();
  const wanted = expectDone(tableOfSheet(sheet));
  const task = taskOn(sheet, { part: 'and1', wire: null }, wanted);
  expect(fault.strange(task)).toBe('its fault cannot be seen from outside');
  expect(fault.strange({ ...task, key: { part: 'gone', wire: null, wanted } })).toContain(
    'not in its circuit',
  );
  expect(fault.strange({ ...task, given: null })).toBe('it gives no circuit');
});

describe('a wire', () => {
  const { sheet } = interlock();
  const wanted = expectDone(tableOfSheet(sheet));
  const wireTo = (part: string, port: string) =>
    [...sheet.wires.values()].find(({ to }) => 'part' in to && to.part === part && to.port === port)!;
  const task = (put: PutFault): FaultTask => taskOn(injected(sheet, put), placeOf(put), wanted, false);
  const isRight = (of: FaultTask, place: Partial<FaultAnswer>) =>
    fault.mark(
      of,
      solution({ kind: 'fault', part: null, wire: null, row: null, tried: 0, probed: 0, ...place }),
    ).solved;

  test('keeps its fault, and can be sound again', () => {
    const wire = wireTo('and1', 'A');
    for (const one of [{ is: 'cut' }, { is: 'tied', to: 'wire2' }] as const)
      expect(wireFaultOf(withWireFault(wire, one))).toEqual(one);
    expect(withWireFault(withWireFault(wire, { is: 'cut' }), null)).toEqual(wire);
    expect(wireFaultOf(wire)).toBeNull();
  });

  test('that is cut leaves an input open, and nothing else', () => {
    const cut = injected(sheet, { wire: wireTo('not1', 'A').id, fault: { is: 'cut' } });
    const rows = rowsThatTell(cut, [cut], wanted);
    // Warn alone comes by way of the NOT, and only while the key is in.
    expect(rows).toEqual([4, 5, 6, 7]);
    expect(nameOfWire(sheet, wireTo('and2', 'B').id)).toBe('the wire from NOT 1 to AND 2');
  });

  test('that is cut cannot be told from an input that is open inside: both are taken', () => {
    const wire = wireTo('and2', 'B').id;
    const cut = task({ wire, fault: { is: 'cut' } });
    expect([isRight(cut, { wire }), isRight(cut, { part: 'and2' }), isRight(cut, { part: 'not1' })]).toEqual([
      true,
      true,
      false,
    ]);
    const open = task({ part: 'and2', fault: { is: 'open', port: 'B' } });
    expect([isRight(open, { part: 'and2' }), isRight(open, { wire })]).toEqual([true, true]);
    expect(isRight(open, { wire: wireTo('and2', 'A').id })).toBe(false);
  });

  test('that touches another is found on either of the two', () => {
    const [a, b] = [wireTo('and2', 'B').id, wireTo('lamp1', 'A').id];
    const touching = task({ wire: a, fault: { is: 'tied', to: b } });
    expect(fault.strange(touching)).toBeNull();
    expect([isRight(touching, { wire: a }), isRight(touching, { wire: b })]).toEqual([true, true]);
    expect(isRight(touching, { wire: wireTo('lamp2', 'A').id })).toBe(false);
    expect(isRight(touching, { part: 'and1' })).toBe(false);
  });
});
