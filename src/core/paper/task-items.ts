import type { Task } from '../circuit/exercise';
import { sheetsGiven } from '../exercise/begin';
import { expectedKindOf } from '../exercise/expected';
import { readingText } from '../exercise/expected-rows';
import type { BenchTask } from '../exercise/kinds/bench';
import { type BuildTask, partsAllowed } from '../exercise/kinds/build';
import { limitsText } from '../exercise/kinds/build/limits';
import { type CircuitTask, signalsOf } from '../exercise/kinds/circuit-answer';
import { type DiagramTask, lanesAsked } from '../exercise/kinds/diagram';
import { type FaultTask, truthOf } from '../exercise/kinds/fault';
import type { FormulaTask } from '../exercise/kinds/formula';
import { type FunctionRows, functionOf } from '../exercise/kinds/function';
import type { MapTask } from '../exercise/kinds/map';
import type { NumberTask } from '../exercise/kinds/number';
import type { TableTask } from '../exercise/kinds/table';
import { wholeTable } from '../exercise/kinds/table/set-up';
import type { WordsTask } from '../exercise/kinds/words';
import { BLACK_INKS } from '../figure/inks';
import { sheetFigure } from '../figure/sheet-figure';
import { sumOf } from '../logic/expression/forms';
import { minimise } from '../logic/minimise/minimise';
import { sheetPlan } from '../packages/sheet-plan';
import { findKind } from '../parts/catalogue';
import { lanesFigure } from './lanes-figure';
import { mapFigure } from './map-figure';
import { type PaperItem, tableItem } from './paper';

/*
 * The items that each kind of task puts on paper, for the student and for the marker.
 */

/** @param isAnswer whether the wanted answer is filled in. It is known: see `paperItems`. */
type ItemsOf<T extends Task> = (task: T, isAnswer: boolean) => readonly PaperItem[];

const text = (said: string, isAnswer = false): PaperItem => ({ is: 'text', text: said, isAnswer });

/** The circuit that a task gives. */
function givenItems({ given }: Task): PaperItem[] {
  if (!given) return [];
  const [sheet] = sheetsGiven(given);
  if (!sheet || sheet.parts.size === 0) return [];
  return [
    { is: 'figure', figure: sheetFigure(sheet, { settings: given.settings, inks: BLACK_INKS }), says: '' },
  ];
}

const table: ItemsOf<TableTask> = (task, isAnswer) => [
  ...givenItems(task),
  tableItem('', task.asked.rows, task.asked.columns, isAnswer ? task.key.columns : null),
];

const diagram: ItemsOf<DiagramTask> = (task, isAnswer) => {
  const { asked, key } = task;
  const open = lanesAsked(asked).map(({ name }) => name);
  const lanes = asked.lanes.map(({ name, levels }) => ({
    name,
    levels: levels ?? (isAnswer ? key.lanes[open.indexOf(name)]! : ''),
  }));
  return [
    ...givenItems(task),
    { is: 'figure', figure: lanesFigure(asked.cell, asked.cells, lanes), says: '' },
  ];
};

const smallestOf = (of: FunctionRows) => minimise(functionOf(of)).cubes;

/** The table of a function, all of it given. */
const functionTable = ({ inputs, output, rows }: FunctionRows): PaperItem =>
  tableItem(
    '',
    rows.length,
    [
      ...inputs.map((name, i) => ({
        name,
        cells: Array.from(rows, (_, row) => String((row >> (inputs.length - 1 - i)) & 1)),
      })),
      { name: output, cells: [...rows] },
    ],
    null,
  );

const map: ItemsOf<MapTask> = ({ asked: { function: of } }, isAnswer) => {
  const groups = isAnswer ? smallestOf(of) : [];
  return [
    { is: 'figure', figure: mapFigure(of.output, of.inputs, of.rows, groups), says: '' },
    { is: 'formula', name: of.output, expression: isAnswer ? sumOf(groups, of.inputs) : null },
  ];
};

const formula: ItemsOf<FormulaTask> = (task, isAnswer) => {
  const { asked, key } = task;
  return [
    ...givenItems(task),
    ...(asked.showsTable && key && !task.digest ? [functionTable(key.function)] : []),
    ...(asked.form === 'any' ? [] : [text(`Form: ${asked.form}.`)]),
    ...(asked.mostLiterals === null ? [] : [text(`At most ${asked.mostLiterals} literals.`)]),
    {
      is: 'formula',
      name: asked.output,
      expression: isAnswer ? sumOf(smallestOf(key.function), asked.inputs) : null,
    },
    ...(isAnswer && asked.form !== 'any' && asked.form !== 'sum of products'
      ? [text(`Any formula of that form with these rows is right: ${key.function.rows}.`, true)]
      : []),
  ];
};

