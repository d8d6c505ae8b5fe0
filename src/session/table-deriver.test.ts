import { deriveTable } from '@/core/logic/table/derive-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';
import { Sketch } from '@/core/testing/sketch';
import { relabel } from './changes/parts';
import { Session } from './session';
import type { TableMaker } from './state';

/** Adds two numbers, of ten bits each: a table of 2^20 rows. */
function sum() {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A', { width: 10 });
  s.place('switch', 0, 10, 'B', { width: 10 });
  s.place('adder', 20, 0, undefined, { width: 10 });
  s.place('lamp', 40, 0, 'S', { width: 10 });
  s.wire('switch1.Y', 'adder1.A');
  s.wire('switch2.Y', 'adder1.B');
  s.wire('adder1.S', 'lamp1.A');
  return s.lesson;
}

/** Jobs as they are given out, each of which a test ends. */
function jobs() {
  const given: { memory: readonly Uint32Array[]; isCancelled: boolean; end: () => void }[] = [];
  const makeTable: TableMaker = (sheet, sheets, memory) => {
    let end = () => {};
    const job = { memory, isCancelled: false, end: () => end() };
    given.push(job);
    const result = new Promise<TruthTable>((resolve) => {
      end = () => resolve(deriveTable(compile(sheet, sheets), {}, memory));
    });
    const cancel = () => {
      job.isCancelled = true;
    };
    return { result, cancel };
  };
  return { given, makeTable };
}

/** Long enough for what awaits a job. */
const settled = () => new Promise((resolve) => setImmediate(resolve));

function tableIn({ state: { table } }: Session): TruthTable {
  if (table.state !== 'ready') throw new Error(`the table is not ready: ${table.state}`);
  return table.table;
}

test('a table takes the memory of the one that it replaces, which is no longer shown by then', async () => {
  const { given, makeTable } = jobs();
  const session = new Session(sum(), { makeTable });
  expect(given[0]!.memory).toEqual([]);
  given[0]!.end();
  await settled();
  const before = tableIn(session);
  expect(before.outputs[0]).toBe('S[9]');
  relabel(session, 'lamp1', 'T');
  for (const column of before.ones) expect(given[1]!.memory.includes(column)).toBe(true);
  expect(session.state.table.state).toBe('working');
  given[1]!.end();
  await settled();
  const after = tableIn(session);
  expect(after.outputs[0]).toBe('T[9]');
  for (const column of after.ones) expect(given[1]!.memory.includes(column)).toBe(true);
});

test('a change ends the derivation under way, and what comes of it all the same is not shown', async () => {
  const { given, makeTable } = jobs();
  const session = new Session(sum(), { makeTable });
  relabel(session, 'lamp1', 'T');
  expect(given.map((job) => job.isCancelled)).toEqual([true, false]);
  given[0]!.end();
  await settled();
  expect(session.state.table.state).toBe('working');
  given[1]!.end();
  await settled();
  expect(tableIn(session).outputs[0]).toBe('T[9]');
});

test('a derivation that is stopped says so, until the next change begins another', async () => {
  const { given, makeTable } = jobs();
  const session = new Session(sum(), { makeTable });
  const { table } = session.state;
  if (table.state !== 'working') throw new Error('it is not under way');
  table.cancel();
  expect(given[0]!.isCancelled).toBe(true);
  expect(session.state.table).toEqual({
    state: 'none',
    reason: 'Stopped. The next change derives it again.',
  });
  relabel(session, 'lamp1', 'T');
  expect(session.state.table.state).toBe('working');
  // The button of an older derivation does not stop a newer one.
  table.cancel();
  expect(given[1]!.isCancelled).toBe(false);
});
