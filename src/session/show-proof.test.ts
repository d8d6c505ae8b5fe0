import { readVerilog } from '@/core/formats/verilog/read';
import { prove } from '@/core/logic/equivalence/prove-sequences';
import { compile } from '@/core/netlist/compile';
import { adder, counter } from '@/core/testing/verilog-circuits';
import { rowOfNames } from './moment';
import { Session } from './session';
import { showDifference } from './show-proof';

/** A lesson with two sheets, one from each text. */
function lessonOf(one: string, two: string) {
  const [a, b] = [one, two].map((text) => {
    const read = readVerilog(text, 'Two');
    if (!read.ok) throw new Error(read.problem.message);
    return read.value;
  });
  const other = { ...b!.sheets[0]!, id: 'other', name: 'Other' };
  return { ...a!, sheets: [a!.sheets[0]!, other] };
}

function different(lesson: ReturnType<typeof lessonOf>) {
  const [a, b] = lesson.sheets;
  const made = prove(compile(a!, lesson.sheets), compile(b!, lesson.sheets));
  if (!made.ok || made.value.verdict !== 'different') throw new Error('they are not different');
  return made.value;
}

const outputs = (session: Session) =>
  Object.fromEntries(
    session.state.netlist.outputColumns.map((c) => [c.name, String(session.state.values[c.nets[0]])]),
  );

test('a row at which two circuits differ is put on either of them', () => {
  const lesson = lessonOf(adder(3, 'gates'), adder(3, 'nand', 1));
  const proof = different(lesson);
  const session = new Session(lesson);
  showDifference(session, lesson.sheets[0]!.id, proof.inputs);
  expect(outputs(session)).toEqual(proof.outputs.a);
  showDifference(session, 'other', proof.inputs);
  expect(session.state.rootId).toBe('other');
  expect(outputs(session)).toEqual(proof.outputs.b);
});

test('a sequence is played from power-up, a clock a row, to where they differ', () => {
  const right = counter(3, 'toggle');
  const wrong = right.replace('q[2] <= q[2] ^ (on & q[0] & q[1])', 'q[2] <= q[2] | (on & q[0] & q[1])');
  const lesson = lessonOf(right, wrong);
  const proof = different(lesson);
  // Eight clocks wrap the one round to 0, and leave the other at 4.
  expect(proof.inputs).toHaveLength(9);
  const session = new Session(lesson);
  session.flip([...session.sheet.parts.values()].find((p) => p.label === 'on')!.id);
  showDifference(session, lesson.sheets[0]!.id, proof.inputs);
  expect(outputs(session)).toEqual(proof.outputs.a);
  showDifference(session, 'other', proof.inputs);
  expect(outputs(session)).toEqual(proof.outputs.b);
});

test('the row of the moment is found by names in any order, or not at all', () => {
  const columns = ['A', 'B', 'C'].map((name, i) => ({ name, nets: [i] }));
  const values = Uint8Array.from([1, 0, 1]);
  expect(rowOfNames(['A', 'B', 'C'], columns, values)).toBe(0b101);
  expect(rowOfNames(['b', 'C', 'A'], columns, values)).toBe(0b011);
  expect(rowOfNames(['A', 'Q'], columns, values)).toBe(-1);
});
