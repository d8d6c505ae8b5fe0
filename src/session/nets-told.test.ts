import { begunWork, excerptFor } from '@/core/exercise/begin';
import { tableOfSheet } from '@/core/exercise/expected/table/expected-table';
import { injected } from '@/core/exercise/kinds/fault/inject';
import { rulesOn } from '@/core/exercise/marking';
import { buildTask, exerciseOf } from '@/core/testing/exercises';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { netsTold } from './nets-told';
import { Session } from './session';
import { spokenPart } from './spoken';
import { whyIsItUnknown } from './why-unknown';

/** A student before a circuit with a cut wire, whose signals are dark. */
function before(isDark: boolean): Session {
  const { sheet, lesson } = interlock();
  const wire = [...sheet.wires.values()].find(
    ({ to }) => 'part' in to && to.part === 'and2' && to.port === 'B',
  )!;
  const faulty = injected(sheet, { wire: wire.id, fault: { is: 'cut' } });
  const task = {
    ...buildTask({ kind: 'table' }, []),
    kind: 'fault',
    given: excerptFor(faulty, [faulty], lesson.settings),
    asked: { does: 'find', needsRow: true, isDark },
    key: { part: null, wire: wire.id, wanted: expectDone(tableOfSheet(sheet)) },
  };
  const work = begunWork(exerciseOf([task]), 'work');
  return new Session(work, { rules: rulesOn });
}
const wireOf = (session: Session, part: string, port: string) =>
  [...session.sheet.wires.values()].find(({ to }) => 'part' in to && to.part === part && to.port === port)!
    .id;
const spoken = (session: Session, id: string) =>
  spokenPart(session.state, session.sheet, session.sheet.parts.get(id)!);

test('where signals are dark, inputs, outputs and probed wires alone tell theirs', () => {
  const session = before(true);
  expect(spoken(session, 'not1')).toContain('output not probed');
  expect(spoken(session, 'switch1')).toContain('0');
  const wire = wireOf(session, 'and2', 'B');
  const [net] = session.state.view.netsOfWire(wire)!;
  expect(netsTold(session.state)!.has(net!)).toBe(false);
  session.select({ parts: new Set(), wires: new Set([wire]) });
  expect(netsTold(session.state)!.has(net!)).toBe(true);
  expect(spoken(session, 'not1')).toContain('output 1');
  // What is probed stays so, and several wires at once are no probe.
  const others = [wireOf(session, 'and1', 'A'), wireOf(session, 'lamp1', 'A')];
  session.select({ parts: new Set(), wires: new Set(others) });
  expect([...session.state.probed]).toEqual([wire]);
});

test('there is no table then, and each row is noted as it is tried', () => {
  const session = before(true);
  expect(session.state.table).toEqual({ state: 'none', reason: 'Each row is told once you have tried it.' });
  session.goToRow(4);
  session.stepRow(1);
  expect([...session.state.tried]).toEqual([
    [4, '0X'],
    [5, '0X'],
  ]);
  session.stepRow(-6);
  expect(session.state.tried.has(7)).toBe(true);
});

test('why something is unknown is not told in such a task, dark or not', () => {
  for (const isDark of [true, false]) {
    const session = before(isDark);
    session.goToRow(4);
    session.select({ parts: new Set(['and2']), wires: new Set() });
    expect(whyIsItUnknown(session)).toMatchObject({ problem: { code: 'puzzle' } });
    expect(session.state.diagnostics).toEqual([]);
  }
  expect(netsTold(before(false).state)).toBeNull();
});

test('a wire inside a block is not the probed one that happens to have its id', () => {
  const session = before(true);
  const wire = wireOf(session, 'and2', 'B');
  session.select({ parts: new Set(), wires: new Set([wire]) });
  const { netlist, rules, probed } = session.state;
  const inside = { ...session.state, path: ['block1'], view: { ...netlist, netsOfWire: () => [4711] } };
  expect(netsTold(inside)).toEqual(netsTold({ netlist, rules, probed }));
  expect(netsTold({ ...inside, probed: new Set([wire]) })!.has(4711)).toBe(false);
});
