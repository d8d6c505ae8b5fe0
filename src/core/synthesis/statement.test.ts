import fc from 'fast-check';
import { overlap } from '../circuit/geometry';
import { bodyOf, courseOf } from '../drawing/geometry/placement';
import { evaluate } from '../logic/expression/expression';
import { compile } from '../netlist/compile';
import { expressionOf } from '../testing/expressions';
import { Rig } from '../testing/rig';
import { Sketch } from '../testing/sketch';
import { expectTidy } from '../testing/tidy-sheet';
import { sentence } from '../values/result';
import { drawStatement } from './draw-statement';
import { readStatement } from './statement';

function draw(s: Sketch, text: string): string[] {
  const read = readStatement(s.lesson, 'sheet1', text);
  if (!read.ok) throw new Error(read.problem.message);
  const { edit, parts } = drawStatement(s.lesson, 'sheet1', read.value, { x: 4, y: 4 });
  s.make(edit);
  return [...parts];
}

test('a half adder in two lines: inputs once, gates below each other, nothing on another', () => {
  const s = new Sketch();
  draw(s, 'Sum = A xor B');
  draw(s, 'Carry = A and B');
  expect([...s.sheet.parts.values()].map((p) => p.kind).sort()).toEqual([
    'and',
    'lamp',
    'lamp',
    'switch',
    'switch',
    'xor',
  ]);
  expect(s.columns()).toEqual(['0110', '0001']);
  expectTidy(s.sheet);
  const bodies = [...s.sheet.parts.values()].map(bodyOf);
  for (const [i, a] of bodies.entries())
    for (const b of bodies.slice(i + 1)) expect(overlap(a, b)).toBe(false);
});

test('a NOT of a name is drawn once, and a NOT of a gate is the inverting gate', () => {
  const s = new Sketch();
  draw(s, "Y = A'B + A'C");
  expect([...s.sheet.parts.values()].filter((p) => p.kind === 'not')).toHaveLength(1);
  const t = new Sketch();
  draw(t, 'Y = not (A or B)');
  expect([...t.sheet.parts.values()].some((p) => p.kind === 'nor')).toBe(true);
  expect(t.columns()).toEqual(['1000']);
});

const kinds = (s: Sketch, kind: string) => [...s.sheet.parts.values()].filter((p) => p.kind === kind);

test('statements share the inverters that are there, and the other output of a flip-flop', () => {
  const s = new Sketch();
  for (const text of ["W = A B'", "X = A' B", "Y = A' B'", "Z = A' + B"]) draw(s, text);
  expect(kinds(s, 'not')).toHaveLength(2);
  expect(s.columns()).toEqual(['0010', '0100', '1000', '1101']);
  const t = new Sketch();
  t.place('dff', 0, 0, 'Q0');
  draw(t, "Y = Q0' and A");
  draw(t, 'Z = not Q0');
  expect(kinds(t, 'not')).toHaveLength(0);
  expectTidy(t.sheet);
});

test('equal terms are drawn as often as they are written, or once where they are shared', () => {
  const draws = (terms: 'written' | 'shared') => {
    const s = new Sketch();
    s.lesson = { ...s.lesson, settings: { ...s.lesson.settings, terms } };
    draw(s, 'Y = (A and B) xor ((B and A) or C)');
    draw(s, 'Z = (A and B) or D');
    expectTidy(s.sheet);
    return s;
  };
  expect(kinds(draws('written'), 'and')).toHaveLength(3);
  const shared = draws('shared');
  expect(kinds(shared, 'and')).toHaveLength(1);
  expect(shared.columns()).toEqual(draws('written').columns());
  // A gate with a bubble, or of other operands, is another one.
  const t = new Sketch();
  t.lesson = { ...t.lesson, settings: { ...t.lesson.settings, terms: 'shared' } };
  draw(t, 'Y = A and B');
  const [gate] = kinds(t, 'and');
  t.make({
    type: 'changePart',
    sheet: t.sheet.id,
    id: gate!.id,
    change: { params: { ...gate!.params, inverted: [0] } },
  });
  draw(t, 'Z = A and B');
  draw(t, 'W = A and C');
  expect(kinds(t, 'and')).toHaveLength(3);
});

