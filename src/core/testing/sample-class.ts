import type { Exercise, Task } from '../circuit/exercise';
import { DEFAULT_SETTINGS, type Sheet } from '../circuit/sheet';
import { begunWork, excerptFor } from '../exercise/begin';
import type { ExpectedCircuit } from '../exercise/expected/circuit/expected-circuit';
import { tableOfSheet } from '../exercise/expected/table/expected-table';
import type { HandIn } from '../exercise/hand-in';
import { writeExercise } from '../formats/exercise-file';
import { writeHandIn } from '../formats/hand-in-file';
import { expectDone } from '../values/result';
import { dice } from './dice';
import { buildTask, exerciseOf } from './exercises';
import { Sketch } from './sketch';

/*
 * A made-up class, of which it is known who did what: who made which mistake, whose circuits swing, who copied from whom.
 */

/** A circuit as it is thought of; the same object twice is one gate that is used twice. */
type Thought =
  | string
  | { readonly kind: 'and' | 'or' | 'not' | 'nand' | 'nor' | 'xor'; readonly of: readonly Thought[] };

const gate = (kind: Exclude<Thought, string>['kind'], ...of: readonly Thought[]): Thought => ({ kind, of });
const not = (a: Thought) => gate('not', a);

/** A circuit with its outputs, by their names. */
type Outputs = Readonly<Record<string, Thought>>;

const half: Outputs = { Sum: gate('xor', 'A', 'B'), Carry: gate('and', 'A', 'B') };
const full: Outputs = {
  Odd: gate('xor', gate('xor', 'A', 'B'), 'C'),
  Most: gate('or', gate('and', 'A', 'B'), gate('and', 'C', gate('xor', 'A', 'B'))),
};
const selector: Outputs = { Y: gate('or', gate('and', 'A', not('S')), gate('and', 'B', 'S')) };
const queue: Outputs = {
  Go: gate('or', gate('and', 'A', gate('xor', 'B', 'C')), gate('and', not('A'), gate('or', 'C', 'D'))),
};
const CIRCUITS: readonly Outputs[] = [half, full, selector, queue];
const INPUTS: readonly (readonly string[])[] = [
  ['A', 'B'],
  ['A', 'B', 'C'],
  ['A', 'B', 'S'],
  ['A', 'B', 'C', 'D'],
];

/** A mistake in a circuit: the task, from 0, and the outputs that are drawn in its place. */
const MISTAKES: readonly (readonly [task: number, drawn: Outputs])[] = [
  [0, { ...half, Sum: gate('or', 'A', 'B') }],
  [0, { ...half, Carry: gate('or', 'A', 'B') }],
  [1, { ...full, Most: gate('or', gate('and', 'A', 'B'), gate('and', 'A', 'C')) }],
  [1, { ...full, Odd: gate('xor', 'A', 'B') }],
  [2, { Y: gate('or', gate('and', 'A', 'S'), gate('and', 'B', not('S'))) }],
  [3, { Go: not(queue.Go!) }],
];
/** The seventh is in the table that is filled in: AND for OR. */
export const MISTAKES_PLANTED = MISTAKES.length + 1;

/** The same function, drawn in one of the ways that there are. @param freedom how often another than the plain way is taken. */
function anyWay(
  of: Thought,
  roll: () => number,
  freedom: number,
  known = new Map<Thought, Thought>(),
): Thought {
  const before = known.get(of);
  if (before !== undefined || typeof of === 'string') return before ?? of;
  const [a, b] = of.of.map((one) => anyWay(one, roll, freedom, known)) as [Thought, Thought];
  const ways: Record<typeof of.kind, (() => Thought)[]> = {
    and: [() => not(gate('nand', a, b)), () => gate('nor', not(a), not(b))],
    or: [() => gate('nand', not(a), not(b)), () => not(gate('nor', a, b))],
    xor: [
      () => gate('or', gate('and', a, not(b)), gate('and', not(a), b)),
      () => gate('and', gate('or', a, b), gate('nand', a, b)),
      () => gate('nor', gate('nor', a, b), gate('and', a, b)),
      () => {
        const both = gate('nand', a, b);
        return gate('nand', gate('nand', a, both), gate('nand', b, both));
      },
    ],
    not: [() => gate('nand', a, a), () => gate('nor', a, a)],
    nand: [],
    nor: [],
  };
  const others = ways[of.kind];
  const made =
    others.length > 0 && roll() < freedom
      ? others[Math.floor(roll() * others.length)]!()
      : gate(of.kind, ...[a, b].filter((x) => x !== undefined));
  known.set(of, made);
  return made;
}

