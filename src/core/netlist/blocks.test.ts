import type { Sheet } from '../circuit/sheet';
import { readPins, writePins } from '../parts/block';
import { partOf, Rig, sheetOfParts } from '../testing/rig';
import { blockCycle, unfoldedParts } from './blocks';
import { compile } from './compile';

const port = (id: string, direction: 'in' | 'out', width = 1, rank = 0) =>
  partOf('port', id, { direction, width }, rank);
const block = (id: string, sheet: string, inputs: string, outputs: string) =>
  partOf('block', id, { sheet, title: sheet, inputs, outputs });

const half: Sheet = sheetOfParts(
  [
    port('A', 'in'),
    port('B', 'in', 1, 1),
    partOf('xor', 'x'),
    partOf('and', 'a'),
    port('S', 'out'),
    port('C', 'out', 1, 1),
  ],
  ['A.Y-x.A', 'B.Y-x.B', 'A.Y-a.A', 'B.Y-a.B', 'x.Y-S.A', 'a.Y-C.A'],
  'half',
);
const full: Sheet = sheetOfParts(
  [
    port('A', 'in'),
    port('B', 'in', 1, 1),
    port('CI', 'in', 1, 2),
    block('h1', 'half', 'A, B', 'S, C'),
    block('h2', 'half', 'A, B', 'S, C'),
    partOf('or', 'o'),
    port('S', 'out'),
    port('CO', 'out', 1, 1),
  ],
  ['A.Y-h1.A', 'B.Y-h1.B', 'h1.S-h2.A', 'CI.Y-h2.B', 'h2.S-S.A', 'h1.C-o.A', 'h2.C-o.B', 'o.Y-CO.A'],
  'full',
);

/** A ripple adder of full-adder blocks, with slices and a join around it. */
function ripple(width: number): Sheet {
  const parts = [port('A', 'in', width), port('B', 'in', width, 1), port('S', 'out', width + 1)];
  const joins: string[] = [];
  parts.push(
    partOf('join', 'j', { widths: Array(width + 1).fill(1) }),
    partOf('constant', 'zero', { value: 0 }),
  );
  for (let i = 0; i < width; i++) {
    parts.push(block(`f${i}`, 'full', 'A, B, CI', 'S, CO'));
    for (const bus of ['A', 'B']) {
      parts.push(partOf('slice', `${bus}${i}`, { width, high: i, low: i }));
      joins.push(`${bus}.Y-${bus}${i}.A`, `${bus}${i}.Y-f${i}.${bus}`);
    }
    joins.push(i === 0 ? 'zero.Y-f0.CI' : `f${i - 1}.CO-f${i}.CI`, `f${i}.S-j.I${i}`);
  }
  joins.push(`f${width - 1}.CO-j.I${width}`, 'j.Y-S.A');
  return sheetOfParts(parts, joins, 'ripple');
}

test('blocks in blocks add up', () => {
  const rig = new Rig(ripple(4), {}, [half, full]);
  expect(rig.netlist.diagnostics).toEqual([]);
  for (let a = 0; a < 16; a++)
    for (let b = 0; b < 16; b++) expect(rig.set({ A: a, B: b }).number('S')).toBe(a + b);
});

test('a part inside has its path, and its nets can be looked at', () => {
  const netlist = compile(ripple(2), [half, full]);
  const names = new Set([...netlist.owner].map((o) => netlist.partName(o)));
  expect(names).toContain('f1/h2/x');
  const inside = netlist.at('f1/h2')!;
  expect(inside.netsOfPin('x', 'Y')).toEqual(netlist.at('f1')!.netsOfPin('h2', 'S'));
  expect(netlist.at('f1')!.netsOfPin('h2', 'S')).toEqual([netlist.netsOfPin('j', 'Y')![1]]);
  expect(netlist.at('f9')).toBeUndefined();
});

test('a sheet that holds itself is refused with the way named', () => {
  const a = sheetOfParts([block('b1', 'b', '', '')], [], 'a');
  const b = sheetOfParts([block('a1', 'a', '', '')], [], 'b');
  const [found] = compile(a, [a, b]).diagnostics;
  expect(found).toMatchObject({ code: 'recursion', inside: 'b', pins: [{ part: 'a1' }] });
  expect(found!.message).toContain('“a” holds “b” holds “a”');
});

test('blocks that double on each level are cut off, not endless', () => {
  const sheets = Array.from({ length: 40 }, (_, i) =>
    sheetOfParts(
      i === 39 ? [partOf('not', 'n')] : [block('x', `s${i + 1}`, '', ''), block('y', `s${i + 1}`, '', '')],
      [],
      `s${i}`,
    ),
  );
  const found = compile(sheets[0]!, sheets).diagnostics;
  expect(found.some((d) => d.code === 'recursion' && d.message.includes('become too many'))).toBe(true);
});

test('a missing sheet, a missing port and a port of another width are named', () => {
  const gone = compile(sheetOfParts([block('b', 'nowhere', '', '')], []));
  expect(gone.diagnostics[0]).toMatchObject({ code: 'unknown-block' });
  const sheet = sheetOfParts([block('b', 'half', 'A[1:0], B, Z', 'S, C')], []);
  const codes = compile(sheet, [half]).diagnostics.map((d) => `${d.code} ${d.pins[0]?.port}`);
  expect(codes).toEqual(expect.arrayContaining(['width-mismatch A', 'missing-port Z', 'loose-input B']));
});

