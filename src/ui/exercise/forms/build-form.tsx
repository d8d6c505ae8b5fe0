'use client';

import { Fragment } from 'react';
import type { Expected } from '@/core/circuit/exercise';
import { partsUsed } from '@/core/exercise/check';
import { EXPECTED_KINDS } from '@/core/exercise/expected';
import type { ExpectedKind, SetUp, SetUpSource, SetUpValues } from '@/core/exercise/expected/expected-kind';
import type { Drawing } from '@/core/exercise/rules';
import { families, findKind, PLACEABLE } from '@/core/parts/catalogue';
import { done, type Result, refusal, sentence } from '@/core/values/result';
import { ExpectedTable } from '../ExpectedTable';
import type { FormProps, TaskForm } from './task-form';

const FAMILIES = families(PLACEABLE.filter((k) => !k.alwaysAllowed));
const GATES = PLACEABLE.filter((k) => k.isGate).map((k) => k.kind);

/** One way to set up the expectation, with the values of its fields. */
interface Way {
  readonly setUp: SetUp<Expected>;
  readonly kind: ExpectedKind<Expected>;
  readonly values: SetUpValues;
  /** The last result of the fields, or why there is none. */
  readonly made: Result<Expected>;
  /** That, with the cells that were pressed since. */
  readonly expected: Expected | null;
}

/** All ways to set up the expectation, those that are read off the sheet first. */
function waysFrom(source: SetUpSource): readonly Way[] {
  const drafts = EXPECTED_KINDS.flatMap((kind) => {
    const known = kind as unknown as ExpectedKind<Expected>;
    return known.setUps.map((setUp): Way => {
      const values = setUp.initial(source);
      const made = setUp.make(source, values, null);
      return { setUp, kind: known, values, made, expected: made.ok ? made.value : null };
    });
  });
  const typed = (way: Way) => way.setUp.from === 'typed';
  return [...drafts.filter((d) => !typed(d)), ...drafts.filter(typed)];
}

interface Draft {
  readonly ways: readonly Way[];
  readonly chosen: number;
  readonly allowed: ReadonlySet<string>;
  readonly drawing: Drawing;
}

/** The kinds of part on the sheet, without those that can always be placed. */
const used = ({ sheet, sheets }: SetUpSource): ReadonlySet<string> =>
  new Set(partsUsed(sheet, sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind])));

