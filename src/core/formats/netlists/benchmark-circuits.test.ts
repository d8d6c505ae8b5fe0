import type { Lesson } from '../../circuit/lesson';
import { prove } from '../../logic/equivalence/prove-sequences';
import { compile } from '../../netlist/compile';
import * as made from '../../testing/benchmark-circuits';
import { expectDone as must, type Result } from '../../values/result';
import { readAiger, writeAiger } from './aiger';
import { readBlif, writeBlif } from './blif';
import { readKiss } from './kiss';
import { readPla } from './pla';

const netlistOf = (read: Result<Lesson>) => {
  const { sheets } = must(read);
  return compile(sheets[0]!, sheets);
};
const blif = (text: string) => netlistOf(readBlif(text, 'a', false));
const aiger = (text: string) => netlistOf(readAiger(text, 'b', false));

const PAIRS = [
  ['adders of 64 bits', blif(made.rippleAdder(64)), aiger(made.prefixAdder(64))],
  ['multipliers of 8 bits', blif(made.arrayMultiplier(8)), aiger(made.carrySaveMultiplier(8))],
  ['multipliers of 16 bits', blif(made.arrayMultiplier(16)), aiger(made.carrySaveMultiplier(16))],
  ['the parity of 200 bits', blif(made.parityChain(200)), aiger(made.parityTree(200))],
  [
    'the majority of 9 bits',
    netlistOf(readPla(made.majorityTable(9), 'a', false)),
    blif(made.majorityCount(9)),
  ],
] as const;

test.each(PAIRS)('%s from two formats are proved the same', (_, a, b) => {
  expect(a.diagnostics.filter(({ severity }) => severity === 'problem')).toEqual([]);
  expect(must(prove(a, b)).verdict).toBe('equivalent');
});

test('a counter is counted, whatever format it came in', () => {
  for (const n of [2, 5]) {
    const [gates, table] = [blif(made.counter(n)), netlistOf(readKiss(made.counterTable(n), 'b', false))];
    expect(gates.storage).toHaveLength(n);
    expect(table.storage.length).toBeGreaterThanOrEqual(n);
    expect(must(prove(gates, table)).verdict).toBe('equivalent');
  }
});

test('one gate that is another one is found', () => {
  const right = made.rippleAdder(32);
  const at = right.lastIndexOf('11- 1');
  const wrong = blif(`${right.slice(0, at)}1-- 1${right.slice(at + 5)}`);
  expect(must(prove(wrong, aiger(made.prefixAdder(32)))).verdict).toBe('different');
});

test('what was read is written in the other format, and is the same', () => {
  const adder = blif(made.rippleAdder(24));
  const asAiger = aiger(must(writeAiger(adder, false, 0)).join('\n'));
  expect(must(prove(adder, asAiger)).verdict).toBe('equivalent');
  const parity = aiger(made.parityTree(33));
  const asBlif = blif(must(writeBlif(parity, 'parity', 0)).join('\n'));
  expect(must(prove(parity, asBlif)).verdict).toBe('equivalent');
});