function shuffled<T>(of: readonly T[], roll: () => number): T[] {
  const all = [...of];
  for (let i = all.length - 1; i > 0; i--) {
    const j = Math.floor(roll() * (i + 1));
    [all[i], all[j]] = [all[j]!, all[i]!];
  }
  return all;
}

const PORTS = ['A', 'B', 'C', 'D'];

/** Draws a circuit with its own places, names and order. @param swings whether two gates chase each other in it. */
function drawn(inputs: readonly string[], outputs: Outputs, roll: () => number, swings = false): Sheet {
  const s = new Sketch();
  const jitter = (n: number) => Math.floor(roll() * n);
  const ids = new Map<Thought, string>();
  for (const name of shuffled(inputs, roll))
    ids.set(name, s.place('switch', jitter(3), 10 * ids.size + jitter(6), name));
  const depth = (of: Thought): number =>
    typeof of === 'string' ? 0 : 1 + Math.max(...of.of.map((one) => depth(one)));
  const gates = new Set<Thought>();
  const collect = (of: Thought) => {
    if (typeof of === 'string' || gates.has(of)) return;
    for (const one of of.of) collect(one);
    gates.add(of);
  };
  for (const of of Object.values(outputs)) collect(of);
  for (const of of shuffled([...gates], roll)) {
    if (typeof of === 'string') continue;
    const name = roll() < 0.3 ? `G${jitter(90)}` : '';
    ids.set(
      of,
      s.place(of.kind, 14 * depth(of) + jitter(7), 10 * (ids.size - inputs.length) + jitter(6), name),
    );
  }
  const lamps = shuffled(Object.keys(outputs), roll).map(
    (name, i) => [s.place('lamp', 90 + jitter(6), 12 * i + jitter(6), name), outputs[name]!] as const,
  );
  const wires: [from: string, to: string][] = [];
  for (const of of gates)
    if (typeof of !== 'string')
      for (const [i, one] of of.of.entries()) wires.push([`${ids.get(one)}.Y`, `${ids.get(of)}.${PORTS[i]}`]);
  for (const [lamp, of] of lamps) wires.push([`${ids.get(of)}.Y`, `${lamp}.A`]);
  for (const [from, to] of shuffled(wires, roll)) s.wire(from, to);
  if (swings) {
    const chase = s.place('not', 60 + jitter(9), 100 + jitter(9));
    s.wire(`${chase}.Y`, `${chase}.A`);
  }
  return s.sheet;
}

const plain = () => 0.99;

const GATES = ['and', 'or', 'not', 'nand', 'nor', 'xor', 'xnor'];
const TITLES = ['Half adder', 'Full adder', 'Two queues', 'Who may go'];
const FILLED = ['0', '1', '1', '1'];

/** An exercise of six tasks: four circuits, a table, a formula. */
function sixTasks(): Exercise {
  const circuits = CIRCUITS.map((outputs, i) =>
    buildTask(expectDone(tableOfSheet(drawn(INPUTS[i]!, outputs, plain))), GATES, {
      id: `task${i + 1}`,
      title: TITLES[i]!,
    }),
  );
  const table: Task = {
    ...circuits[0]!,
    id: 'task5',
    kind: 'table',
    title: 'Read an OR',
    asked: {
      rows: 4,
      columns: [
        { name: 'A', cells: ['0', '0', '1', '1'], isInput: true },
        { name: 'B', cells: ['0', '1', '0', '1'], isInput: true },
        { name: 'Y', cells: null, isInput: false },
      ],
      values: ['0', '1'],
      isPredicted: false,
    },
    key: { columns: [FILLED] },
  };
  const of = { inputs: ['A', 'B', 'C'], output: 'Y' };
  const formula: Task = {
    ...circuits[0]!,
    id: 'task6',
    kind: 'formula',
    title: 'Write it down',
    asked: { ...of, form: 'any', mostLiterals: null, showsTable: false },
    key: { function: { ...of, rows: '00010111' } },
  };
  return exerciseOf([...circuits, table, formula], { id: 'sample-class-six', title: 'Turnstiles' });
}

