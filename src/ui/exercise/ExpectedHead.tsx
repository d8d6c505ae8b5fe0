'use client';

import type { ExpectedRows } from '@/core/exercise/expected-rows';
import { hint } from '@/ui/controls/hint';

interface Props {
  readonly of: ExpectedRows;
  /** What the column after the outputs holds, for those who do not see it; none where there is no such column. */
  readonly last?: string;
}

/** The head of a table with a column for each input and output of an expectation. */
export const ExpectedHead = ({ of: { inputs, outputs, when }, last }: Props) => (
  <thead className="sticky top-0 bg-raised">
    <tr className="border-b border-ink font-sans text-xs">
      {when && (
        <th scope="col" className="px-1.5 py-1 font-normal text-quiet" {...hint('When the outputs are read')}>
          just before
        </th>
      )}
      {inputs.map((name) => (
        <th key={name} scope="col" className="px-1 py-1">
          {name}
        </th>
      ))}
      {outputs.map((name) => (
        <th key={name} scope="col" className="border-l border-hairline px-1 py-1">
          {name}
        </th>
      ))}
      {last && (
        <th scope="col">
          <span className="sr-only">{last}</span>
        </th>
      )}
    </tr>
  </thead>
);
