import { useMemo } from 'react';
import type { Expression } from '@/core/logic/expression';
import type { Formula } from '@/core/logic/forms';
import type { Notation } from '@/core/logic/notation';
import { derivation, derivationOf } from '@/core/logic/why';
import { Typeset } from './Typeset';

/** Places of one step that are written out. */
const MOST_PLACES = 3;

/** The way from the expression as it is drawn, or from the minterms, to the smallest sum: law by law. */
export function Why({
  formula,
  from,
  notation,
}: {
  formula: Formula;
  /** As it is drawn; null where it is not. */
  from: Expression | null;
  notation: Notation;
}) {
  const made = useMemo(
    () => (from ? derivation(from, formula.names) : derivationOf(formula.wish, formula.names)),
    [from, formula],
  );
  if (!made.ok) return <p className="mt-2 text-sm text-quiet">The way cannot be shown: {made.problem}.</p>;
  return (
    <div className="mt-2 rounded-lg border border-hairline bg-paper px-3 py-2">
      <p className="text-sm text-quiet">
        From {from ? 'what is drawn' : 'the minterms'}
        {made.steps.length === 0
          ? ': it is the smallest sum as it is.'
          : `, ${made.steps.length === 1 ? 'one step' : `${made.steps.length} steps`}, each of them checked in all rows:`}
      </p>
      {from && (
        <p className="mt-1 [overflow-wrap:anywhere]">
          <Typeset expression={from} notation={notation} />
        </p>
      )}
      <ol>
        {made.steps.map(({ law, places, result }, i) => (
          <li key={i} className="mt-1.5 border-t border-hairline pt-1.5">
            <p className="text-sm">
              <span className="font-semibold text-accent">{law}</span>
              {places.slice(0, MOST_PLACES).map(({ before, after }, k) => (
                <span key={k} className="ml-2 text-quiet">
                  <Typeset expression={before} notation={notation} /> becomes{' '}
                  <Typeset expression={after} notation={notation} />
                  {k + 1 < Math.min(places.length, MOST_PLACES) ? ';' : ''}
                </span>
              ))}
              {places.length > MOST_PLACES && (
                <span className="ml-2 text-quiet">and at {places.length - MOST_PLACES} places more</span>
              )}
            </p>
            <p className="[overflow-wrap:anywhere]">
              <span aria-hidden="true">= </span>
              <Typeset expression={result} notation={notation} />
            </p>
          </li>
        ))}
      </ol>
    </div>
  );
}
