import fc from 'fast-check';
import type { Lesson } from '../circuit/lesson';
import { emptyLesson } from '../circuit/lesson';
import type { Part, Sheet, Wire } from '../circuit/sheet';
import { findKind } from '../parts/catalogue';
import { defaultParams } from '../parts/params';

const GATES = ['and', 'or', 'nand', 'nor', 'xor', 'xnor', 'not'];

/** A sheet without loops: some switches, gates that read earlier outputs, a lamp on each last gate. */
export function randomSheet(most: { inputs: number; gates: number }): fc.Arbitrary<Sheet> {
  const gate = fc.record({
    kind: fc.constantFrom(...GATES),
    inputs: fc.integer({ min: 2, max: 4 }),
    reads: fc.array(fc.nat(), { minLength: 4, maxLength: 4 }),
  });
  return fc
    .record({
      inputs: fc.integer({ min: 1, max: most.inputs }),
      constant: fc.boolean(),
      gates: fc.array(gate, { minLength: 1, maxLength: most.gates }),
    })
    .map(({ inputs, constant, gates }) => {
      const parts = new Map<string, Part>();
      const wires = new Map<string, Wire>();
      const outputs: string[] = [];
      const add = (id: string, kind: string, params = {}) =>
        parts.set(id, {
          id,
          kind,
          at: { x: 10 * parts.size, y: 40 * (parts.size % 7) },
          turn: 0,
          label: id,
          rank: parts.size,
          params: { ...defaultParams(findKind(kind)!), ...params },
        });
      const join = (from: string, part: string, port: string) => {
        const id = `w${wires.size + 1}`;
        wires.set(id, { id, from: { part: from, port: 'Y' }, to: { part, port }, course: [] });
      };
      for (let i = 0; i < inputs; i++) {
        add(`s${i}`, 'switch');
        outputs.push(`s${i}`);
      }
      if (constant) {
        add('c', 'constant', { value: inputs % 2 });
        outputs.push('c');
      }
      for (const [g, { kind, inputs: wanted, reads }] of gates.entries()) {
        const id = `g${g}`;
        const count = kind === 'not' ? 1 : wanted;
        add(id, kind, kind === 'not' ? {} : { inputs: count });
        for (let i = 0; i < count; i++) join(outputs[reads[i]! % outputs.length]!, id, 'ABCD'[i]!);
        outputs.push(id);
      }
      for (let i = 0; i < Math.min(3, gates.length); i++) {
        add(`l${i}`, 'lamp');
        join(`g${gates.length - 1 - i}`, `l${i}`, 'A');
      }
      return { id: 'sheet1', name: 'Random', parts, wires };
    });
}

export function lessonOf(sheet: Sheet): Lesson {
  return { ...emptyLesson('random-lesson', 'Random'), sheets: [sheet] };
}
