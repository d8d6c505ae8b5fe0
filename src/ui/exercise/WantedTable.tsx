'use client';

import type { Wanted } from '@/core/circuit/exercise';
import { cellTurned } from '@/core/exercise/wanted';
import { inputAt } from '@/core/logic/truth-table';

const MOST_SHOWN = 64;

/** The wanted function as a table; where it can be changed, a press on an output's cell turns it 0, 1, x. */
export function WantedTable({ wanted, onChange }: { wanted: Wanted; onChange?: (wanted: Wanted) => void }) {
  const { inputs, outputs } = wanted;
  const rows = 2 ** inputs.length;
  return (
    <div className="max-h-64 overflow-auto rounded-lg border border-hairline bg-raised">
      <table className="w-full text-center font-mono text-sm">
        <thead className="sticky top-0 bg-raised font-sans text-xs">
          <tr>
            {inputs.map((name) => (
              <th key={name} scope="col" className="px-2 py-1">
                {name}
              </th>
            ))}
            {outputs.map((o) => (
              <th key={o.name} scope="col" className="border-l border-hairline px-2 py-1">
                {o.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: Math.min(rows, MOST_SHOWN) }, (_, row) => (
            <tr key={row} className={row % 8 > 3 ? 'bg-paper' : ''}>
              {inputs.map((name, i) => (
                <td key={name}>{inputAt(inputs.length, i, row)}</td>
              ))}
              {outputs.map((o, i) => (
                <td key={o.name} className="border-l border-hairline">
                  {onChange ? (
                    <button
                      type="button"
                      className={`w-full cursor-pointer rounded hover:bg-accent-soft ${o.rows[row] === '1' ? 'font-bold' : ''}`}
                      onClick={() => onChange(cellTurned(wanted, i, row))}
                      aria-label={`${o.name} in row ${row}: ${o.rows[row]}`}
                    >
                      {o.rows[row]}
                    </button>
                  ) : (
                    <span className={o.rows[row] === '1' ? 'font-bold' : ''}>{o.rows[row]}</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows > MOST_SHOWN && (
        <p className="p-2 text-xs text-quiet">
          The first {MOST_SHOWN} of {rows} rows are shown; all of them count.
        </p>
      )}
    </div>
  );
}
