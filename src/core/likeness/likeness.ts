import { counted } from '../values/wording';
import type { CircuitTraits, Placed } from './circuit-traits';

/*
 * How alike two hand-ins are, and what speaks for and against it. What many of the class have in common says nothing, and neither
 * does what could hardly be done in another way; what only two have, of all the ways there are, says much. It is never a verdict.
 */

/** What of an answer is held against the others. */
export interface AnswerTraits {
  /** A text for what it says; null where nothing was done. */
  readonly said: string | null;
  /** Null where a person has to tell. */
  readonly isRight: boolean | null;
  /** Null where no circuit was built. */
  readonly circuit: CircuitTraits | null;
}

/** Something that speaks for likeness, or against it. */
export interface Reason {
  /** The task, from 0. */
  readonly task: number;
  readonly isFor: boolean;
  /** A clause: `the very same circuit of 6 parts, which nobody else has`. */
  readonly text: string;
}

/** Two hand-ins, by their numbers, and how alike they are. */
export interface LikePair {
  readonly one: number;
  readonly other: number;
  /** How unlikely it is that they came to be so alike each by themselves, in bits: a bit more is half as likely. */
  readonly bits: number;
  readonly reasons: readonly Reason[];
}

/** Below this nothing is told in the smallest class. */
const LEAST_BITS = 6;

/** Below this nothing is told, in bits: so alike one pair of so many students would be by chance. */
const leastTold = (students: number): number =>
  Math.max(LEAST_BITS, Math.log2(Math.max(1, (students * (students - 1)) / 2)));

/** What a smallest circuit tells at most, in bits: it can hardly be drawn in another way. */
const SMALLEST_TELLS = 2;
const MOST_FOR_SAID = 6;
const MOST_FOR_PLACES = 12;
const MOST_FOR_COURSES = 6;
const MOST_FOR_ORDER = 4;
/** The weight of a place whose part no other circuit has there. */
const USUAL_PLACE = 2;
/** Compared connections are not independent of each other, so each counts half. */
const DEPENDENT = 0.5;
/** Fewer connections than this, or a smaller share of the parts, say nothing. */
const FEWEST = 3;
const LEAST_SHARE = 0.7;
const FEWEST_PARTS = 5;
/** A pair is looked at closely if this much is found at a glance, or if it shares what hardly anybody has. */
const GLANCE_BITS = 4;
const RARE = 4;

/** How many answers of a task have something among theirs. */
type Counts<T> = ReadonlyMap<T, number>;

function countsOf<T>(lists: readonly (readonly T[])[]): Counts<T> {
  const counts = new Map<T, number>();
  for (const list of lists) for (const one of new Set(list)) counts.set(one, (counts.get(one) ?? 0) + 1);
  return counts;
}

/** What the class has at one task. */
interface TaskCounts {
  readonly answers: number;
  readonly said: Counts<string>;
  readonly signatures: Counts<string>;
  readonly pieces: Counts<number>;
  readonly whats: Counts<number>;
  readonly wheres: Counts<number>;
  readonly courses: Counts<number>;
  readonly orders: Counts<string>;
  /** In how many ways the smallest right circuit can be connected, as a power of two. */
  readonly least: number;
}

const orderIn = ({ signature, order }: CircuitTraits): string => `${signature} ${order}`;

function taskCounts(answers: readonly AnswerTraits[]): TaskCounts {
  const circuits = answers.flatMap(({ circuit }) => circuit ?? []);
  const right = answers.flatMap(({ circuit, isRight }) => (circuit && isRight ? [circuit.ways] : []));
  return {
    answers: answers.filter(({ said, circuit }) => said !== null || circuit !== null).length,
    said: countsOf(answers.map(({ said }) => (said === null ? [] : [said]))),
    signatures: countsOf(circuits.map(({ signature }) => [signature])),
    pieces: countsOf(circuits.map(({ pieces }) => pieces)),
    whats: countsOf(circuits.map(({ places }) => places.map(([what]) => what))),
    wheres: countsOf(circuits.map(({ places }) => places.map(([, where]) => where))),
    courses: countsOf(circuits.map(({ courses }) => courses)),
    orders: countsOf(circuits.map((circuit) => [orderIn(circuit)])),
    least: right.length > 0 ? Math.min(...right) : 0,
  };
}

/** How many others than two that have it have it too. */
const others = <T>(counts: Counts<T>, of: T): number => Math.max(0, (counts.get(of) ?? 2) - 2);

