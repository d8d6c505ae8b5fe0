'use client';

import type { Attendance, Student } from '@/core/exercise/class-list';
import { counted, listed } from '@/core/values/wording';
import { hint } from '@/ui/controls/hint';

interface Props {
  readonly students: number;
  readonly attendance: Attendance;
  readonly onJoin: (name: string, student: Student) => void;
  readonly onRemove: () => void;
}

/** Names that are told one by one. */
const MOST_NAMES = 40;

/** Who of the class has not handed in, and names that may belong to the class under another spelling. */
export function ClassSection({ students, attendance: { missing, unknown }, onJoin, onRemove }: Props) {
  const names = missing.map(({ name }) => name);
  const more = names.length - MOST_NAMES;
  const shown = more > 0 ? [...names.slice(0, MOST_NAMES), `${more} more`] : names;
  const others = unknown.filter(({ like }) => like === null);
  return (
    <section
      aria-label="The class"
      className="flex flex-col gap-2 rounded-xl border border-hairline bg-raised px-4 py-3 text-sm"
    >
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1 wrap-anywhere">
          <b>{counted(students, 'student')}</b>,{' '}
          {names.length === 0 ? 'all of them have handed in.' : `${names.length} without a hand-in: `}
          {shown.length > 0 && `${listed(shown)}.`}
        </p>
        <button
          type="button"
          className="icon-button -my-1"
          aria-label="Remove the class list"
          {...hint('Remove the class list')}
          onClick={onRemove}
        >
          ×
        </button>
      </div>
      {unknown.map(
        ({ name, like }) =>
          like && (
            <p key={name} className="flex flex-wrap items-center gap-2">
              <span>
                “<bdi>{name}</bdi>” is not in the list. Is it <bdi className="font-semibold">{like.name}</bdi>
                ?
              </span>
              <button type="button" className="button small" onClick={() => onJoin(name, like)}>
                Yes, join them
              </button>
            </p>
          ),
      )}
      {others.length > 0 && (
        <p className="text-quiet wrap-anywhere">
          Not in the list: {listed(others.slice(0, MOST_NAMES).map(({ name }) => name))}.
        </p>
      )}
    </section>
  );
}
