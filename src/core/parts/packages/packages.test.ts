import { dice } from '../../testing/dice';
import { partOf, Rig, sheetAround } from '../../testing/rig';
import { findPackage, LOGIC_PACKAGES, PACKAGES, packageCalled } from '.';
import type { PackageType } from './package-type';

/** Levels of pins by name. */
type Pins = Readonly<Record<string, number>>;

/** Whole numbers below a limit, from a seed. */
const numbers = (seed: number) => {
  const roll = dice(seed);
  return (below: number) => Math.floor(roll() * below);
};

const named = (number: string) => LOGIC_PACKAGES.find(({ type }) => type.number === number)!;
const inputsOf = ({ pins }: PackageType) => pins.filter(({ use }) => use === 'in').map(({ name }) => name);

/** A whole package on a rig that reads and writes its pins by their names. */
class Bench {
  readonly rig: Rig;
  private readonly levels: Record<string, number> = {};

  constructor(
    number: string,
    readonly name = named(number).name,
  ) {
    this.rig = Rig.of('package', { type: name });
  }

  put(levels: Pins): this {
    Object.assign(this.levels, levels);
    this.rig.set(levels);
    return this;
  }

  pulse(clock: string, levels: Pins = {}): this {
    return this.put(levels)
      .put({ [clock]: 1 })
      .put({ [clock]: 0 });
  }

  /** The word at some pins, in the order in which they are named. */
  read(names: string): string {
    return names
      .split(' ')
      .map((name) => this.rig.word(name))
      .join('');
  }

  at(name: string): number {
    return this.levels[name] ?? 0;
  }
}

describe('every package', () => {
  test.each(PACKAGES.map((type) => [type.number, type] as const))('%s has each pin once', (_, type) => {
    expect(type.pins.map(({ number }) => number)).toEqual(type.pins.map((_pin, i) => i + 1));
    expect([14, 16, 20]).toContain(type.pins.length);
    const used = type.pins.filter(({ use }) => use !== 'none' && use !== 'minus');
    expect(new Set(used.map(({ name }) => name)).size).toBe(used.length);
    expect(type.pins.filter(({ use }) => use === 'plus')).toHaveLength(1);
    expect(type.pins.some(({ use }) => use === 'minus')).toBe(true);
    const inUnits = type.units.flatMap(({ pins }) => [...pins.values()].map(({ number }) => number));
    const signals = type.pins.filter(({ use }) => use === 'in' || use === 'out' || use === 'both');
    expect(inUnits.sort((a, b) => a - b)).toEqual(signals.map(({ number }) => number));
    expect(Object.keys(type.ns).length).toBeGreaterThan(0);
    for (const group of type.exchangeable)
      for (const name of group) expect(type.units[0]!.pins.get(name)?.use).toBe('in');
  });

  test('is there once, under its number', () => {
    expect(new Set(PACKAGES.map(({ number }) => number)).size).toBe(PACKAGES.length);
    const missing =
      '00 02 04 08 10 11 14 20 21 27 30 32 86 266 4001 4011 4012 4023 4025 4030 4070 4049 4050 4069 4071 4072 4073 4075 4077 4081 4082 74 73 76 107 112 173 174 175 273 374 4013 4027 90 93 161 163 193 164 165 194 4017 4020 4040 4060 4029 138 139 147 148 151 153 157 283 85 47 48 4511 4051'
        .split(' ')
        .filter((number) => !PACKAGES.some((type) => type.number === number));
    expect(missing).toEqual([]);
  });

  test('pins that can be exchanged do the same', () => {
    for (const type of PACKAGES)
      for (const group of type.exchangeable) {
        const { name } = named(type.number);
        const [one, other] = [Rig.of('package', { type: name }), Rig.of('package', { type: name })];
        const roll = numbers(7);
        const full = (unitName: string) => type.units[0]!.pins.get(unitName)!.name;
        const [a, b] = [full(group[0]!), full(group[1]!)];
        for (let step = 0; step < 60; step++) {
          const levels = Object.fromEntries(inputsOf(type).map((pin) => [pin, roll(2)]));
          // Clocks move alone, so that no two edges meet.
          one.set(levels);
          other.set({ ...levels, [a]: levels[b]!, [b]: levels[a]! });
          for (const { name: pin, use } of type.pins)
            if (use === 'out')
              expect([type.number, pin, other.word(pin)]).toEqual([type.number, pin, one.word(pin)]);
        }
      }
  });
});

