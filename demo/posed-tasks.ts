import { layWires } from '../src/core/bench/guide';
import { boardOfPlan } from '../src/core/bench/lay';
import { NO_CHIPS_SETUP } from '../src/core/circuit/chips-setup';
import { DEFAULT_WAVE } from '../src/core/circuit/default-wave';
import type { Answer, Exercise, Expected, Order, Task } from '../src/core/circuit/exercise';
import type { Lesson } from '../src/core/circuit/lesson';
import { DEFAULT_SETTINGS, type Sheet } from '../src/core/circuit/sheet';
import type { Stimulus } from '../src/core/circuit/time-setup';
import { begunWork, excerptFor, sheetOfFlat } from '../src/core/exercise/begin';
import { partsUsed } from '../src/core/exercise/check';
import { runOfSheet } from '../src/core/exercise/expected/run/expected-run';
import { tableOfSheet } from '../src/core/exercise/expected/table/expected-table';
import type { BenchAsked } from '../src/core/exercise/kinds/bench';
import { drawingToWire, functionToBuild } from '../src/core/exercise/kinds/bench/set-up';
import type { Limits } from '../src/core/exercise/kinds/build/limits';
import { diagramTask, wholeDiagram } from '../src/core/exercise/kinds/diagram/set-up';
import type { FaultAnswer } from '../src/core/exercise/kinds/fault';
import { injected, type PutFault, rowsThatTell } from '../src/core/exercise/kinds/fault/inject';
import type { WantedForm } from '../src/core/exercise/kinds/formula';
import { type FunctionRows, functionOf } from '../src/core/exercise/kinds/function';
import type { Quantity } from '../src/core/exercise/kinds/number/quantity';
import {
  tableTask,
  usuallyAsked,
  type WholeTable,
  wholeTable,
} from '../src/core/exercise/kinds/table/set-up';
import { rowsOf } from '../src/core/logic/minimise/cube';
import { minimise } from '../src/core/logic/minimise/minimise';
import { compile } from '../src/core/netlist/compile';
import { planOf } from '../src/core/packages/plan';
import { supplyOf } from '../src/core/packages/sheet-plan';
import { wiringOf } from '../src/core/packages/wiring';
import { findKind } from '../src/core/parts/catalogue';
import type { PartFault } from '../src/core/parts/fault';
import { expectDone } from '../src/core/values/result';

/** A set with the work of a student who does everything right. */
export interface ReadySet {
  readonly file: string;
  readonly exercise: Exercise;
  readonly model: Lesson;
}

/** A task with the answer that is right. */
interface Posed {
  readonly task: Task;
  readonly answer: Answer | null;
  /** The circuit that is right, for a task in which one is built; its blocks lead to the sheets of other tasks. */
  readonly sheet?: Sheet;
}
const heading = (title: string, words: string, points = 1) => ({
  id: '',
  title,
  words,
  points,
  tells: 'wanted' as const,
  tries: null,
  given: null,
});

export const GATES = ['and', 'or', 'not', 'nand', 'nor', 'xor', 'xnor'];

interface BuildOptions {
  readonly parts?: readonly string[];
  readonly blocks?: readonly string[];
  readonly limits?: Limits;
  readonly points?: number;
  /** The sheets that its blocks need, where the circuit is given as a block to students who did not solve the task. */
  readonly standsInWith?: readonly Sheet[];
}

export function build(
  title: string,
  words: string,
  sheet: Sheet,
  key: Expected,
  options: BuildOptions = {},
): Posed {
  const { parts = GATES, blocks = [], limits = {}, points = 1, standsInWith } = options;
  const standIn = standsInWith ? excerptFor(sheet, [sheet, ...standsInWith], DEFAULT_SETTINGS) : null;
  const asked = { parts, drawing: 'free', blocks, limits, standIn };
  return { task: { ...heading(title, words, points), kind: 'build', asked, key }, answer: null, sheet };
}

export const buildTable = (title: string, words: string, sheet: Sheet, options: BuildOptions = {}): Posed =>
  build(title, words, sheet, expectDone(tableOfSheet(sheet)), options);

/** The kinds of part on a sheet that have to be allowed. */
export const partsOf = (sheet: Sheet, sheets: readonly Sheet[] = [sheet]): string[] =>
  partsUsed(sheet, sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind]));