const SIXTEEN = Array.from({ length: 16 }, (_, i) => `G${String(i).padStart(2, '0')}`);

/** All of sixteen gates are shut: a tree of gates with two inputs each. */
const allShut = (of: readonly Thought[]): Thought =>
  of.length === 1
    ? of[0]!
    : gate('and', allShut(of.slice(0, of.length / 2)), allShut(of.slice(of.length / 2)));

function sixteenInputs(): Exercise {
  const sheet = drawn(SIXTEEN, { Shut: allShut(SIXTEEN) }, plain);
  const key: ExpectedCircuit = { kind: 'circuit', circuit: excerptFor(sheet, [sheet], DEFAULT_SETTINGS) };
  return exerciseOf([buildTask(key, GATES, { title: 'Sixteen gates' })], {
    id: 'sample-class-sixteen',
    title: 'Gates',
  });
}

/** What a student did in each task. */
interface Did {
  readonly circuits: readonly Outputs[];
  readonly cells: readonly string[];
  readonly formula: string;
  readonly swings: boolean;
}

const FORMULAS = [
  'A B + A C + B C',
  'A (B + C) + B C',
  '(A + B) C + A B',
  'A B + C (A ⊕ B)',
  'Y = A B + B C + A C',
];

export interface SampleFile {
  readonly name: string;
  readonly text: string;
}

/** A class of which everything is known. */
export interface SampleClass {
  readonly exercises: readonly Exercise[];
  readonly files: readonly SampleFile[];
  /** The hand-ins to the six tasks, the last of each student, as they are read. */
  readonly six: readonly HandIn[];
  /** By the names of students the number of the mistake that they made. */
  readonly mistakes: ReadonlyMap<string, number>;
  readonly swinging: ReadonlySet<string>;
  /** Who copied, and from whom. */
  readonly copies: readonly (readonly [copy: string, from: string])[];
  /** Names of files that are no hand-ins that can be marked here. */
  readonly broken: readonly string[];
  /** Files that are there twice, and hand-ins that a student replaced. */
  readonly duplicates: number;
  readonly replaced: number;
}

const COPIES = 14;
const SWINGING = 20;
const SIXTEENS = 10;
const DUPLICATES = 6;
const REPLACED = 10;
const BROKEN = 5;

