'use client';

import Link from 'next/link';
import { useCallback, useEffect, useRef, useState } from 'react';
import { attendanceOf, withJoined } from '@/core/exercise/class-list';
import { type HandIn, handInOfLesson } from '@/core/exercise/hand-in';
import { isSealed } from '@/core/exercise/sealed';
import { type ClassMarks, pointsFor, remarksOn, together } from '@/core/exercise/teacher-marks';
import { writeHandIn } from '@/core/formats/hand-in-file';
import { markingCsv } from '@/core/formats/marking-csv';
import type { MarkingFile } from '@/core/formats/marking-file';
import { done, sentence } from '@/core/values/result';
import { counted, listed } from '@/core/values/wording';
import { load } from '@/loading/load';
import { nextTask } from '@/loading/next-task';
import { keptMarks, saveMarks } from '@/store/class-marks';
import { storeProblem, storeReady } from '@/store/database';
import {
  dropHandIns,
  type KeptExercise,
  keepExercise,
  keepHandIns,
  keptExercise,
  keptExercises,
} from '@/store/exercises';
import { ownKeys, ownKeysMade } from '@/store/keys';
import { DropZone } from '@/ui/controls/DropZone';
import { FileButton } from '@/ui/controls/FileButton';
import { fileName, type ReadFile, readFiles, saveFile } from '@/ui/controls/files';
import { hint } from '@/ui/controls/hint';
import { Mark } from '@/ui/controls/Mark';
import { Notice, type NoticeProps } from '@/ui/controls/Notice';
import { NotKept } from '@/ui/controls/NotKept';
import { acceptedAt, readContent } from '@/ui/controls/read-content';
import { redone, type Steps, stepped, undone } from '@/ui/controls/steps-back';
import { ThemeButton } from '@/ui/controls/ThemeButton';
import { ClassSection } from './ClassSection';
import { GiveBack } from './GiveBack';
import { type LeftOut, LeftOutFiles } from './LeftOutFiles';
import { Look } from './Look';
import { Marks } from './Marks';
import { answerIn, type Row } from './marked-row';
import { PasteHandIns } from './PasteHandIns';
import { openedHere, Unseal } from './Unseal';
import { useClassList } from './useClassList';
import { useMarkedRows } from './useMarkedRows';
import { ALL_OF_THEM, filteredRows, type View } from './view';

export interface Samples {
  readonly exercise: string;
  readonly handIns: readonly { readonly name: string; readonly text: string }[];
}

/** The name of a file without its endings. */
const studentIn = (file: string): string => file.replace(/(\.manege)?\.json$/i, '');

const keysOf = (row: Row) => [row.key, ...row.earlier.map((one) => one.key)];

