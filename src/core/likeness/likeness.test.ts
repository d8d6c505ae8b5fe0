import { foundIn, marksIn, traitsOf } from '../exercise/found';
import { MISTAKES_PLANTED, sampleClass } from '../testing/sample-class';
import { Sketch } from '../testing/sketch';
import { circuitTraits } from './circuit-traits';
import { type AnswerTraits, likePairs } from './likeness';

const COUNT = 150;
const planted = sampleClass(COUNT, 7);
const [six] = planted.exercises;
const found = planted.six.map((handIn, i) => foundIn(String(i), handIn, marksIn(handIn, six!, [], null)));
const names = planted.six.map(({ name }) => name);

test('of a class every hand-in is found to be what it was made to be', () => {
  const bySaid = new Map<string, Set<number>>();
  for (const [i, { answers }] of found.entries()) {
    const name = names[i]!;
    const wrong = answers.flatMap(({ mark: { solved } }, task) => (solved === false ? [task] : []));
    const isPlanted = planted.mistakes.has(name) || planted.swinging.has(name);
    expect([name, wrong.length > 0]).toEqual([name, isPlanted]);
    const mistake = planted.mistakes.get(name);
    if (mistake === undefined) continue;
    expect(wrong).toHaveLength(1);
    const said = `${wrong[0]} ${answers[wrong[0]!]!.said}`;
    bySaid.set(said, (bySaid.get(said) ?? new Set()).add(mistake));
  }
  // The same mistake says the same, and two mistakes never do.
  expect([...bySaid.values()].map((kinds) => [...kinds].join()).sort()).toEqual(
    Array.from({ length: MISTAKES_PLANTED }, (_, kind) => String(kind)),
  );
});

test('the pairs that are most alike are those that were copied, and none that were made apart come before them', () => {
  const pairs = likePairs(found.map(({ answers }) => answers.map(traitsOf)));
  const wanted = new Set(planted.copies.map((pair) => [...pair].sort().join(' and ')));
  const first = pairs
    .slice(0, wanted.size)
    .map(({ one, other }) => [names[one]!, names[other]!].sort().join(' and '));
  expect(new Set(first)).toEqual(wanted);
  const [best] = pairs;
  expect(best!.reasons[0]!.text).toMatch(/^the very same circuit of \d+ parts, which nobody else has$/);
});

/** The traits of a class of one task, from its circuits. */
const classOf = (sketches: readonly Sketch[]): AnswerTraits[][] =>
  sketches.map(({ sheet, lesson }) => [
    { said: 'the same', isRight: true, circuit: circuitTraits(sheet, lesson.sheets) },
  ]);

function halfAdder(shift: number): Sketch {
  const s = new Sketch();
  for (const [i, name] of ['A', 'B'].entries()) s.place('switch', 0, 8 * i + shift, name);
  s.place('xor', 16, shift);
  s.place('and', 16, 12);
  s.place('lamp', 30, 0, 'Sum');
  s.place('lamp', 30, 12, 'Carry');
  for (const [from, to] of [
    'switch1.Y xor1.A',
    'switch2.Y xor1.B',
    'switch1.Y and1.A',
    'switch2.Y and1.B',
  ].map((w) => w.split(' ')))
    s.wire(from!, to!);
  s.wire('xor1.Y', 'lamp1.A');
  s.wire('and1.Y', 'lamp2.A');
  return s;
}

/** A half adder of six gates, two of which do nothing but undo each other. */
function crooked(shift: number): Sketch {
  const s = new Sketch();
  for (const [i, name] of ['A', 'B'].entries()) s.place('switch', 0, 10 * i + shift, name);
  for (const [i, kind] of ['nand', 'nand', 'nand', 'nand', 'not', 'not'].entries())
    s.place(kind, 14 + 12 * (i % 3), 14 * Math.floor(i / 3) + shift * (i % 2));
  s.place('lamp', 66, 0, 'Sum');
  s.place('lamp', 66, 14, 'Carry');
  const wires =
    'switch1.Y nand1.A, switch2.Y nand1.B, switch1.Y nand2.A, nand1.Y nand2.B, switch2.Y nand3.A, nand1.Y nand3.B, nand2.Y nand4.A, nand3.Y nand4.B, nand4.Y lamp1.A, nand1.Y not1.A, not1.Y not2.A, not2.Y lamp2.A';
  for (const wire of wires.split(', ')) s.wire(...(wire.split(' ') as [string, string]));
  return s;
}

test('half adders that all have mean nothing; two crooked circuits that nobody else has do, wherever they stand', () => {
  const plain = Array.from({ length: 24 }, (_, i) => halfAdder(i % 5));
  expect(likePairs(classOf(plain))).toEqual([]);
  const [pair, ...more] = likePairs(classOf([...plain, crooked(0), crooked(3)]));
  expect(more).toEqual([]);
  expect([pair!.one, pair!.other]).toEqual([24, 25]);
  expect(pair!.reasons.filter(({ isFor }) => isFor).map(({ text }) => text)).toContain(
    'the very same circuit of 6 parts, which nobody else has',
  );
});

test('in a class of two nothing can be told', () => {
  expect(likePairs(classOf([crooked(0), crooked(0)]))).toEqual([]);
});
