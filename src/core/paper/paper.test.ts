import { readdirSync, readFileSync } from 'node:fs';
import { DEFAULT_SETTINGS } from '../circuit/sheet';
import { TASK_KINDS } from '../exercise/kinds';
import { readExercise } from '../formats/exercise-file';
import { readLesson } from '../formats/lesson-file';
import { interlock } from '../testing/sketch';
import { expectDone as must } from '../values/result';
import { lanesFigure } from './lanes-figure';
import { mapFigure } from './map-figure';
import { type Paper, type PaperItem, tableItem } from './paper';
import { exercisePaper, type OfferedPiece, type Piece, piecesOf, sheetPaper } from './sheet-paper';
import { PAPER_KINDS } from './task-items';

const SETS = 'demo/sets';
const sets = readdirSync(SETS).map(
  (file) => [file, must(readExercise(readFileSync(`${SETS}/${file}`, 'utf8')))] as const,
);

/** Everything that is written on paper. */
const lettersOf = ({ tasks }: Paper): string =>
  tasks
    .flatMap(({ items }) => items)
    .map((item) => JSON.stringify(item))
    .join('\n');
const cellsOf = (item: PaperItem) =>
  item.is === 'table' ? item.columns.map(({ cells }) => cells.join('')) : [];

test('each kind of task has something on paper', () => {
  expect([...PAPER_KINDS].sort()).toEqual(TASK_KINDS.map(({ kind }) => kind).sort());
});

describe.each(sets)('the ready set %s', (_, exercise) => {
  const [work, answers] = [false, true].map((isAnswer) => exercisePaper(exercise, isAnswer)) as [
    Paper,
    Paper,
  ];

  test('has each task on both sheets, with something to do and something to mark by', () => {
    expect(work.tasks.map(({ title }) => title)).toEqual(exercise.tasks.map(({ title }) => title));
    for (const [i, { items }] of work.tasks.entries()) {
      expect(items.length).toBeGreaterThan(0);
      expect(answers.tasks[i]!.items.length).toBeGreaterThan(0);
      expect(JSON.stringify(items)).not.toBe(JSON.stringify(answers.tasks[i]!.items));
    }
    for (const said of [work, answers].map(lettersOf)) expect(said).not.toMatch(/undefined|NaN/);
  });

  test('tells none of its answers on the worksheet', () => {
    for (const [i, task] of exercise.tasks.entries()) {
      const items = work.tasks[i]!.items;
      const open = items.flatMap((item) =>
        item.is === 'table' ? item.columns.filter(({ isGiven }) => !isGiven) : [],
      );
      expect(open.flatMap(({ cells }) => cells).join('')).toBe('');
      expect(items.some((item) => item.is === 'text' && item.isAnswer)).toBe(false);
      expect(items.some((item) => item.is === 'formula' && item.expression !== null)).toBe(false);
      const { model, value } = (task.key ?? {}) as { model?: string; value?: string };
      if (model) expect(JSON.stringify(items)).not.toContain(model);
      if (value) expect(items.some((item) => item.is === 'text' && item.text.includes(value))).toBe(false);
    }
  });
});

test('a sealed answer is on neither sheet', () => {
  const [, exercise] = sets[0]!;
  const sealed = { ...exercise, tasks: exercise.tasks.map((task) => ({ ...task, key: null })) };
  const wanted = exercise.tasks.length;
  expect(lettersOf(exercisePaper(sealed, true)).match(/sealed/g)).toHaveLength(wanted);
  expect(exercisePaper(sealed, false).tasks).toHaveLength(wanted);
});

const chosen = (all: readonly OfferedPiece[], ...pieces: Piece[]) =>
  all.filter(({ piece }) => pieces.includes(piece));

