import { useMemo, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { EITHER, ON } from '@/core/logic/cube';
import { type Expression, evaluated, namesOf } from '@/core/logic/expression';
import { type Form, type Formula, rowList, sizeOf } from '@/core/logic/forms';
import { isCode, type Notation, written } from '@/core/logic/notation';
import { inputAt } from '@/core/logic/truth-table';
import { isReached } from '@/core/logic/why-forms';
import type { Netlist } from '@/core/netlist/netlist';
import { Marked } from '@/ui/controls/Marked';
import { useSessionState } from '@/ui/lesson/session-context';
import { FormsCompared } from './FormsCompared';
import { counted, expressionIn } from './form-names';
import { Terms } from './Terms';
import { TypedFormula } from './TypedFormula';
import { useLiveRow } from './useFormulas';
import { Why } from './Why';

const LINK = 'cursor-pointer rounded-md px-1 text-sm text-accent hover:bg-accent-soft';

/** The expression as it is drawn, where that says what the formula does and reads its inputs only. */
function drawnAlike(formula: Formula, netlist: Netlist): Expression | null {
  const drawn = expressionIn(formula, 'drawn', netlist);
  if (typeof drawn === 'string' || namesOf(drawn).some((n) => !formula.names.includes(n))) return null;
  const { names, wish } = formula;
  const isAlike = wish.rows.every((value, row) => {
    const values = new Map(names.map((n, i) => [n, inputAt(names.length, i, row)]));
    return value === EITHER || evaluated(drawn, values) === (value === ON ? 1 : 0);
  });
  return isAlike ? drawn : null;
}

interface LineProps {
  readonly formula: Formula;
  readonly form: Form;
  readonly notation: Notation;
  readonly netlist: Netlist;
  /** Whether it cannot be changed here. */
  readonly isFixed: boolean;
}

/** One output: its expression term by term, what holds now lit, and what it takes to build it. */
export function FormulaLine({ formula, form, notation, netlist, isFixed }: LineProps) {
  const [isTyped, setTyped] = useState(false);
  const isOpen = useSessionState((s) => {
    const column = sheetOf(s.lesson, s.rootId)?.plan?.outputs.find((o) => o.name === formula.name);
    return column !== undefined && !/[01]/.test(column.rows);
  });
  const row = useLiveRow(formula.names);
  const expression = expressionIn(formula, form, netlist);
  const values = new Map(
    formula.names.map((n, i) => [n, inputAt(formula.names.length, i, Math.max(0, row))]),
  );
  const isLive = row >= 0 && typeof expression !== 'string' && !isOpen;
  const isTrue = isLive && evaluated(expression, values) === 1;
  if (isTyped)
    return (
      <li className="border-b border-hairline py-2.5 last:border-0">
        <TypedFormula
          of={formula.name}
          placeholder="any notation"
          initial={
            isOpen || typeof expression === 'string' || formula.names.length > 10
              ? ''
              : written(expression, notation === 'bar' ? 'prime' : notation)
          }
          onLeave={() => setTyped(false)}
        />
      </li>
    );
  return (
    <li className="border-b border-hairline py-2.5 last:border-0">
      <p className="formula-text leading-8 [overflow-wrap:anywhere]">
        {!isFixed && (
          <button
            type="button"
            className={`float-right leading-8 ${LINK}`}
            title="Type it anew"
            onClick={() => setTyped(true)}
          >
            Change
          </button>
        )}
        <span className="font-semibold">
          <Marked text={formula.name} />
        </span>{' '}
        ={' '}
        {isOpen || typeof expression === 'string' ? (
          <span className="text-base text-quiet">
            {isOpen ? 'no 0 and no 1 is filled in yet.' : `cannot be written: ${expression}.`}
          </span>
        ) : (
          <Terms
            formula={formula}
            expression={expression}
            notation={notation}
            values={isLive ? values : null}
          />
        )}
        {isLive && (
          <span
            className={`ml-2 rounded-md px-1.5 align-middle font-mono text-sm ${isTrue ? 'bg-one-soft font-bold' : 'text-quiet'}`}
            title="Its value at the moment"
          >
            {isTrue ? 1 : 0}
          </span>
        )}
      </p>
      {!isOpen && (
        <Below formula={formula} form={form} notation={notation} netlist={netlist} expression={expression} />
      )}
    </li>
  );
}

/** What is said below an expression: what it takes, how small it is, the other forms, and the way there. */
function Below({
  formula,
  form,
  notation,
  netlist,
  expression,
}: Omit<LineProps, 'isFixed'> & { readonly expression: Expression | string }) {
  const [open, setOpen] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const smallest = isSmallest(formula, form);
  const drawn = useMemo(() => (isAsked ? drawnAlike(formula, netlist) : null), [isAsked, formula, netlist]);
  return (
    <>
      {(form === 'minterms' || form === 'maxterms') && (
        <p className="font-mono text-sm [overflow-wrap:anywhere]">
          {rowList(formula.wish, form === 'minterms' ? 'ones' : 'zeros')}
        </p>
      )}
      {typeof expression !== 'string' && (
        <p className="flex flex-wrap items-center gap-x-2 text-sm text-quiet">
          <Taken expression={expression} />
          {smallest && <span>{smallest}</span>}
          <button type="button" className={LINK} aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Hide the other forms' : 'Compare forms'}
          </button>
          {isReached(form) && (
            <button
              type="button"
              className={LINK}
              aria-expanded={isAsked}
              title="The way there, law by law"
              onClick={() => setAsked(!isAsked)}
            >
              {isAsked ? 'Hide the way' : 'Why?'}
            </button>
          )}
        </p>
      )}
      {isAsked && isReached(form) && (
        <Why formula={formula} form={form} drawn={drawn} notation={isCode(notation) ? 'bar' : notation} />
      )}
      {open && <FormsCompared formula={formula} netlist={netlist} />}
    </>
  );
}

/** What is proved about how small a form is. */
function isSmallest(formula: Formula, form: Form): string | null {
  const found =
    form === 'sop' || form === 'nand'
      ? formula.ones
      : form === 'pos' || form === 'nor'
        ? formula.zeros
        : null;
  if (!found) return null;
  if (found.fewestLiterals) return '· none is smaller';
  return found.exact ? '· none has fewer terms' : '· the smallest found; there may be a smaller one';
}

function Taken({ expression }: { expression: Expression }) {
  const { terms, literals, gates, levels } = sizeOf(expression);
  return (
    <span>
      {[
        counted(terms, 'term'),
        counted(literals, 'literal'),
        counted(gates, 'gate'),
        counted(levels, 'level'),
      ].join(' · ')}
    </span>
  );
}
