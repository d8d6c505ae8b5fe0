'use client';

import { type RefObject, useState } from 'react';
import {
  type Answered,
  type ClassMarks,
  MOST_LETTERS,
  marksOf,
  POINT_RULES,
  type PointRule,
  pointsFor,
  type Remark,
  remarksOn,
  remarksUsed,
  ruleOf,
  withoutRemark,
  withoutRemarkOnAll,
  withPoints,
  withRemark,
  withRemarkOnAll,
  withRule,
} from '@/core/exercise/teacher-marks';
import { spokenName } from '@/core/parts/catalogue';
import { counted } from '@/core/values/wording';
import { randomId } from '@/store/database';
import { hint } from '@/ui/controls/hint';
import { RemarkText, signed } from '@/ui/exercise/RemarkText';
import { useSessionState } from '@/ui/session/session-context';

interface Props {
  readonly answered: Answered;
  readonly marks: ClassMarks;
  /** @param typing a name for what is typed: what is typed on belongs to one step of undo. */
  readonly onMarks: (marks: ClassMarks, typing?: string) => void;
  /** The hand-ins whose answer says the same, this one among them. */
  readonly alike: number;
  /** The hand-ins with the same circuit up to places and names, this one among them; 0 where none is asked for. */
  readonly sameCircuit: number;
  /** What is wrong in all of them, in a few words. */
  readonly mistake: string | null;
  readonly onNextAlike: () => void;
  readonly onNextCircuit: () => void;
  /** Rows that are wrong, on which a remark may be made. */
  readonly wrongRows: readonly number[];
  /** The field of a new remark. */
  readonly field: RefObject<HTMLTextAreaElement | null>;
}

/** What is wrong, as a remark that is offered. */
export const remarkInWords = (mistake: string | null): string | null =>
  mistake && `${mistake[0]!.toUpperCase()}${mistake.slice(1)}.`;

const MOST_OFFERED = 5;

