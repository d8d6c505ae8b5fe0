'use client';

import type { Expected } from '@/core/circuit/exercise';
import { EXPECTED_KINDS } from '@/core/exercise/expected';
import type { ExpectedKind, SetUp, SetUpSource, SetUpValues } from '@/core/exercise/expected/expected-kind';
import { done, type Result, sentence } from '@/core/values/result';
import { ExpectedTable } from '../ExpectedTable';

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

/** The ways to set up what is expected, and the one that is chosen. */
export interface Ways {
  readonly ways: readonly Way[];
  readonly chosen: number;
}

/** What is expected by the chosen way. */
export function expectedOf({ ways, chosen }: Ways): Result<Expected> {
  const { made, expected } = ways[chosen]!;
  return made.ok && expected ? done(expected) : made;
}

/** All ways to set up the expectation, those that are read off the sheet first; the first that can be used is chosen. */
export function waysFrom(source: SetUpSource): Ways {
  const drafts = EXPECTED_KINDS.flatMap((kind) => {
    const known = kind as unknown as ExpectedKind<Expected>;
    return known.setUps.map((setUp): Way => {
      const values = setUp.initial(source);
      const made = setUp.make(source, values, null);
      return { setUp, kind: known, values, made, expected: made.ok ? made.value : null };
    });
  });
  const typed = (way: Way) => way.setUp.from === 'typed';
  const ways = [...drafts.filter((d) => !typed(d)), ...drafts.filter(typed)];
  const first = ways.findIndex((way) => way.made.ok);
  return { ways, chosen: Math.max(0, first) };
}

interface Props {
  readonly source: SetUpSource;
  readonly ways: Ways;
  readonly onWays: (ways: Ways) => void;
}

/** What is expected of a circuit: read off the sheet, or typed. */
export function ExpectedFields({ source, ways: { ways, chosen }, onWays }: Props) {
  const way = ways[chosen]!;
  const change = (part: Partial<Way>) => onWays({ ways: ways.with(chosen, { ...way, ...part }), chosen });
  const fill = (id: string, value: string) => {
    const values = { ...way.values, [id]: value };
    const made = way.setUp.make(source, values, way.expected);
    change({ values, made, expected: made.ok ? made.value : way.expected });
  };
  return (
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
              onChange={() => onWays({ ways, chosen: i })}
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
