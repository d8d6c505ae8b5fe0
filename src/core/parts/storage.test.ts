import { Rig } from '../testing/rig';

/**
 * Characteristic tables as in any textbook of switching circuits: inputs, present state, next state after the
 * active edge; `-` where the combination is not allowed, and the state then unknown.
 */
const TABLES: Record<string, { inputs: readonly string[]; rows: readonly string[] }> = {
  dff: { inputs: ['D'], rows: ['0 0 0', '0 1 0', '1 0 1', '1 1 1'] },
  tff: { inputs: ['T'], rows: ['0 0 0', '0 1 1', '1 0 1', '1 1 0'] },
  jkff: {
    inputs: ['J', 'K'],
    rows: ['00 0 0', '00 1 1', '01 0 0', '01 1 0', '10 0 1', '10 1 1', '11 0 1', '11 1 0'],
  },
  srff: {
    inputs: ['S', 'R'],
    rows: ['00 0 0', '00 1 1', '01 0 0', '01 1 0', '10 0 1', '10 1 1', '11 0 -', '11 1 -'],
  },
};
const rows = Object.entries(TABLES).flatMap(([kind, { inputs, rows: list }]) =>
  list.map((row) => {
    const [given, now, next] = row.split(' ') as [string, string, string];
    return { kind, set: Object.fromEntries(inputs.map((name, i) => [name, given[i]!])), now, next, given };
  }),
);

describe.each(['rising', 'falling'])('on the %s edge', (edge) => {
  const idle = edge === 'rising' ? '0' : '1';
  const active = edge === 'rising' ? '1' : '0';

  test.each(rows)('$kind at $given goes from $now to $next', ({ kind, set, now, next }) => {
    const rig = Rig.of(kind, { edge, powerUp: now });
    rig.set({ C: idle }).set(set);
    expect(rig.word('Q')).toBe(now);
    rig.set({ C: active });
    const expected = next === '-' ? 'X' : next;
    expect([rig.word('Q'), rig.word("Q'")]).toEqual([expected, expected === 'X' ? 'X' : String(1 - +next)]);
    rig.set({ C: idle });
    expect(rig.word('Q')).toBe(expected);
  });
});

test('a set or a reset leads out of an unknown state; a toggle does not', () => {
  const jk = Rig.of('jkff', { powerUp: 'X' });
  expect(jk.pulse('C', { J: 1, K: 1 }).word('Q')).toBe('X');
  expect(jk.pulse('C', { J: 1, K: 0 }).word('Q')).toBe('1');
  expect(Rig.of('srff', { powerUp: 'X' }).pulse('C', { R: 1 }).word('Q')).toBe('0');
});

test('without its enable a flip-flop keeps its state over an edge', () => {
  const rig = Rig.of('dff', { enable: 'yes' });
  expect(rig.pulse('C', { D: 1, EN: 0 }).word('Q')).toBe('0');
  expect(rig.pulse('C', { EN: 1 }).word('Q')).toBe('1');
  expect(rig.pulse('C', { D: 0, EN: 'X' }).word('Q')).toBe('X');
});

describe.each(['high', 'low'])('preset and clear that act at a %s level', (level) => {
  const [on, off] = level === 'high' ? ['1', '0'] : ['0', '1'];
  test.each(['dff', 'tff', 'jkff', 'srff', 'dlatch'])(
    'of a %s act at once and hold against the clock',
    (kind) => {
      const rig = Rig.of(kind, { preset: level, clear: level, powerUp: 'X' });
      rig.set({ PRE: off, CLR: off });
      expect(rig.set({ PRE: on }).word('Q')).toBe('1');
      if (kind === 'dff') expect(rig.pulse('C', { D: 0 }).word('Q')).toBe('1');
      rig.set({ PRE: off });
      expect(rig.word('Q')).toBe('1');
      expect(rig.set({ CLR: on }).word('Q')).toBe('0');
      expect(rig.set({ PRE: on }).word('Q')).toBe('0');
      expect(rig.set({ CLR: off }).word('Q')).toBe('1');
    },
  );
});

test('an unknown clear leaves a 0 certain and makes a 1 unknown', () => {
  const rig = Rig.of('dff', { clear: 'high' });
  expect(rig.set({ CLR: 'X' }).word('Q')).toBe('0');
  expect(rig.set({ CLR: 0 }).pulse('C', { D: 1 }).word('Q')).toBe('1');
  expect(rig.set({ CLR: 'X' }).word('Q')).toBe('X');
});

test.each(['high', 'low'])('a D latch is open while EN is %s, and keeps what it was', (gate) => {
  const [open, shut] = gate === 'high' ? ['1', '0'] : ['0', '1'];
  const rig = Rig.of('dlatch', { gate }).set({ EN: open });
  expect(rig.set({ D: 1 }).word('Q')).toBe('1');
  expect(rig.set({ D: 0 }).word('Q')).toBe('0');
  rig.set({ D: 1 }).set({ EN: shut });
  expect(rig.set({ D: 0 }).word('Q')).toBe('1');
  expect(rig.set({ EN: 'X' }).word('Q')).toBe('X');
});

test.each([
  ['without', 'no'],
  ['with', 'yes'],
])('an SR latch %s enable sets, resets, keeps, and knows what is not allowed', (_, enable) => {
  const rig = Rig.of('srlatch', { enable });
  if (enable === 'yes') {
    expect(rig.set({ S: 1, EN: 0 }).word('Q')).toBe('0');
    rig.set({ S: 0, EN: 1 });
  }
  expect(rig.set({ S: 1 }).word('Q')).toBe('1');
  expect(rig.set({ S: 0 }).word('Q')).toBe('1');
  expect(rig.set({ R: 1 }).word("Q'")).toBe('1');
  expect(rig.set({ R: 0 }).word('Q')).toBe('0');
  expect(rig.set({ S: 1, R: 1 }).word('Q')).toBe('X');
});

test('power-up is as the lesson says, or as the part says', () => {
  for (const lesson of [0, 1, 2] as const) {
    expect(Rig.of('dff', {}, { powerUp: lesson }).word('Q')).toBe('01X'[lesson]);
    expect(Rig.of('dff', { powerUp: '1' }, { powerUp: lesson }).word('Q')).toBe('1');
  }
});

test('an edge from or to an unknown clock is uncertain unless it changes nothing', () => {
  const rig = Rig.of('dff').set({ D: 1, C: 0 });
  expect(rig.set({ C: 'X' }).word('Q')).toBe('X');
  const same = Rig.of('dff').set({ D: 0, C: 0 });
  expect(same.set({ C: 'X' }).word('Q')).toBe('0');
});