test('several pins are driven at once, by a name or by a constant', () => {
  const s = new Sketch();
  for (const [i, label] of ['Q0', 'Q1', 'Q2'].entries()) s.place('jkff', 20, 12 * i, label);
  s.place('clock', 0, 0, 'Clk');
  draw(s, 'Q0, Q1, Q2.C = Clk');
  draw(s, 'Q0.J, Q0.K = 1');
  const open = compile(s.sheet).diagnostics.flatMap((d) => d.pins.map((p) => `${p.part}.${p.port}`));
  expect(open.sort()).toEqual(['jkff2.J', 'jkff2.K', 'jkff3.J', 'jkff3.K']);
  expect(kinds(s, 'constant')).toHaveLength(1);
  expectTidy(s.sheet);
});

describe('bits of a bus', () => {
  const count = () => {
    const s = new Sketch();
    s.place('switch', 0, 8, 'A', { width: 8 });
    return s;
  };
  test.each([
    ['Y = A[3]', 0b1000, 1],
    ['Y = A[7:4]', 0b1011_0000, 0b1011],
    ['Y = A[4:7]', 0b1011_0000, 0b1011],
    ['Y = A[7:4] and A[3:0]', 0b1011_0110, 0b0010],
    ['Y = {A[3:0], A[7:4]}', 0b1011_0110, 0b0110_1011],
    ["Y = A[0]'", 0b1, 0],
  ])('%s', (text, value, wanted) => {
    const s = count();
    draw(s, text);
    const columns = s.columns();
    // The highest bit of an output comes first.
    expect(Number.parseInt(columns.map((column) => column[value]).join(''), 2)).toBe(wanted);
    expectTidy(s.sheet);
  });

  test.each([
    ['Y = B[3]', /place it first, as in sw 8 B/],
    ['Y = A[8]', /A has 8 bits: from 7 down to 0/],
    ['Y = A[7:4] and A', /4 bits and A 8|8 bits and A\[7:4\] 4/],
    ['Y = {A, C}', /nothing is called C/],
  ])('%s is refused', (text, why) => {
    const read = readStatement(count().lesson, 'sheet1', text);
    expect(read.ok ? '' : read.problem.message).toMatch(why);
  });
});