const number: ItemsOf<NumberTask> = (task, isAnswer) => [
  ...givenItems(task),
  isAnswer ? text(task.key.value, true) : { is: 'lines', count: 1 },
];

const words: ItemsOf<WordsTask> = (task, isAnswer) => [
  ...givenItems(task),
  isAnswer && task.key.model ? text(task.key.model, true) : { is: 'lines', count: 6 },
];

/** The behaviour of the given circuit, fault included: on paper it cannot be tried out. */
const fault: ItemsOf<FaultTask> = (task, isAnswer) => {
  const sheets = sheetsGiven(task.given!);
  const does = wholeTable(sheets[0]!, sheets);
  return [
    ...givenItems(task),
    ...(does.ok ? [tableItem('What it does:', does.value.rows, does.value.columns, null)] : []),
    isAnswer ? text(truthOf(task), true) : { is: 'lines', count: 2 },
  ];
};

/** Inputs, outputs and what may be used, in lines. */
const signalItems = (task: Parameters<typeof signalsOf>[0]): PaperItem[] => {
  const { inputs, outputs } = signalsOf(task);
  const named = (all: readonly { readonly name: string }[]) => all.map(({ name }) => name).join(', ');
  return [text(`Inputs: ${named(inputs)}`), text(`Outputs: ${named(outputs)}`)];
};

/** What a circuit is to do, row by row. */
function expectedItem({ key }: CircuitTask): PaperItem[] {
  const rows = expectedKindOf(key).rows(key);
  if (rows.word === 'proof' || rows.rows > MOST_ROWS) return [];
  const all = Array.from({ length: rows.rows }, (_, row) => row);
  const columns = [
    ...(rows.when ? [{ name: 'at', cells: all.map(rows.when) }] : []),
    ...rows.inputs.map((name, i) => ({ name, cells: all.map((row) => rows.input(i, row)) })),
    ...rows.outputs.map((name, o) => ({ name, cells: all.map((row) => readingText(rows.output(o, row))) })),
  ];
  return [tableItem('What it is to do:', rows.rows, columns, null)];
}

/** Rows of a table that fit on a page. */
const MOST_ROWS = 64;
/** Height of the room for a circuit, in mm. */
const ROOM = 90;

const build: ItemsOf<BuildTask> = (task, isAnswer) => {
  const allowed = [...partsAllowed(task)].filter((kind) => !findKind(kind)?.alwaysAllowed);
  const limits = limitsText(task.asked.limits);
  const { standIn } = task.asked;
  const [sheet] = standIn ? sheetsGiven(standIn) : [];
  return [
    ...signalItems(task),
    text(`Parts: ${allowed.map((kind) => findKind(kind)!.name).join(', ')}`),
    ...(limits.length > 0 ? [text(`Limits: ${limits.join(', ')}`)] : []),
    ...givenItems(task),
    ...(!isAnswer
      ? [{ is: 'room', height: ROOM } as const]
      : sheet
        ? [
            {
              is: 'figure',
              figure: sheetFigure(sheet, { settings: standIn!.settings, inks: BLACK_INKS }),
              says: 'One way:',
            } as const,
          ]
        : expectedItem(task)),
  ];
};

/** Wires that fit on a page. */
const MOST_WIRES = 60;
const WIRE_COLUMNS = ['From', 'To', 'Colour'] as const;

const bench: ItemsOf<BenchTask> = (task, isAnswer) => {
  const sheets = task.given ? sheetsGiven(task.given) : [];
  const wires = sheets[0] ? sheetPlan(sheets[0], sheets).wiring.wires.slice(0, MOST_WIRES) : [];
  const cells = wires.map(({ from, to, colour }) => [from, to, colour] as const);
  const rows = Math.max(wires.length, 16);
  const open = WIRE_COLUMNS.map((name) => ({ name, cells: null }));
  const answers =
    isAnswer && wires.length > 0 ? WIRE_COLUMNS.map((_, i) => cells.map((wire) => wire[i]!)) : null;
  return [
    ...signalItems(task),
    ...givenItems(task),
    tableItem(answers ? 'One way:' : 'Wires:', rows, open, answers),
    ...(isAnswer ? expectedItem(task) : []),
  ];
};

const ITEMS: Readonly<Record<string, ItemsOf<never>>> = {
  build,
  bench,
  table,
  diagram,
  fault,
  formula,
  map,
  number,
  words,
};

/** The kinds of task that have something on paper. */
export const PAPER_KINDS: readonly string[] = Object.keys(ITEMS);

/** What a task has on paper; on the answer sheet without its answer where that is sealed. */
export function paperItems(task: Task, isAnswer: boolean): readonly PaperItem[] {
  if (isAnswer && (task.key === null || task.digest))
    return [...givenItems(task), text('The answer is sealed: open it with the key.', true)];
  return (ITEMS[task.kind] as ItemsOf<Task>)(task, isAnswer);
}
