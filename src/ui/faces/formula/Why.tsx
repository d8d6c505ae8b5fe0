import { useMemo } from 'react';
import { type DerivableForm, deriveForm } from '@/core/logic/expression/derivation-forms';
import type { Expression } from '@/core/logic/expression/expression';
import type { Formula } from '@/core/logic/expression/forms';
import type { Notation } from '@/core/logic/expression/notation';
import { Typeset } from '@/ui/formula-text/Typeset';

/** Places of one step that are written out. */
const MOST_PLACES = 3;

/** The way to a form, law by law: from the expression as it is drawn, or from the rows at which the function is 1. */
export function Why({
  formula,
  form,
  drawn,
  notation,
}: {
  formula: Formula;
  form: DerivableForm;
  /** The expression as drawn; null if there is none. */
  drawn: Expression | null;
  notation: Notation;
}) {
  const { from, rows, made } = useMemo(() => deriveForm(form, formula, drawn), [form, formula, drawn]);
  if (!made.ok)
    return <p className="mt-2 text-sm text-quiet">The derivation cannot be shown: {made.problem.message}.</p>;
  return (
    <div className="mt-2 rounded-lg border border-hairline bg-paper px-3 py-2">
      <p className="text-sm text-quiet">
        From {from ? 'what is drawn' : `the ${rows}`}
        {made.value.length === 0
          ? ': nothing is left to do.'
          : `, ${made.value.length === 1 ? 'one step' : `${made.value.length} steps`}, each of them checked in all rows:`}
      </p>
      {from && (
        <p className="mt-1 [overflow-wrap:anywhere]">
          <Typeset expression={from} notation={notation} />
        </p>
      )}
      <ol>
        {made.value.map(({ law, places, result }, i) => (
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
