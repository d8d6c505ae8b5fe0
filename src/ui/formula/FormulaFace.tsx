'use client';

import { useCallback, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { EITHER, ON, sameCube } from '@/core/logic/cube';
import type { Expression } from '@/core/logic/expression';
import { evaluated, namesOf } from '@/core/logic/expression';
import { cubeOf, drawnForm, FORMS, type Form, type Formula, rowList, sizeOf } from '@/core/logic/forms';
import { code, isCode, NOTATIONS, type Notation, written } from '@/core/logic/notation';
import { plannedBy } from '@/core/logic/plan-formulas';
import { inputAt } from '@/core/logic/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { plainText } from '@/core/values/markup';
import { sameName } from '@/core/values/names';
import { placeFormulas, planInHand, setPlan } from '@/session/plan-commands';
import { Marked } from '@/ui/controls/Marked';
import { pointedIn, usePointed } from '@/ui/lesson/pointed';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { useDrawPlan } from '@/ui/table/useDrawPlan';
import { isDone, usePlanned } from '@/ui/table/usePlanned';
import { FormulaField } from './FormulaField';
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

const LINK = 'cursor-pointer rounded-md px-1 text-sm text-accent hover:bg-accent-soft';

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
  const isEmpty = useSessionState((s) => s.netlist.outputs.length === 0 && s.netlist.storage.length === 0);
  /** Formulas of a next state follow the circuit; only those of outputs can be typed. */
  const isFixed = useSessionState((s) => s.readOnly || s.netlist.storage.length > 0);
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
      {formulas.state === 'none' && (
        <div className="flex flex-col gap-3 p-5">
          <p className="text-quiet">{formulas.reason}</p>
          {isEmpty && !readOnly && (
            <>
              <p className="text-quiet">
                Or begin with a formula: its table is filled, and its circuit drawn.
              </p>
              <TypedFormula placeholder="Drive = Key Bars Clear" />
            </>
          )}
        </div>
      )}
      {formulas.state === 'working' && (
        <p className="p-5 text-quiet" role="status">
          Looking for the smallest formulas: {formulas.done} of {formulas.all.length} found …
        </p>
      )}
      {isReady && (
        <ul className="min-h-0 flex-1 overflow-auto px-4 py-2">
          {formulas.isPlanned && <OfTable form={form} />}
          {formulas.all.map((formula) => (
            <Line
              key={formula.name}
              formula={formula}
              form={form}
              notation={notation}
              netlist={netlist}
              isFixed={isFixed}
            />
          ))}
          {!isFixed && (
            <li className="py-2.5">
              <TypedFormula
                placeholder={`Another output: ${exampleOf(formulas.inputs, formulas.all)}`}
                key={formulas.all.length}
              />
            </li>
          )}
        </ul>
      )}
    </section>
  );
}

/** A formula that shows how one is typed, of names that are there and an output that is not. */
function exampleOf(inputs: readonly string[], all: readonly Formula[]): string {
  const free = ['Y', 'Z', 'W'].find((name) => !all.some((f) => sameName(f.name, name))) ?? 'Out';
  return `${free} = ${inputs.slice(0, 2).join(' ')}'`;
}

/** A line in which a formula is typed: its table is filled by it, whatever else is filled in stays. */
function TypedFormula({
  placeholder,
  of,
  initial,
  onLeave,
}: {
  placeholder: string;
  /** The output that it is for; any without it. */
  of?: string;
  initial?: string;
  onLeave?: () => void;
}) {
  const session = useSession();
  return (
    <FormulaField
      before={of && <span className="shrink-0 font-semibold">{plainText(of)} =</span>}
      label={of ? `Formula of ${of}` : 'Formula of another output'}
      placeholder={placeholder}
      initial={initial}
      button="Fill"
      read={(text) => plannedBy(planInHand(session), text, of)}
      onTake={(plan) => {
        setPlan(session, plan);
        onLeave?.();
      }}
      onLeave={onLeave}
    />
  );
}

/** Says that the formulas are of the table that was filled in, and offers its circuit where that is another one. */
function OfTable({ form }: { form: Form }) {
  const isExercise = useSessionState((s) => s.lesson.exercise !== null);
  const readOnly = useSessionState((s) => s.readOnly);
  const planned = usePlanned();
  const { draw, stop } = useDrawPlan();
  const as = form === 'drawn' || form === 'maxterms' ? 'sop' : form;
  const same = isDone(planned);
  return (
    <li className="flex flex-wrap items-center gap-2 text-sm text-quiet">
      Of the table that was filled in
      {same ? ', as the circuit does it.' : '; the circuit does not do it yet.'}
      {!same && !isExercise && !readOnly && (
        <button
          type="button"
          className="button small main"
          title={`Draws the circuit of it: ${FORM_NAMES[as]}`}
          onClick={() => (stop ? stop() : draw({ form: as, mostInputs: 8, isShared: true }))}
        >
          {stop ? 'Drawing … stop' : 'Draw it'}
        </button>
      )}
    </li>
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
  /** Whether it cannot be changed here. */
  readonly isFixed: boolean;
}

/** One output: its expression term by term, what holds now lit, and what it takes to build it. */
function Line({ formula, form, notation, netlist, isFixed }: LineProps) {
  const [open, setOpen] = useState(false);
  const [isAsked, setAsked] = useState(false);
  const [isTyped, setTyped] = useState(false);
  const leave = useCallback(() => setTyped(false), []);
  const isOpen = useSessionState((s) => {
    const column = sheetOf(s.lesson, s.rootId)?.plan?.outputs.find((o) => o.name === formula.name);
    return column !== undefined && !/[01]/.test(column.rows);
  });
  const row = useLiveRow(formula.names);
  const expression = expressionIn(formula, form, netlist);
  const values = new Map(
    formula.names.map((n, i) => [n, inputAt(formula.names.length, i, Math.max(0, row))]),
  );
  const isLive = row >= 0 && typeof expression !== 'string';
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
          onLeave={leave}
        />
      </li>
    );
  const change = !isFixed && (
    <button type="button" className={LINK} title="Type it anew" onClick={() => setTyped(true)}>
      Change
    </button>
  );
  if (isOpen)
    return (
      <li className="border-b border-hairline py-2.5 last:border-0">
        <p className="text-[1.15rem] leading-8">
          <span className="font-semibold">
            <Marked text={formula.name} />
          </span>{' '}
          = <span className="text-base text-quiet">no 0 and no 1 is filled in yet.</span> {change}
        </p>
      </li>
    );
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
          <button type="button" className={LINK} aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Hide the other forms' : 'Compare forms'}
          </button>
          {form === 'sop' && (
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
          {change}
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