/** What is expected of the circuit, and the parts of which it may be made. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { ways, chosen, allowed } = draft;
  const way = ways[chosen]!;
  const change = (part: Partial<Way>) => onDraft({ ...draft, ways: ways.with(chosen, { ...way, ...part }) });
  const onAllowed = (next: ReadonlySet<string>) => onDraft({ ...draft, allowed: next });
  const fill = (id: string, value: string) => {
    const values = { ...way.values, [id]: value };
    const made = way.setUp.make(source, values, way.expected);
    change({ values, made, expected: made.ok ? made.value : way.expected });
  };
  return (
    <>
      <fieldset className="flex flex-col gap-2">
        <legend className="mb-1 font-semibold">What is expected</legend>
        <div className="flex flex-wrap gap-x-5 gap-y-1">
          {ways.map(({ setUp, made }, i) => (
            <label key={setUp.name} className="flex items-center gap-1.5">
              <input
                type="radio"
                name="source"
                checked={i === chosen}
                disabled={!made.ok && !setUp.isAlwaysOffered}
                onChange={() => onDraft({ ...draft, chosen: i })}
              />
              {setUp.name}
            </label>
          ))}
        </div>
        {ways.map(
          ({ setUp, made, kind }) =>
            !made.ok &&
            !setUp.isAlwaysOffered &&
            kind === way.kind && (
              <p key={setUp.name} className="text-sm text-quiet">
                {setUp.name} cannot be used: {made.problem.message}.
              </p>
            ),
        )}
        <SetUpFields way={way} source={source} onFill={fill} />
        {way.expected && (way.made.ok || way.setUp.isAlwaysOffered) && (
          <ExpectedTable
            of={way.kind.rows(way.expected)}
            onTurn={
              way.setUp.turn &&
              ((output, row) => {
                const { made, expected, setUp } = way;
                change({ expected: setUp.turn!(expected!, made.ok ? made.value : expected!, output, row) });
              })
            }
          />
        )}
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">
          Parts that may be used{' '}
          <span className="font-normal text-quiet">besides switches and lamps; also inside blocks</span>
        </legend>
        <div className="mb-1.5 flex gap-2">
          <button type="button" className="button small" onClick={() => onAllowed(used(source))}>
            As on this sheet
          </button>
          <button type="button" className="button small" onClick={() => onAllowed(new Set(GATES))}>
            All gates
          </button>
          <button type="button" className="button small" onClick={() => onAllowed(new Set(['nand']))}>
            NAND only
          </button>
          <button type="button" className="button small" onClick={() => onAllowed(new Set(['nor']))}>
            NOR only
          </button>
        </div>
        <div className="grid grid-cols-[6rem_1fr] gap-y-1.5">
          {FAMILIES.map(({ family, kinds }) => (
            <Fragment key={family}>
              <span className="text-sm text-quiet">{family}</span>
              <div className="flex flex-wrap gap-x-4 gap-y-0.5">
                {kinds.map((kind) => (
                  <label key={kind.kind} className="flex items-center gap-1.5">
                    <input
                      type="checkbox"
                      checked={allowed.has(kind.kind)}
                      onChange={(event) => {
                        const next = new Set(allowed);
                        if (event.target.checked) next.add(kind.kind);
                        else next.delete(kind.kind);
                        onAllowed(next);
                      }}
                    />
                    {kind.name}
                  </label>
                ))}
              </div>
            </Fragment>
          ))}
        </div>
      </fieldset>
    </>
  );
}

interface SetUpFieldsProps {
  readonly way: Way;
  readonly source: SetUpSource;
  readonly onFill: (id: string, value: string) => void;
}

/** The fields of a set-up, the error in them, and a hint about the rows below. */
function SetUpFields({ way, source, onFill }: SetUpFieldsProps) {
  const { setUp, values, made, expected } = way;
  const fields = setUp.fields(source);
  const hint = expected && made.ok ? setUp.hint(expected, source) : '';
  return (
    <>
      {fields.length > 0 && (
        <div className="grid grid-cols-2 gap-3">
          {fields.map((field) => (
            <div key={field.id} className="flex flex-col gap-0.5 text-sm">
              <label htmlFor={`set-up-${field.id}`}>{field.label}</label>
              {field.control === 'choice' ? (
                <select
                  id={`set-up-${field.id}`}
                  className="field"
                  value={values[field.id]}
                  onChange={(event) => onFill(field.id, event.target.value)}
                >
                  {field.options.map(([value, label]) => (
                    <option key={value} value={value}>
                      {label}
                    </option>
                  ))}
                </select>
              ) : (
                <input
                  id={`set-up-${field.id}`}
                  className={`field ${field.control === 'number' ? 'max-w-24' : ''}`}
                  type={field.control}
                  min={field.control === 'number' ? field.least : undefined}
                  max={field.control === 'number' ? field.most : undefined}
                  value={values[field.id]}
                  onChange={(event) => onFill(field.id, event.target.value)}
                />
              )}
            </div>
          ))}
        </div>
      )}
      {!made.ok && fields.length > 0 && (
        <p role="alert" className="text-sm text-bad">
          {sentence(made.problem)}
        </p>
      )}
      {hint && <p className="text-sm text-quiet">{hint}</p>}
    </>
  );
}

export const buildForm: TaskForm<Draft> = {
  kind: 'build',
  begin(source) {
    const ways = waysFrom(source);
    const chosen = Math.max(
      0,
      ways.findIndex((way) => way.made.ok),
    );
    // Where the sheet has a table of its own, its gates are a good beginning.
    return { ways, chosen, allowed: ways[0]!.made.ok ? new Set(GATES) : used(source), drawing: 'free' };
  },
  Form,
  finish(_, { ways, chosen, allowed, drawing }) {
    const { made, expected } = ways[chosen]!;
    if (!made.ok) return refusal(made.problem);
    return done({ given: null, asked: { parts: [...allowed], drawing }, key: expected });
  },
};