test.each([
  ['7400', '74HC00'],
  ['74HC00', '74HC00'],
  ['74ls00', '74LS00'],
  ['SN74LS00N', '74LS00'],
  ['CD4011BE', '4011'],
  ['4020', '4020'],
  ['7447', '74LS47'],
])('%s is the %s', (typed, name) => {
  expect(packageCalled(typed)?.name).toBe(name);
});

test.each(['7499', '74HC47', '40', '74', 'nand', '4099', ''])('%s is no package', (typed) => {
  expect(packageCalled(typed)).toBeUndefined();
});

test('a package has a name in each of its families, and a delay', () => {
  expect(findPackage('74LS08')?.type.ns['74LS']).toBe(9);
  expect(findPackage('4081')?.family).toBe('4000B');
});

/** The output of each gate by the number of its inputs and of those at 1. */
const GATES: Readonly<Record<string, (ones: number, inputs: number) => boolean>> = {
  and: (ones, inputs) => ones === inputs,
  or: (ones) => ones > 0,
  nand: (ones, inputs) => ones < inputs,
  nor: (ones) => ones === 0,
  xor: (ones) => ones % 2 === 1,
  xnor: (ones) => ones % 2 === 0,
  not: (ones) => ones === 0,
  buffer: (ones) => ones === 1,
};

/** Which pins are the inputs and the output of each gate, as data sheets draw them. */
const GATE_PINS: Readonly<Record<string, readonly (readonly number[])[]>> = {
  '00 08 32 86': [
    [1, 2, 3],
    [4, 5, 6],
    [9, 10, 8],
    [12, 13, 11],
  ],
  '02': [
    [2, 3, 1],
    [5, 6, 4],
    [8, 9, 10],
    [11, 12, 13],
  ],
  '04 14 4069': [
    [1, 2],
    [3, 4],
    [5, 6],
    [9, 8],
    [11, 10],
    [13, 12],
  ],
  '10 11 27': [
    [1, 2, 13, 12],
    [3, 4, 5, 6],
    [9, 10, 11, 8],
  ],
  '20 21': [
    [1, 2, 4, 5, 6],
    [9, 10, 12, 13, 8],
  ],
  '30': [[1, 2, 3, 4, 5, 6, 11, 12, 8]],
  '266 4001 4011 4030 4070 4071 4077 4081': [
    [1, 2, 3],
    [5, 6, 4],
    [8, 9, 10],
    [12, 13, 11],
  ],
  '4023 4025 4073 4075': [
    [1, 2, 8, 9],
    [3, 4, 5, 6],
    [11, 12, 13, 10],
  ],
  '4012 4072 4082': [
    [2, 3, 4, 5, 1],
    [9, 10, 11, 12, 13],
  ],
  '4049 4050': [
    [3, 2],
    [5, 4],
    [7, 6],
    [9, 10],
    [11, 12],
    [14, 15],
  ],
};
const GATE_KINDS: Readonly<Record<string, string>> = {
  nand: '00 10 20 30 4011 4012 4023',
  nor: '02 27 4001 4025',
  and: '08 11 21 4073 4081 4082',
  or: '32 4071 4072 4075',
  xor: '86 4030 4070',
  xnor: '266 4077',
  not: '04 14 4049 4069',
  buffer: '4050',
};

const gateNumbers = Object.keys(GATE_PINS).flatMap((numbers) => numbers.split(' '));

test.each(gateNumbers)('each gate of the %s does what its kind says, at its own pins', (number) => {
  const kind = Object.keys(GATE_KINDS).find((k) => GATE_KINDS[k]!.split(' ').includes(number))!;
  const pins = Object.entries(GATE_PINS).find(([numbers]) => numbers.split(' ').includes(number))![1];
  const { type } = named(number);
  const nameAt = (pin: number) => type.pins[pin - 1]!.name;
  const bench = new Bench(number).put(Object.fromEntries(inputsOf(type).map((name) => [name, 0])));
  for (const gate of pins) {
    const ins = gate.slice(0, -1).map(nameAt);
    for (let row = 0; row < 2 ** ins.length; row++) {
      bench.put(Object.fromEntries(ins.map((name, i) => [name, (row >> i) & 1])));
      const ones = ins.filter((_, i) => (row >> i) & 1).length;
      const is = GATES[kind]!(ones, ins.length);
      // An output that only pulls to 0 has no 1 of its own.
      const high = type.isOpenCollector ? 'Z' : '1';
      expect([number, row, bench.read(nameAt(gate.at(-1)!))]).toEqual([number, row, is ? high : '0']);
    }
  }
});