/** The marking page: hand-ins of one exercise, each checked against it again; nothing leaves the browser. */
export function Marking({ samples }: { samples: Samples }) {
  const [exercises, setExercises] = useState<readonly KeptExercise[] | null>(null);
  const [leftOut, setLeftOut] = useState<readonly LeftOut[]>([]);
  const [said, setSaid] = useState<Omit<NoticeProps, 'dismiss'> | null>(null);
  const [looking, setLooking] = useState<number | null>(null);
  const [taskAt, setTaskAt] = useState<number | null>(null);
  const [view, setView] = useState<View>(ALL_OF_THEM);
  const [givingBack, setGivingBack] = useState<readonly Row[] | null>(null);
  const [isPasting, setPasting] = useState(false);
  const dismiss = useCallback(() => setSaid(null), []);
  const fail = useCallback(
    (error: unknown) => setSaid({ text: sentence(storeProblem(error)), tone: 'bad' }),
    [],
  );

  const { shown, rows, setRows, marks, setMarks, progress, show, stop } = useMarkedRows(fail);
  const exercise = shown?.exercise ?? null;

  const refuse = useCallback((text: string) => setSaid({ text, tone: 'bad' }), []);
  const { classList, keepClass, takeClass } = useClassList(refuse, fail);
  useEffect(() => {
    storeReady()
      .then(keptExercises)
      .then((kept) => {
        setExercises(kept);
        const asked = new URLSearchParams(location.search).get('exercise');
        const first = kept.find((e) => e.exercise.id === asked) ?? kept[0];
        return first && show(first);
      })
      .catch((error) => {
        setExercises([]);
        fail(error);
      });
  }, [show, fail]);

  const writing = useRef(Promise.resolve());
  /** What was typed last, so that what is typed on is one step. */
  const lastTyping = useRef<string | undefined>(undefined);
  /** Takes files in: an exercise first, so that hand-ins dropped together with it find it. */
  const takeIn = async (files: readonly ReadFile[]) => {
    const out: LeftOut[] = [];
    const handIns: { file: string; of: HandIn['exercise']; text: string }[] = [];
    const markings: { file: string; marking: MarkingFile }[] = [];
    let fresh = 0;
    let chosen = exercise;
    for (const file of files) {
      // Hundreds of files leave the page its frames.
      await nextTask();
      const read = await readContent(file, 'marking');
      if (!read.ok) out.push({ file: file.name, problem: read.problem.message });
      else if (read.value.is === 'exercise') {
        chosen = await openedHere(read.value.exercise);
        await keepExercise(chosen);
      } else if (read.value.is === 'marking') markings.push({ file: file.name, marking: read.value.marking });
      else if (read.value.is === 'hand-in' && file.text.ok)
        handIns.push({ file: file.name, of: read.value.handIn.exercise, text: file.text.value });
      else if (read.value.is === 'lesson') {
        // A student's saved lesson will do as well; its file says whose it is.
        const handIn = handInOfLesson(read.value.lesson, studentIn(file.name), new Date());
        if (handIn) handIns.push({ file: file.name, of: handIn.exercise, text: writeHandIn(handIn) });
        else out.push({ file: file.name, problem: 'it is a lesson that answers no exercise' });
      }
    }
    const taken = await takeMarkings(markings, out);
    const kept = await keptExercises();
    setExercises(kept);
    // Hand-ins go to their own exercises, whichever is shown; those of one that is not here are named.
    const fitting = handIns.filter(({ file, of }) => {
      if (kept.some((e) => e.exercise.id === of.id)) return true;
      out.push({ file, problem: `its exercise, “${of.title}”, is not here: drop the exercise file as well` });
      return false;
    });
    const ids = [...new Set(fitting.map(({ of }) => of.id))];
    for (const id of ids)
      fresh += await keepHandIns(
        id,
        fitting.filter(({ of }) => of.id === id),
      );
    // One that is shown stays; else the one that has hand-ins now.
    const isFor = (id: string | undefined) => id !== undefined && (ids.length === 0 || ids.includes(id));
    const id = isFor(chosen?.id) ? chosen!.id : (ids[0] ?? chosen?.id);
    const now = kept.find((e) => e.exercise.id === id);
    if (now) await show(now);
    const elsewhere = ids.filter((other) => other !== id);
    setLeftOut(out);
    const again = fitting.length - fresh;
    const told = [
      taken > 0 && `${counted(taken, 'marking')} taken in beside what was given here.`,
      fresh > 0 && `${counted(fresh, 'hand-in')} taken in.`,
      elsewhere.length > 0 &&
        `Some of them answer ${listed(elsewhere.map((one) => `“${kept.find((e) => e.exercise.id === one)!.exercise.title}”`))}: choose it above.`,
      again > 0 && `${counted(again, 'hand-in')} ${again === 1 ? 'was' : 'were'} here already.`,
    ].filter(Boolean);
    if (told.length > 0) setSaid({ text: told.join(' '), tone: 'calm' });
  };
  const onFiles = (files: File[]) => {
    readFiles(files).then(takeIn).catch(fail);
  };
  /** Takes markings of another marker, or of another computer, in beside what was given here. @returns how many. */
  const takeMarkings = async (
    markings: readonly { file: string; marking: MarkingFile }[],
    out: LeftOut[],
  ): Promise<number> => {
    let taken = 0;
    for (const { file, marking } of markings) {
      const { marksIn } = await load('the reader of a marking', () => import('@/core/formats/marking-file'));
      const read = marksIn(marking, (await ownKeys()) ?? null);
      if (!read.ok) {
        out.push({ file, problem: read.problem.message });
        continue;
      }
      await writing.current;
      const here = await keptMarks(marking.exercise.id);
      await saveMarks(marking.exercise.id, together(here, read.value));
      taken++;
    }
    if (taken > 0 && shown) await show(shown);
    return taken;
  };
  const saveMarking = async () => {
    const { writeSealedMarking } = await load(
      'what seals a marking',
      () => import('@/core/formats/marking-file'),
    );
    const { publicKey } = await ownKeysMade();
    saveFile(fileName(exercise!.title, '.marking.json'), writeSealedMarking(exercise!, marks.now, publicKey));
    setSaid({ text: 'Saved under your key: your other computer opens it with that key.', tone: 'calm' });
  };
  const takeSamples = () => {
    const given = (name: string, text: string) => ({ name, text: done(text) });
    const files = [given('exercise', samples.exercise), ...samples.handIns.map((h) => given(h.name, h.text))];
    takeIn(files).catch(fail);
  };
  const remove = (keys: readonly number[]) =>
    dropHandIns(keys).then((putBack) => {
      setRows((all) => all.filter((r) => !keys.includes(r.key)));
      setSaid({
        text:
          keys.length === 1
            ? 'Hand-in removed from this page.'
            : `${keys.length} hand-ins removed from this page.`,
        tone: 'calm',
        offer: {
          label: 'Undo',
          run: () => void putBack().then(() => shown && show(shown), fail),
        },
      });
    }, fail);

  // Writes follow one another, so that the last one stands.
  const take = (next: Steps<ClassMarks>) => {
    if (next === marks || !exercise) return;
    setMarks(next);
    writing.current = writing.current.then(() => saveMarks(exercise.id, next.now)).catch(fail);
  };
  const attendance =
    classList &&
    attendanceOf(
      classList,
      rows.map(({ handIn }) => handIn.name),
    );
  /** What was given for a hand-in, for the spreadsheet. */
  const given = (row: Row) => ({
    ...(attendance ? { student: attendance.students.get(row.handIn.name) ?? null } : {}),
    points: row.marks.map((_, at) => pointsFor(marks.now, answerIn(row, at))),
    remarks: row.marks.flatMap((_, at) => remarksOn(marks.now, answerIn(row, at)).map(({ text }) => text)),
  });

  const shownRows = filteredRows(rows, marks.now, view);
  const all = rows.flatMap((row) => [row, ...row.earlier]);
  const seen = all.find((row) => row.key === looking);
  /** Goes to another hand-in among those that are listed; to the next one with that task wrong where that is asked. */
  const step = (by: number, onlyWrong: number | null = null) => {
    const from = shownRows.findIndex((r) => r.key === looking || r.earlier.some((e) => e.key === looking));
    for (let n = 1; n <= shownRows.length; n++) {
      const row = shownRows[(from + by * n + shownRows.length * (n + 1)) % shownRows.length]!;
      if (onlyWrong === null || row.marks[onlyWrong]?.mark.solved === false) {
        setLooking(row.key);
        return;
      }
    }
  };
  if (exercise && seen)
    return (
      <Look
        key={looking}
        row={seen}
        rows={rows}
        exercise={exercise}
        at={taskAt}
        onTask={setTaskAt}
        marks={marks}
        onMarks={(next, typing) => {
          take(stepped(marks, next, typing !== undefined && typing === lastTyping.current));
          lastTyping.current = typing;
        }}
        onUndo={() => {
          take(undone(marks));
          lastTyping.current = undefined;
        }}
        onRedo={() => take(redone(marks))}
        onBack={() => setLooking(null)}
        onStep={shownRows.length > 1 ? step : undefined}
        onLook={setLooking}
      />
    );

  return (
    <DropZone hint="Drop hand-ins here" onFiles={onFiles} className="min-h-dvh">
      <div className="mx-auto flex min-h-dvh max-w-6xl flex-col gap-4 px-6 py-4">
        <header className="flex items-center gap-3">
          <Link href="/" aria-label="All lessons" {...hint('All lessons')}>
            <Mark size={34} />
          </Link>
          <h1 className="text-xl font-bold">Marking</h1>
          {exercises && exercises.length > 0 && (
            <select
              className="field w-72"
              aria-label="Exercise"
              value={exercise?.id ?? ''}
              onChange={(event) => {
                const chosen = exercises.find((e) => e.exercise.id === event.target.value);
                setLeftOut([]);
                if (chosen) show(chosen).catch(fail);
              }}
            >
              {exercises.map((e) => (
                <option key={e.exercise.id} value={e.exercise.id}>
                  {e.exercise.title} · {new Date(e.handedOut).toLocaleDateString('en-GB')}
                </option>
              ))}
            </select>
          )}
          <div className="ml-auto flex items-center gap-2">
            <FileButton
              className="button"
              label="Class list"
              accept=".csv,.txt"
              onFiles={(files) => void takeClass(files).catch(fail)}
            >
              Class list
            </FileButton>
            <button type="button" className="button" onClick={() => setPasting(true)}>
              Paste
            </button>
            <FileButton
              className="button main"
              label="Hand-in files"
              multiple
              accept={acceptedAt('marking')}
              onFiles={onFiles}
            >
              Add hand-ins
            </FileButton>
            <ThemeButton />
          </div>
        </header>
        {exercises !== null && <NotKept />}
        {exercise?.tasks.some(isSealed) && (
          <Unseal
            exercise={exercise}
            onOpened={() => {
              keptExercise(exercise.id)
                .then((kept) => kept && show(kept))
                .catch(fail);
            }}
          />
        )}
        {progress && (
          <div className="flex items-center gap-3">
            <progress
              className="flex-1"
              value={progress.done}
              max={progress.of}
              aria-label="Hand-ins that are marked"
            />
            <span className="text-sm text-quiet tabular-nums">
              {progress.done} of {progress.of} marked
            </span>
            <button
              type="button"
              className="button small"
              onClick={() => {
                stop();
                setSaid({
                  text: 'Stopped. Those that are listed are marked; choose the exercise again to go on.',
                  tone: 'calm',
                });
              }}
            >
              Stop
            </button>
          </div>
        )}
        {attendance && classList && rows.length > 0 && (
          <ClassSection
            students={classList.students.length}
            attendance={attendance}
            onJoin={(name, student) => keepClass(withJoined(classList, name, student))}
            onRemove={() => keepClass(null)}
          />
        )}
        {leftOut.length > 0 && <LeftOutFiles files={leftOut} onClose={() => setLeftOut([])} />}
        <main className="flex flex-1 flex-col">
          {rows.length > 0 && (
            <div className="mb-3 flex flex-wrap gap-2">
              <button type="button" className="button small" onClick={() => setGivingBack(shownRows)}>
                Give back
              </button>
              <button
                type="button"
                className="button small"
                onClick={() =>
                  saveFile(
                    fileName(`marks ${exercise!.title}`, '.csv'),
                    markingCsv(exercise!, rows, given),
                    'text/csv',
                  )
                }
              >
                Save as CSV
              </button>
              <button type="button" className="button small" onClick={() => void saveMarking().catch(fail)}>
                Save the marking
              </button>
              <button type="button" className="button small" onClick={() => remove(rows.flatMap(keysOf))}>
                Clear
              </button>
            </div>
          )}
          {rows.length > 0 && exercise ? (
            <Marks
              rows={shownRows}
              all={rows}
              marks={marks.now}
              view={view}
              onView={setView}
              tasks={exercise.tasks}
              onLook={setLooking}
              onRemove={(key) => remove(rows.filter((r) => r.key === key).flatMap(keysOf))}
            />
          ) : (
            <div className="flex flex-1 flex-col items-center justify-center gap-3 rounded-2xl border-2 border-dashed border-hairline p-10 text-center">
              <p className="text-lg font-semibold">
                {exercise ? `No hand-ins for “${exercise.title}” yet` : 'Nothing to mark yet'}
              </p>
              <p className="max-w-lg text-quiet">
                Drop hand-in files here, all at once.{' '}
                {exercise ? '' : 'Drop the exercise file with them if it was made in another browser. '}
                They are marked in this browser and sent nowhere.
              </p>
              <button type="button" className="button" onClick={takeSamples}>
                Try it with three made-up hand-ins
              </button>
            </div>
          )}
        </main>
      </div>
      {givingBack && exercise && (
        <GiveBack
          rows={givingBack}
          exercise={exercise}
          marks={marks.now}
          onClose={() => setGivingBack(null)}
        />
      )}
      {isPasting && (
        <PasteHandIns
          onClose={() => setPasting(false)}
          onTake={(pasted) => {
            setPasting(false);
            const files = pasted.map((handIn) => ({
              name: `${handIn.name}.handin.json`,
              text: done(writeHandIn(handIn)),
            }));
            takeIn(files).catch(fail);
          }}
        />
      )}
      {said && <Notice {...said} dismiss={dismiss} />}
    </DropZone>
  );
}