describe('a worksheet of a sheet', () => {
  const { sheet, lesson } = interlock();
  const pieces = piecesOf({ sheet, sheets: lesson.sheets, settings: DEFAULT_SETTINGS, on: new Set() }, null);
  const offered = (all: readonly OfferedPiece[]) =>
    all.filter(({ whyNot }) => !whyNot).map(({ piece }) => piece);

  test('what a sheet cannot have is told with the reason', () => {
    expect(offered(pieces)).toEqual(['drawing', 'table', 'maps', 'formulas', 'words']);
    for (const { whyNot } of pieces) if (whyNot) expect(whyNot).toMatch(/^[A-Z].*[.:].*$/s);
  });

  test('the table is empty where the outputs are, and filled in on the answer sheet', () => {
    const [work, answers] = [false, true].map((isAnswer) =>
      sheetPaper('Interlock', '', chosen(pieces, 'table'), isAnswer).tasks.flatMap(({ items }) =>
        items.flatMap(cellsOf),
      ),
    );
    expect(work).toEqual(['00001111', '00110011', '01010101', '', '']);
    expect(answers).toEqual(['00001111', '00110011', '01010101', '00000001', '00001100']);
  });

  test('maps are empty, then filled and grouped; formulas are lines, then written', () => {
    const letters = (isAnswer: boolean) => {
      const { tasks } = sheetPaper('Interlock', '', chosen(pieces, 'maps', 'formulas'), isAnswer);
      return tasks.map(({ items }) => items);
    };
    const [[emptyMaps, lines], [maps, formulas]] = [letters(false), letters(true)] as [
      PaperItem[][],
      PaperItem[][],
    ];
    const marks = (item: PaperItem) => (item.is === 'figure' ? item.figure.marks.length : 0);
    // Eight letters, and a loop.
    expect(maps!.map((item, i) => marks(item) - marks(emptyMaps![i]!))).toEqual([9, 9]);
    expect(lines!.every((item) => item.is === 'formula' && item.expression === null)).toBe(true);
    expect(formulas!.every((item) => item.is === 'formula' && item.expression !== null)).toBe(true);
  });

  test('a clocked sheet has lanes, state and excitation tables', () => {
    const chase = must(readLesson(readFileSync('demo/lamp-chase.manege.json', 'utf8')));
    const all = piecesOf(
      { sheet: chase.sheets[0]!, sheets: chase.sheets, settings: chase.settings, on: new Set() },
      null,
    );
    expect(offered(all)).toEqual(['drawing', 'table', 'excitation', 'lanes', 'words']);
    expect(all.find(({ piece }) => piece === 'table')!.name).toBe('State table');
    const [excitation] = chosen(all, 'excitation');
    expect(excitation!.items(false).flatMap(cellsOf)).toEqual(['0011', '0101', '']);
    expect(excitation!.items(true).flatMap(cellsOf)).toEqual(['0011', '0101', '0101']);
    const [lanes] = chosen(all, 'lanes');
    const course = (isAnswer: boolean) =>
      lanes!
        .items(isAnswer)
        .flatMap((item) => (item.is === 'figure' ? item.figure.marks : []))
        .filter((mark) => mark.is === 'path' && mark.stroke?.width === 1.8).length;
    // The clock is given; eight lamps are drawn.
    expect([course(false), course(true)]).toEqual([1, 9]);
  });
});

test('a map of six inputs has four layers, and each row once', () => {
  const figure = mapFigure('Y', ['A', 'B', 'C', 'D', 'E', 'F'], null, []);
  const numbers = figure.marks.flatMap((mark) =>
    mark.is === 'text' && mark.size === 8 ? mark.runs[0]!.text : [],
  );
  expect(numbers.map(Number).sort((a, b) => a - b)).toEqual(Array.from({ length: 64 }, (_, row) => row));
});

test('lanes: what is not drawn is left to be drawn, either will do is an x', () => {
  const figure = lanesFigure(1000, 4, [
    { name: 'A', levels: '01x1' },
    { name: 'B', levels: '' },
  ]);
  const courses = figure.marks.filter((mark) => mark.is === 'path' && mark.stroke?.width === 1.8);
  expect(courses).toHaveLength(1);
  expect(figure.marks.filter((mark) => mark.is === 'text' && mark.runs[0]!.text === 'x')).toHaveLength(1);
});

test('columns that are filled in take their answers in their order', () => {
  const columns = [
    { name: 'Q', cells: null },
    { name: 'A', cells: ['0', '1'] },
    { name: 'R', cells: null },
  ];
  expect(cellsOf(tableItem('', 2, columns, [['1', '0'], ['x']]))).toEqual(['10', '01', 'x']);
  expect(cellsOf(tableItem('', 2, columns, null))).toEqual(['', '01', '']);
});