/** Outputs of packages that remember nothing, from their inputs. */
const FUNCTIONS: Readonly<Record<string, (pin: (name: string) => number) => Pins>> = {
  '138': (pin) => {
    const on = pin('G1') && !pin("G2A'") && !pin("G2B'");
    const chosen = pin('A') + 2 * pin('B') + 4 * pin('C');
    return Object.fromEntries(Array.from({ length: 8 }, (_, n) => [`Y${n}'`, on && n === chosen ? 0 : 1]));
  },
  '139': (pin) =>
    Object.fromEntries(
      [1, 2].flatMap((unit) =>
        [0, 1, 2, 3].map((n) => {
          const is = !pin(`${unit}G'`) && n === pin(`${unit}A`) + 2 * pin(`${unit}B`);
          return [`${unit}Y${n}'`, is ? 0 : 1];
        }),
      ),
    ),
  '147': (pin) => {
    const found = [9, 8, 7, 6, 5, 4, 3, 2, 1].find((n) => !pin(`${n}'`)) ?? 0;
    return Object.fromEntries([...'ABCD'].map((letter, i) => [`${letter}'`, 1 - ((found >> i) & 1)]));
  },
  '148': (pin) => {
    const found = [7, 6, 5, 4, 3, 2, 1, 0].find((n) => !pin(`${n}'`));
    const on = !pin("EI'");
    const number = on ? (found ?? 0) : 0;
    return {
      "A0'": 1 - (number & 1),
      "A1'": 1 - ((number >> 1) & 1),
      "A2'": 1 - ((number >> 2) & 1),
      "GS'": on && found !== undefined ? 0 : 1,
      "EO'": on && found === undefined ? 0 : 1,
    };
  },
  '151': (pin) => {
    const y = pin("G'") ? 0 : pin(`D${pin('A') + 2 * pin('B') + 4 * pin('C')}`);
    return { Y: y, "W'": 1 - y };
  },
  '153': (pin) =>
    Object.fromEntries(
      [1, 2].map((n) => [`${n}Y`, pin(`${n}G'`) ? 0 : pin(`${n}C${pin('A') + 2 * pin('B')}`)]),
    ),
  '157': (pin) =>
    Object.fromEntries(
      [1, 2, 3, 4].map((n) => [`${n}Y`, pin("G'") ? 0 : pin(`${n}${pin('S') ? 'B' : 'A'}`)]),
    ),
  '283': (pin) => {
    const word = (letter: string) =>
      [1, 2, 3, 4].reduce((sum, i) => sum + pin(`${letter}${i}`) * 2 ** (i - 1), 0);
    const sum = word('A') + word('B') + pin('C0');
    return { S1: sum & 1, S2: (sum >> 1) & 1, S3: (sum >> 2) & 1, S4: (sum >> 3) & 1, C4: sum >> 4 };
  },
  '85': (pin) => {
    const word = (letter: string) => [0, 1, 2, 3].reduce((sum, i) => sum + pin(`${letter}${i}`) * 2 ** i, 0);
    const by = word('A') - word('B');
    const [less, equal, greater] = [pin('IA<B'), pin('IA=B'), pin('IA>B')];
    if (by !== 0) return { 'OA<B': +(by < 0), 'OA=B': 0, 'OA>B': +(by > 0) };
    if (equal) return { 'OA<B': 0, 'OA=B': 1, 'OA>B': 0 };
    return { 'OA<B': 1 - greater, 'OA=B': 0, 'OA>B': 1 - less };
  },
};

test.each(Object.keys(FUNCTIONS))('the %s follows its function table', (number) => {
  const { type } = named(number);
  const inputs = inputsOf(type);
  const bench = new Bench(number);
  const roll = numbers(1);
  const rows = inputs.length <= 10 ? 2 ** inputs.length : 700;
  for (let row = 0; row < rows; row++) {
    const levels = Object.fromEntries(
      inputs.map((name, i) => [name, inputs.length <= 10 ? (row >> i) & 1 : roll(2)]),
    );
    bench.put(levels);
    for (const [pin, level] of Object.entries(FUNCTIONS[number]!((name) => bench.at(name))))
      expect([number, levels, pin, bench.read(pin)]).toEqual([number, levels, pin, String(level)]);
  }
});

