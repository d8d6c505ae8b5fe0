import { compile } from '../netlist/compile';
import { partOf, sheetOfParts } from '../testing/rig';
import { timingOf } from './paths';

const port = (id: string, direction: 'in' | 'out', rank = 0) => partOf('port', id, { direction }, rank);

test('the slowest way is the one with the largest sum, named part by part', () => {
  const sheet = sheetOfParts(
    [
      port('A', 'in'),
      port('B', 'in', 1),
      partOf('not', 'n'),
      partOf('xor', 'x'),
      partOf('and', 'a'),
      port('Q', 'out'),
    ],
    ['A.Y-n.A', 'n.Y-x.A', 'B.Y-x.B', 'x.Y-a.A', 'B.Y-a.B', 'a.Y-Q.A'],
  );
  expect(timingOf(compile(sheet))).toEqual({
    slowest: { delayPs: 6000 + 14_000 + 10_000, through: ['n', 'x', 'a'] },
    shortestClockPs: null,
  });
});

test('of different delays for rising and falling the longer counts', () => {
  const sheet = sheetOfParts(
    [port('A', 'in'), partOf('buffer', 'b', { delayRise: 3000, delayFall: 9000 }), port('Q', 'out')],
    ['A.Y-b.A', 'b.Y-Q.A'],
  );
  expect(timingOf(compile(sheet)).slowest!.delayPs).toBe(9000);
});

test('a flip-flop that feeds itself by an inverter: its own delay, the way round, the setup time', () => {
  const toggle = (edge: string) =>
    sheetOfParts(
      [
        port('C', 'in'),
        partOf('dff', 'f', { edge: 'rising' }),
        partOf('dff', 'g', { edge }),
        partOf('not', 'n'),
        port('Q', 'out'),
      ],
      ['C.Y-f.C', 'C.Y-g.C', 'f.Q-n.A', 'n.Y-g.D', 'g.Q-f.D', 'f.Q-Q.A'],
    );
  const needed = 15_000 + 6000 + 8000;
  expect(timingOf(compile(toggle('rising'))).shortestClockPs).toBe(needed);
  // Between opposite edges there is half a period.
  expect(timingOf(compile(toggle('falling'))).shortestClockPs).toBe(2 * needed);
});

test('what an input drives does not bound the clock, and what takes no time has no slowest way', () => {
  const sheet = sheetOfParts(
    [port('D', 'in'), port('C', 'in', 1), partOf('xor', 'x'), partOf('dff', 'f'), port('Q', 'out')],
    ['D.Y-x.A', 'D.Y-x.B', 'x.Y-f.D', 'C.Y-f.C', 'f.Q-Q.A'],
  );
  expect(timingOf(compile(sheet)).shortestClockPs).toBeNull();
  const wire = sheetOfParts([port('A', 'in'), port('Q', 'out')], ['A.Y-Q.A']);
  expect(timingOf(compile(wire))).toEqual({ slowest: null, shortestClockPs: null });
});

test('a loop of gates is left out, what is around it is not', () => {
  const sheet = sheetOfParts(
    [
      port('S', 'in'),
      port('R', 'in', 1),
      partOf('nor', 'a'),
      partOf('nor', 'b'),
      partOf('not', 'n'),
      port('Q', 'out'),
      port('P', 'out', 1),
    ],
    ['S.Y-a.A', 'R.Y-b.A', 'a.Y-b.B', 'b.Y-a.B', 'a.Y-Q.A', 'S.Y-n.A', 'n.Y-P.A'],
  );
  expect(timingOf(compile(sheet)).slowest).toEqual({ delayPs: 6000, through: ['n'] });
});
