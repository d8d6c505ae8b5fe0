'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { attendanceOf, withJoined } from '@/core/exercise/class-list';
import { isSealed } from '@/core/exercise/sealed';
import { NO_MARKS } from '@/core/exercise/teacher-marks';
import { writeHandIn } from '@/core/formats/hand-in-file';
import { done, sentence } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { storeProblem, storeReady } from '@/store/database';
import { type KeptExercise, keptExercise, keptExercises } from '@/store/exercises';
import { dropHandIns } from '@/store/hand-ins';
import { DropZone } from '@/ui/controls/DropZone';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { Notice, type NoticeProps } from '@/ui/controls/Notice';
import { NotKept } from '@/ui/controls/NotKept';
import type { ReadFile } from '@/ui/controls/read-files';
import { begun, redone, stepped, undone } from '@/ui/controls/steps-back';
import { ClassSection } from './ClassSection';
import { GiveBack } from './GiveBack';
import { type LeftOut, LeftOutFiles } from './LeftOutFiles';
import { Look } from './Look';
import { type ClassView, MarkingBar, MarkingProgress } from './MarkingBar';
import { MarkingHead } from './MarkingHead';
import { Marks } from './Marks';
import type { Row } from './marked-row';
import { PasteHandIns } from './PasteHandIns';
import { type DroppedMarking, takeIn, takeMarkings, takenText } from './take-in';
import { KeyFile, Unseal } from './Unseal';
import { useClassList } from './useClassList';
import { FILL_EVERY_MS, useMarkedRows } from './useMarkedRows';
import { useOpened } from './useOpened';
import { ALL_OF_THEM, filteredRows, type View } from './view';

const Likeness = lazyComponent('the likeness of hand-ins', async () => (await import('./Likeness')).Likeness);
const ClassCharts = lazyComponent(
  'how the class stands',
  async () => (await import('./ClassCharts')).ClassCharts,
);

export interface Samples {
  readonly exercise: string;
  readonly handIns: readonly { readonly name: string; readonly text: string }[];
}

const FULL =
  'This browser has no room left. Nothing is lost on this page: press “Save the marking”, then delete lessons or classes that are no longer needed.';

const keysOf = (row: Row) => [row.key, ...row.earlier.map((one) => one.key)];