test('the 4051 passes the chosen line on, and is off under INH', () => {
  const bench = new Bench('4051').put({ INH: 0, A: 1, B: 0, C: 1, X5: 1 });
  for (const n of [0, 1, 2, 3, 4, 6, 7]) bench.put({ [`X${n}`]: 0 });
  expect(bench.read('X')).toBe('1');
  expect(bench.put({ A: 0 }).read('X')).toBe('0');
  expect(bench.put({ INH: 1 }).read('X')).toBe('Z');
});

describe('drivers of seven bars', () => {
  const digits = [
    '1111110',
    '0110000',
    '1101101',
    '1111001',
    '0110011',
    '1011011',
    '0011111',
    '1110000',
    '1111111',
    '1110011',
  ];
  const binary = (n: number) => ({ A: n & 1, B: (n >> 1) & 1, C: (n >> 2) & 1, D: n >> 3 });

  test('the 48 shows digits, tests its lamps, and blanks a leading zero', () => {
    const bench = new Bench('48').put({ "LT'": 1, "RBI'": 1 });
    for (const [n, bars] of digits.entries())
      expect([n, bench.put(binary(n)).read('a b c d e f g')]).toEqual([n, bars]);
    expect(bench.put(binary(15)).read('a b c d e f g')).toBe('0000000');
    expect(bench.put({ "LT'": 0 }).read('a b c d e f g')).toBe('1111111');
    expect(bench.put({ "LT'": 1, ...binary(0), "RBI'": 0 }).read("a b c d e f g BI'/RBO'")).toBe('00000000');
    expect(bench.put(binary(8)).read("a g BI'/RBO'")).toBe('111');
  });

  test('the 48 is blanked from outside', () => {
    const sheet = sheetAround('package', { type: '74LS48' });
    const blank = partOf('switch', 'blank', {}, 99, 'Blank');
    const wire = {
      id: 'w99',
      from: { part: 'blank', port: 'Y' },
      to: { part: 'dut', port: "BI'/RBO'" },
      course: [],
    };
    const rig = new Rig({
      ...sheet,
      parts: new Map([...sheet.parts, ['blank', blank]]),
      wires: new Map([...sheet.wires, ['w99', wire]]),
    });
    rig.set({ "LT'": 1, "RBI'": 1, ...binary(8), Blank: 1 });
    expect(rig.word('a')).toBe('1');
    expect(rig.set({ Blank: 0 }).word('a')).toBe('0');
  });

  test('the 47 pulls the bars of a digit to 0', () => {
    const bench = new Bench('47').put({ "LT'": 1, "RBI'": 1 });
    for (const [n, bars] of digits.entries())
      expect(bench.put(binary(n)).read("a' b' c' d' e' f' g'")).toBe(
        bars.replaceAll(/[01]/g, (bar) => (bar === '1' ? '0' : 'Z')),
      );
  });

  test('the 4511 keeps a digit under LE and is dark above 9', () => {
    const bench = new Bench('4511').put({ "LT'": 1, "BL'": 1, LE: 0 });
    for (const [n, bars] of digits.entries()) expect(bench.put(binary(n)).read('a b c d e f g')).toBe(bars);
    bench.put(binary(3)).put({ LE: 1 }).put(binary(7));
    expect(bench.read('a b c d e f g')).toBe(digits[3]);
    expect(bench.put({ LE: 0, ...binary(12) }).read('a b c d e f g')).toBe('0000000');
    expect(bench.put(binary(8)).put({ "BL'": 0 }).read('a g')).toBe('00');
  });
});

