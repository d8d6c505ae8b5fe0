'use client';

import { type ReactNode, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { sheetOfFlat } from '@/core/exercise/begin';
import type { EditFrame } from '@/core/exercise/edit-frames';
import { taskKindOf } from '@/core/exercise/kinds';
import { type Marked, rulesForLook } from '@/core/exercise/marking';
import { isSealed } from '@/core/exercise/sealed';
import { type ClassMarks, remarksOn, withRemark, withRemarkOnAll } from '@/core/exercise/teacher-marks';
import { readFrames } from '@/core/formats/edit-frames-file';
import { drivenByTask, goToExpected } from '@/session/changes/expected';
import { Session } from '@/session/session';
import { told } from '@/session/told';
import { randomId } from '@/store/database';
import { hint } from '@/ui/controls/hint';
import type { Steps } from '@/ui/controls/steps-back';
import { UndoRedo } from '@/ui/controls/UndoRedo';
import { MarkedTask } from '@/ui/exercise/MarkedTask';
import { LessonView } from '@/ui/lesson/LessonView';
import type { OpenedHandIn } from '@/workers/mark-client';
import { DrawnSteps } from './DrawnSteps';
import { Given, remarkInWords } from './Given';
import { answerIn, type Row } from './marked-row';

interface LookProps {
  readonly row: Row;
  /** The work with all findings; null while it is being opened. */
  readonly opened: OpenedHandIn | null;
  /** All hand-ins of the exercise, the latest of each student. */
  readonly rows: readonly Row[];
  readonly exercise: Exercise;
  /** The task that is looked at, from 0; null for the first that is not right. */
  readonly at: number | null;
  readonly onTask: (at: number) => void;
  readonly marks: Steps<ClassMarks>;
  readonly onMarks: (marks: ClassMarks, typing?: string) => void;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly onBack: () => void;
  /** Goes to another hand-in; with a task, to the next in which that one is wrong. */
  readonly onStep?: ((by: number, onlyWrong?: number) => void) | undefined;
  readonly onLook: (key: number) => void;
}

const expectedOf = ({ task }: Marked) => (isSealed(task) ? undefined : taskKindOf(task).expected?.(task));

/** The work at a task as it is looked at: its sheet is open, driven by what is expected of it. */
function sessionFor(lesson: Lesson, marked: Marked): Session {
  const sheetId = lesson.work?.tasks[marked.task.id]?.sheet ?? lesson.sheets[0]!.id;
  const expected = expectedOf(marked);
  const shown = expected ? drivenByTask(lesson, expected, sheetId) : lesson;
  return new Session(shown, { readOnly: true, sheetId, rules: () => rulesForLook(marked.task) });
}

const NO_ROWS: readonly number[] = [];

/** Whether what can be wrong in an answer is rows. */
const isByRows = ({ task }: Marked): boolean =>
  taskKindOf(task).unitName?.(task, 0).startsWith('row ') ?? false;

const NO_FRAMES: readonly EditFrame[] = [];

/** The drawing history of a task's sheet, if the student sent one along; a damaged history counts as missing. */
function useFrames({ handIn: { drawn, lesson } }: OpenedHandIn, { task }: Marked): readonly EditFrame[] {
  return useMemo(() => {
    const read = drawn === undefined ? null : readFrames(drawn);
    const sheet = lesson.work?.tasks[task.id]?.sheet ?? lesson.sheets[0]!.id;
    return read?.ok ? read.value.filter((frame) => frame.sheet.id === sheet) : NO_FRAMES;
  }, [drawn, lesson, task]);
}

/** The work with one sheet as it was after a step. */
const asDrawn = (lesson: Lesson, { sheet }: EditFrame): Lesson => ({
  ...lesson,
  sheets: lesson.sheets.map((one) => (one.id === sheet.id ? sheetOfFlat(sheet) : one)),
});

/** Keys go to the page where no text is typed and nothing else takes them. */
function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      const isText =
        (target instanceof HTMLInputElement && target.type !== 'checkbox' && target.type !== 'radio') ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement;
      if (isText || event.altKey) return;
      const name = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey ? 'Shift+' : ''}${event.key.toLowerCase()}`;
      const act = latest.current[name];
      if (!act) return;
      event.preventDefault();
      event.stopPropagation();
      act();
    };
    // Before the sheet, on which letters begin the name of a part, and after keys that are held for what comes.
    document.addEventListener('keydown', listen, { capture: true });
    return () => document.removeEventListener('keydown', listen, { capture: true });
  }, []);
}

/** One hand-in as a live circuit, with its marks beside it. Nothing done to the circuit here is kept. */
export function Look(props: LookProps) {
  const { row, opened, exercise, marks, onUndo, onRedo, onBack, onStep } = props;
  const firstOpen = Math.max(
    0,
    row.marks.findIndex(({ mark }) => mark.solved !== true),
  );
  const at = Math.min(props.at ?? firstOpen, row.marks.length - 1);
  const early = useRef<EarlyKey | null>(null);
  const keep = (key: EarlyKey) => () => {
    early.current = key;
  };
  useKeys({
    ...(opened ? {} : { r: keep('r'), a: keep('a') }),
    n: () => onStep?.(1),
    p: () => onStep?.(-1),
    w: () => onStep?.(1, at),
    'Ctrl+z': onUndo,
    'Ctrl+Shift+z': onRedo,
    'Ctrl+y': onRedo,
  });
  const banner = (
    <div className="flex items-center gap-3 rounded-xl border border-hairline bg-raised px-3 py-1.5">
      <button type="button" className="button small" onClick={onBack}>
        Back to marking
      </button>
      {onStep && (
        <>
          <button
            type="button"
            className="icon-button"
            aria-label="Hand-in before"
            {...hint('Hand-in before (p)')}
            onClick={() => onStep(-1)}
          >
            ◂
          </button>
          <button
            type="button"
            className="icon-button"
            aria-label="Next hand-in"
            {...hint('Next hand-in (n)')}
            onClick={() => onStep(1)}
          >
            ▸
          </button>
          <button
            type="button"
            className="button small"
            {...hint('The next hand-in in which this task is wrong (w)')}
            onClick={() => onStep(1, at)}
          >
            Next wrong
          </button>
        </>
      )}
      <bdi className="max-w-80 truncate font-bold">{row.handIn.name}</bdi>
      <span className="ml-auto" />
      <UndoRedo steps={marks} onUndo={onUndo} onRedo={onRedo} what="what was given" />
    </div>
  );
  if (!opened)
    return (
      <main className="flex min-h-dvh flex-col gap-4 p-3" aria-busy="true">
        {banner}
        <p className="p-8 text-center text-quiet">Opening the work at “{exercise.title}” …</p>
      </main>
    );
  return (
    <OpenedLook key={`${row.key} ${at}`} {...props} opened={opened} at={at} banner={banner} early={early} />
  );
}

interface OpenedProps extends LookProps {
  readonly opened: OpenedHandIn;
  readonly at: number;
  readonly banner: ReactNode;
  /** The key that came before it was there. */
  readonly early: RefObject<EarlyKey | null>;
}

/** Keys of an opened hand-in that may come before it is there. */
type EarlyKey = 'r' | 'a';

function OpenedLook({
  row,
  rows,
  opened,
  exercise,
  at,
  marks,
  onMarks,
  onTask,
  onLook,
  banner,
  early,
}: OpenedProps) {
  const seen = opened.marks[at]!;
  const { lesson } = opened.handIn;
  const [firstWrong] = row.answers[at]!.wrongUnits;
  const frames = useFrames(opened, seen);
  const [stepAt, setStepAt] = useState<number | null>(null);
  const session = useMemo(
    () => sessionFor(stepAt === null ? lesson : asDrawn(lesson, frames[stepAt]!), seen),
    [lesson, seen, frames, stepAt],
  );
  // It stands at what is wrong first; a circuit that cannot be taken there says so.
  useEffect(() => {
    const expected = stepAt === null ? expectedOf(seen) : undefined;
    if (expected && firstWrong !== undefined) told(goToExpected(session, expected, firstWrong));
  }, [session, seen, firstWrong, stepAt]);
  const answered = answerIn(row, at);
  const alike = rows.filter((other) => answered.said !== null && other.answers[at]!.said === answered.said);
  const goTo = (those: readonly Row[]) => () => {
    const next = those[(those.findIndex(({ key }) => key === row.key) + 1) % those.length];
    if (next) onLook(next.key);
  };
  const circuit = row.answers[at]!.circuit?.signature;
  const same = rows.filter((other) => circuit && other.answers[at]!.circuit?.signature === circuit);
  const field = useRef<HTMLTextAreaElement>(null);
  const offered = remarkInWords(row.answers[at]!.mistake);
  const keys: Readonly<Record<EarlyKey, () => void>> = {
    r: () => field.current?.focus(),
    a: () => {
      if (!offered || remarksOn(marks.now, answered).some(({ text }) => text === offered)) return;
      const remark = { id: randomId(), text: offered, points: 0, at: null };
      onMarks((alike.length > 1 ? withRemarkOnAll : withRemark)(marks.now, answered, remark));
    },
  };
  useKeys(keys);
  // A key that came while the hand-in was being opened.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it is there
  useEffect(() => {
    const key = early.current;
    early.current = null;
    if (key) keys[key]();
  }, []);
  return (
    <LessonView
      session={session}
      home={{ href: '/', label: 'All lessons' }}
      beside={
        <section className="pane" aria-label="Marks">
          <div className="pane-head">
            <h2 className="scrolls truncate font-semibold">{exercise.title}</h2>
          </div>
          {row.marks.length > 1 && (
            <nav aria-label="Tasks" className="flex flex-wrap gap-1 border-b border-hairline px-3 py-2">
              {row.marks.map(({ task, mark }, i) => (
                <button
                  key={task.id}
                  type="button"
                  className={`h-7 min-w-9 cursor-pointer rounded-lg border px-1.5 text-sm font-semibold ${
                    i === at ? 'border-accent bg-accent-soft' : 'border-hairline hover:bg-accent-soft'
                  } ${mark.solved ? 'text-good' : mark.solved === null ? '' : 'text-bad'}`}
                  aria-current={i === at ? 'step' : undefined}
                  onClick={() => onTask(i)}
                  {...hint(task.title)}
                >
                  {i + 1} {mark.solved ? '✓' : mark.solved === null ? '?' : '✗'}
                </button>
              ))}
            </nav>
          )}
          <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4">
            <MarkedTask marked={seen} lesson={lesson} isTitled={row.marks.length > 1} />
            {frames.length > 1 && <DrawnSteps frames={frames} at={stepAt} onAt={setStepAt} />}
            <Given
              answered={answered}
              marks={marks.now}
              onMarks={onMarks}
              alike={alike.length}
              mistake={row.answers[at]!.mistake}
              sameCircuit={same.length}
              onNextAlike={goTo(alike)}
              onNextCircuit={goTo(same)}
              field={field}
              wrongRows={isByRows(seen) ? row.answers[at]!.wrongUnits : NO_ROWS}
            />
          </div>
        </section>
      }
      banner={banner}
    />
  );
}
