import type { Settings, Sheet } from '../../../circuit/sheet';
import { compile } from '../../../netlist/compile';
import { sourceKey } from '../../../netlist/netlist';
import { drivenBy, drivingOf } from '../../../simulate/drive';
import { POWER_UP, Run } from '../../../simulate/run';
import { levelAt, type Timed } from '../../../simulate/timed-sources';
import { type Logic, letterOf } from '../../../values/logic';
import { done, type Result, refused } from '../../../values/result';
import type { DiagramAsked, DiagramKey, DiagramTask } from '.';

/** A run of a sheet, cell by cell. */
export interface WholeDiagram {
  /** ps. */
  readonly cell: number;
  readonly cells: number;
  readonly lanes: readonly { readonly name: string; readonly isInput: boolean; readonly levels: string }[];
}

/** Most steps of a run that is drawn. */
const MOST_STEPS = 200_000;
/** Changes of the inputs that are looked at to find the time of a cell. */
const LOOKED_AT = 64;

/** The longest time of which every change of the timed inputs is a whole multiple; null where nothing changes. */
function commonCell(timed: readonly Timed[]): number | null {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  let cell = 0;
  for (const source of timed) {
    let time = 0;
    for (let i = 0; i < LOOKED_AT; i++) {
      const { next } = levelAt(source, time);
      if (!Number.isFinite(next)) break;
      cell = common(Math.max(cell, next), Math.min(cell, next));
      time = next;
    }
  }
  return cell > 0 ? cell : null;
}

/**
 * Runs a sheet as its stimulus or its clocks drive it, and reads each lane just before the end of each cell.
 * @param cellPs the time of a cell; null for the longest of which all changes of the inputs are multiples.
 * @param on switches at 1, by `sourceKey`.
 */
export function wholeDiagram(
  sheet: Sheet,
  sheets: readonly Sheet[],
  { delays, powerUp }: Pick<Settings, 'delays' | 'powerUp'>,
  on: ReadonlySet<string>,
  cells: number,
  cellPs: number | null = null,
): Result<WholeDiagram> {
  const netlist = drivenBy(compile(sheet, sheets), drivingOf(sheet.time));
  if (netlist.outputs.length === 0) return refused('no-output', 'there is no output yet: place a lamp');
  const timed = netlist.sources.filter((s): s is Timed => s.kind === 'stimulus' || s.kind === 'clock');
  const cell = cellPs ?? commonCell(timed);
  if (cell === null || timed.length === 0)
    return refused(
      'nothing-changes',
      'no input changes by itself: place a clock, or choose a stimulus on the time face',
    );
  const run = new Run(netlist, { delays, powerUp: POWER_UP[powerUp], mostChanges: 0 });
  run.set(
    netlist.sources.flatMap((source) =>
      (source.kind === 'switch' || source.kind === 'button') && on.has(sourceKey(source))
        ? [[source.net, 1] as [number, Logic]]
        : [],
    ),
  );
  const columns = [
    ...netlist.inputColumns.map((c) => ({ ...c, isInput: true })),
    ...netlist.outputColumns.map((c) => ({ ...c, isInput: false })),
  ];
  const levels = columns.map(() => '');
  for (let i = 0; i < cells; i++) {
    if (!run.advance((i + 1) * cell - 1, MOST_STEPS - run.steps))
      return refused(
        'run-too-long',
        'the run is too long: something in the circuit oscillates, or a cell is far too long',
      );
    for (const [c, { nets }] of columns.entries())
      levels[c] += letterOf(run.values[nets[0]!] as Logic)
        .toLowerCase()
        .replace('z', 'x');
  }
  return done({
    cell,
    cells,
    lanes: columns.map(({ name, isInput }, c) => ({ name, isInput, levels: levels[c]! })),
  });
}

/** What is asked and wanted where some lanes of a run are drawn. */
export function diagramTask(
  { cell, cells, lanes }: WholeDiagram,
  asked: ReadonlySet<string>,
  isPredicted: boolean,
): { readonly asked: DiagramAsked; readonly key: DiagramKey } {
  return {
    asked: {
      cell,
      cells,
      lanes: lanes.map(({ name, levels }) => ({ name, levels: asked.has(name) ? null : levels })),
      isPredicted,
    },
    key: { lanes: lanes.filter(({ name }) => asked.has(name)).map(({ levels }) => levels) },
  };
}

/** The diagram of a task with all its lanes: those that are given, and those that are wanted. */
export function diagramOfTask({ asked: { cell, cells, lanes }, key }: DiagramTask): WholeDiagram {
  const wanted = [...key.lanes];
  return {
    cell,
    cells,
    lanes: lanes.map(({ name, levels }) => ({ name, isInput: false, levels: levels ?? wanted.shift()! })),
  };
}
