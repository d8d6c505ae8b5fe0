'use client';

import { useState } from 'react';
import { EITHER, ON, sameCube } from '@/core/logic/cube';
import type { Expression } from '@/core/logic/expression';
import { evaluated, namesOf } from '@/core/logic/expression';
import { cubeOf, drawnForm, FORMS, type Form, type Formula, rowList, sizeOf } from '@/core/logic/forms';
import { code, isCode, NOTATIONS, type Notation, written } from '@/core/logic/notation';
import { inputAt } from '@/core/logic/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { sameName } from '@/core/values/names';
import { placeFormulas } from '@/session/plan-commands';
import { Marked } from '@/ui/controls/Marked';
import { pointedIn, usePointed } from '@/ui/lesson/pointed';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { Typeset } from './Typeset';
import { useFormulas, useLiveRow } from './useFormulas';
import { Why } from './Why';

const FORM_NAMES: Record<Form, string> = {
  drawn: 'as drawn',
  sop: 'smallest sum of products',
  pos: 'smallest product of sums',
  minterms: 'all minterms',
  maxterms: 'all maxterms',
  nand: 'NAND only',
  nor: 'NOR only',
  xor: 'exclusive or (Reed-Muller)',
  mixed: 'exclusive or where it helps',
};

const NOTATION_NAMES: Record<Notation, string> = {
  prime: "A'B + C",
  bar: 'bars over',
  sign: '¬A ∧ B ∨ C',
  words: 'not A and B',
  verilog: 'Verilog',
  c: 'C',
  python: 'Python',
  javascript: 'JavaScript',
};

/** Longer texts are not written out on the page. */
const LONGEST = 6000;

/** The function of each output as an expression, in the form and the notation that the class uses. */
export function FormulaFace() {
  const session = useSession();
  const formulas = useFormulas();
  const netlist = useSessionState((s) => s.netlist);
  const readOnly = useSessionState((s) => s.readOnly);
  const [form, setForm] = useState<Form>('sop');
  const [notation, setNotation] = useState<Notation>('bar');
  const isReady = formulas.state === 'ready';
  const copy = () => {
    if (!isReady) return;
    const all = formulas.all.flatMap((formula) => {
      const expression = expressionIn(formula, form, netlist);
      return typeof expression === 'string' ? [] : [{ name: formula.name, expression }];
    });
    const text = isCode(notation)
      ? code(all, formulas.inputs, notation)
      : all.map(({ name, expression }) => `${name} = ${written(expression, notation)}`).join('\n');
    navigator.clipboard.writeText(text).then(
      () => session.say(notation === 'bar' ? 'Copied as LaTeX.' : 'The formulas are on the clipboard.'),
      () => session.say('This browser does not let pages write to the clipboard.', 'bad'),
    );
  };
  return (
    <section className="pane" aria-label="Formula">
      <header className="pane-head">
        <h2 className="font-semibold">Formula</h2>
        <Choice label="Form" value={form} names={FORM_NAMES} all={FORMS} onChange={setForm} />
        <Choice
          label="Notation"
          value={notation}
          names={NOTATION_NAMES}
          all={NOTATIONS}
          onChange={setNotation}
        />
        {isReady && !isCode(notation) && !readOnly && (
          <button
            type="button"
            className="ml-auto shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft"
            onClick={() => placeFormulas(session, form, notation)}
            title="Place these formulas on the sheet, where they follow the circuit"
          >
            Onto the sheet
          </button>
        )}
        {isReady && (
          <button
            type="button"
            className={`${isCode(notation) || readOnly ? 'ml-auto' : ''} cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft`}
            onClick={copy}
            title={isCode(notation) ? 'Copy as code that runs, with a table to test it' : 'Copy all formulas'}
          >
            Copy
          </button>
        )}
      </header>
      {formulas.state === 'none' && <p className="p-5 text-quiet">{formulas.reason}</p>}
      {formulas.state === 'working' && (
        <p className="p-5 text-quiet" role="status">
          Looking for the smallest formulas: {formulas.done} of {formulas.all.length} found …
        </p>
      )}
      {isReady && (
        <ul className="min-h-0 flex-1 overflow-auto px-4 py-2">
          {formulas.isPlanned && <li className="text-xs text-quiet">Of the table that was filled in</li>}
          {formulas.all.map((formula) => (
            <Line key={formula.name} formula={formula} form={form} notation={notation} netlist={netlist} />
          ))}
        </ul>
      )}
    </section>
  );
}

function expressionIn(formula: Formula, form: Form, netlist: Netlist): Expression | string {
  if (form !== 'drawn') return formula.in(form);
  const column = netlist.outputColumns.find((c) => sameName(c.name, formula.name));
  if (column) return drawnForm(netlist, column.nets[0]);
  return formula.name.endsWith('+') ? 'the next state is not drawn as one expression' : 'it is not drawn yet';
}

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
}