/** The points and remarks for one answer, and for all that say the same. */
export function Given(props: Props) {
  const {
    answered,
    marks,
    onMarks,
    alike,
    sameCircuit,
    mistake,
    onNextAlike,
    onNextCircuit,
    field,
    wrongRows,
  } = props;
  const { task, handIn } = answered;
  const points = pointsFor(marks, answered);
  const byHand = marksOf(marks, handIn, task.id).points;
  const rule = ruleOf(marks, task.id);
  return (
    <section className="flex flex-col gap-3 border-t border-hairline pt-3" aria-label="Points and remarks">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2 font-semibold">
          Points
          <input
            className="field w-20"
            type="number"
            step={0.25}
            min={0}
            max={task.points}
            value={byHand ?? ''}
            placeholder={points === null ? '?' : String(points)}
            onChange={(event) => {
              const typed = event.target.value;
              const value = Math.min(task.points, Math.max(0, Number(typed)));
              onMarks(
                withPoints(marks, answered, typed === '' || Number.isNaN(value) ? null : value),
                `points ${handIn} ${task.id}`,
              );
            }}
          />
        </label>
        <span className="text-sm text-quiet">
          of {task.points}
          {byHand === null ? (points === null ? ', to be given by you' : ', by the rule') : ', by hand'}
        </span>
      </div>
      <details className="text-sm">
        <summary className="cursor-pointer text-quiet">
          Rule for this task: {rule.points}
          {rule.less > 0 ? `, ${rule.less} less for each complaint` : ''}
        </summary>
        <div className="mt-2 flex flex-wrap items-end gap-3">
          <label className="flex flex-col gap-1">
            <span>Points are</span>
            <select
              className="field"
              value={rule.points}
              onChange={(event) =>
                onMarks(withRule(marks, task.id, { ...rule, points: event.target.value as PointRule }))
              }
            >
              {POINT_RULES.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col gap-1">
            <span>Less for each complaint</span>
            <input
              className="field w-20"
              type="number"
              step={0.25}
              min={0}
              value={rule.less}
              onChange={(event) =>
                onMarks(
                  withRule(marks, task.id, {
                    ...rule,
                    less: Math.min(1000, Math.max(0, Number(event.target.value) || 0)),
                  }),
                  `less ${task.id}`,
                )
              }
            />
          </label>
        </div>
      </details>
      {alike > 1 && (
        <p className="text-sm">
          <b>{counted(alike, 'hand-in')}</b> have this answer{mistake ? `: ${mistake}` : ''}.{' '}
          <button type="button" className="cursor-pointer text-accent underline" onClick={onNextAlike}>
            Next with this answer
          </button>
        </p>
      )}
      {sameCircuit > 1 && (
        <p className="text-sm text-quiet">
          {counted(sameCircuit, 'hand-in')} have this very circuit, up to places and names.{' '}
          <button type="button" className="cursor-pointer text-accent underline" onClick={onNextCircuit}>
            Next with this circuit
          </button>
        </p>
      )}
      <Remarks answered={answered} marks={marks} onMarks={onMarks} />
      <NewRemark
        answered={answered}
        marks={marks}
        onMarks={onMarks}
        alike={alike}
        mistake={mistake}
        field={field}
        wrongRows={wrongRows}
      />
    </section>
  );
}

type RemarksProps = Pick<Props, 'answered' | 'marks' | 'onMarks'>;

function Remarks({ answered, marks, onMarks }: RemarksProps) {
  const own = new Set(marksOf(marks, answered.handIn, answered.task.id).remarks.map(({ id }) => id));
  const all = remarksOn(marks, answered);
  if (all.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1.5 text-sm" aria-label="Remarks">
      {all.map((remark) => (
        <li
          key={remark.id}
          className="flex items-start gap-2 rounded-lg border border-hairline bg-paper px-2 py-1"
        >
          <span className="min-w-0 flex-1 wrap-anywhere">
            <RemarkText remark={remark} />
            {!own.has(remark.id) && <span className="text-quiet"> · on all with this answer</span>}
          </span>
          {!own.has(remark.id) && (
            <button
              type="button"
              className="cursor-pointer text-xs underline"
              onClick={() => onMarks(withoutRemarkOnAll(marks, answered, remark.id))}
            >
              Remove from all
            </button>
          )}
          <button
            type="button"
            className="cursor-pointer px-1"
            aria-label={`Remove the remark: ${remark.text}`}
            {...hint(own.has(remark.id) ? 'Remove' : 'Remove here only')}
            onClick={() => onMarks(withoutRemark(marks, answered, remark.id))}
          >
            ×
          </button>
        </li>
      ))}
    </ul>
  );
}

type NewProps = RemarksProps & Pick<Props, 'alike' | 'mistake' | 'field' | 'wrongRows'>;

/** Rows that are offered as the place of a remark, at most. */
const MOST_ROWS = 12;

function NewRemark({ answered, marks, onMarks, alike, mistake, field, wrongRows }: NewProps) {
  const [text, setText] = useState('');
  const [points, setPoints] = useState('');
  /** The row that it is about; null for the part that is selected, or the whole answer. */
  const [row, setRow] = useState<number | null>(null);
  const sheet = useSessionState((s) => s.lesson.sheets.find(({ id }) => id === s.rootId)!);
  const selected = useSessionState((s) => (s.selection.parts.size === 1 ? [...s.selection.parts][0]! : null));
  const part = selected === null ? undefined : sheet.parts.get(selected);
  const there = new Set(remarksOn(marks, answered).map((remark) => remark.text));
  const inWords = remarkInWords(mistake);
  const offered = [
    ...(inWords ? [{ id: 'in words', text: inWords, points: 0 }] : []),
    ...remarksUsed(marks, answered.task.id).filter(({ text }) => text !== inWords),
  ].filter((remark) => !there.has(remark.text));
  const made = (of: Pick<Remark, 'text' | 'points'>): Remark => ({
    ...of,
    id: randomId(),
    at: row !== null ? { row } : part ? { part: part.id } : null,
  });
  const typed = () =>
    made({ text: text.trim(), points: Math.min(1000, Math.max(-1000, Number(points) || 0)) });
  const add = (onAll: boolean) => {
    if (text.trim() === '') return;
    onMarks(
      onAll
        ? withRemarkOnAll(marks, answered, { ...typed(), at: row === null ? null : { row } })
        : withRemark(marks, answered, typed()),
    );
    setText('');
    setPoints('');
    setRow(null);
  };
  return (
    <div className="flex flex-col gap-2 text-sm">
      <textarea
        className="field h-14 resize-y py-1"
        ref={field}
        aria-label="New remark"
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            event.preventDefault();
            add(alike > 1);
            // Letters go to the page again: on to the next.
            event.currentTarget.blur();
          } else if (event.key === 'Escape') event.currentTarget.blur();
        }}
        placeholder={`A remark on ${part ? spokenName(part) : 'this answer'} (r, then Ctrl Enter)`}
        maxLength={MOST_LETTERS}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex flex-wrap items-center gap-2">
        {wrongRows.length > 0 && (
          <select
            className="field h-8 w-auto"
            aria-label="What the remark is about"
            value={row ?? ''}
            onChange={(event) => setRow(event.target.value === '' ? null : Number(event.target.value))}
          >
            <option value="">{part ? spokenName(part) : 'the whole'}</option>
            {wrongRows.slice(0, MOST_ROWS).map((one) => (
              <option key={one} value={one}>
                row {one}
              </option>
            ))}
          </select>
        )}
        <label className="flex items-center gap-1.5">
          Points
          <input
            className="field h-8 w-20"
            type="number"
            step={0.25}
            placeholder="0"
            value={points}
            onChange={(event) => setPoints(event.target.value)}
          />
        </label>
        <button
          type="button"
          className="button small"
          disabled={text.trim() === ''}
          onClick={() => add(false)}
        >
          Add
        </button>
        {alike > 1 && (
          <button
            type="button"
            className="button small"
            disabled={text.trim() === ''}
            onClick={() => add(true)}
          >
            Add to all {alike}
          </button>
        )}
      </div>
      {offered.length > 0 && (
        <fieldset className="flex flex-wrap gap-1.5" aria-label="Remarks that were made before">
          {offered.slice(0, MOST_OFFERED).map((remark) => (
            <button
              key={remark.id}
              type="button"
              className="max-w-full cursor-pointer truncate rounded-full border border-hairline px-2 py-0.5 hover:bg-accent-soft"
              {...hint(
                remark.id === 'in words'
                  ? `a adds it to ${alike > 1 ? `all ${alike}` : 'this answer'}`
                  : undefined,
              )}
              onClick={() => onMarks(withRemark(marks, answered, made(remark)))}
            >
              {remark.text} {remark.points !== 0 && signed(remark.points)}
              {remark.id === 'in words' && <span className="text-quiet"> · a</span>}
            </button>
          ))}
        </fieldset>
      )}
    </div>
  );
}
