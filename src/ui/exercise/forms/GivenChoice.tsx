'use client';

import type { GivenCircuit } from '@/core/circuit/exercise';
import { excerptFor } from '@/core/exercise/begin';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';

interface Props {
  readonly source: SetUpSource;
  readonly isGiven: boolean;
  readonly onGiven: (isGiven: boolean) => void;
}

/** The circuit that a task gives: that of the sheet, or none. */
export const givenOf = ({ sheet, sheets, settings }: SetUpSource, isGiven: boolean): GivenCircuit | null =>
  isGiven && sheet.parts.size > 0 ? excerptFor(sheet, sheets, settings) : null;

/** Whether the student gets the circuit of the sheet. */
export function GivenChoice({ source, isGiven, onGiven }: Props) {
  const isEmpty = source.sheet.parts.size === 0;
  return (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={isGiven && !isEmpty}
        disabled={isEmpty}
        onChange={(event) => onGiven(event.target.checked)}
      />
      Give the circuit of this sheet to the student
    </label>
  );
}

interface GivenAndStill {
  readonly isGiven: boolean;
  readonly isPredicted: boolean;
}

/** Whether the student gets the circuit of the sheet, and whether it stands still until the answer is predicted. */
export function PredictedChoice({
  source,
  is,
  onChoice,
  until,
}: {
  readonly source: SetUpSource;
  readonly is: GivenAndStill;
  readonly onChoice: (is: GivenAndStill) => void;
  /** What has to be done first, as a clause: `the lanes are drawn`. */
  readonly until: string;
}) {
  const { isGiven, isPredicted } = is;
  return (
    <>
      <GivenChoice
        source={source}
        isGiven={isGiven}
        onGiven={(given) => onChoice({ isGiven: given, isPredicted })}
      />
      {isGiven && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={isPredicted}
            onChange={(event) => onChoice({ isGiven, isPredicted: event.target.checked })}
          />
          The circuit stands still until {until}: predict first, then observe
        </label>
      )}
    </>
  );
}
