import { DEFAULT_WAVE } from '../src/core/circuit/default-wave';
import { apply, type Edit } from '../src/core/circuit/edit';
import type { Answer, Exercise, Expected, Order, Task } from '../src/core/circuit/exercise';
import { emptyLesson, type Lesson } from '../src/core/circuit/lesson';
import { DEFAULT_SETTINGS, type Params, type Sheet } from '../src/core/circuit/sheet';
import type { Stimulus } from '../src/core/circuit/time-setup';
import { tidy } from '../src/core/drawing/editing/arrange';
import { connect, newPart } from '../src/core/drawing/editing/gestures';
import { begunWork, excerptFor } from '../src/core/exercise/begin';
import { partsUsed } from '../src/core/exercise/check';
import { runOfSheet } from '../src/core/exercise/expected/run/expected-run';
import { tableOfSheet } from '../src/core/exercise/expected/table/expected-table';
import type { Limits } from '../src/core/exercise/kinds/build/limits';
import { diagramTask, wholeDiagram } from '../src/core/exercise/kinds/diagram/set-up';
import type { FaultAnswer } from '../src/core/exercise/kinds/fault';
import { injected, type PutFault, rowsThatTell } from '../src/core/exercise/kinds/fault/inject';
import type { WantedForm } from '../src/core/exercise/kinds/formula';
import { type FunctionRows, functionOf } from '../src/core/exercise/kinds/function';
import type { Quantity } from '../src/core/exercise/kinds/number/quantity';
import { excitationTable } from '../src/core/exercise/kinds/table/flip-flop-tables';
import {
  tableTask,
  usuallyAsked,
  type WholeTable,
  wholeTable,
} from '../src/core/exercise/kinds/table/set-up';
import { readVerilog } from '../src/core/formats/verilog/read';
import { rowsOf } from '../src/core/logic/minimise/cube';
import { minimise } from '../src/core/logic/minimise/minimise';
import { compile } from '../src/core/netlist/compile';
import { withSheetInside } from '../src/core/parts/block';
import { findKind, sheetIdInside } from '../src/core/parts/catalogue';
import type { PartFault } from '../src/core/parts/fault';
import { defaultParams } from '../src/core/parts/params';
import { drawStatement } from '../src/core/synthesis/draw-statement';
import { readStatement } from '../src/core/synthesis/statement';
import { expectDone } from '../src/core/values/result';

/*
 * The ready sets of tasks in the carousel scenario. `npm run demo` writes them; the model answers beside the tasks are held
 * against them by the tests. Longer than other files because the sets are its content: each stands here whole.
 */

/** A task with the answer that is right. */
interface Posed {
  readonly task: Task;
  readonly answer: Answer | null;
  /** The circuit that is right, for a task in which one is built; its blocks lead to the sheets of other tasks. */
  readonly sheet?: Sheet;
}

/** A set with the work of a student who does everything right. */
export interface ReadySet {
  readonly file: string;
  readonly exercise: Exercise;
  readonly model: Lesson;
}

/** The sheet laid out as the command does it. @param others the sheets of its blocks. */
function tidied(sheet: Sheet, others: readonly Sheet[] = []): Sheet {
  const lesson = { ...emptyLesson('tidied', 'Tidied'), sheets: [sheet, ...others] };
  return expectDone(apply(lesson, tidy(lesson, sheet.id))).sheets[0]!;
}

/** A sheet drawn of typed statements. */
function drawn(...statements: readonly string[]): Sheet {
  let lesson = emptyLesson('drawn', 'Drawn');
  const id = lesson.sheets[0]!.id;
  for (const [i, text] of statements.entries()) {
    const statement = expectDone(readStatement(lesson, id, text));
    lesson = expectDone(apply(lesson, drawStatement(lesson, id, statement, { x: 4, y: 6 + 14 * i }).edit));
  }
  return tidied(lesson.sheets[0]!);
}

/**
 * A sheet drawn of typed statements that use other sheets as blocks.
 * @param buses switches that are there before, with their bits.
 */
