'use client';

import { useState } from 'react';
import { FORMS, type Form, type Formula } from '@/core/logic/expression/forms';
import { code, isCode, NOTATIONS, type Notation, written } from '@/core/logic/expression/notation';
import { sameName } from '@/core/values/names';
import { placeFormulas } from '@/session/changes/formula-note';
import { copyAndSay } from '@/session/page-clipboard';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { useDrawSpec } from '@/ui/derived/useDrawSpec';
import { useFormulas } from '@/ui/derived/useFormulas';
import { isDone, useSpecComparison } from '@/ui/derived/useSpecComparison';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { FormulaLine } from './FormulaLine';
import { expressionIn, FORM_NAMES } from './form-names';
import { TypedFormula } from './TypedFormula';

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
      return expression.ok ? [{ name: formula.name, expression: expression.value }] : [];
    });
    const text = isCode(notation)
      ? code(all, formulas.inputs, notation)
      : all.map(({ name, expression }) => `${name} = ${written(expression, notation)}`).join('\n');
    void copyAndSay(
      session,
      text,
      notation === 'bar' ? 'Copied as LaTeX.' : 'The formulas are on the clipboard.',
    );
  };
  return (
    <section className="pane" aria-label="Formula">
      <Bar className="pane-head">
        <h2 className="font-semibold" data-way={2}>
          Formula
        </h2>
        <Fold way={4} label="Which form">
          <Choice label="Form" value={form} names={FORM_NAMES} all={FORMS} onChange={setForm} />
        </Fold>
        <Fold way={3} label="How formulas are written">
          <Choice
            label="Notation"
            value={notation}
            names={NOTATION_NAMES}
            all={NOTATIONS}
            onChange={setNotation}
          />
        </Fold>
        <span className="ml-auto" />
        <Fold way={1} label="More for the formulas">
          {isReady && !isCode(notation) && !readOnly && (
            <button
              type="button"
              className="shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft"
              onClick={() => placeFormulas(session, form, notation)}
              {...hint('Place these formulas on the sheet, where they follow the circuit')}
            >
              Onto the sheet
            </button>
          )}
        </Fold>
        {isReady && (
          <button
            type="button"
            className="cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft"
            onClick={copy}
            {...hint(
              isCode(notation) ? 'Copy as code that runs, with a table to test it' : 'Copy all formulas',
            )}
          >
            Copy
          </button>
        )}
      </Bar>
      {formulas.state === 'none' && (
        <div className="flex flex-col gap-3 p-5">
          <p className="text-quiet">{formulas.reason}</p>
          {isEmpty && !readOnly && (
            <>
              <p className="text-quiet">
                Or begin with a formula: it fills the table, and its circuit can be drawn.
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
            <FormulaLine
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
              <TypedFormula placeholder={exampleOf(formulas.inputs, formulas.all)} />
            </li>
          )}
        </ul>
      )}
    </section>
  );
}

/** An example formula for the field: existing inputs and a new output. */
function exampleOf(inputs: readonly string[], all: readonly Formula[]): string {
  const free = ['Y', 'Z', 'W'].find((name) => !all.some((f) => sameName(f.name, name))) ?? 'Out';
  return `${free} = ${inputs.slice(0, 2).join(' ')}'`;
}

/** Says that the formulas describe the filled-in table, and offers its circuit if the drawing differs. */
function OfTable({ form }: { form: Form }) {
  const mayDraw = useSessionState((s) => s.rules.drawing === 'free');
  const readOnly = useSessionState((s) => s.readOnly);
  const planned = useSpecComparison();
  const { draw, stop } = useDrawSpec();
  const as = form === 'drawn' || form === 'maxterms' ? 'sop' : form;
  const same = isDone(planned);
  return (
    <li className="flex flex-wrap items-center gap-2 text-sm text-quiet">
      Of the filled-in table
      {same ? ', as the circuit does it.' : '; the circuit does not do it yet.'}
      {!same && mayDraw && !readOnly && (
        <button
          type="button"
          className="button small main"
          {...hint(`Draws the circuit of it: ${FORM_NAMES[as]}`)}
          onClick={() => (stop ? stop() : draw({ form: as, mostInputs: 8, isShared: true }))}
        >
          {stop ? 'Drawing … stop' : 'Draw it'}
        </button>
      )}
    </li>
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
      className="h-7 rounded-lg border border-hairline bg-raised px-1.5"
      aria-label={label}
      {...hint(label)}
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
