import type { Expression } from '@/core/logic/expression/expression';
import { type Notation, type Piece, pieces, written } from '@/core/logic/expression/notation';
import { Marked } from '@/ui/controls/Marked';

/** An expression as it is written in class: with bars over negations, or in signs and words. */
export function Typeset({ expression, notation }: { expression: Expression; notation: Notation }) {
  if (notation === 'bar') return <Pieces of={pieces(expression)} />;
  return written(expression, notation);
}

/** An expression with bars, and with parentheses also where precedence would do without them. */
export function Grouped({ expression }: { expression: Expression }) {
  return <Pieces of={pieces(expression, true)} />;
}

function Pieces({ of }: { of: readonly Piece[] }) {
  return of.map((piece, i) => {
    if (typeof piece === 'string') return <span key={i}>{piece}</span>;
    if ('name' in piece)
      return (
        <span key={i}>
          <Marked text={piece.name} />
        </span>
      );
    // Bars over bars each have a line of their own.
    return (
      <span key={i} className="mx-[1.5px] inline-block border-t-[1.5px] border-current pt-px leading-[1.25]">
        <span className="sr-only">not </span>
        <Pieces of={piece.bar} />
      </span>
    );
  });
}