describe('flip-flops', () => {
  test.each([
    ['74', "PRE'", "CLR'", 0],
    ['4013', 'S', 'R', 1],
  ] as const)('the %s takes D on the rising edge; set and reset act at once', (number, set, reset, acts) => {
    const off = 1 - acts;
    const bench = new Bench(number).put({ [`1${set}`]: off, [`1${reset}`]: acts, '1CLK': 0, '1D': 1 });
    bench.put({ [`1${reset}`]: off });
    expect(bench.read("1Q 1Q'")).toBe('01');
    expect(bench.put({ '1CLK': 1 }).read("1Q 1Q'")).toBe('10');
    expect(bench.put({ '1D': 0, '1CLK': 0 }).read('1Q')).toBe('1');
    expect(bench.put({ '1CLK': 1 }).read('1Q')).toBe('0');
    expect(bench.put({ [`1${set}`]: acts }).read("1Q 1Q'")).toBe('10');
    expect(bench.put({ [`1${reset}`]: acts }).read("1Q 1Q'")).toBe('11');
    expect(bench.put({ [`1${set}`]: off }).read("1Q 1Q'")).toBe('01');
  });

  test.each([
    ['73', null, "CLR'", 0, 'falling'],
    ['76', "PRE'", "CLR'", 0, 'falling'],
    ['107', null, "CLR'", 0, 'falling'],
    ['112', "PRE'", "CLR'", 0, 'falling'],
    ['4027', 'S', 'R', 1, 'rising'],
  ] as const)('both halves of the %s hold, set, reset and toggle', (number, set, reset, acts, edge) => {
    for (const half of [1, 2]) {
      const pin = (name: string) => `${half}${name}`;
      const bench = new Bench(number).put({ [pin('CLK')]: 0, [pin('J')]: 0, [pin('K')]: 0 });
      if (set) bench.put({ [pin(set)]: 1 - acts });
      bench.put({ [pin(reset)]: acts }).put({ [pin(reset)]: 1 - acts });
      let state = 0;
      const roll = numbers(half);
      for (let step = 0; step < 40; step++) {
        const [j, k] = [roll(2), roll(2)];
        bench.put({ [pin('J')]: j, [pin('K')]: k });
        const next = state ? 1 - k : j;
        bench.put({ [pin('CLK')]: 1 });
        if (edge === 'rising') state = next;
        expect(bench.read(pin('Q'))).toBe(String(state));
        bench.put({ [pin('CLK')]: 0 });
        state = edge === 'rising' ? state : next;
        expect(bench.read(`${pin('Q')} ${pin("Q'")}`)).toBe(`${state}${1 - state}`);
      }
      if (set) {
        expect(bench.put({ [pin(set)]: acts }).read(pin('Q'))).toBe('1');
        bench.put({ [pin(set)]: 1 - acts });
      }
      expect(bench.put({ [pin(reset)]: acts }).read(pin('Q'))).toBe('0');
    }
  });

  test.each([
    ['174', 6],
    ['175', 4],
    ['273', 8],
    ['374', 8],
    ['173', 4],
  ] as const)('the %s takes %i bits at its clock', (number, bits) => {
    const ready = {
      '174': { "CLR'": 1 },
      '175': { "CLR'": 1 },
      '273': { "CLR'": 1 },
      '374': { "OE'": 0 },
      '173': { "M'": 0, "N'": 0, "G1'": 0, "G2'": 0, CLR: 0 },
    }[number] as Pins;
    const bench = new Bench(number).put({ ...ready, CLK: 0 });
    const roll = numbers(bits);
    const outputs = Array.from({ length: bits }, (_, i) => `${i + 1}Q`).join(' ');
    for (let step = 0; step < 12; step++) {
      const word = Array.from({ length: bits }, () => roll(2));
      bench.pulse('CLK', Object.fromEntries(word.map((bit, i) => [`${i + 1}D`, bit])));
      expect(bench.read(outputs)).toBe(word.join(''));
    }
    if (number === '175') expect(bench.read("1Q'")).not.toBe(bench.read('1Q'));
    if ("OE'" in ready) expect(bench.put({ "OE'": 1 }).read(outputs)).toBe('Z'.repeat(bits));
    if ("CLR'" in ready) expect(bench.put({ "CLR'": 0 }).read(outputs)).toBe('0'.repeat(bits));
    if (number === '173') {
      const kept = bench.read(outputs);
      bench.pulse('CLK', { "G1'": 1, '1D': 1 - Number(kept[0]) });
      expect(bench.read(outputs)).toBe(kept);
      expect(bench.put({ CLR: 1 }).read(outputs)).toBe('0000');
      expect(bench.put({ "M'": 1 }).read(outputs)).toBe('ZZZZ');
    }
  });
});

