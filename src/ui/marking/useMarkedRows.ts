import { useCallback, useEffect, useRef, useState } from 'react';
import { type FoundHandIn, markedBy } from '@/core/exercise/found';
import { type ClassMarks, merged, NO_MARKS } from '@/core/exercise/teacher-marks';
import { pathTo } from '@/loading/base';
import { keptMarks, saveMarks, watchMarks } from '@/store/class-marks';
import type { KeptExercise } from '@/store/exercises';
import { foundBefore, handInTexts, keepFound, keptHandIns } from '@/store/hand-ins';
import { begun, type Steps } from '@/ui/controls/steps-back';
import { marker } from '@/workers/mark-client';
import type { WorkerJob } from '@/workers/worker-job';
import { latestRows, type Row, rowOf } from './marked-row';

/** How often the list is filled while hand-ins are marked. */
export const FILL_EVERY_MS = 400;

/** How far work on many hand-ins is. */
export interface Progress {
  readonly done: number;
  readonly of: number;
  /** What is done to them: `marked`. */
  readonly is: string;
}

/**
 * The hand-ins of the exercise that is shown, marked in the background: the list fills as they are done. What was found before of
 * the same hand-in, by the same tasks, is not found again.
 * @param fail is told what went wrong; always the same function.
 */
export function useMarkedRows(fail: (error: unknown) => void) {
  const [shown, setShown] = useState<KeptExercise | null>(null);
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [marks, setMarks] = useState<Steps<ClassMarks>>(() => begun(NO_MARKS));
  const [progress, setProgress] = useState<Progress | null>(null);
  const latest = useRef<KeptExercise | null>(null);
  const job = useRef<WorkerJob<void> | null>(null);
  /** What was given as it is kept, as far as this page knows, by the ids of the exercises. */
  const bases = useRef(new Map<string, ClassMarks>());
  /** The exercise whose marks are there. */
  const givenTo = useRef('');
  const pending = useRef(0);
  const known = useRef<{ by: string; rows: Map<number, Row> }>({ by: '', rows: new Map() });
  const show = useCallback(
    async (next: KeptExercise) => {
      const { exercise: chosen, editions } = next;
      setShown(next);
      latest.current = next;
      history.replaceState(null, '', pathTo(`/marking?exercise=${chosen.id}`));
      job.current?.cancel();
      const by = markedBy(chosen, editions);
      const [kept, given] = await Promise.all([keptHandIns(chosen.id), keptMarks(chosen.id)]);
      if (known.current.by !== by) known.current = { by, rows: new Map() };
      const { rows: there } = known.current;
      const add = (key: number, found: FoundHandIn) => there.set(key, rowOf(key, found, chosen, editions));
      const fresh = kept.filter(({ key }) => !there.has(key));
      const before = await foundBefore(
        by,
        fresh.map(({ hash }) => hash),
      );
      if (latest.current !== next) return;
      const open: number[] = [];
      for (const { key, hash } of fresh) {
        const found = before.get(hash);
        if (found) add(key, found);
        else open.push(key);
      }
      const fill = () => setRows(latestRows(kept.flatMap(({ key }) => there.get(key) ?? [])));
      fill();
      // What can be undone stays where more hand-ins come in.
      if (givenTo.current !== chosen.id) {
        givenTo.current = chosen.id;
        bases.current.set(chosen.id, given);
        setMarks(begun(given));
      }
      if (open.length === 0) {
        setProgress((now) => (now?.is === 'read' ? now : null));
        return;
      }
      let [done, shownAt] = [kept.length - open.length, 0];
      setProgress({ done, of: kept.length, is: 'marked' });
      job.current = marker(open, handInTexts, chosen, editions, (some) => {
        for (const { key, found } of some) add(key, found);
        done += some.length;
        keepFound(
          by,
          some.map(({ found }) => found),
        ).catch(fail);
        // The list fills as they come, and not oftener than one can see.
        if (performance.now() - shownAt < FILL_EVERY_MS) return;
        shownAt = performance.now();
        fill();
        setProgress({ done, of: kept.length, is: 'marked' });
      });
      job.current.result.then(
        () => {
          if (latest.current !== next) return;
          setProgress(null);
          fill();
        },
        (error) => {
          setProgress(null);
          fail(error);
        },
      );
    },
    [fail],
  );
  useEffect(() => () => job.current?.cancel(), []);
  /** What another tab gave comes beside what was given here. */
  const follow = useCallback((of: string, kept: ClassMarks) => {
    const was = bases.current.get(of) ?? NO_MARKS;
    if (JSON.stringify(kept) === JSON.stringify(was)) return;
    bases.current.set(of, kept);
    // Another exercise may be shown meanwhile.
    if (givenTo.current !== of) return;
    const with_ = (marks: ClassMarks) => merged(was, marks, kept);
    setMarks(({ past, now, future }) => ({
      past: past.map(with_),
      now: with_(now),
      future: future.map(with_),
    }));
  }, []);
  const id = shown?.exercise.id;
  useEffect(() => {
    if (id === undefined) return;
    return watchMarks(id, async () => {
      // What is told may be older than what is being written: it is read again once nothing is.
      if (pending.current > 0) return;
      const kept = await keptMarks(id);
      if (pending.current === 0 && givenTo.current === id) follow(id, kept);
    });
  }, [id, follow]);
  /** Shows new marks, and keeps them at once. */
  const give = (next: Steps<ClassMarks>) => {
    const of = givenTo.current;
    if (of === '') return;
    setMarks(next);
    const was = bases.current.get(of);
    bases.current.set(of, next.now);
    pending.current++;
    saveMarks(of, next.now, was)
      .finally(() => {
        pending.current--;
      })
      // While another write is under way, what comes back lacks its marks.
      .then((kept) => pending.current === 0 && follow(of, kept))
      .catch((error) => {
        // The next write brings what this one could not.
        bases.current.set(of, was ?? NO_MARKS);
        fail(error);
      });
  };
  const stop = () => {
    job.current?.cancel();
    setProgress(null);
  };
  return { shown, rows, setRows, marks, give, progress, setProgress, show, stop };
}
