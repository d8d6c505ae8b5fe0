'use client';

import { type ExpectedRows, readingText } from '@/core/exercise/expected-rows';
import { ExpectedHead } from './ExpectedHead';

const MOST_SHOWN = 64;

interface Props {
  readonly of: ExpectedRows;
  /** Called when an output's cell is pressed, where cells can be changed. */
  readonly onTurn?: (output: number, row: number) => void;
}

/** The expectation as a table; where it can be changed, an output's cells are pressed. */
export function ExpectedTable({ of, onTurn }: Props) {
  const { inputs, outputs, rows, word, when, input, output } = of;
  const strong = (text: string) => (text.includes('1') ? 'font-bold' : '');
  return (
    <div className="max-h-64 overflow-auto rounded-lg border border-hairline bg-raised">
      <table className="w-full text-center font-mono text-sm">
        <ExpectedHead of={of} />
        <tbody>
          {Array.from({ length: Math.min(rows, MOST_SHOWN) }, (_, row) => (
            <tr key={row} className={row % 8 > 3 ? 'bg-paper' : ''}>
              {when && <td className="px-2 font-sans text-quiet tabular-nums">{when(row)}</td>}
              {inputs.map((name, i) => (
                <td key={name}>{input(i, row)}</td>
              ))}
              {outputs.map((name, o) => {
                const value = output(o, row);
                return (
                  <td key={name} className="border-l border-hairline">
                    {onTurn ? (
                      <button
                        type="button"
                        className={`w-full cursor-pointer rounded hover:bg-accent-soft ${strong(value)}`}
                        onClick={() => onTurn(o, row)}
                        aria-label={`${name} in ${word} ${row}: ${readingText(value)}`}
                      >
                        {readingText(value)}
                      </button>
                    ) : (
                      <span className={strong(value)}>{readingText(value)}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {rows > MOST_SHOWN && (
        <p className="p-2 text-xs text-quiet">
          The first {MOST_SHOWN} of {rows} {word}s are shown; all of them count.
        </p>
      )}
    </div>
  );
}
