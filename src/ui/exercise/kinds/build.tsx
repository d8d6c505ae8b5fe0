'use client';

import { sheetOf } from '@/core/circuit/lesson';
import { standInId } from '@/core/exercise/begin';
import type { Check } from '@/core/exercise/check';
import { expectedKindOf } from '@/core/exercise/expected';
import type { Difference } from '@/core/exercise/expected/expected-kind';
import { isAsExpected, readingText } from '@/core/exercise/expected-rows';
import { type BuildTask, partsAllowed } from '@/core/exercise/kinds/build';
import { limitsText } from '@/core/exercise/kinds/build/limits';
import { signalsOf } from '@/core/exercise/kinds/circuit-answer';
import { wrongInWords } from '@/core/exercise/wrong-in-words';
import { findKind } from '@/core/parts/catalogue';
import { goToExpected, placeExpected } from '@/session/changes/expected';
import { takeStandIn } from '@/session/changes/task';
import { showDifference } from '@/session/show-proof';
import { told } from '@/session/told';
import { DifferenceTable } from '@/ui/compare/DifferenceTable';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { ExpectedHead } from '../ExpectedHead';
import { named } from './named-signals';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

/** The blocks from earlier tasks, and the given ones in place of those that are not solved. */
function Blocks({ task, mayTake }: { readonly task: BuildTask; readonly mayTake: boolean }) {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const tasks = (lesson.exercise?.tasks ?? []).filter(({ id }) => task.asked.blocks.includes(id));
  if (tasks.length === 0) return null;
  return (
    <div className="flex flex-col items-start gap-1 text-sm">
      <p>
        <span className="text-quiet">As blocks: </span>
        <span className="font-semibold">{tasks.map(({ title }) => title).join(', ')}</span>
      </p>
      {mayTake &&
        tasks.map((one) => {
          const { standIn } = (one as BuildTask).asked;
          const isThere = lesson.sheets.some(({ id }) => id === standInId(one.id));
          if (!standIn || isThere || lesson.work?.checks[one.id]?.solved) return null;
          return (
            <button
              key={one.id}
              type="button"
              className="button small"
              onClick={() => told(takeStandIn(session, one, standIn))}
              {...hint('Yours is not right yet: go on with a finished one')}
            >
              Take the given “{one.title}”
            </button>
          );
        })}
    </div>
  );
}

/** The inputs, outputs and parts of the task, and a way to begin. */
function Work({ task: any, onAnswer }: WorkProps) {
  const task = any as BuildTask;
  const session = useSession();
  const isEmpty = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.parts.size === 0);
  const signals = signalsOf(task);
  const { inputs, outputs } = signals;
  const allowed = [...partsAllowed(task)].filter((kind) => !findKind(kind)?.alwaysAllowed);
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-sm">
        <dt className="text-quiet">Inputs</dt>
        <dd className="font-semibold">{named(inputs)}</dd>
        <dt className="text-quiet">Outputs</dt>
        <dd className="font-semibold">{named(outputs)}</dd>
        <dt className="text-quiet">Parts</dt>
        <dd>{['Switch', 'Lamp', ...allowed.map((kind) => findKind(kind)!.name)].join(', ')}</dd>
        {limitsText(task.asked.limits).length > 0 && (
          <>
            <dt className="text-quiet">Limits</dt>
            <dd className="font-semibold">{limitsText(task.asked.limits).join(', ')}</dd>
          </>
        )}
      </dl>
      <Blocks task={task} mayTake={onAnswer !== undefined} />
      {isEmpty && onAnswer && (
        <button type="button" className="button self-start" onClick={() => placeExpected(session, signals)}>
          Place the inputs and outputs
        </button>
      )}
    </>
  );
}

const MOST_SHOWN = 256;

/** `wrong`, with the outputs that are, where there are several. */
const wrongIn = ({ given, wrongOutputs }: Check, row: number) =>
  given.length > 1 && wrongOutputs[row]!.length > 0 ? `wrong: ${wrongOutputs[row]!.join(', ')}` : 'wrong';

