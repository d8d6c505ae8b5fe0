import type { Exercise } from '../circuit/exercise';
import type { SetUpSource } from '../exercise/expected/expected-kind';
import { wholeDiagram } from '../exercise/kinds/diagram/set-up';
import { functionOf, functionsOfSheet, MOST_OF_FUNCTION } from '../exercise/kinds/function';
import { excitationTable, FLIP_FLOPS } from '../exercise/kinds/table/flip-flop-tables';
import { type WholeTable, wholeTable } from '../exercise/kinds/table/set-up';
import type { Figure } from '../figure/figure';
import { BLACK_INKS } from '../figure/inks';
import { sheetFigure } from '../figure/sheet-figure';
import { sumOf } from '../logic/expression/forms';
import { LEAST_ON_MAP } from '../logic/map/map';
import { minimise } from '../logic/minimise/minimise';
import { sentence } from '../values/result';
import { lanesFigure } from './lanes-figure';
import { mapFigure } from './map-figure';
import { type Paper, type PaperItem, type PaperTask, tableItem } from './paper';
import { paperItems } from './task-items';

/** What can stand on a worksheet that is made from a sheet. */
export const PIECES = ['drawing', 'table', 'excitation', 'maps', 'formulas', 'lanes', 'words'] as const;
export type Piece = (typeof PIECES)[number];

/** A piece as it is offered: its name, and its items; or why there are none. */
export interface OfferedPiece {
  readonly piece: Piece;
  readonly name: string;
  /** Why it cannot be had, as a sentence; null where it can. */
  readonly whyNot: string | null;
  items(isAnswer: boolean): readonly PaperItem[];
}

/** Cells of a diagram on paper. */
const CELLS = 16;

/** What a sheet gives for a worksheet. @param seen the drawing with its signals, where they are wanted. */
export function piecesOf(source: SetUpSource, seen: Figure | null): readonly OfferedPiece[] {
  const { sheet, sheets, settings, on } = source;
  const table = wholeTable(sheet, sheets);
  const functions = functionsOfSheet(sheet, sheets);
  const whole = wholeDiagram(sheet, sheets, settings, on, CELLS);
  const inputs = functions.ok ? functions.value[0]!.inputs.length : 0;
  const small = functions.ok && inputs <= MOST_OF_FUNCTION ? functions.value : [];
  const kinds = new Set([...sheet.parts.values()].map(({ kind }) => kind));
  const stores = FLIP_FLOPS.filter(({ kind }) => kinds.has(kind));
  const isEmpty = sheet.parts.size === 0;
  const tooLarge = `With ${inputs} inputs it is too large: ${MOST_OF_FUNCTION} are the most.`;
  const noFunction = functions.ok ? (small.length > 0 ? null : tooLarge) : sentence(functions.problem);
  return [
    {
      piece: 'drawing',
      name: 'The drawing',
      whyNot: isEmpty ? 'Nothing is on the sheet yet.' : null,
      items: () => [
        { is: 'figure', figure: seen ?? sheetFigure(sheet, { settings, inks: BLACK_INKS }), says: '' },
      ],
    },
    {
      piece: 'table',
      name:
        table.ok && table.value.columns.some(({ name }) => /\+$/.test(name)) ? 'State table' : 'Truth table',
      whyNot: table.ok ? null : sentence(table.problem),
      items: (isAnswer) => (table.ok ? [openTable('', table.value, isAnswer)] : []),
    },
    {
      piece: 'excitation',
      name: 'Excitation tables',
      whyNot: stores.length > 0 ? null : 'There is no flip-flop on the sheet.',
      items: (isAnswer) =>
        stores.map(({ kind, name }) => openTable(`${name}:`, excitationTable(kind), isAnswer)),
    },
    {
      piece: 'maps',
      name: 'Karnaugh maps',
      whyNot: noFunction ?? (inputs < LEAST_ON_MAP ? `A map has at least ${LEAST_ON_MAP} inputs.` : null),
      items: (isAnswer) =>
        small.map((of) => ({
          is: 'figure',
          figure: mapFigure(
            of.output,
            of.inputs,
            isAnswer ? of.rows : null,
            isAnswer ? minimise(functionOf(of)).cubes : [],
          ),
          says: '',
        })),
    },
    {
      piece: 'formulas',
      name: 'Formulas',
      whyNot: noFunction,
      items: (isAnswer) =>
        small.map((of) => ({
          is: 'formula',
          name: of.output,
          expression: isAnswer ? sumOf(minimise(functionOf(of)).cubes, of.inputs) : null,
        })),
    },
    {
      piece: 'lanes',
      name: 'Timing diagram',
      whyNot: whole.ok ? null : sentence(whole.problem),
      items: (isAnswer) => {
        if (!whole.ok) return [];
        const { cell, cells, lanes } = whole.value;
        const shown = lanes.map(({ name, isInput, levels }) => ({
          name,
          levels: isInput || isAnswer ? levels : '',
        }));
        return [{ is: 'figure', figure: lanesFigure(cell, cells, shown), says: '' }];
      },
    },
    {
      piece: 'words',
      name: 'Lines for words',
      whyNot: null,
      items: (isAnswer) => (isAnswer ? [] : [{ is: 'lines', count: 5 }]),
    },
  ];
}

function openTable(says: string, { columns, rows }: WholeTable, isAnswer: boolean): PaperItem {
  const open = columns.filter(({ isInput }) => !isInput).map(({ cells }) => cells);
  const asked = columns.map(({ name, isInput, cells }) => ({ name, cells: isInput ? cells : null }));
  return tableItem(says, rows, asked, isAnswer ? open : null);
}

/** Titles of pieces over their items, where there are several. */
const ASKS: Readonly<Record<Piece, string>> = {
  drawing: '',
  table: 'Complete the table.',
  excitation: 'Complete the excitation tables.',
  maps: 'Complete the maps, and group them.',
  formulas: 'Give a formula for each output.',
  lanes: 'Complete the timing diagram.',
  words: 'Explain.',
};

/** The paper of the pieces that are chosen. @param words what stands over all, in Markdown. */
export function sheetPaper(
  title: string,
  words: string,
  pieces: readonly OfferedPiece[],
  isAnswer: boolean,
): Paper {
  return {
    title,
    words,
    tasks: pieces
      .map(
        ({ piece, items }): PaperTask => ({
          title: ASKS[piece],
          words: '',
          points: null,
          items: items(isAnswer),
        }),
      )
      .filter(({ items }) => items.length > 0),
  };
}

/** The paper of an exercise: all its tasks. */
export const exercisePaper = ({ title, words, tasks }: Exercise, isAnswer: boolean): Paper => ({
  title,
  words,
  tasks: tasks.map((task) => ({
    title: task.title,
    words: task.words,
    pictures: task.pictures,
    points: task.points,
    items: paperItems(task, isAnswer),
  })),
});