function called(
  others: readonly Sheet[],
  statements: readonly string[],
  buses: Readonly<Record<string, number>> = {},
): Sheet {
  const lesson = emptyLesson('called', 'Called');
  let around: Lesson = { ...lesson, sheets: [...lesson.sheets, ...others] };
  const { id } = lesson.sheets[0]!;
  const make = (edit: Edit) => {
    around = expectDone(apply(around, edit));
  };
  const kind = findKind('switch')!;
  for (const [i, [name, width]] of Object.entries(buses).entries()) {
    const at = { x: 0, y: 6 * i };
    const part = newPart(around.sheets[0]!, kind, at, { ...defaultParams(kind), width }, name);
    make({ type: 'addPart', sheet: id, part });
  }
  for (const [i, text] of statements.entries()) {
    const statement = expectDone(readStatement(around, id, text));
    make(drawStatement(around, id, statement, { x: 4, y: 6 + 14 * i }).edit);
  }
  return tidied(around.sheets[0]!, others);
}

/** The sheet of a module with switches and lamps at its ports; an input `clk` is a clock. */
function module(source: string): Sheet {
  const sheet = expectDone(readVerilog(source, 'Module')).sheets[0]!;
  const parts = new Map(sheet.parts);
  for (const [id, part] of parts) {
    if (part.kind !== 'port') continue;
    const isClock = part.label === 'clk';
    const kind = findKind(part.params.direction === 'out' ? 'lamp' : isClock ? 'clock' : 'switch')!;
    const width: Params = isClock ? {} : { width: part.params.width! };
    const label = isClock ? 'Clock' : part.label;
    parts.set(id, { ...part, kind: kind.kind, label, params: { ...defaultParams(kind), ...width } });
  }
  return tidied({ ...sheet, parts });
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

const GATES = ['and', 'or', 'not', 'nand', 'nor', 'xor', 'xnor'];

interface BuildOptions {
  readonly parts?: readonly string[];
  readonly blocks?: readonly string[];
  readonly limits?: Limits;
  readonly points?: number;
  /** The sheets of its blocks, where it is given as a block to those who did not get it right. */
  readonly standsInWith?: readonly Sheet[];
}

function build(title: string, words: string, sheet: Sheet, key: Expected, options: BuildOptions = {}): Posed {
  const { parts = GATES, blocks = [], limits = {}, points = 1, standsInWith } = options;
  const standIn = standsInWith ? excerptFor(sheet, [sheet, ...standsInWith], DEFAULT_SETTINGS) : null;
  const asked = { parts, drawing: 'free', blocks, limits, standIn };
  return { task: { ...heading(title, words, points), kind: 'build', asked, key }, answer: null, sheet };
}

const buildTable = (title: string, words: string, sheet: Sheet, options: BuildOptions = {}): Posed =>
  build(title, words, sheet, expectDone(tableOfSheet(sheet)), options);

/** The kinds of part on a sheet that have to be allowed. */
const partsOf = (sheet: Sheet, sheets: readonly Sheet[] = [sheet]): string[] =>
  partsUsed(sheet, sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind]));

/** The parts of a counter, and others with which one can be built. */
const forCounting = (sheet: Sheet, ...more: string[]): string[] => [
  ...new Set([
    ...GATES,
    ...partsOf(sheet),
    ...['tff', 'dff', 'jkff', 'counter', 'register', 'adder', 'constant', 'join', 'slice', 'clock'],
    ...more,
  ]),
];

