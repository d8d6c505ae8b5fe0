'use client';

import { type Task, TELLS, type Tells } from '@/core/circuit/exercise';
import { secrecyText } from '@/core/exercise/sealed';

const NAMES: Readonly<Record<Tells, string>> = {
  wanted: 'what is wrong, and what was wanted',
  places: 'what is wrong, without what was wanted',
  count: 'how much is right',
  verdict: 'right or not yet',
  nothing: 'nothing until you mark it',
};

const TRIES = [1, 2, 3, 5, 10];

interface Props {
  readonly tells: Tells;
  readonly tries: number | null;
  readonly onTells: (tells: Tells) => void;
  readonly onTries: (tries: number | null) => void;
  /** The task as far as it is made, to say what its file keeps secret. */
  readonly task: Task | null;
}

/** How much a student learns from a check, and how often. */
export function TellsChoice({ tells, tries, onTells, onTries, task }: Props) {
  return (
    <div className="flex flex-wrap gap-4">
      <label className="flex flex-col gap-1">
        <span className="font-semibold">A check tells the student</span>
        <select
          className="field w-80"
          value={tells}
          onChange={(event) => onTells(event.target.value as Tells)}
        >
          {TELLS.map((one) => (
            <option key={one} value={one}>
              {NAMES[one]}
            </option>
          ))}
        </select>
      </label>
      {tells !== 'nothing' && (
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Checks</span>
          <select
            className="field"
            value={tries ?? ''}
            onChange={(event) => onTries(event.target.value ? Number(event.target.value) : null)}
          >
            <option value="">as often as wanted</option>
            {TRIES.map((n) => (
              <option key={n} value={n}>
                {n === 1 ? 'once' : `${n} times`}
              </option>
            ))}
          </select>
        </label>
      )}
      {task && <p className="w-full text-sm text-quiet">{secrecyText(task)}</p>}
    </div>
  );
}