/** The case that a proof found, on its table and on the live circuit. */
function Shown({ difference, isWantedTold }: { difference: Difference; isWantedTold: boolean }) {
  const session = useSession();
  const { inputs, wanted, given } = difference;
  const names = isWantedTold ? ['wanted', 'yours'] : ['yours'];
  const differing = Object.keys(wanted).filter((name) => wanted[name] !== given[name]);
  return (
    <div className="mt-2 flex flex-col items-start gap-2">
      <DifferenceTable inputs={inputs} names={names} values={isWantedTold ? [wanted, given] : [given]} />
      {!isWantedTold && <p className="text-sm">Wrong there: {differing.join(', ')}.</p>}
      <button
        type="button"
        className="button small"
        onClick={() => showDifference(session, session.state.rootId, inputs)}
      >
        Show it on the circuit
      </button>
    </div>
  );
}

/** The check row by row, as far as the task tells it; each row can be tried on the live circuit. */
function Feedback({ task, mark, tells }: FeedbackProps) {
  const session = useSession();
  const { key: expected } = task as BuildTask;
  const result = mark.detail as Check;
  if (result.difference)
    return tells === 'wanted' || tells === 'places' ? (
      <Shown difference={result.difference} isWantedTold={tells === 'wanted'} />
    ) : null;
  const expectation = expectedKindOf(expected).rows(expected);
  const { inputs, outputs, word, when, input, output } = expectation;
  // What was wanted of a lamp that is not there yet is not told, nor anything of an empty sheet.
  const isThere = result.given.map((values) => [...values].some((value) => !value.startsWith('-')));
  if ((tells !== 'wanted' && tells !== 'places') || !isThere.includes(true)) return null;
  const firstWrong = result.rowIsRight.indexOf(false);
  const sentences = wrongInWords(expected, result);
  return (
    <>
      {sentences.length > 0 && (
        <ul className="mt-1 flex flex-col gap-0.5 text-sm">
          {sentences.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      {firstWrong !== -1 && (
        <button
          type="button"
          className="button small mt-2"
          onClick={() => goToExpected(session, expected, firstWrong)}
        >
          Show the first wrong {word}
        </button>
      )}
      <table className="mt-2 w-full text-center font-mono text-sm">
        <ExpectedHead of={expectation} last="right or wrong" />
        <tbody>
          {result.rowIsRight.slice(0, MOST_SHOWN).map((isRight, row) => (
            <tr key={row} className={isRight ? '' : 'bg-one-soft'}>
              {when && <td className="font-sans text-quiet tabular-nums">{when(row)}</td>}
              {inputs.map((name, i) => (
                <td key={name}>{input(i, row)}</td>
              ))}
              {outputs.map((name, o) => {
                const given = result.given[o]![row]!;
                const right = output(o, row);
                const off = !isAsExpected(right, given);
                return (
                  <td key={name} className={`border-l border-hairline ${off ? 'font-bold text-bad' : ''}`}>
                    {off && tells === 'wanted' && isThere[o] ? (
                      <>
                        <span className="sr-only">is </span>
                        <s className="decoration-2">{readingText(given)}</s>
                        <span className="sr-only">, should be</span>
                        <span className="pl-1.5 text-ink">{readingText(right)}</span>
                      </>
                    ) : (
                      readingText(given)
                    )}
                  </td>
                );
              })}
              <td>
                <button
                  type="button"
                  className={`cursor-pointer rounded-md px-1.5 font-sans font-semibold hover:bg-accent-soft ${isRight ? 'text-good' : 'text-bad'}`}
                  onClick={() => goToExpected(session, expected, row)}
                  {...hint(
                    when
                      ? 'Run the circuit as the task does, up to this reading'
                      : 'Put the switches to this row',
                  )}
                >
                  {isRight ? '✓' : '✗'}{' '}
                  <span className="sr-only">
                    {word} {row}: {isRight ? 'right' : wrongIn(result, row)},{' '}
                  </span>
                  <span className="text-xs font-normal underline">try</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {result.rows > MOST_SHOWN && (
        <p className="mt-1 text-xs text-quiet">
          The first {MOST_SHOWN} {word}s are shown.
        </p>
      )}
    </>
  );
}

export const build: TaskView = { kind: 'build', Work, Feedback };
