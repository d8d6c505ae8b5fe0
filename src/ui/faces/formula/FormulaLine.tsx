import { useMemo, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { isDerivable } from '@/core/logic/expression/derivation-forms';
import { type Expression, evaluate, namesOf } from '@/core/logic/expression/expression';
import { type Form, type Formula, rowList, sizeOf } from '@/core/logic/expression/forms';
import { isCode, type Notation, written } from '@/core/logic/expression/notation';
import { DONT_CARE, ON } from '@/core/logic/minimise/cube';
import { inputAt } from '@/core/logic/table/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import type { Result } from '@/core/values/result';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { useLiveRow } from '@/ui/derived/useFormulas';
import { useSessionState } from '@/ui/session/session-context';
import { FormsCompared } from './FormsCompared';
import { countedOf, expressionIn } from './form-names';
import { Terms } from './Terms';
import { TypedFormula } from './TypedFormula';
import { Why } from './Why';

const LINK = 'cursor-pointer rounded-md px-1 text-sm text-accent hover:bg-accent-soft';

/** The expression as drawn, if it equals the formula and reads its inputs only. */
function drawnAlike(formula: Formula, netlist: Netlist): Expression | null {
  const drawn = expressionIn(formula, 'drawn', netlist);
  if (!drawn.ok || namesOf(drawn.value).some((n) => !formula.names.includes(n))) return null;
  const { names, fn } = formula;
  const isAlike = fn.rows.every((value, row) => {
    const values = new Map(names.map((n, i) => [n, inputAt(names.length, i, row)]));
    return value === DONT_CARE || evaluate(drawn.value, values) === (value === ON ? 1 : 0);
  });
  return isAlike ? drawn.value : null;
}

interface LineProps {
  readonly formula: Formula;
  readonly form: Form;
  readonly notation: Notation;
  readonly netlist: Netlist;
  /** Whether it cannot be changed here. */
  readonly isFixed: boolean;
}

/** One output: its expression term by term, true terms lit, and its size as a circuit. */
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
  const isLive = row >= 0 && expression.ok && !isOpen;
  const isTrue = isLive && evaluate(expression.value, values) === 1;
  if (isTyped)
    return (
      <li className="border-b border-hairline py-2.5 last:border-0">
        <TypedFormula
          of={formula.name}
          placeholder="any notation"
          initial={
            isOpen || !expression.ok || formula.names.length > 10
              ? ''
              : written(expression.value, notation === 'bar' ? 'prime' : notation)
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
            {...hint('Type a new formula')}
            onClick={() => setTyped(true)}
          >
            Change
          </button>
        )}
        <span className="font-semibold">
          <Marked text={formula.name} />
        </span>{' '}
        ={' '}
        {isOpen ? (
          <span className="text-base text-quiet">no cell is filled in yet.</span>
        ) : !expression.ok ? (
          <span className="text-base text-quiet">cannot be written: {expression.problem.message}.</span>
        ) : (
          <Terms
            formula={formula}
            expression={expression.value}
            notation={notation}
            values={isLive ? values : null}
          />
        )}
        {isLive && (
          <span
            className={`ml-2 rounded-md px-1.5 align-middle font-mono text-sm ${isTrue ? 'bg-one-soft font-bold' : 'text-quiet'}`}
            {...hint('Its value at the moment')}
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

/** Below an expression: its size, whether it is minimal, the other forms, and the derivation. */
function Below({
  formula,
  form,
  notation,
  netlist,
  expression,
}: Omit<LineProps, 'isFixed'> & { readonly expression: Result<Expression> }) {
  const [open, setOpen] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const smallest = isSmallest(formula, form);
  const drawn = useMemo(() => (isAsked ? drawnAlike(formula, netlist) : null), [isAsked, formula, netlist]);
  return (
    <>
      {(form === 'minterms' || form === 'maxterms') && (
        <p className="font-mono text-sm [overflow-wrap:anywhere]">
          {rowList(formula.fn, form === 'minterms' ? 'ones' : 'zeros')}
        </p>
      )}
      {expression.ok && (
        <p className="flex flex-wrap items-center gap-x-2 text-sm text-quiet">
          <Taken expression={expression.value} form={form} />
          {smallest && <span>{smallest}</span>}
          <button type="button" className={LINK} aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Hide the other forms' : 'Compare forms'}
          </button>
          {isDerivable(form) && (
            <button
              type="button"
              className={LINK}
              aria-expanded={isAsked}
              {...hint('The derivation, law by law')}
              onClick={() => setAsked(!isAsked)}
            >
              {isAsked ? 'Hide the derivation' : 'Why?'}
            </button>
          )}
        </p>
      )}
      {isAsked && isDerivable(form) && (
        <Why formula={formula} form={form} drawn={drawn} notation={isCode(notation) ? 'bar' : notation} />
      )}
      {open && <FormsCompared formula={formula} netlist={netlist} />}
    </>
  );
}

/** The proved minimality of a form. */
function isSmallest(formula: Formula, form: Form): string | null {
  const found =
    form === 'sop' || form === 'nand'
      ? formula.ones
      : form === 'pos' || form === 'nor'
        ? formula.zeros
        : null;
  if (!found) return null;
  if (found.fewestLiterals) return '· none is smaller';
  if (found.exact) return '· none has fewer terms';
  return found.least > 1
    ? `· the smallest found; none has fewer than ${found.least} terms`
    : '· the smallest found; there may be a smaller one';
}

function Taken({ expression, form }: { expression: Expression; form: Form }) {
  const { terms, literals, gates, levels } = sizeOf(expression, form);
  return (
    <span>
      {[
        countedOf(terms, 'term'),
        countedOf(literals, 'literal'),
        countedOf(gates, 'gate'),
        countedOf(levels, 'level'),
      ].join(' · ')}
    </span>
  );
}