/** One output: its expression term by term, what holds now lit, and what it takes to build it. */
function Line({ formula, form, notation, netlist }: LineProps) {
  const [open, setOpen] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const row = useLiveRow(formula.names);
  const expression = expressionIn(formula, form, netlist);
  const values = new Map(
    formula.names.map((n, i) => [n, inputAt(formula.names.length, i, Math.max(0, row))]),
  );
  const isLive = row >= 0 && typeof expression !== 'string';
  const isTrue = isLive && evaluated(expression, values) === 1;
  return (
    <li className="border-b border-hairline py-2.5 last:border-0">
      <p className="text-[1.15rem] leading-8 [overflow-wrap:anywhere]">
        <span className="font-semibold">
          <Marked text={formula.name} />
        </span>{' '}
        ={' '}
        {typeof expression === 'string' ? (
          <span className="text-base text-quiet">cannot be written: {expression}.</span>
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
      {(form === 'minterms' || form === 'maxterms') && (
        <p className="font-mono text-sm [overflow-wrap:anywhere]">
          {rowList(formula.wish, form === 'minterms' ? 'ones' : 'zeros')}
        </p>
      )}
      {typeof expression !== 'string' && (
        <p className="flex flex-wrap items-center gap-x-2 text-sm text-quiet">
          <Taken expression={expression} />
          {isSmallest(formula, form) && <span>{isSmallest(formula, form)}</span>}
          <button
            type="button"
            className="cursor-pointer rounded-md px-1 text-accent hover:bg-accent-soft"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {open ? 'Hide the other forms' : 'Compare forms'}
          </button>
          {form === 'sop' && (
            <button
              type="button"
              className="cursor-pointer rounded-md px-1 text-accent hover:bg-accent-soft"
              aria-expanded={isAsked}
              title="The way there, law by law"
              onClick={() => setAsked(!isAsked)}
            >
              {isAsked ? 'Hide the way' : 'Why?'}
            </button>
          )}
        </p>
      )}
      {isAsked && form === 'sop' && (
        <Why
          formula={formula}
          from={drawnAlike(formula, netlist)}
          notation={isCode(notation) ? 'bar' : notation}
        />
      )}
      {open && <Compared formula={formula} netlist={netlist} />}
    </li>
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

const counted = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;

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
function Terms({
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
  const pointed = usePointed((p) => p.pointed);
  const point = usePointed((p) => p.point);
  const lit = pointedIn(pointed, formula.name, formula.names);
  const sign = SIGNS[notation][expression.op];
  const text = written(expression, notation);
  if (text.length > LONGEST)
    return (
      <span className="text-base text-quiet">{counted(text.length, 'letter')} long: copy it to see it.</span>
    );
  const terms = (expression.op === 'or' || expression.op === 'xor') && sign ? expression.of : [expression];
  return terms.map((term, i) => {
    const cube = cubeOf(term, formula.names);
    const isPointed = !!cube && !!lit && sameCube(lit, cube);
    const holds = values !== null && evaluated(term, values) === 1;
    return (
      <span key={i}>
        {i > 0 && sign}
        <span
          data-lit={isPointed || undefined}
          className={`rounded-md px-0.5 ${cube ? 'hover:bg-accent-soft' : ''} ${isPointed ? 'bg-accent-soft' : ''} ${
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

/** All forms of one function side by side, by what they take. */
function Compared({ formula, netlist }: { formula: Formula; netlist: Netlist }) {
  const rows = FORMS.map((form) => ({ form, expression: expressionIn(formula, form, netlist) }));
  return (
    <table className="mt-2 w-full text-sm">
      <thead>
        <tr className="border-b border-ink text-left text-xs">
          <th className="py-1 font-semibold">Form</th>
          {['terms', 'literals', 'gates', 'levels'].map((word) => (
            <th key={word} className="py-1 text-right font-semibold">
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ form, expression }) => {
          const size = typeof expression === 'string' ? null : sizeOf(expression);
          return (
            <tr key={form} className="border-b border-hairline last:border-0">
              <th scope="row" className="py-0.5 text-left font-normal">
                {FORM_NAMES[form]}
              </th>
              {[size?.terms, size?.literals, size?.gates, size?.levels].map((n, i) => (
                <td key={i} className="py-0.5 text-right font-mono">
                  {n ?? '–'}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly all: readonly T[];
  readonly names: Readonly<Record<T, string>>;
  readonly onChange: (value: T) => void;
}

function Choice<T extends string>({ label, value, all, names, onChange }: ChoiceProps<T>) {
  return (
    <select
      className="h-7 min-w-0 shrink rounded-lg border border-hairline bg-raised px-1.5"
      aria-label={label}
      title={label}
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
    >
      {all.map((one) => (
        <option key={one} value={one}>
          {names[one]}
        </option>
      ))}
    </select>
  );
}
