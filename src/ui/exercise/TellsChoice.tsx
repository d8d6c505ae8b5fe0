'use client';

import type { Tells } from '@/core/circuit/exercise';
import { TELLS } from '@/core/circuit/exercise';

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
}

/** How much a student learns from a check, and how often. */
export function TellsChoice({ tells, tries, onTells, onTries }: Props) {
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
    </div>
  );
}