/** How surprising it is to have something, in bits, as others out of so many have it. */
const surprise = (having: number, of: number): number => Math.max(0, Math.log2((of + 1) / (having + 1)));

/** What two lists have in common, each as often as in both. */
function common<T>(one: readonly T[], other: readonly T[], name: (of: T) => number): T[] {
  const left = new Map<number, number>();
  for (const of of other) left.set(name(of), (left.get(name(of)) ?? 0) + 1);
  return one.filter((of) => {
    const there = left.get(name(of)) ?? 0;
    if (there > 0) left.set(name(of), there - 1);
    return there > 0;
  });
}

const itself = (of: number): number => of;
const mean = (of: readonly number[]): number => of.reduce((sum, n) => sum + n, 0) / Math.max(1, of.length);

const whichHave = (having: number, all: number): string =>
  having === 0
    ? 'which nobody else has'
    : having === 1
      ? `which one of the other ${all} has`
      : `which ${having} of the other ${all} have`;

interface Found {
  readonly bits: number;
  readonly isFor: boolean;
  readonly text: string;
}

/** Circuits as graphs. */
function byGraph(a: CircuitTraits, b: CircuitTraits, counts: TaskCounts): Found | null {
  const all = Math.max(0, counts.answers - 2);
  const most = SMALLEST_TELLS + Math.max(0, Math.min(a.ways, b.ways) - counts.least);
  if (a.signature === b.signature) {
    const having = others(counts.signatures, a.signature);
    const bits = Math.min(surprise(having, all), most);
    const tells =
      bits < 1 ? ': so common that it says nothing' : bits < most ? '' : ': it can hardly be built otherwise';
    return {
      bits,
      isFor: bits >= 1,
      text: `the very same circuit of ${counted(a.parts, 'part')}, ${whichHave(having, all)}${tells}`,
    };
  }
  const larger = Math.max(a.pieces.length, b.pieces.length);
  if (larger < FEWEST_PARTS) return null;
  const same = common(a.pieces, b.pieces, itself);
  const share = same.length / larger;
  const each = mean(same.map((piece) => surprise(others(counts.pieces, piece), all)));
  const bits = share < LEAST_SHARE ? 0 : Math.min(share ** 2 * each, most);
  return bits >= 1
    ? { bits, isFor: true, text: `${same.length} of ${larger} parts are connected in the same way` }
    : { bits: 0, isFor: false, text: 'different circuits' };
}

/** Circuits as drawings: where their parts stand, how their wires run, in which order they were drawn. */
function byDrawing(a: CircuitTraits, b: CircuitTraits, counts: TaskCounts): Found[] {
  const found: Found[] = [];
  // In a small class a rare trait proves little.
  const usual = Math.min(USUAL_PLACE, surprise(0, Math.max(0, counts.answers - 2)));
  const same = common(a.places, b.places, ([, where]: Placed) => where);
  const each = same.map(([what, where]) => {
    const having = others(counts.whats, what);
    return having === 0 ? usual : surprise(others(counts.wheres, where), having);
  });
  const bits = DEPENDENT * each.reduce((sum, n) => sum + n, 0);
  const larger = Math.max(a.places.length, b.places.length);
  if (same.length >= FEWEST && bits >= 1)
    found.push({
      bits: Math.min(bits, MOST_FOR_PLACES, same.length),
      isFor: true,
      text: `parts stand in the same places to each other at ${same.length} of ${counted(larger, 'connection')}`,
    });
  else if (a.signature === b.signature && larger >= FEWEST && same.length * 3 < larger)
    found.push({ bits: 0, isFor: false, text: 'the parts stand in other places' });
  const courses = common(a.courses, b.courses, itself);
  const drawn = courses.reduce(
    (sum, c) => sum + Math.min(3, surprise(others(counts.courses, c), counts.answers)),
    0,
  );
  if (drawn >= 1)
    found.push({
      bits: Math.min(drawn, MOST_FOR_COURSES),
      isFor: true,
      text: `${counted(courses.length, 'wire that was drawn by hand runs', 'wires that were drawn by hand run')} the same way`,
    });
  if (a.signature === b.signature && a.places.length > FEWEST_PARTS) {
    const isSame = a.order === b.order;
    const having = others(counts.signatures, a.signature);
    const told = isSame ? (having === 0 ? usual : surprise(others(counts.orders, orderIn(a)), having)) : 0;
    if (told >= 1)
      found.push({
        bits: Math.min(told, MOST_FOR_ORDER),
        isFor: true,
        text: 'wires drawn in the same order',
      });
    else if (!isSame) found.push({ bits: 0, isFor: false, text: 'wires drawn in another order' });
  }
  return found;
}