test('what is drawn is what was written', () => {
  const names = ['A', 'B', 'C'];
  const text = fc.letrec<{ e: string }>((tie) => ({
    e: fc.oneof(
      { maxDepth: 3 },
      fc.constantFrom('A', 'B', 'C', "A'", '1'),
      fc.tuple(tie('e'), fc.constantFrom(' + ', ' ^ ', ' & '), tie('e')).map((t) => `(${t.join('')})`),
      tie('e').map((e) => `not (${e})`),
    ),
  })).e;
  fc.assert(
    fc.property(text, (expression) => {
      const s = new Sketch();
      for (const name of names) s.place('switch', 0, 6 * names.indexOf(name), name);
      draw(s, `Y = ${expression}`);
      expect(compile(s.sheet).diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
      const read = expressionOf(expression);
      const wanted = Array.from({ length: 8 }, (_, row) =>
        evaluate(read, new Map(names.map((n, i) => [n, ((row >> (2 - i)) & 1) as 0 | 1]))),
      ).join('');
      expect(s.columns()).toEqual([wanted]);
    }),
    { numRuns: 60 },
  );
});

test('what is wider than any gate becomes a tree of gates', () => {
  const s = new Sketch();
  const names = Array.from({ length: 24 }, (_, i) => `N${i}`);
  draw(s, `Y = ${names.join(' xor ')}`);
  draw(s, `Z = not (${names.slice(0, 17).join(' or ')})`);
  const gates = [...s.sheet.parts.values()].filter((p) => /xor|or/.test(p.kind));
  expect(gates.every((p) => Number(p.params.inputs) <= 16)).toBe(true);
  const { inputColumns, diagnostics } = compile(s.sheet);
  expect([inputColumns.length, diagnostics.filter((d) => d.severity === 'problem')]).toEqual([24, []]);
});

test('names are the labels on the sheet: flip-flops drive, their pins are targets, lamps that wait are taken', () => {
  const s = new Sketch();
  s.place('tff', 30, 0, 'Q0');
  s.place('tff', 30, 14, 'Q1');
  s.place('lamp', 60, 0, 'Full');
  draw(s, 'Q1.T = M xor Q0');
  draw(s, 'Full = Q0 Q1');
  const kinds = [...s.sheet.parts.values()].map((p) => p.kind);
  expect(kinds.filter((k) => k === 'lamp')).toHaveLength(1);
  expect(kinds.filter((k) => k === 'switch')).toHaveLength(1);
  expect(
    [...s.sheet.wires.values()].some((w) => 'part' in w.to && w.to.part === 'tff2' && w.to.port === 'T'),
  ).toBe(true);
});

test('what cannot be drawn says why', () => {
  const s = new Sketch();
  s.place('tff', 0, 0, 'Q0');
  const problem = (text: string) => {
    const read = readStatement(s.lesson, 'sheet1', text);
    return read.ok ? 'read' : sentence(read.problem);
  };
  expect(problem('= A')).toMatch(/Before the =/);
  expect(problem('Y = A +')).toBe('At the end: something is missing at the end.');
  expect(problem('Y = A ? B')).toBe('At the end: “:” is missing after “?”: S ? A : B.');
  expect(problem('Q0.J = A')).toBe('Q0 has no input J.');
  expect(problem('Y = Q0.R')).toBe('There is no pin Q0.R on this sheet.');
  expect(problem('Y = Q0.Q')).toBe('read');
  expect(problem(`${'x'.repeat(50)} = A`)).toMatch(/longer/);
});

test('pins of a logic package are read and led to by their names on the data sheet', () => {
  const s = new Sketch();
  s.place('package', 0, 0, 'U1', { type: '74HC00', unit: '' });
  draw(s, 'U1.1A = Key');
  draw(s, 'U1.1B = Bars');
  draw(s, 'Y = U1.1Y');
  expect(s.columns()).toEqual(['1110']);
});

test('a sheet is used like a function: its switches become ports, small letters name wires', () => {
  const s = new Sketch();
  draw(s, 'S = a xor b');
  draw(s, 'C = a and b');
  const half = { ...s.sheet, id: 'half', name: 'Half adder' };
  const t = new Sketch();
  t.lesson = { ...t.lesson, sheets: [t.sheet, half] };
  draw(t, 's, c = half adder(A, B)');
  draw(t, 'S, d = half adder(s, I)');
  draw(t, 'C = c or d');
  expect(t.columns()).toEqual(['01101001', '00010111']);
  expect(compile(t.sheet, t.lesson.sheets).diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
  expectTidy(t.sheet);
  const read = readStatement(t.lesson, 'sheet1', 'S = half adder(A, B, I)');
  expect(read).toMatchObject({ ok: false, problem: { message: '“Half adder” has 2 inputs: a, b' } });
  const few = readStatement(t.lesson, 'sheet1', 'S = half adder(A, B)');
  expect(few).toMatchObject({ ok: false, problem: { message: '“Half adder” has 2 outputs: S, C' } });
  const fed = readStatement(t.lesson, 'sheet1', 'A, E = half adder(A, B)');
  expect(fed).toMatchObject({ ok: false, problem: { code: 'feeds-itself' } });
});

describe('a row of blocks', () => {
  /** A sheet with a full adder beside the one that is drawn on. */
  const withFull = () => {
    const s = new Sketch();
    draw(s, 'S = a xor b xor i');
    draw(s, 'C = a b + i (a xor b)');
    const t = new Sketch();
    t.lesson = { ...t.lesson, sheets: [t.sheet, { ...s.sheet, id: 'full', name: 'full' }] };
    return t;
  };
  const rigOf = (t: Sketch) => new Rig(t.sheet, {}, t.lesson.sheets);

  test('what is wider than its pin is spread over a row of blocks, one output led on to the next', () => {
    const t = withFull();
    draw(t, 'Sum, Over = full(A[7:0], B[7:0], Over = Less)');
    expect(kinds(t, 'block')).toHaveLength(8);
    const rig = rigOf(t);
    for (const [a, b, less] of [
      [100, 58, 0],
      [255, 1, 0],
      [200, 99, 1],
    ] as const) {
      rig.set({ A: a, B: b, Less: less });
      expect([rig.number('Sum'), rig.number('Over')]).toEqual([(a + b + less) & 255, (a + b + less) >> 8]);
    }
    expectTidy(t.sheet);
    expect(rig.netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
  });

  test('a constant begins the chain, and parts that are there stay', () => {
    const t = withFull();
    t.place('switch', 0, 8, 'A', { width: 4 });
    const at = t.sheet.parts.get('switch1')!.at;
    draw(t, 'Sum, C = full(A, A, C = 1)');
    const rig = rigOf(t).set({ A: 6 });
    expect([rig.number('Sum'), rig.number('C')]).toEqual([13, 0]);
    expect(t.sheet.parts.get('switch1')!.at).toEqual(at);
    expectTidy(t.sheet);
  });

  test('bits of a bus go to one block, and without a chain each block stands for itself', () => {
    const t = withFull();
    draw(t, 'S, C = full(A[3:0], B[3:0], I)');
    expect(kinds(t, 'block')).toHaveLength(4);
    draw(t, 'T, D = full(A[2], B[0], 0)');
    const rig = rigOf(t).set({ A: 0b0111, B: 0b0101, I: 1 });
    const seen = ['S', 'C', 'T', 'D'].map((name) => rig.number(name));
    expect(seen).toEqual([0b1101, 0b0111, 0, 1]);
  });

  test.each([
    ['S, C = full(A[3:0], B[2:0], I)', 'B[2:0] has 3 bits and b of “full” 1, beside A[3:0] with 4'],
    [
      'S, C = full(A[3:0], B[3:0], D = 0)',
      'D is led on from block to block, so it must be one of the outputs before the =',
    ],
    ['S, C = full(A, S = B, C = 0)', 'one output can be led on from block to block, and here are several'],
    ['S, C = full(A[3:0], B[3:0], C = A[3:0])', 'A[3:0] has 4 bits and i of “full” 1, beside A[3:0] with 4'],
    ['S, C = full(A[3:1], B, 0)', 'nothing is called A on this sheet: place it first, as in sw 8 A'],
  ])('%s is refused', (text, message) => {
    const read = readStatement(withFull().lesson, 'sheet1', text);
    expect(read.ok ? null : read.problem.message).toBe(message);
  });

  test('buses that are new take part in plain statements too', () => {
    const s = new Sketch();
    draw(s, 'Y = A[7:0] and not B[7:0]');
    expect(kinds(s, 'switch').map((p) => [p.label, p.params.width])).toEqual([
      ['A', 8],
      ['B', 8],
    ]);
    expect(kinds(s, 'slice')).toEqual([]);
    expect(rigOf(s).set({ A: 0xf3, B: 0x1a }).number('Y')).toBe(0xe1);
  });
});

test.each([
  ['Q3.T = 1', 'nothing is called Q3 on this sheet: place the part first, then Q3.T is its input'],
  ['Y := A and B', 'write = alone: Y = A and B'],
  ['Y <= A', 'write = alone: Y = A'],
  ['Y == A', 'write = alone: Y = A'],
  [
    'Total = Total + Visitors',
    '+ is “or” here, and Total would feed itself. To add up, place an adder and a register: type adder 8, then register 8',
  ],
])('%j is refused, with what was probably meant', (text, message) => {
  const read = readStatement(new Sketch().lesson, 'sheet1', text);
  expect(read.ok ? null : read.problem.message).toBe(message);
});

test('operands of several bits: gates as wide as they are, and a sum of numbers is refused', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A', { width: 16 });
  s.place('switch', 0, 10, 'B', { width: 16 });
  s.place('switch', 0, 20, 'Key');
  draw(s, 'Y = A and not B');
  const made = [...s.sheet.parts.values()].filter((p) => ['and', 'not', 'lamp'].includes(p.kind));
  expect(made.map((p) => p.params.width)).toEqual([16, 16, 16]);
  // A name that is new takes as many bits as the others.
  draw(s, 'Z = A xor New');
  expect([...s.sheet.parts.values()].find((p) => p.label === 'New')!.params.width).toBe(16);
  const refusal = (text: string) => {
    const read = readStatement(s.lesson, 'sheet1', text);
    return read.ok ? null : read.problem.message;
  };
  expect(refusal('S = A + B')).toBe(
    'A has 16 bits, and + is “or” here. To add, place an adder: type adder 16. For “or”, write or',
  );
  expect(refusal('S = A and Key')).toBe('A has 16 bits and Key one: a gate takes inputs of equal widths');
  expect(refusal('S = A xor 1')).toMatch(/^0 and 1 are single bits here, and A has 16/);
  expect(compile(s.sheet).diagnostics.filter((d) => d.code === 'width-mismatch')).toEqual([]);
});

test.each([
  'Y = (A or B or not C or D) and (A or not B or C or not D) and (not A or B or C or D) and (A or not C or not D)',
  'F(A, B, C, D) = Σm(0, 1, 3, 5, 7, 9, 14)',
])('no wire of a long formula runs backwards, and its inputs stay above each other in order: %s', (text) => {
  for (const inputs of [[], ['A', 'B', 'C', 'D']]) {
    const s = new Sketch();
    for (const [i, label] of inputs.entries()) s.place('switch', 4, 4 + 5 * i, label);
    draw(s, text);
    for (const wire of s.sheet.wires.values()) {
      const xs = courseOf(s.sheet, wire).map(({ x }) => x);
      expect([wire.id, xs]).toEqual([wire.id, [...xs].sort((a, b) => a - b)]);
    }
    const heights = kinds(s, 'switch').map((p) => p.at.y);
    expect(heights).toEqual([...heights].sort((a, b) => a - b));
    expectTidy(s.sheet);
  }
});

test('a function with its arguments has its inputs in their order, and may be a list of rows', () => {
  const s = new Sketch();
  draw(s, 'F(A, B, C) = C + A');
  expect(kinds(s, 'switch').map((p) => p.label)).toEqual(['A', 'C']);
  const t = new Sketch();
  draw(t, 'F(A, B, C) = Σm(1, 2, 4, 7)');
  expect(t.columns()).toEqual(['01101001']);
  // The inputs that are there count further lists.
  draw(t, 'G = ΠM(0, 1, 2, 4)');
  expect(t.columns()).toEqual(['01101001', '00010111']);
});

test.each([
  ['Y = nand(A, B, C)', '11111110'],
  ['Y = and(A, B) or not(C)', '10101011'],
  ['assign Y = A & B | C;', '01010111'],
  ["Y = A.B' + B.C", '00011101'],
  ['Y = Ā B + C', '01110101'],
])('%s', (text, column) => {
  const s = new Sketch();
  draw(s, text);
  expect(s.columns()).toEqual([column]);
});

test.each([
  ['Y = A if B else C', 'at “if B else C”: “if” is no gate: write a choice as S ? A : B'],
  ['F = Σm(1)', 'at “Σm(1)”: say in which order the inputs are counted: F(A, B, C) = Σm(1, 2)'],
  ['Y = and(A)', 'at “(A)”: and has two inputs or more: and(A, B)'],
  ['Y = (A, B)', 'at “, B)”: “,” means nothing here'],
  ['Y = Q0.T', 'there is no pin Q0.T on this sheet'],
])('what is wrong with %s', (text, message) => {
  expect(readStatement(new Sketch().lesson, 'sheet1', text)).toMatchObject({ problem: { message } });
});

test('a lamp whose label has brackets is driven by that name', () => {
  const s = new Sketch();
  s.place('lamp', 40, 0, 'Out(1)');
  draw(s, 'Out(1) = A and B');
  expect([...s.sheet.parts.values()].filter((p) => p.kind === 'lamp').map((p) => p.label)).toEqual([
    'Out(1)',
  ]);
  expect(s.columns()).toEqual(['0001']);
});

describe('a name that is on the sheet already', () => {
  const labels = (s: Sketch, kind: string) => kinds(s, kind).map((p) => p.label);
  const problem = (s: Sketch, text: string) => {
    const read = readStatement(s.lesson, 'sheet1', text);
    return read.ok ? 'read' : sentence(read.problem);
  };

  test('is led to by its new statement, and what only made the old one goes', () => {
    const s = new Sketch();
    draw(s, 'Y = A and (B or C)');
    draw(s, 'Z = B or C');
    draw(s, 'Y = A xor B');
    expect(labels(s, 'lamp').sort()).toEqual(['Y', 'Z']);
    // Z still needs its OR.
    expect([kinds(s, 'and').length, kinds(s, 'xor').length, kinds(s, 'or').length]).toEqual([0, 1, 1]);
    expect(s.columns()).toEqual(['00111100', '01110111']);
    expectTidy(s.sheet);
  });

  test('may be read by its new statement', () => {
    const s = new Sketch();
    draw(s, 'Y = A and B');
    draw(s, 'Y = Y xor C');
    expect(labels(s, 'lamp')).toEqual(['Y']);
    expect(s.columns()).toEqual(['01010110']);
  });

  test('stays as it is where it is said of itself', () => {
    const s = new Sketch();
    for (const text of ['Y = A and B', 'Z = Y', 'Y = Y', 'Y = Z', 'Z = Y']) draw(s, text);
    expect(s.columns()).toEqual(['0001', '0001']);
    const alone = new Sketch();
    for (const text of ['Y = A and B', 'Y = Y']) draw(alone, text);
    expect(alone.columns()).toEqual(['0001']);
  });

  test('takes those along that read it', () => {
    const s = new Sketch();
    for (const text of ['sum = A xor B', 'Y = sum and C', 'sum = A or B']) draw(s, text);
    expect(kinds(s, 'xor')).toHaveLength(0);
    expect(s.columns()).toEqual(['00010101']);
  });

  test('is led to where it is driven, if it stands at several wires', () => {
    const s = new Sketch();
    // The net label that only reads comes first.
    s.wire(`${s.place('label', 60, 30, 'sum')}.A`, `${s.place('lamp', 70, 30, 'Z')}.A`);
    for (const [i, name] of ['A', 'B'].entries()) s.place('switch', 0, 8 * i, name);
    s.place('xor', 20, 4);
    s.wire('switch1.Y', 'xor1.A');
    s.wire('switch2.Y', 'xor1.B');
    s.wire('xor1.Y', `${s.place('label', 40, 4, 'sum')}.A`);
    expect(s.columns()).toEqual(['0110']);
    draw(s, 'sum = A or B');
    expect(s.columns()).toEqual(['0111']);
    expect(kinds(s, 'xor')).toHaveLength(0);
  });

  test('leaves another name of the same wire as it was', () => {
    const s = new Sketch();
    for (const text of ['Y = A and B', 'Z = Y', 'Y = A or B']) draw(s, text);
    expect(labels(s, 'lamp').sort()).toEqual(['Y', 'Z']);
    expect(s.columns().sort()).toEqual(['0001', '0111']);
    // Nor what reads the switch, or the flip-flop, to which it led.
    const t = new Sketch();
    for (const text of ['Y = A', 'Z = A and B', 'Y = B']) draw(t, text);
    expect(t.columns()).toEqual(['0101', '0001']);
  });

  test.each([
    ['in two statements', ['Q = nor(R, P)', 'P = nor(S, Q)']],
    ['in one', ["Q = S + R' Q"]],
    ['in one, in words', ['Q = not R and (S or Q)']],
  ])('closes a loop where it was a switch: a latch %s', (_, statements) => {
    const s = new Sketch();
    for (const text of statements) draw(s, text);
    expect(labels(s, 'switch').sort()).toEqual(['R', 'S']);
    const circuit = new Rig(s.sheet);
    const at = ([R, S]: readonly [number, number]) => circuit.set({ R, S }).word('Q');
    const course = [
      [1, 0],
      [0, 0],
      [0, 1],
      [0, 0],
      [1, 0],
    ] as const;
    expect(course.map(at).join('')).toBe('00110');
  });

  test('is refused where it is a part with inputs, another input, or a switch that would feed itself', () => {
    const s = new Sketch();
    s.place('tff', 0, 0, 'Q0');
    s.place('clock', 0, 20, 'Clock');
    draw(s, 'Y = A and B');
    expect(problem(s, 'Q0 = A')).toBe('Q0 is a part here (T flip-flop): write Q0.T = … for its input.');
    expect(problem(s, 'Clock = A')).toBe('Clock is a part here (Clock): give the output another name.');
    expect(problem(s, 'A = A xor B')).toMatch(/^A is a switch here, and would feed itself/);
    draw(s, 'Z = A');
    expect(problem(s, 'A = Z and B')).toMatch(/^A is a switch here, and would feed itself/);
    expect(problem(s, 'Total = Total + A')).toMatch(/feed itself/);
  });
});