describe('counters and shift registers', () => {
  const count = (bench: Bench, names: string) => Number.parseInt(bench.read(names), 2);

  test('the 90 counts to nine on the falling edge, and is set to 0 or 9', () => {
    const bench = new Bench('90').put({ 'R0(1)': 1, 'R0(2)': 1, 'R9(1)': 0, 'R9(2)': 0, CKA: 0, CKB: 0 });
    bench.put({ 'R0(2)': 0 });
    for (let n = 1; n <= 25; n++) {
      bench.put({ CKA: 1 }).put({ CKA: 0 });
      // QA into CKB, by hand.
      bench.put({ CKB: Number(bench.read('QA')) });
      expect([n, count(bench, 'QD QC QB QA')]).toEqual([n, n % 10]);
    }
    expect(count(bench.put({ 'R9(1)': 1, 'R9(2)': 1 }), 'QD QC QB QA')).toBe(9);
    expect(count(bench.put({ 'R9(1)': 0, 'R0(2)': 1 }), 'QD QC QB QA')).toBe(0);
  });

  test('the 93 counts to fifteen', () => {
    const bench = new Bench('93').put({ 'R0(1)': 1, 'R0(2)': 1, CKA: 0, CKB: 0 }).put({ 'R0(1)': 0 });
    for (let n = 1; n <= 20; n++) {
      bench.pulse('CKA').put({ CKB: Number(bench.read('QA')) });
      expect(count(bench, 'QD QC QB QA')).toBe(n % 16);
    }
  });

  test.each(['161', '163'])('the %s counts, loads, holds and clears', (which) => {
    const bench = new Bench(which).put({ CLK: 0, "CLR'": 0, "LOAD'": 1, ENP: 1, ENT: 1 });
    bench.pulse('CLK').put({ "CLR'": 1 });
    const word = 'QD QC QB QA';
    for (let n = 1; n <= 17; n++) {
      bench.pulse('CLK');
      expect([n, count(bench, word), bench.read('RCO')]).toEqual([n, n % 16, n === 15 ? '1' : '0']);
    }
    expect(count(bench.pulse('CLK', { A: 0, B: 1, C: 0, D: 1, "LOAD'": 0 }), word)).toBe(10);
    expect(count(bench.pulse('CLK', { "LOAD'": 1, ENP: 0 }), word)).toBe(10);
    expect(count(bench.put({ "CLR'": 0 }), word)).toBe(which === '161' ? 0 : 10);
    expect(count(bench.pulse('CLK'), word)).toBe(0);
  });

  test('the 193 counts either way by two clocks', () => {
    const bench = new Bench('193').put({ CLR: 1, UP: 1, DOWN: 1, "LOAD'": 1 }).put({ CLR: 0 });
    const word = 'QD QC QB QA';
    const roll = numbers(3);
    let state = 0;
    for (let step = 0; step < 60; step++) {
      const clock = roll(3) ? 'UP' : 'DOWN';
      bench.put({ [clock]: 0 });
      expect(bench.read("CO' BO'")).toBe(
        `${clock === 'UP' && state === 15 ? 0 : 1}${clock === 'DOWN' && state === 0 ? 0 : 1}`,
      );
      bench.put({ [clock]: 1 });
      state = (state + (clock === 'UP' ? 1 : 15)) % 16;
      expect([step, count(bench, word)]).toEqual([step, state]);
    }
    expect(count(bench.put({ A: 1, B: 0, C: 0, D: 1, "LOAD'": 0 }), word)).toBe(9);
    expect(count(bench.put({ A: 0 }), word)).toBe(8);
    expect(count(bench.put({ "LOAD'": 1, CLR: 1 }), word)).toBe(0);
  });

  test('the 164 shifts A and B in', () => {
    const bench = new Bench('164').put({ "CLR'": 0, CLK: 0 }).put({ "CLR'": 1 });
    let word = '00000000';
    const roll = numbers(4);
    for (let step = 0; step < 30; step++) {
      const [A, B] = [roll(2), roll(2)];
      bench.pulse('CLK', { A, B });
      word = `${A & B}${word.slice(0, 7)}`;
      expect(bench.read('QA QB QC QD QE QF QG QH')).toBe(word);
    }
  });

  test('the 165 is loaded at once and shifts out at QH', () => {
    const bench = new Bench('165').put({ CLK: 0, INH: 0, SER: 0, "SH/LD'": 0 });
    bench.put({ A: 1, B: 0, C: 0, D: 1, E: 1, F: 1, G: 0, H: 1 }).put({ "SH/LD'": 1 });
    let out = bench.read('QH');
    for (let step = 0; step < 7; step++) out += bench.pulse('CLK').read('QH');
    expect(out).toBe('10111001');
    expect(bench.read("QH'")).toBe('0');
    bench.put({ "SH/LD'": 0 }).put({ "SH/LD'": 1, INH: 1 }).put({ CLK: 1 }).put({ CLK: 0 });
    expect(bench.read('QH')).toBe('1');
  });

  test('the 194 holds, shifts either way and loads', () => {
    const bench = new Bench('194').put({ "CLR'": 0, CLK: 0 }).put({ "CLR'": 1 });
    const outputs = 'QA QB QC QD';
    expect(bench.pulse('CLK', { S0: 1, S1: 1, A: 1, B: 0, C: 1, D: 0 }).read(outputs)).toBe('1010');
    expect(bench.pulse('CLK', { S1: 0, SR: 1 }).read(outputs)).toBe('1101');
    expect(bench.pulse('CLK', { S0: 0, S1: 1, SL: 0 }).read(outputs)).toBe('1010');
    expect(bench.pulse('CLK', { S1: 0 }).read(outputs)).toBe('1010');
  });

  test('the 4017 has one output at 1, and CO for the first five', () => {
    const bench = new Bench('4017').put({ R: 1, CLK: 0, INH: 0 }).put({ R: 0 });
    for (let n = 0; n < 13; n++) {
      const ones = Array.from({ length: 10 }, (_, i) => bench.read(`Q${i}`)).join('');
      expect(ones.indexOf('1')).toBe(n % 10);
      expect(ones.lastIndexOf('1')).toBe(n % 10);
      expect(bench.read('CO')).toBe(n % 10 < 5 ? '1' : '0');
      bench.pulse('CLK');
    }
    const before = bench.read('Q3');
    expect(bench.put({ INH: 1 }).pulse('CLK').read('Q3')).toBe(before);
  });

  test.each([
    ['4020', "CLK'", 14],
    ['4040', "CLK'", 12],
    ['4060', 'CLK', 14],
  ] as const)('the %s divides on the falling edge of %s', (which, clock, stages) => {
    const bench = new Bench(which).put({ R: 1, [clock]: 0 }).put({ R: 0 });
    const brought = Array.from({ length: stages }, (_, i) => i + 1).filter((n) =>
      named(which).type.pins.some(({ name }) => name === `Q${n}`),
    );
    expect(brought).toHaveLength(which === '4020' ? 12 : which === '4040' ? 12 : 10);
    for (let n = 1; n <= 300; n++) {
      bench.put({ [clock]: 1 });
      bench.put({ [clock]: 0 });
      if (n % 37 === 0 || n < 20)
        for (const stage of brought)
          expect([n, stage, bench.read(`Q${stage}`)]).toEqual([n, stage, String((n >> (stage - 1)) & 1)]);
    }
    if (which === '4060') expect(bench.read("OSC OSC'")).toBe('01');
    for (const stage of brought) expect(bench.put({ R: 1 }).read(`Q${stage}`)).toBe('0');
  });

  test('the 4029 counts up and down, binary and decade', () => {
    const bench = new Bench('4029')
      .put({ PE: 1, J1: 0, J2: 0, J3: 0, J4: 0, "CI'": 0, CLK: 0 })
      .put({ PE: 0 });
    const word = 'Q4 Q3 Q2 Q1';
    for (const [binary, up] of [
      [1, 1],
      [1, 0],
      [0, 1],
      [0, 0],
    ]) {
      const modulo = binary ? 16 : 10;
      bench.put({ 'B/D': binary!, 'U/D': up! }).put({ PE: 1 }).put({ PE: 0 });
      let state = 0;
      for (let n = 0; n < 20; n++) {
        const last = up ? modulo - 1 : 0;
        expect([binary, up, n, count(bench, word), bench.read("CO'")]).toEqual([
          binary,
          up,
          n,
          state,
          state === last ? '0' : '1',
        ]);
        bench.pulse('CLK');
        state = (state + (up ? 1 : modulo - 1)) % modulo;
      }
    }
    const kept = count(bench, word);
    expect(count(bench.put({ "CI'": 1 }).pulse('CLK'), word)).toBe(kept);
  });
});
