'use client';

import {
  type FormulaAnswer,
  type FormulaCheck,
  type FormulaTask,
  readAnswer,
} from '@/core/exercise/kinds/formula';
import { functionOf } from '@/core/exercise/kinds/function';
import { Formula } from '@/core/logic/expression/forms';
import { goToNamedRow } from '@/session/changes/columns';
import { hint } from '@/ui/controls/hint';
import { Typeset } from '@/ui/formula-text/Typeset';
import { useSession } from '@/ui/session/session-context';
import { CellGrid } from '../CellGrid';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

const bitAt = (inputs: number, column: number, row: number) => String((row >> (inputs - 1 - column)) & 1);

/** The columns of the inputs, counting up. */
const inputColumns = (inputs: readonly string[]) =>
  inputs.map((name, i) => ({
    name,
    cells: Array.from({ length: 2 ** inputs.length }, (_, row) => bitAt(inputs.length, i, row)),
  }));

function Work({ task: any, answer, onAnswer }: WorkProps) {
  const { asked, key } = any as FormulaTask;
  const { inputs, output, form, mostLiterals, showsTable } = asked;
  const typed = (answer as FormulaAnswer | null)?.text ?? '';
  const read = typed.trim() ? readAnswer(asked, typed) : null;
  return (
    <>
      {showsTable && (
        <CellGrid
          label={`Table of ${output}`}
          columns={[...inputColumns(inputs), { name: output, cells: [...key.function.rows] }]}
          rows={2 ** inputs.length}
          filled={[]}
          values={[]}
        />
      )}
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-sm">
        <dt className="text-quiet">Inputs</dt>
        <dd className="font-semibold">{inputs.join(', ')}</dd>
        {form !== 'any' && (
          <>
            <dt className="text-quiet">Form</dt>
            <dd className="font-semibold">{form}</dd>
          </>
        )}
        {mostLiterals !== null && (
          <>
            <dt className="text-quiet">Literals</dt>
            <dd className="font-semibold">at most {mostLiterals}</dd>
          </>
        )}
      </dl>
      <label className="flex flex-col gap-1">
        <span className="text-sm font-semibold">{output} =</span>
        <input
          className="field font-mono"
          value={typed}
          placeholder={`such as ${inputs[0]}${inputs[1] ? ` ${inputs[1]}'` : "'"}`}
          maxLength={1000}
          readOnly={!onAnswer}
          onChange={(event) => onAnswer?.({ kind: 'formula', text: event.target.value } as FormulaAnswer)}
        />
      </label>
      {read?.ok && (
        <p className="text-sm text-quiet">
          Read as <Typeset expression={read.value} notation="bar" />
        </p>
      )}
    </>
  );
}

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  const { asked, key, given } = any as FormulaTask;
  const session = useSession();
  const { isRight, rows, expression } = mark.detail as FormulaCheck;
  if ((tells !== 'wanted' && tells !== 'places') || !expression || mark.right === mark.of) return null;
  return (
    <div className="mt-2">
      <CellGrid
        label="What is right"
        columns={[...inputColumns(asked.inputs), { name: asked.output, cells: null }]}
        rows={rows.length}
        filled={[[...rows]]}
        values={[]}
        lookOf={(_, row) => (isRight[row] ? '' : 'font-bold text-bad line-through decoration-2')}
        besideOf={(_, row) => (tells === 'wanted' && !isRight[row] ? <b>{key.function.rows[row]}</b> : null)}
        endOf={(row) => (
          <span className={isRight[row] ? 'text-good' : 'text-bad'}>
            {isRight[row] ? '✓' : '✗'}
            {given && (
              <button
                type="button"
                className="ml-1 cursor-pointer rounded-md px-1 font-sans text-xs underline hover:bg-accent-soft"
                onClick={() => goToNamedRow(session, asked.inputs, row)}
                {...hint('Put the switches to this row')}
              >
                try
              </button>
            )}
          </span>
        )}
      />
      {tells === 'wanted' && (
        <p className="mt-1 text-sm">
          One way:{' '}
          <Typeset
            expression={new Formula(asked.output, asked.inputs, functionOf(key.function)).in('sop')}
            notation="bar"
          />
        </p>
      )}
    </div>
  );
}

export const formula: TaskView = { kind: 'formula', Work, Feedback };
