import fc from 'fast-check';
import { apply } from '../../circuit/edit';
import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { compile } from '../../netlist/compile';
import { Run } from '../../simulate/run';
import { randomDesign } from '../../testing/random-design';
import { partOf, Rig, sheetOfParts } from '../../testing/rig';
import { interlock } from '../../testing/sketch';
import { makeBlock } from './make-block';

function made(lesson: Lesson, ids: readonly string[], name = 'Inner'): Lesson {
  const block = makeBlock(lesson, lesson.sheets[0]!.id, new Set(ids), name);
  if (!block.ok) throw new Error(block.problem.message);
  const applied = apply(lesson, block.value.edit);
  if (!applied.ok) throw new Error(applied.problem.message);
  return applied.value;
}

test('the gates of the interlock become a block with the names of what they are wired to', () => {
  const lesson = made(interlock().lesson, ['not1', 'and2'], 'Warning');
  const [outer, inner] = lesson.sheets;
  expect(inner!.name).toBe('Warning');
  const block = [...outer!.parts.values()].find((p) => p.kind === 'block')!;
  expect(block.params).toEqual({ sheet: 'sheet2', title: 'Warning', inputs: 'Key, Bars', outputs: 'Warn' });
  const rig = new Rig(outer!, {}, lesson.sheets);
  expect(rig.netlist.diagnostics).toEqual([]);
  for (let row = 0; row < 8; row++) {
    const [Key, Bars, Clear] = [row >> 2, (row >> 1) & 1, row & 1];
    rig.set({ Key, Bars, Clear });
    expect([rig.number('Drive'), rig.number('Warn')]).toEqual([+(Key & Bars & Clear), +(Key && !Bars)]);
  }
});

test('whatever parts are taken, the circuit does the same', () => {
  const options = { storage: true, loops: false, blocks: false };
  fc.assert(
    fc.property(
      randomDesign(options, 8),
      fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
      fc.array(fc.record({ input: fc.nat(), value: fc.nat(15) }), { maxLength: 12 }),
      (lesson, taken, steps) => {
        const parts = [...lesson.sheets[0]!.parts.values()].filter((p) => p.kind !== 'port');
        const ids = parts.filter((_, i) => taken[i % taken.length]).map((p) => p.id);
        const block = makeBlock(lesson, 'top', new Set(ids), 'Taken');
        if (!block.ok) {
          expect(block.problem.message).toMatch(/no part is selected|no wire leads out/);
          return;
        }
        const applied = apply(lesson, block.value.edit);
        if (!applied.ok) throw new Error(applied.problem.message);
        const rigs = [lesson, applied.value].map((l) => new Rig(l.sheets[0]!, {}, l.sheets));
        expect(rigs[1]!.netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
        for (const { input, value } of steps) {
          const terminal = rigs[0]!.netlist.inputs[input % rigs[0]!.netlist.inputs.length]!;
          for (const rig of rigs) rig.set({ [terminal.name]: value % 2 ** terminal.nets.length });
          for (const o of rigs[0]!.netlist.outputs) expect(rigs[1]!.word(o.name)).toBe(rigs[0]!.word(o.name));
        }
      },
    ),
    { numRuns: 25 },
  );
});

test('nothing selected, ports of the sheet, and parts that nothing leads to are refused in words', () => {
  const { lesson } = interlock();
  const reason = (ids: string[], of: Lesson = lesson) => {
    const block = makeBlock(of, of.sheets[0]!.id, new Set(ids), 'B');
    return block.ok ? '' : block.problem.message;
  };
  expect(reason([])).toMatch(/no part is selected/);
  expect(reason(['switch1', 'switch2', 'switch3', 'not1', 'and1', 'and2', 'lamp1', 'lamp2'])).toMatch(
    /no wire leads out/,
  );
  const ports = sheetOfParts([partOf('port', 'A'), partOf('not', 'n')], ['A.Y-n.A']);
  expect(reason(['A'], { ...emptyLesson('test-lesson', 'T'), sheets: [ports] })).toMatch(
    /A is a port of this sheet/,
  );
});

test('what is inside runs as it did outside', () => {
  const lesson = made(interlock().lesson, ['and1']);
  const netlist = compile(lesson.sheets[0]!, lesson.sheets);
  const run = new Run(netlist, { delays: 'parts' });
  run.set(netlist.inputs.map((t) => [t.nets[0]!, 1] as const));
  run.advance(11_000 - 1);
  expect(run.values[netlist.outputs[0]!.nets[0]!]).toBe(0);
  run.advance(11_000);
  expect(run.values[netlist.outputs[0]!.nets[0]!]).toBe(1);
});

test('a net label is not torn from its like', () => {
  const label = (id: string) => partOf('label', id, {}, 0, 'Bus');
  const sheet = sheetOfParts(
    [partOf('switch', 's'), label('l1'), label('l2'), partOf('not', 'n'), partOf('lamp', 'l')],
    ['s.Y-l1.A', 'l2.A-n.A', 'n.Y-l.A'],
  );
  const lesson = { ...emptyLesson('test-lesson', 'T'), sheets: [sheet] };
  const block = (ids: string[]) => makeBlock(lesson, 'sheet1', new Set(ids), 'B');
  expect(block(['l2', 'n'])).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('net label Bus') },
  });
  expect(block(['n']).ok).toBe(true);
});
