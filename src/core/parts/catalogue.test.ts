import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { turned } from '../circuit/geometry';
import type { Params } from '../circuit/sheet';
import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { Sketch } from '../testing/sketch';
import { type Logic, letterOf, ONE, X, Z } from '../values/logic';
import { CATALOGUE, families, findKind, PLACEABLE } from './catalogue';
import { inputName } from './gates';
import { defaultParams, readParams } from './params';

/** Each gate by its definition: the output for the number of inputs at 1. */
const DEFINITIONS: Record<string, (ones: number, inputs: number) => number> = {
  and: (ones, inputs) => +(ones === inputs),
  or: (ones) => +(ones > 0),
  nand: (ones, inputs) => +(ones < inputs),
  nor: (ones) => +(ones === 0),
  xor: (ones) => ones % 2,
  xnor: (ones) => 1 - (ones % 2),
};

function gateOutput(kind: string, values: readonly Logic[]): string {
  const s = new Sketch();
  const gate = s.place(kind, 20, 20, '', kind === 'not' ? {} : { inputs: values.length });
  for (const [i, v] of values.entries())
    if (v !== Z) {
      const input = s.place('switch', 0, 6 * i, `I${i}`);
      s.wire(`${input}.Y`, `${gate}.${inputName(i)}`);
    }
  const lamp = s.place('lamp', 40, 20);
  s.wire(`${gate}.Y`, `${lamp}.A`);
  const netlist = compile(s.sheet);
  const inputs = new Map(
    [...s.sheet.parts.values()]
      .filter((p) => p.kind === 'switch')
      .map((p) => [p.id, values[Number(p.label.slice(1))]!]),
  );
  const run = new Run(netlist, { delays: 'zero', inputs });
  return letterOf(run.values[netlist.outputs[0]!.nets[0]!] as Logic);
}

describe.each(Object.keys(DEFINITIONS))('%s', (kind) => {
  test.each([2, 3, 5])('with %i inputs gives its definition in every row', (inputs) => {
    for (let row = 0; row < 2 ** inputs; row++) {
      const values = Array.from({ length: inputs }, (_, i) => ((row >> i) & 1) as Logic);
      const ones = values.filter((v) => v === ONE).length;
      expect(gateOutput(kind, values)).toBe(String(DEFINITIONS[kind]!(ones, inputs)));
    }
  });
});

test('a value that decides a gate alone decides it beside X and beside a loose input', () => {
  for (const unsure of [X, Z] as Logic[]) {
    expect(gateOutput('and', [0, unsure])).toBe('0');
    expect(gateOutput('and', [1, unsure])).toBe('X');
    expect(gateOutput('nand', [0, unsure])).toBe('1');
    expect(gateOutput('or', [1, unsure])).toBe('1');
    expect(gateOutput('or', [0, unsure])).toBe('X');
    expect(gateOutput('nor', [1, unsure])).toBe('0');
    expect(gateOutput('xor', [1, unsure])).toBe('X');
  }
});

test('NOT inverts', () => {
  expect(['0', '1'].map((_, v) => gateOutput('not', [v as Logic]))).toEqual(['1', '0']);
  expect(gateOutput('not', [X])).toBe('X');
});

describe('every entry of the catalogue', () => {
  test.each(CATALOGUE.map((k) => [k.kind, k] as const))('%s is complete', (_, kind) => {
    const params = defaultParams(kind);
    const ports = kind.ports(params);
    expect(new Set(ports.map((p) => p.name)).size).toBe(ports.length);
    for (const port of ports) {
      expect([port.x, port.y].every(Number.isInteger)).toBe(true);
      for (const turn of [0, 1, 2, 3] as const) expect(Number.isInteger(turned(port, turn).x)).toBe(true);
      const body = kind.body(params);
      const inside =
        port.side === 'left' ? port.x + port.lead : port.side === 'right' ? port.x - port.lead : 0;
      if (port.side === 'left') expect(inside).toBeLessThanOrEqual(body.x0 + 1);
      if (port.side === 'right') expect(inside).toBeGreaterThanOrEqual(body.x1 - 1);
    }
    for (const standard of ['distinctive', 'rectangular'] as const)
      expect(kind.symbol(params, { standard, value: () => ONE, held: false }).length).toBeGreaterThan(0);
    expect(kind.spoken(params)).not.toBe('');
    for (const setting of kind.settings ?? []) expect(params).toHaveProperty(setting.param);
  });

  test('no name is typed for two kinds', () => {
    const names = CATALOGUE.flatMap((k) => k.typed);
    expect(new Set(names).size).toBe(names.length);
  });

  test('stands in one family of the ring', () => {
    const placed = families(PLACEABLE).flatMap((f) => f.kinds);
    // A block is placed from its sheet.
    expect(placed).toHaveLength(CATALOGUE.length - 1);
    expect(families([findKind('nand')!]).map((f) => f.family)).toEqual(['Gates']);
  });
});

test('a clock of 0 Hz and a gate of one input are refused', () => {
  expect(readParams(findKind('clock')!, { hertz: 0 }).ok).toBe(false);
  expect(readParams(findKind('and')!, { inputs: 1 }).ok).toBe(false);
  expect(readParams(findKind('and')!, { inputs: 17 }).ok).toBe(false);
});

test('what the rest of the house asks of a part is a capability, and never the name of its kind', () => {
  const source = join(__dirname, '../..');
  // Gates and flip-flops are named where a circuit is made of them; inputs are named by how they are moved.
  const names = CATALOGUE.filter((k) => !k.isGate && k.stores !== 'flip-flop' && !k.role).map((k) => k.kind);
  const asked = new RegExp(`\\bkind [!=]== '(${names.join('|')}|probe|lamp)'`);
  const asking = filesUnder(source)
    .filter(
      (file) =>
        /(?<!\.test)\.tsx?$/.test(file) &&
        !file.includes('/testing/') &&
        asked.test(readFileSync(file, 'utf8')),
    )
    .map((file) => relative(source, file));
  expect(asking).toEqual([]);
});

function filesUnder(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesUnder(path) : [path];
  });
}

test('a lamp shines in its own light, alone or in a row, and says so', () => {
  const lamp = findKind('lamp')!;
  const paints = (params: Params, value: Logic) =>
    JSON.stringify(
      lamp.symbol(
        { ...defaultParams(lamp), ...params },
        { standard: 'distinctive', value: () => value, held: false },
      ),
    );
  expect(paints({ light: 'red' }, 1)).toContain('lamp-red');
  expect(paints({ light: 'red' }, 0)).not.toContain('lamp-red');
  expect(paints({ light: 'green', width: 4 }, 1)).toContain('lamp-green');
  expect(paints({}, 1)).toContain('"one"');
  expect(lamp.spoken({ ...defaultParams(lamp), light: 'red' })).toBe('red lamp');
  expect(lamp.spoken({ ...defaultParams(lamp), light: 'blue', width: 3 })).toBe('row of 3 blue lamps');
});
