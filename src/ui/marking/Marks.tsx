import type { Task } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import type { Marked } from '@/core/exercise/marking';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { hint } from '@/ui/controls/hint';
import { isAllRight, mistakesOf, otherClaims, pointsOfRow, type Row } from './marked-row';
import { countsOf, FILTERS, type Filter, ORDERS, type RowOrder, type View } from './view';

interface MarksProps {
  /** The hand-ins that are listed, in their order. */
  readonly rows: readonly Row[];
  readonly all: readonly Row[];
  readonly marks: ClassMarks;
  readonly view: View;
  readonly onView: (view: View) => void;
  readonly tasks: readonly Task[];
  readonly onLook: (key: number) => void;
  readonly onRemove: (key: number) => void;
}

/** The marks of all hand-ins, a line each. */
export function Marks({ rows, all, marks: given, view, onView, tasks, onLook, onRemove }: MarksProps) {
  const solved = all.filter(isAllRight).length;
  const only = tasks.length === 1 ? tasks[0]! : null;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="text-quiet">
          {all.length} {all.length === 1 ? 'hand-in' : 'hand-ins'} · {solved} all right
        </p>
        <ListedBy all={all} marks={given} view={view} onView={onView} />
      </div>
      <SameMistakes all={all} tasks={tasks} view={view} onView={onView} />
      {rows.length === 0 && <p className="py-6 text-center text-quiet">None of them is like this.</p>}
      <table className="w-full overflow-hidden rounded-xl border border-hairline bg-raised text-left">
        <thead>
          <tr className="border-b-2 border-ink text-sm">
            {[
              { name: 'Name' },
              ...(only
                ? [{ name: 'Right' }, { name: taskKindOf(only).gistName }]
                : [...tasks.map(({ title }, i) => ({ name: String(i + 1), title }))]),
              { name: 'Points' },
              { name: 'Complaints' },
              { name: 'Handed in' },
            ].map(({ name, title }: { name: string; title?: string }) => (
              <th key={name} scope="col" className="px-4 py-2" {...hint(title)}>
                {name}
                {title && <span className="sr-only">: {title}</span>}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const { key, handIn, earlier, marks } = row;
            return (
              <tr key={key} className="border-t border-hairline align-top">
                <th scope="row" className="max-w-60 px-4 py-2.5">
                  <bdi className="line-clamp-2 wrap-anywhere" {...hint(handIn.name)}>
                    {handIn.name}
                  </bdi>
                </th>
                {marks.map(({ task, mark }) => (
                  <td
                    key={task.id}
                    className={`px-4 py-2.5 font-semibold whitespace-nowrap ${mark.solved ? 'text-good' : mark.solved === null ? '' : 'text-bad'}`}
                  >
                    {howMuch(mark)}
                    {only && mark.wrong && (
                      <div className="text-sm font-normal text-quiet">wrong: {mark.wrong}</div>
                    )}
                  </td>
                ))}
                {only && (
                  <td className="max-w-80 px-4 py-2.5 wrap-anywhere">{marks[0]?.mark.gist || 'none'}</td>
                )}
                <td className="px-4 py-2.5 whitespace-nowrap">{pointsText(row, given)}</td>
                <td className="max-w-80 px-4 py-2.5 text-sm">
                  <Complaints marks={marks} claims={otherClaims(row)} />
                </td>
                <td className="px-4 py-2.5 text-sm whitespace-nowrap">
                  {new Date(handIn.handedIn).toLocaleString('en-GB', {
                    dateStyle: 'medium',
                    timeStyle: 'short',
                  })}
                  {earlier.length > 0 && (
                    <ul aria-label={`Earlier hand-ins of ${handIn.name}`} className="mt-1 text-quiet">
                      {earlier.map((one) => (
                        <li key={one.key}>
                          <button
                            type="button"
                            className="-mx-1 cursor-pointer rounded-md px-1 hover:bg-accent-soft hover:text-accent"
                            onClick={() => onLook(one.key)}
                          >
                            before: {only ? howMuch(one.marks[0]!.mark) : pointsText(one, given)},{' '}
                            {new Date(one.handIn.handedIn).toLocaleString('en-GB', {
                              day: 'numeric',
                              month: 'short',
                              hour: '2-digit',
                              minute: '2-digit',
                            })}
                          </button>
                        </li>
                      ))}
                    </ul>
                  )}
                </td>
                <td className="px-2 py-1.5 text-right whitespace-nowrap">
                  <button type="button" className="button small" onClick={() => onLook(key)}>
                    Open
                  </button>
                  <button
                    type="button"
                    className="icon-button"
                    aria-label={`Remove the hand-in of ${handIn.name}`}
                    {...hint('Remove')}
                    onClick={() => onRemove(key)}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

/** `✓ 8 of 8`; a question mark where a person has to tell. */
function howMuch({ solved, right, of }: Mark): string {
  if (solved === null) return '? to mark';
  return `${solved ? '✓' : '✗'} ${right} of ${of}`;
}

function pointsText(row: Row, given: ClassMarks): string {
  const { sure, open } = pointsOfRow(row, given);
  const all = row.marks.reduce((sum, { task }) => sum + task.points, 0);
  return `${sure} of ${all}${open > 0 ? `, ${open} to mark` : ''}`;
}

const FILTER_NAMES: Readonly<Record<Filter, string>> = {
  all: 'All',
  wrong: 'Wrong',
  'to mark': 'To mark',
  complaints: 'Complaints',
};

type ListedProps = Pick<MarksProps, 'all' | 'marks' | 'view' | 'onView'>;

/** Which hand-ins are listed, found by name, and in which order. */
function ListedBy({ all, marks, view, onView }: ListedProps) {
  const counts = countsOf(all, marks);
  return (
    <>
      <fieldset className="flex gap-1" aria-label="Which are listed">
        {FILTERS.map((filter) => (
          <button
            key={filter}
            type="button"
            aria-pressed={view.filter === filter}
            className={`h-8 cursor-pointer rounded-full border px-3 text-sm ${
              view.filter === filter ? 'border-accent bg-accent-soft font-semibold' : 'border-hairline'
            }`}
            onClick={() => onView({ ...view, filter })}
          >
            {FILTER_NAMES[filter]} {counts[filter]}
          </button>
        ))}
      </fieldset>
      <input
        className="field h-8 w-44"
        type="search"
        placeholder="find a name"
        aria-label="Find a name"
        value={view.name}
        onChange={(event) => onView({ ...view, name: event.target.value })}
      />
      <label className="flex items-center gap-2 text-sm">
        by
        <select
          className="field h-8"
          value={view.order}
          onChange={(event) => onView({ ...view, order: event.target.value as RowOrder })}
        >
          {ORDERS.map((order) => (
            <option key={order} value={order}>
              {order}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

/** Mistakes of several hand-ins that are told, at most. */
const MOST_MISTAKES = 6;

/** The mistakes that several have made: a press lists them. */
function SameMistakes({ all, tasks, view, onView }: Pick<MarksProps, 'all' | 'tasks' | 'view' | 'onView'>) {
  const found = mistakesOf(all).slice(0, MOST_MISTAKES);
  if (found.length === 0 && view.alike === null) return null;
  const isShown = (task: number, said: string) => view.alike?.task === task && view.alike.said === said;
  return (
    <ul className="mb-3 flex flex-wrap gap-2 text-sm" aria-label="The same mistake">
      {found.map(({ task, said, count, mistake }) => (
        <li key={`${task} ${said}`} className="max-w-full">
          <button
            type="button"
            aria-pressed={isShown(task, said)}
            className={`max-w-full cursor-pointer truncate rounded-lg border px-2.5 py-1 ${
              isShown(task, said)
                ? 'border-accent bg-accent-soft'
                : 'border-hairline bg-raised hover:border-quiet'
            }`}
            onClick={() => onView({ ...view, alike: isShown(task, said) ? null : { task, said } })}
          >
            <b>{count}</b> {tasks.length > 1 && <span className="text-quiet">in {task + 1}: </span>}
            {mistake}
          </button>
        </li>
      ))}
    </ul>
  );
}

const MOST_SHOWN = 4;

function Complaints({ marks, claims }: { marks: readonly Marked[]; claims: readonly number[] }) {
  const found = marks.flatMap(({ mark }, i) =>
    mark.complaints.map((text) => (marks.length === 1 ? text : `${i + 1}: ${text}`)),
  );
  const claimed =
    claims.length === 0
      ? []
      : [
          marks.length === 1
            ? 'The file claims another result.'
            : `The file claims another result in ${claims.join(', ')}.`,
        ];
  const all = [...claimed, ...found];
  if (all.length === 0) return <span className="text-quiet">none</span>;
  return (
    <ul className="wrap-anywhere text-bad">
      {all.slice(0, MOST_SHOWN).map((text) => (
        <li key={text}>{text}</li>
      ))}
      {all.length > MOST_SHOWN && <li className="text-quiet">and {all.length - MOST_SHOWN} more</li>}
    </ul>
  );
}
