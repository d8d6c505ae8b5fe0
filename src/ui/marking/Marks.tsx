import type { Task } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import type { Marked } from '@/core/exercise/marking';
import { pointsSoFar } from '@/core/formats/marking-csv';
import { hint } from '@/ui/controls/hint';
import { isAllRight, otherClaims, type Row } from './marked-row';

interface MarksProps {
  readonly rows: readonly Row[];
  readonly tasks: readonly Task[];
  readonly onLook: (key: number) => void;
  readonly onRemove: (key: number) => void;
}

/** The marks of all hand-ins, a line each. */
export function Marks({ rows, tasks, onLook, onRemove }: MarksProps) {
  const solved = rows.filter(isAllRight).length;
  const only = tasks.length === 1 ? tasks[0]! : null;
  return (
    <>
      <p className="mb-2 text-quiet">
        {rows.length} {rows.length === 1 ? 'hand-in' : 'hand-ins'} · {solved} all right
      </p>
      <table className="w-full overflow-hidden rounded-xl border border-hairline bg-raised text-left">
        <thead>
          <tr className="border-b-2 border-ink text-sm">
            {[
              { name: 'Name' },
              ...(only
                ? [{ name: 'Right' }, { name: taskKindOf(only).gistName }]
                : [...tasks.map(({ title }, i) => ({ name: String(i + 1), title })), { name: 'Points' }]),
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
                {only ? (
                  <td className="max-w-80 px-4 py-2.5 wrap-anywhere">{marks[0]?.mark.gist || 'none'}</td>
                ) : (
                  <td className="px-4 py-2.5 whitespace-nowrap">{pointsText(marks)}</td>
                )}
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
                            before: {only ? howMuch(one.marks[0]!.mark) : pointsText(one.marks)},{' '}
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

function pointsText(marks: readonly Marked[]): string {
  const { sure, open } = pointsSoFar(marks);
  const all = marks.reduce((sum, { task }) => sum + task.points, 0);
  return `${sure} of ${all}${open > 0 ? `, ${open} to mark` : ''}`;
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