/** The parts of a counter, and others with which one can be built. */
export const forCounting = (sheet: Sheet, ...more: string[]): string[] => [
  ...new Set([
    ...GATES,
    ...partsOf(sheet),
    ...['tff', 'dff', 'jkff', 'counter', 'register', 'adder', 'constant', 'join', 'slice', 'clock'],
    ...more,
  ]),
];

interface WireOptions extends Partial<BenchAsked> {
  readonly points?: number;
}

/** A circuit to be wired on the board: from its drawing, or from its function alone. */
export function wire(title: string, text: string, sheet: Sheet, options: WireOptions = {}): Posed {
  const { points = 2, ...more } = options;
  const asked: BenchAsked = { does: 'wire', guide: 'shows', stock: null, most: null, ...more };
  const key = expectDone(tableOfSheet(sheet));
  const source = { sheet, sheets: [sheet], settings: DEFAULT_SETTINGS, on: new Set<string>() };
  const given =
    asked.does === 'wire' ? drawingToWire(source, 'nothing', asked) : functionToBuild(source, key, asked);
  const plan = planOf(
    sheet,
    [],
    supplyOf({ ...NO_CHIPS_SETUP, ...(asked.stock ? { stock: asked.stock } : {}) }),
  );
  const { board } = layWires(boardOfPlan(plan), wiringOf(plan), Number.POSITIVE_INFINITY);
  return {
    task: { ...heading(title, text, points), kind: 'bench', given, asked, key },
    answer: null,
    sheet: { ...sheetOfFlat(given.sheets[0]!), board },
  };
}

/** Each input on its own waveform, at a pace in ps. */
export function driving(
  sheet: Sheet,
  pattern: 'random' | 'bits',
  step: number,
  data: Readonly<Record<string, string>> = {},
): Stimulus {
  const inputs = compile(sheet, [sheet]).inputs.flatMap(({ part, name }, i) => {
    if (sheet.parts.get(part)?.kind === 'clock') return [];
    const wave =
      pattern === 'random'
        ? { ...DEFAULT_WAVE, pattern, step, seed: i + 1 }
        : { ...DEFAULT_WAVE, pattern, step, data: data[name] ?? '0' };
    return [{ part, wave }];
  });
  return { name: 'The task’s run', inputs };
}

export function buildRun(
  title: string,
  words: string,
  sheet: Sheet,
  stimulus: Stimulus | null,
  count: number,
  options: BuildOptions = {},
): Posed {
  const lesson = { sheets: [sheet], settings: DEFAULT_SETTINGS };
  const { expected } = expectDone(runOfSheet(sheet, lesson, stimulus, new Set(), count));
  return build(title, words, sheet, expected, { parts: partsOf(sheet), ...options });
}

/** A table that is predicted from a circuit, or filled in from words alone. */
export function table(title: string, words: string, sheet: Sheet, isGiven: boolean): Posed {
  const whole = expectDone(wholeTable(sheet, [sheet]));
  const { asked, key } = tableTask(whole, usuallyAsked(whole), isGiven);
  const given = isGiven ? excerptFor(sheet, [sheet], DEFAULT_SETTINGS) : null;
  const answer = { kind: 'table', columns: key.columns, isFinal: true } as Answer;
  return { task: { ...heading(title, words), kind: 'table', given, asked, key }, answer };
}

/** A table of which the columns that are usually filled in are, without a circuit. */
export function bookTable(title: string, words: string, whole: WholeTable): Posed {
  const { asked, key } = tableTask(whole, usuallyAsked(whole), false);
  const answer = { kind: 'table', columns: key.columns, isFinal: false } as Answer;
  return { task: { ...heading(title, words), kind: 'table', asked, key }, answer };
}

export function diagram(
  title: string,
  words: string,
  sheet: Sheet,
  lanes: readonly string[],
  cells = 16,
): Posed {
  const whole = expectDone(wholeDiagram(sheet, [sheet], DEFAULT_SETTINGS, new Set(), cells));
  const { asked, key } = diagramTask(whole, new Set(lanes), true);
  const given = excerptFor(sheet, [sheet], DEFAULT_SETTINGS);
  const answer = { kind: 'diagram', lanes: key.lanes, isFinal: true } as Answer;
  return { task: { ...heading(title, words), kind: 'diagram', given, asked, key }, answer };
}

/** The first part of a kind, with something wrong inside it. */
export function faultyPart(sheet: Sheet, kind: string, fault: PartFault): PutFault {
  return { part: [...sheet.parts.values()].find((p) => p.kind === kind)!.id, fault };
}

