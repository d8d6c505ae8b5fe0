'use client';

import type { Expected } from '@/core/circuit/exercise';
import { excerptFor } from '@/core/exercise/begin';
import { partsUsed } from '@/core/exercise/check';
import { EXPECTED_KINDS } from '@/core/exercise/expected';
import type { ExpectedKind, SetUp, SetUpSource, SetUpValues } from '@/core/exercise/expected/expected-kind';
import type { BuildAsked, BuildTask } from '@/core/exercise/kinds/build';
import { findKind, sheetInside } from '@/core/parts/catalogue';
import { done, type Result, refusal, sentence } from '@/core/values/result';
import { ExpectedTable } from '../ExpectedTable';
import { BuildAskedFields, GATES } from './BuildAskedFields';
import { type FormProps, later, type TaskForm } from './task-form';

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
  readonly asked: BuildAsked;
  /** The sheet with which the student begins; nothing for an empty one. */
  readonly beginsWith: string;
  /** Whether the circuit of the sheet is given as a block in later tasks. */
  readonly standsIn: boolean;
}

/** The kinds of part on the sheet, without those that can always be placed. */
const used = ({ sheet, sheets }: SetUpSource): ReadonlySet<string> =>
  new Set(partsUsed(sheet, sheets).flatMap(({ kind }) => (findKind(kind)?.alwaysAllowed ? [] : [kind])));

/** What is expected of the circuit, and the parts of which it may be made. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { ways, chosen, asked } = draft;
  const way = ways[chosen]!;
  const change = (part: Partial<Way>) => onDraft({ ...draft, ways: ways.with(chosen, { ...way, ...part }) });
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
        {way.expected && !way.kind.prove && (way.made.ok || way.setUp.isAlwaysOffered) && (
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
      {source.sheets.some(({ parts }) => parts.size > 0) && (
        <label className="flex flex-wrap items-center gap-2">
          <span className="font-semibold">The student begins with</span>
          <select
            className="field"
            value={draft.beginsWith}
            onChange={(event) => onDraft({ ...draft, beginsWith: event.target.value })}
          >
            <option value="">an empty sheet</option>
            {source.sheets
              .filter(({ parts }) => parts.size > 0)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {id === source.sheet.id ? `this sheet, “${name}”` : `“${name}”`}
                </option>
              ))}
          </select>
        </label>
      )}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={draft.standsIn}
          onChange={(event) => onDraft({ ...draft, standsIn: event.target.checked })}
        />
        In later tasks, give this sheet as a block to those who did not solve it
        <span className="text-quiet">it can be read in the file</span>
      </label>
      <BuildAskedFields
        asked={asked}
        own={used(source)}
        onAsked={(next) => onDraft({ ...draft, asked: next })}
      />
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
            <div
              key={field.id}
              className={`flex flex-col gap-0.5 text-sm ${field.control === 'lines' ? 'col-span-2' : ''}`}
            >
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
              ) : field.control === 'lines' ? (
                <textarea
                  id={`set-up-${field.id}`}
                  className="field h-20 resize-y py-1.5 font-mono"
                  placeholder={'Sum = A ⊕ B\nCarry = A B'}
                  spellCheck={false}
                  maxLength={20_000}
                  value={values[field.id]}
                  onChange={(event) => onFill(field.id, event.target.value)}
                />
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
    const parts = [...(ways[0]!.made.ok ? GATES : used(source))];
    return {
      ways,
      chosen,
      asked: { parts, drawing: 'free', blocks: [], limits: {}, standIn: null },
      beginsWith: '',
      standsIn: false,
    };
  },
  Form,
  Later: later<BuildTask>(({ task, onTask, earlier }) => (
    <BuildAskedFields asked={task.asked} earlier={earlier} onAsked={(asked) => onTask({ asked })} />
  )),
  finish({ sheet, sheets, settings }, { ways, chosen, asked, standsIn, beginsWith }) {
    const { made, expected } = ways[chosen]!;
    if (!made.ok) return refusal(made.problem);
    const standIn = standsIn ? excerptFor(sheet, sheets, settings) : null;
    const begun = sheets.find(({ id }) => id === beginsWith);
    const given = begun ? excerptFor(begun, sheets, settings) : null;
    return done({ given, asked: { ...asked, standIn }, key: expected });
  },
  fit({ sheet, sheets }, body, earlier) {
    const inside = [...sheet.parts.values()].flatMap((part) => sheetInside(part, sheets)?.name ?? []);
    const blocks = earlier.filter(({ kind, title }) => kind === 'build' && inside.includes(title));
    return { ...body, asked: { ...(body.asked as BuildAsked), blocks: blocks.map(({ id }) => id) } };
  },
};
