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