/** Each input on its own waveform, at a pace in ps. */
function driving(
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

function buildRun(
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
function table(title: string, words: string, sheet: Sheet, isGiven: boolean): Posed {
  const whole = expectDone(wholeTable(sheet, [sheet]));
  const { asked, key } = tableTask(whole, usuallyAsked(whole), isGiven);
  const given = isGiven ? excerptFor(sheet, [sheet], DEFAULT_SETTINGS) : null;
  const answer = { kind: 'table', columns: key.columns, isFinal: true } as Answer;
  return { task: { ...heading(title, words), kind: 'table', given, asked, key }, answer };
}

/** A table of which the columns that are usually filled in are, without a circuit. */
function bookTable(title: string, words: string, whole: WholeTable): Posed {
  const { asked, key } = tableTask(whole, usuallyAsked(whole), false);
  const answer = { kind: 'table', columns: key.columns, isFinal: false } as Answer;
  return { task: { ...heading(title, words), kind: 'table', asked, key }, answer };
}

function diagram(title: string, words: string, sheet: Sheet, lanes: readonly string[], cells = 16): Posed {
  const whole = expectDone(wholeDiagram(sheet, [sheet], DEFAULT_SETTINGS, new Set(), cells));
  const { asked, key } = diagramTask(whole, new Set(lanes), true);
  const given = excerptFor(sheet, [sheet], DEFAULT_SETTINGS);
  const answer = { kind: 'diagram', lanes: key.lanes, isFinal: true } as Answer;
  return { task: { ...heading(title, words), kind: 'diagram', given, asked, key }, answer };
}

/** The first part of a kind, with something wrong inside it. */
function faultyPart(sheet: Sheet, kind: string, fault: PartFault): PutFault {
  return { part: [...sheet.parts.values()].find((p) => p.kind === kind)!.id, fault };
}

/** The wire that leads to an input of the last part of a kind, cut. */
function cutBefore(sheet: Sheet, kind: string, port: string): PutFault {
  const { id: part } = [...sheet.parts.values()].findLast((p) => p.kind === kind)!;
  const wire = [...sheet.wires.values()].find(
    ({ to }) => 'part' in to && to.part === part && to.port === port,
  )!;
  return { wire: wire.id, fault: { is: 'cut' } };
}

function fault(
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

function map(title: string, words: string, of: FunctionRows): Posed {
  const fn = functionOf(of);
  const groups = minimise(fn).cubes.map((cube) => [...rowsOf(cube, fn.inputs)]);
  return {
    task: { ...heading(title, words), kind: 'map', asked: { function: of }, key: {} },
    answer: { kind: 'map', groups } as Answer,
  };
}

function formula(
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

function number(title: string, words: string, value: string, options: NumberOptions = {}): Posed {
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

function words(title: string, text: string, model: string, given?: Sheet): Posed {
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
function set(
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

// Circuits that several sets use.
const interlock = () => drawn('Drive = Key and Bars and Clear', 'Warn = Key and not Bars');
const warn: FunctionRows = {
  inputs: ['Key', 'Bars', 'Clear', 'Stop'],
  output: 'Warn',
  rows: '0000000011111101',
};
const toggler = () =>
  module(`module toggler(input clk, input turn, output reg q);
initial q = 0;
always @(posedge clk) if (turn) q <= ~q;
endmodule`);
const counter = (limit: number) =>
  module(`module counter(input clk, output reg [3:0] Count);
initial Count = 0;
always @(posedge clk) Count <= ${limit === 16 ? 'Count + 1' : `Count == ${limit - 1} ? 4'd0 : Count + 1`};
endmodule`);

/** Four flip-flops that turn over, each at the falling edge of the one before it: at the rising one of its other output. */
function rippleCounter(): Sheet {
  let lesson = emptyLesson('ripple', 'Ripple');
  const { id } = lesson.sheets[0]!;
  const make = (edit: Edit | null) => {
    lesson = expectDone(apply(lesson, edit!));
  };
  const place = (kind: string, x: number, y: number, label = '', params: Params = {}) => {
    const found = findKind(kind)!;
    const part = newPart(lesson.sheets[0]!, found, { x, y }, { ...defaultParams(found), ...params }, label);
    make({ type: 'addPart', sheet: id, part });
    return part.id;
  };
  const wire = (from: string, port: string, part: string, to: string) =>
    make(connect(lesson.sheets[0]!, { part: from, port }, { part, port: to }));
  const clock = place('clock', 0, 40, 'Clock', { hertz: 1 });
  const one = place('constant', 0, 20, '', { value: 1 });
  const join = place('join', 90, 10, '', { widths: [1, 1, 1, 1] });
  wire(join, 'Y', place('lamp', 110, 10, 'Count', { width: 4 }), 'A');
  let before: readonly [part: string, port: string] = [clock, 'Y'];
  for (let i = 0; i < 4; i++) {
    const store = place('tff', 20 + 16 * i, 30, `Q${i}`);
    wire(one, 'Y', store, 'T');
    wire(before[0], before[1], store, 'C');
    wire(store, 'Q', join, `I${i}`);
    before = [store, "Q'"];
  }
  return tidied(lesson.sheets[0]!);
}

function firstGates(): ReadySet {
  const both = drawn('Drive = Key and Bars');
  const either = drawn('Bell = North or South');
  const free = drawn('Free = not Taken');
  return set('first-gates', 'First gates', 'Three gates of the carousel: predict each, then try it.', [
    table(
      'Both',
      'The carousel may turn when the key is in **and** the bars are down. Predict **Drive**.',
      both,
      true,
    ),
    table(
      'Either',
      'A rider may ring at the north **or** at the south gate. Predict **Bell**.',
      either,
      true,
    ),
    table('Neither', 'The lamp **Free** shows whether a horse may be mounted. Predict it.', free, true),
    words(
      'In words',
      'When is the lamp **Bell** on? Answer in one sentence.',
      'Bell is on whenever at least one of North and South is on.',
      either,
    ),
  ]);
}

function interlockSet(): ReadySet {
  const sheet = interlock();
  const nands = module(`module warn(input Key, input Bars, output Warn);
wire Down, Up;
nand (Down, Key, Bars);
nand (Up, Key, Down);
nand (Warn, Up, Up);
endmodule`);
  return set(
    'interlock',
    'Interlock',
    'From the words to the circuit: table, map, smallest sum, and NANDs alone.',
    [
      table(
        'The table',
        '- **Drive** may be 1 only while the key is in, the bars are down *and* the platform is clear.\n- **Warn** lights while the key is in and a bar is up.',
        sheet,
        false,
      ),
      map('The map', 'With a fourth input **Stop** the warning lamp does this. Group its ones.', warn),
      formula(
        'The smallest sum',
        'Write **Warn** as a sum of products with as few literals as you can.',
        warn,
        'sum of products',
        6,
        "Key Bars' + Key Clear' + Key Stop",
      ),
      buildTable('The circuit', 'Draw **Drive** and **Warn** with AND, OR and NOT.', sheet, {
        parts: ['and', 'or', 'not'],
        points: 2,
      }),
      buildTable(
        'NANDs alone',
        'Draw **Warn** = Key and not Bars with at most three NANDs of two inputs.',
        nands,
        {
          parts: ['nand'],
          limits: { gates: 3, gateInputs: 2 },
          points: 3,
        },
      ),
    ],
  );
}

/** The sheets of the ticket adder, their blocks leading to the tasks in which they are built. */
function ticketSheets(lesson: Lesson): { half: Sheet; full: Sheet; four: Sheet } {
  const named = (name: string) => lesson.sheets.find((s) => s.name === name)!;
  const ids = new Map([
    [named('Half adder').id, 'task1'],
    [named('Full adder').id, 'task2'],
  ]);
  const led = (sheet: Sheet): Sheet => ({
    ...sheet,
    parts: new Map(
      [...sheet.parts].map(([id, part]) => {
        const to = ids.get(sheetIdInside(part) ?? '');
        return [id, to ? withSheetInside(part, to) : part];
      }),
    ),
  });
  return { half: named('Half adder'), full: led(named('Full adder')), four: led(named('Four bits')) };
}

function tickets(lesson: Lesson): ReadySet {
  const own = (name: string) => {
    const sheet = lesson.sheets.find((s) => s.name === name)!;
    return expectDone(tableOfSheet(sheet, lesson.sheets));
  };
  const { half, full, four } = ticketSheets(lesson);
  const halfBuilt = { ...half, id: 'task1', name: 'Half adder' };
  const fullBuilt = { ...full, id: 'task2', name: 'Full adder' };
  const sixteen = called(
    [halfBuilt, fullBuilt],
    ['Tickets, Carry = full adder(Children[15:0], Adults[15:0], Carry = 0)'],
  );
  const around = [sixteen, halfBuilt, fullBuilt];
  const own16 = runOfSheet(
    sixteen,
    { sheets: around, settings: DEFAULT_SETTINGS },
    driving(sixteen, 'random', 10_000),
    new Set(),
    24,
  );
  const run16 = expectDone(own16).expected;
  const sum16 = { ...run16, outputs: run16.outputs.filter(({ name }) => name === 'Tickets') };
  const more = called([halfBuilt], ['Next, c = half adder(Riders[3:0], c = 1)']);
  const free = called(
    [halfBuilt, fullBuilt],
    ['n = not Riders[3:0]', 'Free, c = full adder(Places[3:0], n[3:0], c = 1)'],
  );
  const unit = called(
    [halfBuilt, fullBuilt],
    [
      'm = {Does[0], Does[0], Does[0]}',
      'k = {Does[1], Does[1], Does[1]}',
      'b = B[2:0] xor m[2:0]',
      's, c = full adder(A[2:0], b[2:0], c = Does[0])',
      'a = A and B',
      'o = A or B',
      'l = (a and not m) or (o and m)',
      'Y = (s and not k) or (l and k)',
    ],
    { Does: 2 },
  );
  /** What the built sheets do, with the carry that is led on left out. */
  const tableOf = (sheet: Sheet) => expectDone(tableOfSheet(sheet, [sheet, halfBuilt, fullBuilt]));
  const rung = (title: string, text: string, sheet: Sheet, blocks: readonly string[], points: number) =>
    build(title, text, sheet, tableOf(sheet), {
      parts: [...GATES, 'constant', 'slice', 'join', 'label'],
      blocks,
      points,
    });
  return set(
    'tickets',
    'Tickets',
    'Children’s and adults’ tickets are added, step by step: what you build in one task is a block in the next.',
    [
      build('Half adder', 'Add two bits **A** and **B**: **Sum** and **Carry**.', half, own('Half adder'), {
        standsInWith: [],
      }),
      build(
        'Full adder',
        'Add **A**, **B** and a carry **In** out of two of your half adders and one OR.',
        full,
        own('Full adder'),
        { parts: ['or', 'label'], blocks: ['task1'], points: 2, standsInWith: [halfBuilt] },
      ),
      build('Four bits', 'Chain full adders into a sum of four bits.', four, own('Four bits'), {
        parts: [
          ...new Set([
            ...partsOf(
              four,
              lesson.sheets.map((s) => (s.name === 'Four bits' ? four : s)),
            ).filter((kind) => !GATES.includes(kind) && kind !== 'block'),
            'slice',
            'join',
            'constant',
          ]),
        ],
        blocks: ['task1', 'task2'],
        points: 3,
      }),
      build(
        'Sixteen bits',
        'Add **Children** and **Adults** of sixteen bits, out of your full adders.',
        sixteen,
        sum16,
        {
          parts: ['slice', 'join', 'constant', 'label'],
          blocks: ['task1', 'task2', 'task3'],
          points: 3,
        },
      ),
      rung('One more', 'The number **Riders** and one more, of four bits.', more, ['task1'], 2),
      rung(
        'Free places',
        '**Places** less **Riders**, of four bits: to subtract is to add each bit turned over, and one.',
        free,
        ['task2'],
        2,
      ),
      rung(
        'Arithmetic unit',
        '**Does** says what is done: 0 adds, 1 subtracts, 2 is AND, 3 is OR.',
        unit,
        ['task2'],
        4,
      ),
    ],
  );
}

function findTheFault(): ReadySet {
  const sheet = interlock();
  const selector = drawn('Platform = (North and not Turn) or (South and Turn)');
  const half = drawn('Sum = A xor B', 'Carry = A and B');
  return set(
    'find-the-fault',
    'Find the fault',
    'One part or wire of each circuit is faulty. Find it with as few rows and probes as you can.',
    [
      fault(
        'Dark lamp',
        'The drive does not start. What is at fault, and which row shows it?',
        sheet,
        faultyPart(sheet, 'and', { is: 'stuck', at: 0 }),
      ),
      fault(
        'Wrong queue',
        'Riders are let in from the wrong side.',
        selector,
        faultyPart(selector, 'not', { is: 'inverted', port: 'A' }),
      ),
      fault(
        'Too many tickets',
        'The sum of two tickets is wrong.',
        half,
        faultyPart(half, 'xor', { is: 'other', kind: 'or' }),
      ),
      fault(
        'A loose contact',
        'At times nobody can say whether the warning lamp is on.',
        sheet,
        cutBefore(sheet, 'and', 'B'),
      ),
      fault(
        'Repair it',
        'Repair the interlock: replace what is at fault.',
        sheet,
        faultyPart(sheet, 'not', { is: 'open', port: 'A' }),
        'repair',
      ),
    ],
  );
}

function lampChase(chase: Sheet): ReadySet {
  const turn = toggler();
  const sixteen = counter(16);
  const ripple = rippleCounter();
  const ten = counter(10);
  return set(
    'lamp-chase',
    'Lamp chase',
    'Lamps that run round the roof: flip-flops, counters, and how fast the clock may be.',
    [
      table(
        'A flip-flop that turns over',
        'Complete the state table: the present state and **turn**, then the state after the edge.',
        turn,
        true,
      ),
      bookTable(
        'What it has to be told',
        'A JK flip-flop is to go from **Q** to **Q+** at the next edge. What do **J** and **K** have to be? Where either will do, write x.',
        excitationTable('jkff'),
      ),
      diagram(
        'The chase',
        'A light runs round the roof. Draw the lanes of **L0**, **L1** and **L2**.',
        chase,
        ['L0', 'L1', 'L2'],
      ),
      buildRun(
        'Count to sixteen',
        'Build a counter of four bits that counts at each rising edge: **Count**.',
        sixteen,
        null,
        20,
        {
          parts: forCounting(sixteen),
          points: 3,
        },
      ),
      buildRun(
        'One behind the other',
        'Build a ripple counter of four bits: four flip-flops and no gates, each clocked by the one before it.',
        ripple,
        null,
        20,
        {
          parts: ['tff', 'dff', 'jkff', 'constant', 'join', 'clock'],
          points: 2,
        },
      ),
      buildRun(
        'Cut at ten',
        'Build a counter that goes from 0 to 9 and then starts again at 0.',
        ten,
        null,
        24,
        {
          parts: forCounting(ten, 'comparator'),
          points: 3,
        },
      ),
      number('The shortest period', 'How short may the clock period of this chase be?', '19 ns', {
        quantity: 'time',
        tolerance: 0.2,
        given: chase,
      }),
      number(
        'After five stages',
        'Five flip-flops that turn over at each edge follow one another, behind a clock of 64 kHz. Which frequency leaves the last?',
        '2 kHz',
        { quantity: 'frequency' },
      ),
    ],
  );
}

function readTheDiagram(chase: Sheet): ReadySet {
  const gate = drawn('Drive = Key and Bars');
  const timed = (sheet: Sheet, data: Readonly<Record<string, string>>): Sheet => {
    const stimulus = driving(sheet, 'bits', 10_000, data);
    return { ...sheet, time: { stimuli: [stimulus], driven: stimulus.name, lanes: [] } as never };
  };
  const set1 = timed(gate, { Key: '0011110011100110', Bars: '0101101101011010' });
  const differ = timed(drawn('Alarm = Left xor Right'), {
    Left: '0110011100101101',
    Right: '0011010110110010',
  });
  return set(
    'read-the-diagram',
    'Read the diagram',
    'Lanes are missing: complete them, then run the circuit and compare.',
    [
      diagram('Both', 'Draw **Drive** under the two lanes that are given.', set1, ['Drive']),
      diagram('They differ', 'Draw **Alarm**: it is on while the two bars differ.', differ, ['Alarm']),
      diagram('A ring of lamps', 'Draw the lanes of **L4** and **L5**. The light begins at L0.', chase, [
        'L4',
        'L5',
      ]),
    ],
  );
}

function numbers(): ReadySet {
  return set('numbers', 'Numbers', 'How the ticket machine writes its numbers.', [
    number('Binary', 'Write 13 tickets in five bits.', '01101', { bits: 5 }),
    number('Back again', 'How many tickets are 10110?', '22'),
    number('Hexadecimal', 'The counter shows 2F in hexadecimal. How many riders are that?', '47'),
    number(
      'Two’s complement',
      'Five tickets were given back. Write -5 in eight bits, in two’s complement.',
      '11111011',
      { bits: 8 },
    ),
    number('Below zero', 'What number is 11110110, in two’s complement of eight bits?', '-10'),
    number('How many rows', 'How many rows has the truth table of this circuit?', '8', {
      given: interlock(),
    }),
  ]);
}

/**
 * All ready sets, in the order of a course.
 * @param adder the lesson of the ticket adder, whose sheets the ladder asks for.
 * @param chase the lesson of the lamp chase.
 */
export const readySets = (adder: Lesson, chase: Lesson): readonly ReadySet[] => [
  firstGates(),
  interlockSet(),
  tickets(adder),
  findTheFault(),
  lampChase(chase.sheets[0]!),
  readTheDiagram(chase.sheets[0]!),
  numbers(),
];