/** The marking page: hand-ins of one exercise, each checked against it again; nothing leaves the browser. */
export function Marking({ samples }: { samples: Samples }) {
  const [exercises, setExercises] = useState<readonly KeptExercise[] | null>(null);
  const [leftOut, setLeftOut] = useState<readonly LeftOut[]>([]);
  const [said, setSaid] = useState<Omit<NoticeProps, 'dismiss'> | null>(null);
  const [looking, setLooking] = useState<number | null>(null);
  const [lastLooked, setLastLooked] = useState<number | null>(null);
  const [taskAt, setTaskAt] = useState<number | null>(null);
  const [view, setView] = useState<View>(ALL_OF_THEM);
  const [givingBack, setGivingBack] = useState<readonly Row[] | null>(null);
  const [isPasting, setPasting] = useState(false);
  const [sealed, setSealed] = useState<readonly DroppedMarking[]>([]);
  const [classView, setClassView] = useState<ClassView>('Hand-ins');
  const dismiss = useCallback(() => setSaid(null), []);
  const fail = useCallback((error: unknown) => {
    const found = storeProblem(error);
    const isFull = found.code === 'disk-full';
    setSaid({ text: isFull ? FULL : sentence(found), tone: 'bad' });
  }, []);

  const { shown, rows, setRows, marks, give, progress, setProgress, show, stop } = useMarkedRows(fail);
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

  const stopReading = useRef(() => {});
  /** The field last typed into: further typing there belongs to the same step of undo. */
  const lastTyping = useRef<string | undefined>(undefined);
  const take = async (files: readonly (File | ReadFile)[]) => {
    try {
      let shownAt = 0;
      const reading = new AbortController();
      stopReading.current = () => reading.abort();
      const taken = await takeIn(files, exercise?.id ?? null, {
        stop: reading.signal,
        read: (done, of) => setProgress({ done, of, is: 'read' }),
        more: async (kept) => {
          // The list fills as they come, and not oftener than one can see.
          if (performance.now() - shownAt < FILL_EVERY_MS) return;
          await show(kept);
          shownAt = performance.now();
        },
      });
      setExercises(taken.exercises);
      setLeftOut(taken.leftOut);
      setSealed(taken.sealed);
      if (taken.text && !reading.signal.aborted) setSaid({ text: taken.text, tone: 'calm' });
      if (taken.show) await show(taken.show);
    } catch (error) {
      fail(error);
    }
    setProgress((now) => (now?.is === 'read' ? null : now));
  };
  const takeSamples = () => {
    const given = (name: string, text: string) => ({ name, text: done(text) });
    const files = [given('exercise', samples.exercise), ...samples.handIns.map((h) => given(h.name, h.text))];
    void take(files);
  };
  /** @param isAll whether it is the whole class: what was given for it goes as well. */
  const remove = (keys: readonly number[], isAll = false) =>
    dropHandIns(keys).then((putBack) => {
      setRows((all) => all.filter((r) => !keys.includes(r.key)));
      const before = marks;
      if (isAll) give(begun(NO_MARKS));
      setSaid({
        text: isAll
          ? `The class is deleted: ${counted(keys.length, 'hand-in')}, with points and remarks.`
          : keys.length === 1
            ? 'Hand-in removed from this page.'
            : `${keys.length} hand-ins removed from this page.`,
        tone: 'calm',
        offer: {
          label: 'Undo',
          run: () => {
            if (isAll) give(before);
            putBack().then(() => shown && show(shown), fail);
          },
        },
      });
    }, fail);

  const attendance = useMemo(
    () =>
      classList &&
      attendanceOf(
        classList,
        rows.map(({ handIn }) => handIn.name),
      ),
    [classList, rows],
  );
  const groupOf = (row: Row) => attendance?.students.get(row.handIn.name)?.group ?? null;
  const groups = useMemo(
    () => [...new Set(classList?.students.map(({ group }) => group).filter(Boolean))].sort(),
    [classList],
  );
  const shownRows = filteredRows(rows, marks.now, view, marks.now.due, groupOf);
  const all = rows.flatMap((row) => [row, ...row.earlier]);
  const seen = all.find((row) => row.key === looking);
  const at = shownRows.findIndex((r) => r.key === looking || r.earlier.some((e) => e.key === looking));
  /** Another listed hand-in; on request the next one with that task wrong. */
  const from = (by: number, onlyWrong: number | null = null): Row | undefined => {
    for (let n = 1; n <= shownRows.length; n++) {
      const row = shownRows[(at + by * n + shownRows.length * (n + 1)) % shownRows.length]!;
      if (onlyWrong === null || row.marks[onlyWrong]?.mark.solved === false) return row;
    }
  };
  const step = (by: number, onlyWrong: number | null = null) =>
    setLooking((was) => from(by, onlyWrong)?.key ?? was);
  const near = seen ? [from(1), taskAt === null ? undefined : from(1, taskAt), from(-1)] : [];
  const ahead = near.flatMap((row) => row?.key ?? []);
  const opened = useOpened(shown, seen?.key ?? null, ahead, fail);
  const lookAt = (key: number, task: number) => {
    setTaskAt(task);
    setLooking(key);
  };
  if (exercise && seen)
    return (
      <>
        <Look
          row={seen}
          opened={opened}
          rows={rows}
          exercise={exercise}
          at={taskAt}
          onTask={setTaskAt}
          marks={marks}
          onMarks={(next, typing) => {
            give(stepped(marks, next, typing !== undefined && typing === lastTyping.current));
            lastTyping.current = typing;
          }}
          onUndo={() => {
            give(undone(marks));
            lastTyping.current = undefined;
          }}
          onRedo={() => give(redone(marks))}
          onBack={() => {
            setLastLooked(seen.key);
            setLooking(null);
          }}
          onStep={shownRows.length > 1 ? step : undefined}
          onLook={setLooking}
        />
        {said && <Notice {...said} dismiss={dismiss} />}
      </>
    );

  return (
    <DropZone hint="Drop hand-ins here" onFiles={(files) => void take(files)} className="min-h-dvh">
      <div className="mx-auto flex min-h-dvh max-w-7xl flex-col gap-3 px-6 py-4">
        <MarkingHead
          exercises={exercises ?? []}
          shown={exercise?.id ?? null}
          onShow={(chosen) => {
            setLeftOut([]);
            show(chosen).catch(fail);
          }}
          onFiles={(files) => void take(files)}
          onClassList={(files) => void takeClass(files).catch(fail)}
          onPaste={() => setPasting(true)}
        />
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
        {sealed.length > 0 && (
          <KeyFile
            says={`${counted(sealed.length, 'marking is', 'markings are')} sealed to another key. Write its passphrase and open its file.`}
            onKeys={async (keys) => {
              const found = await takeMarkings(sealed, keys);
              setSealed(found.sealed);
              setLeftOut(found.out);
              if (found.taken > 0) setSaid({ text: takenText(found.taken), tone: 'calm' });
              return found.sealed.length > 0 ? 'This key does not open it: another one was used.' : '';
            }}
          />
        )}
        {progress && (
          <MarkingProgress
            progress={progress}
            onStop={() => {
              const isReading = progress.is === 'read';
              if (isReading) stopReading.current();
              else stop();
              setSaid({
                text: `Stopped. Those that are listed are marked; ${isReading ? 'drop the rest again' : 'choose the exercise again'} to go on.`,
                tone: 'calm',
              });
            }}
          />
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
          {rows.length > 0 && exercise && (
            <MarkingBar
              rows={rows}
              exercise={exercise}
              marks={marks.now}
              attendance={attendance}
              view={classView}
              onView={setClassView}
              onGiveBack={() => setGivingBack(shownRows)}
              onClear={() => remove(rows.flatMap(keysOf), true)}
              say={(text, offer) => setSaid({ text, tone: 'calm', offer })}
              fail={fail}
            />
          )}
          {rows.length > 0 && exercise && classView === 'Likeness' ? (
            <Likeness rows={rows} tasks={exercise.tasks} fail={fail} onLook={lookAt} />
          ) : rows.length > 0 && exercise && classView === 'The class' ? (
            <ClassCharts
              rows={rows}
              exercise={exercise}
              marks={marks.now}
              onWrong={(wrongAt) => {
                setView({ ...ALL_OF_THEM, wrongAt });
                setClassView('Hand-ins');
              }}
            />
          ) : rows.length > 0 && exercise ? (
            <Marks
              rows={shownRows}
              all={rows}
              marks={marks.now}
              view={view}
              onView={setView}
              tasks={exercise.tasks}
              last={lastLooked}
              groups={groups}
              due={marks.now.due}
              onDue={(due) => give(stepped(marks, { ...marks.now, due }))}
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
          {rows.length > 0 && (
            <p className="py-3 text-center text-sm text-quiet">
              All of it is in this browser and is sent nowhere; “Clear” deletes it.
            </p>
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
            void take(files);
          }}
        />
      )}
      {said && <Notice {...said} dismiss={dismiss} />}
    </DropZone>
  );
}