/** The wire that leads to an input of the last part of a kind, cut. */
export function cutBefore(sheet: Sheet, kind: string, port: string): PutFault {
  const { id: part } = [...sheet.parts.values()].findLast((p) => p.kind === kind)!;
  const wire = [...sheet.wires.values()].find(
    ({ to }) => 'part' in to && to.part === part && to.port === port,
  )!;
  return { wire: wire.id, fault: { is: 'cut' } };
}

export function fault(
  title: string,
  words: string,
  sheet: Sheet,
  put: PutFault,
  does: 'find' | 'repair' = 'find',
): Posed {
  const place = 'part' in put ? { part: put.part, wire: null } : { part: null, wire: put.wire };
  const wanted = expectDone(tableOfSheet(sheet));
  const faulty = injected(sheet, put);
  const [row] = rowsThatTell(faulty, [faulty], wanted);
  if (row === undefined) throw new Error(`the fault of “${title}” cannot be seen`);
  const found: FaultAnswer = { kind: 'fault', ...place, row, tried: 1, probed: 0 };
  return {
    task: {
      ...heading(title, words, 2),
      kind: 'fault',
      given: excerptFor(faulty, [faulty], DEFAULT_SETTINGS),
      asked: { does, needsRow: does === 'find', isDark: does === 'find' },
      key: { ...place, wanted },
    },
    answer: does === 'find' ? found : null,
    ...(does === 'repair' ? { sheet } : {}),
  };
}

export function map(title: string, words: string, of: FunctionRows): Posed {
  const fn = functionOf(of);
  const groups = minimise(fn).cubes.map((cube) => [...rowsOf(cube, fn.inputs)]);
  return {
    task: { ...heading(title, words), kind: 'map', asked: { function: of }, key: {} },
    answer: { kind: 'map', groups } as Answer,
  };
}

export function formula(
  title: string,
  words: string,
  of: FunctionRows,
  form: WantedForm,
  mostLiterals: number,
  text: string,
): Posed {
  const asked = { inputs: of.inputs, output: of.output, form, mostLiterals, showsTable: true };
  return {
    task: { ...heading(title, words), kind: 'formula', asked, key: { function: of } },
    answer: { kind: 'formula', text } as Answer,
  };
}

interface NumberOptions {
  readonly quantity?: Quantity;
  readonly bits?: number;
  readonly tolerance?: number;
  readonly given?: Sheet;
}

export function number(title: string, words: string, value: string, options: NumberOptions = {}): Posed {
  const { quantity = 'number', bits = null, tolerance = 0, given } = options;
  return {
    task: {
      ...heading(title, words),
      kind: 'number',
      given: given ? excerptFor(given, [given], DEFAULT_SETTINGS) : null,
      asked: { quantity, bits },
      key: { value, tolerance },
    },
    answer: { kind: 'number', text: value } as Answer,
  };
}

export function words(title: string, text: string, model: string, given?: Sheet): Posed {
  return {
    task: {
      ...heading(title, text),
      tells: 'nothing',
      kind: 'words',
      given: given ? excerptFor(given, [given], DEFAULT_SETTINGS) : null,
      asked: {},
      key: { model },
    },
    answer: { kind: 'words', text: model } as Answer,
  };
}

/** The set of some tasks, numbered, and the work that solves them. */
export function set(
  file: string,
  title: string,
  text: string,
  posed: readonly Posed[],
  order: Order = 'free',
): ReadySet {
  const tasks = posed.map(({ task }, i) => ({ ...task, id: `task${i + 1}` }));
  const exercise: Exercise = {
    id: `ready-${file}`,
    title,
    words: text,
    edition: 1,
    made: '2026-09-01T08:00:00.000Z',
    order,
    tasks,
  };
  const begun = begunWork(exercise, 'model');
  const solved = new Map<string, Sheet>();
  for (const [i, { sheet }] of posed.entries()) if (sheet) solved.set(`task${i + 1}`, sheet);
  const answers = Object.fromEntries(
    posed.map(({ answer }, i) => [`task${i + 1}`, { sheet: `task${i + 1}`, answer }]),
  );
  const sheets = begun.sheets.map((sheet) => {
    const own = solved.get(sheet.id);
    return own ? { ...own, id: sheet.id, name: sheet.name } : sheet;
  });
  return { file, exercise, model: { ...begun, sheets, work: { tasks: answers, checks: {} } } };
}