/** What two answers to one task have in common. */
function atTask(a: AnswerTraits, b: AnswerTraits, counts: TaskCounts): Found[] {
  const found: Found[] = [];
  const all = Math.max(0, counts.answers - 2);
  const isSaid = a.said !== null && a.said === b.said && a.isRight !== true;
  const graph = a.circuit && b.circuit && byGraph(a.circuit, b.circuit, counts);
  if (graph) found.push(graph, ...byDrawing(a.circuit!, b.circuit!, counts));
  // The same circuit has the same answer.
  if (isSaid && !(graph && a.circuit!.signature === b.circuit!.signature)) {
    const having = others(counts.said, a.said!);
    const what = a.isRight === null ? 'the same answer' : 'the same wrong answer';
    found.push({
      bits: Math.min(MOST_FOR_SAID, surprise(having, all)),
      isFor: surprise(having, all) >= 1,
      text: `${what}, ${whichHave(having, all)}`,
    });
  } else if (a.said !== null && b.said !== null && a.said !== b.said && !graph)
    found.push({ bits: 0, isFor: false, text: 'different answers' });
  return found;
}

/** What is seen of a pair at a glance: only what is the same as a whole. */
const glance = (a: AnswerTraits, b: AnswerTraits, counts: TaskCounts): number => {
  const all = Math.max(0, counts.answers - 2);
  if (a.circuit && b.circuit && a.circuit.signature === b.circuit.signature)
    return surprise(others(counts.signatures, a.circuit.signature), all);
  return a.said !== null && a.said === b.said && a.isRight !== true
    ? Math.min(MOST_FOR_SAID, surprise(others(counts.said, a.said), all))
    : 0;
};

/** The pairs that share something that hardly anybody has, as `one * students + other`. */
function rarePairs(
  students: readonly (readonly AnswerTraits[])[],
  counts: readonly TaskCounts[],
): Set<number> {
  const pairs = new Set<number>();
  for (const [task, { pieces, wheres, courses }] of counts.entries()) {
    const having = new Map<number, number[]>();
    for (const [student, answers] of students.entries()) {
      const circuit = answers[task]!.circuit;
      if (!circuit) continue;
      const rare = (of: Counts<number>, all: readonly number[]) => all.filter((one) => of.get(one)! <= RARE);
      const all = [
        ...rare(pieces, circuit.pieces),
        ...rare(
          wheres,
          circuit.places.map(([, where]) => where),
        ),
        ...rare(courses, circuit.courses),
      ];
      for (const one of new Set(all)) having.set(one, [...(having.get(one) ?? []), student]);
    }
    for (const list of having.values())
      for (const [i, one] of list.entries())
        for (const other of list.slice(i + 1)) pairs.add(one * students.length + other);
  }
  return pairs;
}

/**
 * The pairs of a class that are more alike than chance would have it, the most alike first.
 * @param students for each hand-in the traits of its answers, by the tasks.
 * @param most pairs that are told.
 */
export function likePairs(students: readonly (readonly AnswerTraits[])[], most = 100): LikePair[] {
  const tasks = students[0]?.length ?? 0;
  const counts = Array.from({ length: tasks }, (_, task) => taskCounts(students.map((s) => s[task]!)));
  const rare = rarePairs(students, counts);
  const least = leastTold(students.length);
  const pairs: LikePair[] = [];
  for (const [one, a] of students.entries())
    for (let other = one + 1; other < students.length; other++) {
      const b = students[other]!;
      const seen = a.reduce((sum, answer, task) => sum + glance(answer, b[task]!, counts[task]!), 0);
      if (seen < GLANCE_BITS && !rare.has(one * students.length + other)) continue;
      const found = a.flatMap((answer, task) =>
        atTask(answer, b[task]!, counts[task]!).map((one) => ({ ...one, task })),
      );
      const bits = found.reduce((sum, one) => sum + one.bits, 0);
      if (bits < least) continue;
      const reasons = [...found]
        .sort((x, y) => y.bits - x.bits)
        .map(({ task, isFor, text }) => ({ task, isFor, text }));
      pairs.push({ one, other, bits, reasons });
    }
  return pairs.sort((a, b) => b.bits - a.bits).slice(0, most);
}
