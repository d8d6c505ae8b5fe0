import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import type { Marked } from '@/core/exercise/marking';
import { unitsName } from '@/core/exercise/standing';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { hint } from '@/ui/controls/hint';
import { isAllRight, mistakesOf, otherClaims, pointsOfRow, type Row } from './marked-row';
import { countsOf, FILTERS, type Filter, ORDERS, type RowOrder, type View, type WrongAt } from './view';

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
  /** The one that was looked at last, or null. */
  readonly last: number | null;
  /** The groups of the class list. */
  readonly groups: readonly string[];
  /** When they are due, as ISO 8601; null where nothing is late. */
  readonly due: string | null;
  readonly onDue: (due: string | null) => void;
}

/** The marks of all hand-ins, a line each. */
export function Marks(props: MarksProps) {
  const { rows, all, marks: given, view, onView, tasks, last, onLook, onRemove, groups, due, onDue } = props;
  const solved = all.filter(isAllRight).length;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p className="text-quiet">
          {all.length} {all.length === 1 ? 'hand-in' : 'hand-ins'} · {solved} all right
        </p>
        <ListedBy
          all={all}
          marks={given}
          view={view}
          onView={onView}
          groups={groups}
          due={due}
          onDue={onDue}
        />
      </div>
      {view.wrongAt && (
        <p className="mb-2 text-sm">
          Those with {wrongName(tasks, view.wrongAt)} wrong
          {tasks.length > 1 ? ` in ${view.wrongAt.task + 1}` : ''}.{' '}
          <button
            type="button"
            className="cursor-pointer text-accent underline"
            onClick={() => onView({ ...view, wrongAt: null })}
          >
            List all
          </button>
        </p>
      )}
      <SameMistakes all={all} tasks={tasks} view={view} onView={onView} />
      {rows.length === 0 && <p className="py-6 text-center text-quiet">None of them is like this.</p>}
      <MarksTable rows={rows} marks={given} tasks={tasks} last={last} onLook={onLook} onRemove={onRemove} />
    </>
  );
}

/** A row of one line, in pixels. */
const USUAL_HEIGHT = 49;
/** Rows that are there above and below those in sight. */
const AROUND = 12;

type TableProps = Pick<MarksProps, 'rows' | 'marks' | 'tasks' | 'last' | 'onLook' | 'onRemove'>;

