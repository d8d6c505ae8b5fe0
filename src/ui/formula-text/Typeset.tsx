import type { Expression } from '@/core/logic/expression/expression';
import { type Notation, type Piece, pieces, written } from '@/core/logic/expression/notation';
import { Marked } from '@/ui/controls/Marked';

/** What stands in parentheses stays on one line as long as it fits into one. */
const TOGETHER = 'inline-block max-w-full';

/** An expression as it is written in class: with bars over negations, or in signs and words. */
export function Typeset({ expression, notation }: { expression: Expression; notation: Notation }) {
  if (notation === 'bar') return <Pieces of={pieces(expression)} />;
  const parts = written(expression, notation).split(/(\([^()]*\))/);
  return parts.map((part, i) =>
    part.startsWith('(') ? (
      <span key={i} className={TOGETHER}>
        {part}
      </span>
    ) : (
      part
    ),
  );
}

/** An expression with bars, and with parentheses also where precedence would do without them. */
export function Grouped({ expression }: { expression: Expression }) {
  return <Pieces of={pieces(expression, true)} />;
}

/** Where what a parenthesis opens at `from` ends, behind the one that closes it. */
function endOf(of: readonly Piece[], from: number): number {
  for (let at = from, depth = 0; at < of.length; at++) {
    if (of[at] === '(') depth++;
    else if (of[at] === ')' && --depth === 0) return at + 1;
  }
  return of.length;
}

function Pieces({ of }: { of: readonly Piece[] }) {
  const begin = of.indexOf('(');
  if (begin < 0) return <Flat of={of} />;
  const end = endOf(of, begin);
  return (
    <>
      <Flat of={of.slice(0, begin)} />
      <span className={TOGETHER}>
        (<Pieces of={of.slice(begin + 1, end - 1)} />)
      </span>
      {end < of.length && <Pieces of={of.slice(end)} />}
    </>
  );
}

function Flat({ of }: { of: readonly Piece[] }) {
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