/** A class of at least a hundred hand-ins. @param count of all files. */
export function sampleClass(count: number, seed: number): SampleClass {
  const roll = dice(seed);
  const [six, sixteen] = [sixTasks(), sixteenInputs()];
  const students = count - SIXTEENS - DUPLICATES - REPLACED - BROKEN;
  const nameOf = (i: number) => `Student ${String(i + 1).padStart(3, '0')} Sample`;
  const at = (minute: number) => new Date(Date.UTC(2026, 9, 1, 8) + minute * 60_000).toISOString();
  const mistakes = new Map<string, number>();
  const swinging = new Set<string>();
  const does = (freedom: number, mistake: number | null, swings: boolean): Did => ({
    circuits: CIRCUITS.map((right, task) => {
      const wrong = mistake === null ? undefined : MISTAKES[mistake];
      const known = new Map<Thought, Thought>();
      const outputs = wrong?.[0] === task ? wrong[1] : right;
      return Object.fromEntries(
        Object.entries(outputs).map(([name, of]) => [name, anyWay(of, roll, freedom, known)]),
      );
    }),
    cells: mistake === MISTAKES.length ? ['0', '0', '0', '1'] : FILLED,
    formula: FORMULAS[Math.floor(roll() * FORMULAS.length)]!,
    swings,
  });
  const handedIn = (name: string, did: Did, minute: number): HandIn => {
    const lesson = begunWork(six, `work-${name.replaceAll(' ', '-')}`);
    const sheets = did.circuits.map((outputs, i) => ({
      ...drawn(INPUTS[i]!, outputs, roll, did.swings && i === 2),
      id: `task${i + 1}`,
      name: TITLES[i]!,
    }));
    const answers: Record<string, unknown> = {
      task5: { kind: 'table', columns: [did.cells], isFinal: false },
      task6: { kind: 'formula', text: did.formula },
    };
    const tasks = Object.fromEntries(
      Object.entries(lesson.work!.tasks).map(([id, work]) => [
        id,
        { ...work, answer: (answers[id] ?? null) as never },
      ]),
    );
    return {
      exercise: { id: six.id, title: six.title, edition: 1 },
      name,
      results: {},
      handedIn: at(minute),
      seconds: 600 + Math.floor(roll() * 3000),
      lesson: {
        ...lesson,
        sheets: lesson.sheets.map((sheet) => sheets.find(({ id }) => id === sheet.id) ?? sheet),
        work: { ...lesson.work!, tasks },
      },
    };
  };
  const all: { readonly name: string; readonly did: Did }[] = [];
  const apart = students - COPIES;
  for (let i = 0; i < apart; i++) {
    const mistake = i % 3 === 1 ? Math.floor(i / 3) % MISTAKES_PLANTED : null;
    const swings = i % 3 === 2 && swinging.size < SWINGING;
    if (mistake !== null) mistakes.set(nameOf(i), mistake);
    if (swings) swinging.add(nameOf(i));
    // Half of them do as the book has it.
    all.push({ name: nameOf(i), did: does(i % 2 === 0 ? 0 : 0.6, mistake, swings) });
  }
  const sources = shuffled(
    all.filter(({ name }, i) => i % 2 === 1 && !swinging.has(name)),
    roll,
  ).slice(0, COPIES);
  const copies = sources.map(({ name: from, did }, i) => {
    const name = nameOf(apart + i);
    all.push({ name, did });
    const mistake = mistakes.get(from);
    if (mistake !== undefined) mistakes.set(name, mistake);
    return [name, from] as const;
  });
  const last = all.map(({ name, did }, i) => handedIn(name, did, 60 + i));
  const file = (handIn: HandIn, more = ''): SampleFile => ({
    name: `${handIn.exercise.title}-${handIn.name.replaceAll(' ', '-')}${more}.handin.json`,
    text: writeHandIn(handIn),
  });
  const files = last.map((handIn) => file(handIn));
  for (let i = 0; i < REPLACED; i++) files.push(file(handedIn(nameOf(i), does(0, null, false), i), '-first'));
  for (let i = 0; i < DUPLICATES; i++) files.push({ ...files[i * 7]!, name: `again-${i}.handin.json` });
  for (let i = 0; i < SIXTEENS; i++) {
    const lesson = begunWork(sixteen, `work-sixteen-${i}`);
    const sheet = drawn(SIXTEEN, { Shut: anyWay(allShut(SIXTEEN), roll, 0.2) }, roll);
    files.push(
      file({
        exercise: { id: sixteen.id, title: sixteen.title, edition: 1 },
        name: nameOf(i),
        results: {},
        handedIn: at(i),
        seconds: 300,
        lesson: { ...lesson, sheets: lesson.sheets.map(({ id, name }) => ({ ...sheet, id, name })) },
      }),
    );
  }
  const whole = files[0]!.text;
  const strange: SampleFile[] = [
    { name: 'broken-1.handin.json', text: whole.slice(0, whole.length / 2) },
    { name: 'broken-2.handin.json', text: whole.replace(/"version": \d+/, '"version": 99') },
    { name: 'broken-3.handin.json', text: '' },
    { name: 'broken-4.handin.json', text: JSON.stringify({ rides: ['carousel', 'swing boats'] }) },
    { name: 'broken-5.handin.json', text: whole.replaceAll(six.id, 'somewhere-else') },
  ];
  return {
    exercises: [six, sixteen],
    files: shuffled([...files, ...strange], roll),
    six: last,
    mistakes,
    swinging,
    copies,
    broken: strange.map(({ name }) => name),
    duplicates: DUPLICATES,
    replaced: REPLACED,
  };
}

/** The files of exercises, for the page on which they are marked. */
export const exerciseFiles = ({ exercises }: SampleClass): SampleFile[] =>
  exercises.map((exercise) => ({ name: `${exercise.title}.exercise.json`, text: writeExercise(exercise) }));
