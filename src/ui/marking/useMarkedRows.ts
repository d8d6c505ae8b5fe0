import { useCallback, useEffect, useRef, useState } from 'react';
import { type ClassMarks, NO_MARKS } from '@/core/exercise/teacher-marks';
import { keptMarks } from '@/store/class-marks';
import { type KeptExercise, keptHandIns } from '@/store/exercises';
import { begun, type Steps } from '@/ui/controls/steps-back';
import { type MarkedHandIn, marker } from '@/workers/mark-client';
import type { WorkerJob } from '@/workers/worker-job';
import { byStudent, type Row } from './marked-row';

/** How often the list is filled while hand-ins are marked. */
const FILL_EVERY_MS = 250;

/** How far the marking of an exercise's hand-ins is. */
export interface Progress {
  readonly done: number;
  readonly of: number;
}

/**
 * The hand-ins of the exercise that is shown, marked in the background: the list fills as they are done.
 * @param fail is told what went wrong; always the same function.
 */
export function useMarkedRows(fail: (error: unknown) => void) {
  const [shown, setShown] = useState<KeptExercise | null>(null);
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [marks, setMarks] = useState<Steps<ClassMarks>>(() => begun(NO_MARKS));
  const [progress, setProgress] = useState<Progress | null>(null);
  const latest = useRef<KeptExercise | null>(null);
  const job = useRef<WorkerJob<void> | null>(null);
  const marked = useRef<{ by: string; rows: Map<number, Row> }>({ by: '', rows: new Map() });
  const show = useCallback(
    async (next: KeptExercise) => {
      const { exercise: chosen, editions } = next;
      setShown(next);
      latest.current = next;
      history.replaceState(null, '', `/marking?exercise=${chosen.id}`);
      job.current?.cancel();
      const [kept, given] = await Promise.all([keptHandIns(chosen.id), keptMarks(chosen.id)]);
      if (latest.current !== next) return;
      // What was marked before, by the same tasks, need not be marked again.
      const stamp = JSON.stringify([chosen, editions.length]);
      if (marked.current.by !== stamp) marked.current = { by: stamp, rows: new Map() };
      const { rows: known } = marked.current;
      const there = () => kept.flatMap(({ key }) => known.get(key) ?? []);
      setRows(byStudent(there()));
      setMarks(begun(given));
      const open = kept.filter(({ key }) => !known.has(key));
      if (open.length === 0) {
        setProgress(null);
        return;
      }
      let shownAt = 0;
      const tell = (one: MarkedHandIn) => {
        known.set(one.key, { ...one, earlier: [] });
        // The list fills as they come, and not oftener than one can see.
        if (performance.now() - shownAt < FILL_EVERY_MS) return;
        shownAt = performance.now();
        setRows(byStudent(there()));
        setProgress({
          done: kept.length - open.filter(({ key }) => !known.has(key)).length,
          of: kept.length,
        });
      };
      setProgress({ done: kept.length - open.length, of: kept.length });
      job.current = marker(open, chosen, editions, tell);
      job.current.result.then(
        () => {
          if (latest.current !== next) return;
          setProgress(null);
          setRows(byStudent(there()));
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
  const stop = () => {
    job.current?.cancel();
    setProgress(null);
  };
  return { shown, rows, setRows, marks, setMarks, progress, show, stop };
}
