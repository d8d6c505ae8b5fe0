'use client';

import type { FunctionRows } from '@/core/exercise/kinds/function';

interface Props {
  readonly all: readonly FunctionRows[];
  readonly chosen: string;
  readonly onChoose: (output: string) => void;
}

/** The output whose function is asked for, where the sheet has several. */
export function OutputChoice({ all, chosen, onChoose }: Props) {
  if (all.length < 2) return null;
  return (
    <label className="flex flex-col gap-1">
      <span className="font-semibold">Output</span>
      <select className="field max-w-52" value={chosen} onChange={(event) => onChoose(event.target.value)}>
        {all.map(({ output }) => (
          <option key={output} value={output}>
            {output}
          </option>
        ))}
      </select>
    </label>
  );
}
