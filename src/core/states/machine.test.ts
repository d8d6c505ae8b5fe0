import fc from 'fast-check';
import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { partOf, sheetOfParts } from '../testing/rig';
import { type Logic, letterOf, ONE, ZERO } from '../values/logic';
import { cycleFrom, cyclesOf, cycleText, inputRowText, transientStates } from './cycles';
import { bitOrder, machineOf, stateNumber } from './machine';

/** The organ drum: T flip-flops that count forwards while Up is 1 and backwards while it is 0. */
function drum() {
  return compile(
    sheetOfParts(
      [
        partOf('switch', 'up', {}, 0, 'Up'),
        partOf('clock', 'clk', {}, 1, 'Clk'),
        partOf('constant', 'one'),
        ...[0, 1, 2].map((i) => partOf('tff', `q${i}`, {}, 0, `Q${i}`)),
        partOf('xnor', 'x0'),
        partOf('xnor', 'x1'),
        partOf('and', 'a'),
        partOf('lamp', 'top', {}, 0, 'Top'),
      ],
      [
        'one.Y-q0.T',
        'up.Y-x0.A',
        'q0.Q-x0.B',
        'x0.Y-q1.T',
        'up.Y-x1.A',
        'q1.Q-x1.B',
        'x0.Y-a.A',
        'x1.Y-a.B',
        'a.Y-q2.T',
        'q2.Q-top.A',
        ...[0, 1, 2].map((i) => `clk.Y-q${i}.C`),
      ],
    ),
  );
}

function machine(netlist: ReturnType<typeof compile>, all = false) {
  const made = machineOf(netlist, { all });
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
}

test('bits are read by the numbers behind their names', () => {
  expect(bitOrder(['Q0', 'Q1', 'Q2'])).toEqual([2, 1, 0]);
  expect(bitOrder(['Run', 'Stop'])).toEqual([0, 1]);
  expect(bitOrder(['Q0', 'R0'])).toEqual([0, 1]);
});

test('the drum counts forwards while Up is 1 and backwards while it is 0', () => {
  const m = machine(drum());
  expect(m.bits).toEqual(['q2', 'q1', 'q0']);
  expect(m.states).toHaveLength(8);
  expect(m.isMoore).toBe(true);
  const number = (s: number) => String(stateNumber(m.states[s]!.code));
  const [down, up] = cyclesOf(m);
  expect([inputRowText(m, 0), inputRowText(m, 1)]).toEqual(['Up = 0', 'Up = 1']);
  expect(cycleText(up!, number)).toBe('0 1 2 3 4 5 6 7, then 0 (8 states, forwards)');
  expect(cycleText(down!, number)).toBe('0 7 6 5 4 3 2 1, then 0 (8 states, backwards)');
  expect(transientStates(m).size).toBe(0);
  // The output is bit 2 of the state.
  expect(m.states.every((s) => s.outputs === s.code[0])).toBe(true);
});

test('states that power-up never leads to are there on request, and those that never come back are named', () => {
  // A ring of three with an isolated state: 001 rotates, 000 stays.
  const ring = compile(
    sheetOfParts(
      [
        partOf('clock', 'clk', {}, 0, 'Clk'),
        partOf('dff', 'q0', { powerUp: '1' }),
        partOf('dff', 'q1'),
        partOf('dff', 'q2'),
        partOf('lamp', 'y', {}, 0, 'Y'),
      ],
      ['q0.Q-q1.D', 'q1.Q-q2.D', 'q2.Q-q0.D', 'q2.Q-y.A', ...[0, 1, 2].map((i) => `clk.Y-q${i}.C`)],
    ),
  );
  expect(machine(ring).states.map((s) => s.code)).toEqual(['001', '010', '100']);
  const all = machine(ring, true);
  expect(all.states).toHaveLength(8);
  expect(all.states.filter((s) => !s.reachable)).toHaveLength(5);
  const codes = [...transientStates(all)].map((s) => all.states[s]!.code).sort();
  expect(codes).toEqual(['000', '011', '101', '110', '111']);
  const zero = all.states.findIndex((s) => s.code === '000');
  expect(cycleText(cycleFrom(all, zero, 0), String)).toBe(`it stays in ${zero}`);
});

test('what has no states says so', () => {
  expect(machineOf(compile(sheetOfParts([partOf('switch', 'a')], [])))).toMatchObject({
    ok: false,
    problem: { message: 'nothing here stores a bit, so there are no states' },
  });
});

test('random machines go the ways that the engine goes', () => {
  const gate = fc.record({
    kind: fc.constantFrom('and', 'or', 'xor', 'nand', 'nor'),
    a: fc.nat(4),
    b: fc.nat(4),
  });
  fc.assert(
    fc.property(
      fc.array(gate, { minLength: 3, maxLength: 3 }),
      fc.array(fc.nat(3), { minLength: 20, maxLength: 20 }),
      (gates, inputs) => {
        const signals = ['q0.Q', 'q1.Q', 'q2.Q', 's0.Y', 's1.Y'];
        const netlist = compile(
          sheetOfParts(
            [
              partOf('switch', 's0', {}, 0, 'A'),
              partOf('switch', 's1', {}, 1, 'B'),
              partOf('switch', 'clk', {}, 2, 'Clk'),
              ...[0, 1, 2].map((i) => partOf('dff', `q${i}`)),
              ...gates.map(({ kind }, i) => partOf(kind, `g${i}`)),
              partOf('lamp', 'y', {}, 0, 'Y'),
            ],
            [
              ...gates.flatMap(({ a, b }, i) => [
                `${signals[a]}-g${i}.A`,
                `${signals[b]}-g${i}.B`,
                `g${i}.Y-q${i}.D`,
                `clk.Y-q${i}.C`,
              ]),
              'g0.Y-y.A',
            ],
          ),
        );
        const m = machine(netlist);
        const run = new Run(netlist, { delays: 'zero' });
        const net = (part: string) => netlist.sources.find((s) => s.part === part)!.net;
        let at = 0;
        for (const row of inputs) {
          run.set([
            [net('s0'), (row >> 1) as Logic],
            [net('s1'), (row & 1) as Logic],
          ]);
          const out = letterOf(run.values[netlist.outputColumns[0]!.nets[0]] as Logic);
          const arrow = m.transitions.find((x) => x.from === at && x.rows.includes(row))!;
          expect(arrow.outputs[arrow.rows.indexOf(row)]).toBe(out);
          run.set([[net('clk'), ONE]]);
          run.set([[net('clk'), ZERO]]);
          at = arrow.to;
          expect(m.nets.map((n) => letterOf(run.values[n] as Logic)).join('')).toBe(m.states[at]!.code);
        }
      },
    ),
    { numRuns: 40 },
  );
});