/** Only the rows in sight are in the page, and some around them: a class of a thousand scrolls as one of ten. */
function MarksTable({ rows, marks, tasks, last, onLook, onRemove }: TableProps) {
  const only = tasks.length === 1 ? tasks[0]! : null;
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    const now = Math.round(body.current!.getBoundingClientRect().top + window.scrollY);
    setTop((was) => (Math.abs(was - now) > 2 ? now : was));
  });
  const list = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => USUAL_HEIGHT,
    overscan: AROUND,
    scrollMargin: top,
    getItemKey: (i) => rows[i]!.key,
  });
  // Back from a hand-in, the list is where it was left, at that hand-in.
  const lastAt = rows.findIndex(({ key }) => key === last);
  const isBack = useRef(lastAt !== -1);
  useEffect(() => {
    if (!isBack.current || top === 0) return;
    isBack.current = false;
    list.scrollToIndex(lastAt, { align: 'center' });
  }, [list, lastAt, top]);
  const shown = list.getVirtualItems();
  const before = (shown[0]?.start ?? top) - top;
  const after = list.getTotalSize() - ((shown.at(-1)?.end ?? top) - top);
  const heads: readonly { name: string; title?: string }[] = [
    { name: 'Name' },
    ...(only
      ? [{ name: 'Right' }, { name: taskKindOf(only).gistName }]
      : tasks.map(({ title }, i) => ({ name: String(i + 1), title }))),
    { name: 'Points' },
    { name: 'Complaints' },
    { name: 'Handed in' },
  ];
  return (
    <div className="overflow-x-auto rounded-xl border border-hairline bg-raised">
      <table className="w-full text-left" aria-rowcount={rows.length + 1}>
        <thead>
          <tr className="border-b-2 border-ink text-sm">
            {heads.map(({ name, title }) => (
              <th
                key={name}
                scope="col"
                className={`${title ? 'px-2.5' : name === 'Name' || only ? 'px-4' : 'px-3'} py-2`}
                {...hint(title)}
              >
                {name}
                {title && <span className="sr-only">: {title}</span>}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody ref={body}>
          {before > 0 && <Gap height={before} />}
          {shown.map(({ index }) => {
            const row = rows[index]!;
            return (
              <MarksRow
                key={row.key}
                row={row}
                index={index}
                measure={list.measureElement}
                marks={marks}
                only={only !== null}
                isLast={row.key === last}
                onLook={onLook}
                onRemove={onRemove}
              />
            );
          })}
          {after > 0 && <Gap height={after} />}
        </tbody>
      </table>
    </div>
  );
}

/** The room of the rows that are not in the page. */
const Gap = ({ height }: { readonly height: number }) => (
  <tr>
    <td style={{ height, padding: 0 }} />
  </tr>
);

interface RowProps {
  readonly row: Row;
  readonly index: number;
  readonly measure: (element: HTMLElement | null) => void;
  readonly marks: ClassMarks;
  /** Whether the exercise has one task. */
  readonly only: boolean;
  /** Whether it was looked at last. */
  readonly isLast: boolean;
  readonly onLook: (key: number) => void;
  readonly onRemove: (key: number) => void;
}

const MarksRow = memo(function MarksRow(props: RowProps) {
  const { row, index, measure, marks: given, only, isLast, onLook, onRemove } = props;
  const { key, handIn, earlier, marks } = row;
  return (
    <tr
      ref={measure}
      data-index={index}
      aria-rowindex={index + 2}
      className={`border-t border-hairline align-top ${isLast ? 'bg-accent-soft' : ''}`}
    >
      <th scope="row" className={`max-w-60 px-4 py-2.5 ${only ? '' : 'min-w-28'}`}>
        <bdi className="line-clamp-2 wrap-anywhere" {...hint(handIn.name)}>
          {handIn.name}
        </bdi>
      </th>
      {marks.map(({ task, mark }) => (
        <td
          key={task.id}
          className={`${only ? 'px-4' : 'px-2.5'} py-2.5 font-semibold whitespace-nowrap ${mark.solved ? 'text-good' : mark.solved === null ? '' : 'text-bad'}`}
        >
          {only || !mark.solved ? howMuch(mark) : '✓'}
          {only && mark.wrong && <div className="text-sm font-normal text-quiet">wrong: {mark.wrong}</div>}
        </td>
      ))}
      {only && <td className="max-w-80 px-4 py-2.5 wrap-anywhere">{marks[0]?.mark.gist || 'none'}</td>}
      <td className="px-3 py-2.5 whitespace-nowrap">{pointsText(row, given)}</td>
      <td className="max-w-80 min-w-36 px-3 py-2.5 text-sm">
        <Complaints marks={marks} claims={otherClaims(row)} />
      </td>
      <td className="px-3 py-2.5 text-sm whitespace-nowrap">
        {LONG.format(new Date(handIn.handedIn))}
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
                  {SHORT.format(new Date(one.handIn.handedIn))}
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
});

const LONG = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
const SHORT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

const wrongName = (tasks: readonly Task[], { task, from, to }: WrongAt): string =>
  unitsName(tasks[task]!, from, to);

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
  late: 'Late',
};

type ListedProps = Pick<MarksProps, 'all' | 'marks' | 'view' | 'onView' | 'groups' | 'due' | 'onDue'>;

/** Which hand-ins are listed, found by name, and in which order. */
function ListedBy({ all, marks, view, onView, groups, due, onDue }: ListedProps) {
  const counts = countsOf(all, marks, due);
  return (
    <>
      <fieldset className="flex gap-1" aria-label="Which are listed">
        {FILTERS.filter((filter) => filter !== 'late' || due !== null).map((filter) => (
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
        className="field h-8 w-36"
        type="search"
        placeholder="find a name"
        aria-label="Find a name"
        value={view.name}
        onChange={(event) => onView({ ...view, name: event.target.value })}
      />
      {groups.length > 1 && (
        <select
          className="field h-8 w-auto"
          aria-label="Group"
          value={view.group ?? ''}
          onChange={(event) => onView({ ...view, group: event.target.value || null })}
        >
          <option value="">all groups</option>
          {groups.map((group) => (
            <option key={group} value={group}>
              {group}
            </option>
          ))}
        </select>
      )}
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
      <label className="flex items-center gap-2 text-sm">
        due
        <input
          className="field h-8 w-auto"
          type="datetime-local"
          value={due === null ? '' : localTime(new Date(due))}
          onChange={(event) => onDue(event.target.value ? new Date(event.target.value).toISOString() : null)}
        />
      </label>
    </>
  );
}

/** As a field for a date and a time has it: `2026-10-01T09:00`, in the time of this place. */
function localTime(at: Date): string {
  const two = (n: number) => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;
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