test('switches and clocks inside a block stay at work there', () => {
  const inner = sheetOfParts(
    [partOf('clock', 'c', { hertz: 1 }), partOf('constant', 'one'), port('Y', 'out')],
    ['c.Y-Y.A'],
    'inner',
  );
  const rig = new Rig(sheetOfParts([block('b', 'inner', '', 'Y'), port('Q', 'out')], ['b.Y-Q.A']), {}, [
    inner,
  ]);
  expect(rig.word('Q')).toBe('0');
  rig.run.advance(0.6e12);
  expect(rig.word('Q')).toBe('1');
});

test('pins of a block are read and written', () => {
  expect(readPins('A, Count[3:0],, A, Q′')).toEqual([
    { name: 'A', width: 1 },
    { name: 'Count', width: 4 },
    { name: 'Q′', width: 1 },
  ]);
  expect(writePins(readPins('A, Count[3:0]'))).toBe('A, Count[3:0]');
});

test('two inputs of one name, and a clock that comes out of a gate, are pointed out', () => {
  const twins = sheetOfParts(
    [
      partOf('switch', 's1', {}, 0, 'A'),
      partOf('switch', 's2', {}, 1, 'A'),
      partOf('and', 'g'),
      partOf('dff', 'f'),
    ],
    ['s1.Y-g.A', 's2.Y-g.B', 'g.Y-f.C', 's1.Y-f.D'],
  );
  const found = compile(twins).diagnostics;
  expect(found.map((d) => [d.code, d.severity])).toEqual([
    ['duplicate-name', 'problem'],
    ['gated-clock', 'note'],
  ]);
});

test('a latch of two gates is a loop and worth a note; what hangs behind it is not on it', () => {
  const latch = sheetOfParts(
    [
      port('S', 'in'),
      port('R', 'in', 1, 1),
      partOf('nor', 'n1'),
      partOf('nor', 'n2'),
      partOf('not', 'i'),
      port('Q', 'out'),
    ],
    ['S.Y-n1.A', 'R.Y-n2.A', 'n1.Y-n2.B', 'n2.Y-n1.B', 'n2.Y-i.A', 'i.Y-Q.A'],
  );
  expect(compile(latch).diagnostics).toEqual([
    expect.objectContaining({
      code: 'loop',
      severity: 'note',
      pins: [
        { part: 'n1', port: 'Y' },
        { part: 'n2', port: 'Y' },
      ],
    }),
  ]);
});

test('outputs tied together are told on the sheet that holds them, blocks by their names', () => {
  const inner = sheetOfParts(
    [port('A', 'in'), partOf('not', 'n'), port('Y', 'out')],
    ['A.Y-n.A', 'n.Y-Y.A'],
    'inner',
  );
  const outer = sheetOfParts(
    [port('S', 'in'), block('b1', 'inner', 'A', 'Y'), block('b2', 'inner', 'A', 'Y'), port('Q', 'out')],
    ['S.Y-b1.A', 'S.Y-b2.A', 'b1.Y-Q.A', 'b2.Y-Q.A'],
    'outer',
  );
  const tied = (sheet: Sheet, sheets: Sheet[]) =>
    compile(sheet, sheets).diagnostics.filter((d) => d.code === 'outputs-tied');
  expect(tied(outer, [inner])).toMatchObject([
    {
      message: expect.stringContaining('The outputs of b1 and b2 are tied'),
      pins: [{ part: 'b1' }, { part: 'b2' }],
    },
  ]);
  const top = sheetOfParts(
    [port('T', 'in'), block('o', 'outer', 'S', 'Q'), block('p', 'outer', 'S', 'Q')],
    ['T.Y-o.S', 'T.Y-p.S'],
    'top',
  );
  expect(tied(top, [inner, outer])).toMatchObject([
    { inside: 'outer', pins: [{ part: 'b1' }, { part: 'b2' }] },
  ]);
});

/** A chain of sheets, each with two blocks of the next. */
function doubling(levels: number): Sheet[] {
  return Array.from({ length: levels }, (_, i) =>
    sheetOfParts(
      i + 1 < levels
        ? [block('u', `s${i + 1}`, '', ''), block('v', `s${i + 1}`, '', '')]
        : [partOf('and', 'g')],
      [],
      `s${i}`,
    ),
  );
}

test('parts are counted without unfolding them, however many there would be', () => {
  const sheets = doubling(300);
  expect(unfoldedParts(sheets.slice(-3), sheets.at(-3)!)).toBe(2 + 4 + 4);
  expect(unfoldedParts(sheets, sheets[0]!)).toBeGreaterThan(1e80);
  // The compiler leaves out the rest and reports it.
  const few = sheets.slice(-40);
  const codes = compile(few[0]!, few).diagnostics.map((d) => d.code);
  expect(codes).toContain('recursion');
});

test('a chain of blocks that comes back to its sheet is found', () => {
  const a = sheetOfParts([block('x', 'b', '', '')], [], 'a');
  const b = sheetOfParts([block('y', 'c', '', '')], [], 'b');
  const c = sheetOfParts([block('z', 'b', '', '')], [], 'c');
  expect(blockCycle([a, b, c], a)).toEqual([b.name, c.name, b.name]);
  expect(blockCycle([a, b], a)).toBeNull();
  expect(unfoldedParts([a, b, c], a)).toBe(Number.POSITIVE_INFINITY);
});
