'use client';

import type { WantedRun } from '@/core/circuit/exercise';
import { MOST_READINGS, type Stimulus } from '@/core/circuit/time-plan';
import { columnsOf, readingTurned } from '@/core/exercise/wanted-columns';
import type { OwnRun } from '@/core/exercise/wanted-run';
import type { Result } from '@/core/values/result';
import { WantedTable } from './WantedTable';

interface Props {
  readonly stimuli: readonly Stimulus[];
  /** The name of the stimulus that drives the inputs, or nothing. */
  readonly stimulus: string;
  readonly onStimulus: (name: string) => void;
  readonly count: string;
  readonly onCount: (count: string) => void;
  readonly own: Result<OwnRun>;
  /** The run with the readings that are taken out. */
  readonly wanted: WantedRun | null;
  readonly onWanted: (wanted: WantedRun) => void;
}

/** The run of this sheet as what is wanted: what drives it, how often it is read, and what is read then. */
export function WantedRunFields(props: Props) {
  const { stimuli, stimulus, onStimulus, count, onCount, own, wanted, onWanted } = props;
  return (
    <>
      <div className="flex flex-wrap items-end gap-4">
        <label className="flex flex-col gap-0.5 text-sm">
          Driven by
          <select
            className="field w-64"
            value={stimulus}
            onChange={(event) => onStimulus(event.target.value)}
          >
            <option value="">its clock, switches as they stand</option>
            {stimuli.map(({ name }) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-0.5 text-sm">
          Readings
          <input
            className="field w-24"
            type="number"
            min={1}
            max={MOST_READINGS}
            value={count}
            onChange={(event) => onCount(event.target.value)}
          />
        </label>
      </div>
      {own.ok && wanted ? (
        <>
          <p className="text-sm text-quiet">
            {own.value.clocked
              ? 'Outputs are read just before each active clock edge.'
              : 'Outputs are read just before an input changes.'}{' '}
            Press a cell that either value will do for: it becomes x, and does not count.
            {stimuli.length === 0 && ' Other courses of the inputs are made as stimuli on the Time face.'}
          </p>
          <WantedTable
            columns={columnsOf(wanted)}
            onTurn={(output, row) => onWanted(readingTurned(wanted, own.value.wanted, output, row))}
          />
        </>
      ) : (
        !own.ok && (
          <p role="alert" className="text-sm text-bad">
            This run cannot be used: {own.problem.message}.
          </p>
        )
      )}
    </>
  );
}
