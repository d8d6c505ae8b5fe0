import fc from 'fast-check';
import { DEFAULT_SETTINGS } from '../../../circuit/sheet';
import { FAULT_TEXT, faultOf, faultText, withFault } from '../../../parts/fault';
import { dice } from '../../../testing/dice';
import { randomSheet } from '../../../testing/random-circuit';
import { interlock } from '../../../testing/sketch';
import { expectDone } from '../../../values/result';
import { excerptFor } from '../../begin';
import { tableOfSheet } from '../../expected/table/expected-table';
import { type FaultAnswer, type FaultTask, fault } from '.';
import { FAULT_SORTS, faultsOf, faultWords, injected, rowsThatTell, someFault } from './inject';

const ALL = new Set(FAULT_SORTS);
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
      expect(faultWords(one)).toMatch(/^it/);
      expect(withFault(withFault(part, one), null)).toEqual({ ...part, params: { ...part.params } });
    }
});

test('switches and lamps have no faults; a gate has several of each sort', () => {
  const { parts } = interlock().sheet;
  expect(faultsOf(parts.get('switch1')!)).toEqual([]);
  expect(faultsOf(parts.get('lamp1')!)).toEqual([]);
  expect(new Set(faultsOf(parts.get('and1')!).map(({ is }) => is))).toEqual(ALL);
});

test('a fault that is put in shows in each of the rows that are said to tell it, and in no other', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 10 }), fc.nat(1e6), (sheet, seed) => {
      const wanted = expectDone(tableOfSheet(sheet));
      expect(rowsThatTell(sheet, [sheet], wanted)).toEqual([]);
      const made = someFault(sheet, [sheet], wanted, ALL, dice(seed));
      if (!made.ok) return;
      const { part, fault: put, tells } = made.value;
      expect(tells.length).toBeGreaterThan(0);
      const faulty = injected(sheet, part, put);
      expect(rowsThatTell(faulty, [faulty], wanted)).toEqual(tells);
      const task: FaultTask = {
        id: 'task1',
        kind: 'fault',
        title: 'T',
        words: '',
        points: 1,
        tells: 'wanted',
        tries: null,
        given: excerptFor(faulty, [faulty], DEFAULT_SETTINGS),
        asked: { does: 'find', needsRow: true },
        key: { part, wanted },
      };
      expect(fault.strange(task)).toBeNull();
      const own: FaultAnswer = { kind: 'fault', part, row: tells[0]!, tried: 3 };
      expect(fault.mark(task, solution(own))).toMatchObject({ solved: true, complaints: [], wrong: null });
      const silent = Array.from({ length: 16 }, (_, row) => row).find((row) => !tells.includes(row));
      if (silent !== undefined)
        expect(fault.mark(task, solution({ ...own, row: silent }))).toMatchObject({
          solved: false,
          right: 1,
          wrong: `row ${silent} does not show it`,
        });
      const other = [...sheet.parts.keys()].find((id) => id !== part)!;
      expect(fault.mark(task, solution({ ...own, part: other })).wrong).toContain('is sound');
      expect(fault.mark(task, solution(null)).complaints).toHaveLength(2);
      // Repaired, the sound sheet is right and the faulty one is not.
      const repair: FaultTask = { ...task, asked: { does: 'repair', needsRow: false } };
      expect(fault.mark(repair, solution(null, sheet)).solved).toBe(true);
      expect(fault.mark(repair, solution(null, faulty)).solved).toBe(false);
    }),
    { numRuns: 60 },
  );
});

test('a task whose fault cannot be seen, or whose part is gone, is refused', () => {
  const { sheet } = interlock();
  const wanted = expectDone(tableOfSheet(sheet));
  const task: FaultTask = {
    id: 'task1',
    kind: 'fault',
    title: 'T',
    words: '',
    points: 1,
    tells: 'wanted',
    tries: null,
    given: excerptFor(sheet, [sheet], DEFAULT_SETTINGS),
    asked: { does: 'find', needsRow: true },
    key: { part: 'and1', wanted },
  };
  expect(fault.strange(task)).toBe('its fault cannot be seen from outside');
  expect(fault.strange({ ...task, key: { part: 'gone', wanted } })).toContain('not in its circuit');
  expect(fault.strange({ ...task, given: null })).toBe('it gives no circuit');
});
