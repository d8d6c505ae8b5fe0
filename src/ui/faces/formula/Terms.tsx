import { type Expression, evaluate } from '@/core/logic/expression/expression';
import { cubeOf, type Formula } from '@/core/logic/expression/forms';
import { type Notation, written } from '@/core/logic/expression/notation';
import { sameCube } from '@/core/logic/minimise/cube';
import { Typeset } from '@/ui/formula-text/Typeset';
import { highlightIn, useCrossHighlight } from '@/ui/session/cross-highlight';
import { countedOf } from './form-names';

/** Longer texts are not written out on the page. */
const LONGEST = 6000;

const SIGNS: Record<Notation, Partial<Record<Expression['op'], string>>> = {
  prime: { or: ' + ', xor: ' ⊕ ' },
  bar: { or: ' + ', xor: ' ⊕ ' },
  sign: { or: ' ∨ ', xor: ' ⊕ ' },
  words: { or: ' or ', xor: ' xor ' },
  verilog: {},
  c: {},
  python: {},
  javascript: {},
};

/** The terms of a sum each on their own, to be pointed at; anything else as a whole. */
export function Terms({
  formula,
  expression,
  notation,
  values,
}: {
  formula: Formula;
  expression: Expression;
  notation: Notation;
  values: ReadonlyMap<string, 0 | 1> | null;
}) {
  const pointed = useCrossHighlight((p) => p.pointed);
  const point = useCrossHighlight((p) => p.point);
  const lit = highlightIn(pointed, formula.name, formula.names);
  const sign = SIGNS[notation][expression.op];
  const text = written(expression, notation);
  if (text.length > LONGEST)
    return (
      <span className="text-base text-quiet">
        {countedOf(text.length, 'letter')} long: copy it to see it.
      </span>
    );
  const terms = (expression.op === 'or' || expression.op === 'xor') && sign ? expression.of : [expression];
  return terms.map((term, i) => {
    const cube = cubeOf(term, formula.names);
    const isPointed = !!cube && !!lit && sameCube(lit, cube);
    const holds = values !== null && evaluate(term, values) === 1;
    return (
      <span key={i}>
        {i > 0 && sign}
        <span
          data-lit={isPointed || undefined}
          // A product stays on one line as long as it fits into one.
          className={`${terms.length > 1 ? 'inline-block max-w-full leading-7' : ''} rounded-md px-0.5 ${cube ? 'hover:bg-accent-soft' : ''} ${isPointed ? 'bg-accent-soft' : ''} ${
            holds && terms.length > 1 ? 'shadow-[inset_0_-3px_0_var(--one)]' : ''
          }`}
          onPointerEnter={() => cube && point({ output: formula.name, inputs: formula.names, cube })}
          onPointerLeave={() => point(null)}
        >
          <Typeset expression={term} notation={notation} />
        </span>
      </span>
    );
  });
}
