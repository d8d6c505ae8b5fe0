import type { Paper, PaperColumn, PaperItem, PaperTask } from '@/core/paper/paper';
import { counted } from '@/core/values/wording';
import { Marked } from '@/ui/controls/Marked';
import { TaskText } from '@/ui/exercise/TaskText';
import { FigureView } from '@/ui/figure/FigureView';
import { Typeset } from '@/ui/formula-text/Typeset';

interface Props {
  readonly paper: Paper;
  readonly isAnswer: boolean;
}

/** A worksheet, or its answer sheet, as it stands on paper: black on white. */
export function PaperView({ paper: { title, words, tasks }, isAnswer }: Props) {
  return (
    <div className="paper">
      <header className="flex items-end gap-6">
        <h1 className="mr-auto text-xl font-bold">
          <bdi>{title}</bdi>
          {isAnswer && <span className="font-normal"> · answers</span>}
        </h1>
        {!isAnswer && (
          <>
            <ToFill name="Name" width="12rem" />
            <ToFill name="Date" width="6rem" />
          </>
        )}
      </header>
      <TaskText text={words} />
      {tasks.map((task, i) => (
        <TaskOnPaper key={i} task={task} number={numberOf(tasks, i)} isAnswer={isAnswer} />
      ))}
    </div>
  );
}

/** The number of a task among those that ask something; null where it is the only one, or asks nothing. */
function numberOf(tasks: readonly PaperTask[], at: number): number | null {
  const asking = tasks.filter(({ title }) => title !== '');
  return asking.length > 1 && tasks[at]!.title !== '' ? asking.indexOf(tasks[at]!) + 1 : null;
}

function ToFill({ name, width }: { readonly name: string; readonly width: string }) {
  return (
    <span className="flex items-end gap-1.5 text-sm">
      {name}
      <span className="inline-block border-b border-black" style={{ width }} />
    </span>
  );
}

interface TaskProps {
  readonly task: PaperTask;
  /** Null where it has none. */
  readonly number: number | null;
  readonly isAnswer: boolean;
}

function TaskOnPaper({ task: { title, words, pictures, points, items }, number, isAnswer }: TaskProps) {
  return (
    <section>
      {title && (
        <h2 className="flex gap-2 font-bold">
          {number !== null && <span className="tabular-nums">{number}.</span>}
          <span className="mr-auto">{title}</span>
          {points !== null && points > 0 && (
            <span className="font-normal whitespace-nowrap">
              {isAnswer ? '' : '____ of '}
              {counted(points, 'point')}
            </span>
          )}
        </h2>
      )}
      <TaskText text={words} pictures={pictures} />
      <div className="flex flex-wrap items-start gap-x-8 gap-y-4">
        {items.map((item, i) => (
          <Item key={i} item={item} />
        ))}
      </div>
    </section>
  );
}

function Item({ item }: { readonly item: PaperItem }) {
  switch (item.is) {
    case 'text':
      return (
        <p className={`w-full whitespace-pre-wrap ${item.isAnswer ? 'paper-answer' : ''}`}>{item.text}</p>
      );
    case 'figure':
      return (
        <figure>
          {item.says && <figcaption>{item.says}</figcaption>}
          <FigureView figure={item.figure} className="h-auto max-w-full" />
        </figure>
      );
    case 'table':
      return <Table says={item.says} columns={item.columns} rows={item.rows} />;
    case 'formula':
      return (
        <p className="flex w-full items-end gap-2 text-lg">
          <b>
            <Marked text={item.name} />
          </b>{' '}
          =
          {item.expression ? (
            <span>
              <Typeset expression={item.expression} notation="bar" />
            </span>
          ) : (
            <span className="h-9 flex-1 border-b border-black" />
          )}
        </p>
      );
    case 'lines':
      return (
        <div className="w-full">
          {Array.from({ length: item.count }, (_, i) => (
            <div key={i} className="paper-line" />
          ))}
        </div>
      );
    case 'room':
      return <div className="paper-room" style={{ height: `${item.height}mm` }} />;
  }
}

/** Rows of a table that stand together; more of them stand beside one another. */
const MOST_TOGETHER = 18;
const ROWS_OF_A_PIECE = 16;

interface TableProps {
  readonly says: string;
  readonly columns: readonly PaperColumn[];
  readonly rows: number;
}

function Table({ says, columns, rows }: TableProps) {
  const each = rows <= MOST_TOGETHER ? rows : ROWS_OF_A_PIECE;
  const pieces = Array.from({ length: Math.ceil(rows / each) }, (_, i) => i * each);
  return pieces.map((from) => (
    <TablePiece
      key={from}
      says={from === 0 ? says : says && '\u00a0'}
      columns={columns}
      from={from}
      to={Math.min(rows, from + each)}
    />
  ));
}

interface PieceProps {
  readonly says: string;
  readonly columns: readonly PaperColumn[];
  readonly from: number;
  readonly to: number;
}

function TablePiece({ says, columns, from, to }: PieceProps) {
  const first = columns.findIndex(({ isGiven }) => !isGiven);
  const edge = (i: number) => (i === first && i > 0 ? 'paper-edge' : '');
  return (
    <table className="paper-table">
      {says && <caption>{says}</caption>}
      <thead>
        <tr>
          {columns.map(({ name }, i) => (
            <th key={name} scope="col" className={edge(i)}>
              <Marked text={name} />
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: to - from }, (_, i) => from + i).map((row) => (
          <tr key={row} className={row % 4 === 3 ? 'paper-fourth' : undefined}>
            {columns.map(({ name, cells, isGiven }, i) => (
              <td
                key={name}
                className={`${edge(i)} ${isGiven ? '' : cells[row] ? 'font-bold' : 'paper-open'}`}
              >
                {cells[row]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
