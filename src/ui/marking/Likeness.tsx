'use client';

import { useEffect, useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { solutionOf } from '@/core/exercise/marking';
import { readHandIn } from '@/core/formats/hand-in-file';
import type { LikePair, Reason } from '@/core/likeness/likeness';
import { load } from '@/loading/load';
import { handInTexts } from '@/store/hand-ins';
import { hint } from '@/ui/controls/hint';
import { pairFinder } from '@/workers/mark-client';
import type { Row } from './marked-row';

interface Props {
  /** The latest hand-in of each student. */
  readonly rows: readonly Row[];
  readonly tasks: readonly Task[];
  readonly onLook: (key: number, task: number) => void;
  readonly fail: (error: unknown) => void;
}

/** The pairs of a class that are more alike than chance would have it; null while they are being found. */
function usePairs(rows: readonly Row[], fail: (error: unknown) => void): readonly LikePair[] | null {
  const [found, setFound] = useState<{ of: readonly Row[]; pairs: readonly LikePair[] } | null>(null);
  useEffect(() => {
    const job = pairFinder(rows.map(({ id, handIn, answers }) => ({ id, handIn, answers })));
    job.result.then((pairs) => setFound({ of: rows, pairs }), fail);
    return job.cancel;
  }, [rows, fail]);
  return found?.of === rows ? found.pairs : null;
}

/** Pairs that are told without asking for more. */
const FIRST = 20;

/** Pairs of hand-ins with what speaks for and against that they came about apart from each other. */
export function Likeness({ rows, tasks, onLook, fail }: Props) {
  const pairs = usePairs(rows, fail);
  const [most, setMost] = useState(FIRST);
  if (!pairs)
    return (
      <p className="py-10 text-center text-quiet" role="status">
        Holding {rows.length} hand-ins against each other …
      </p>
    );
  return (
    <section aria-label="Likeness" className="flex flex-col gap-3">
      <p className="max-w-3xl text-sm text-quiet">
        What two students share that hardly anybody else has, of all the ways there are to do it. Place, names
        and order do not hide it; what many share, or what can hardly be done otherwise, does not count. It is
        never a verdict: a help with homework, a lesson in one group or chance may be behind it.
      </p>
      {pairs.length === 0 && (
        <p className="rounded-xl border border-hairline bg-raised p-8 text-center text-quiet">
          No two hand-ins are more alike than chance would have it.
        </p>
      )}
      <ol className="flex flex-col gap-3">
        {pairs.slice(0, most).map((pair) => (
          <li key={`${pair.one} ${pair.other}`}>
            <PairCard
              pair={pair}
              one={rows[pair.one]!}
              other={rows[pair.other]!}
              tasks={tasks}
              onLook={onLook}
            />
          </li>
        ))}
      </ol>
      {pairs.length > most && (
        <button type="button" className="button self-center" onClick={() => setMost(most + FIRST)}>
          {Math.min(FIRST, pairs.length - most)} more of {pairs.length - most}
        </button>
      )}
    </section>
  );
}

interface CardProps {
  readonly pair: LikePair;
  readonly one: Row;
  readonly other: Row;
  readonly tasks: readonly Task[];
  readonly onLook: Props['onLook'];
}

function PairCard({ pair, one, other, tasks, onLook }: CardProps) {
  const [isOpen, setOpen] = useState(false);
  const best = pair.reasons.find(({ isFor }) => isFor)?.task ?? 0;
  const [task, setTask] = useState(best);
  return (
    <article
      className="rounded-xl border border-hairline bg-raised p-3"
      aria-label={`${one.handIn.name} and ${other.handIn.name}`}
    >
      <header className="flex flex-wrap items-center gap-2">
        {[one, other].map(({ key, handIn }, i) => (
          <span key={key} className="flex items-center gap-2">
            {i === 1 && <span className="text-quiet">and</span>}
            <button
              type="button"
              className="max-w-64 cursor-pointer truncate font-bold underline decoration-hairline underline-offset-4 hover:decoration-accent"
              {...hint('Open this hand-in')}
              onClick={() => onLook(key, task)}
            >
              <bdi>{handIn.name}</bdi>
            </button>
          </span>
        ))}
        <span
          className="ml-auto text-sm text-quiet tabular-nums"
          {...hint('A bit more is half as likely to come about by chance.')}
        >
          {Math.round(pair.bits)} bits
        </span>
        <button
          type="button"
          className="button small"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          Side by side
        </button>
      </header>
      <div className="mt-2 grid gap-x-6 gap-y-2 text-sm sm:grid-cols-2">
        <Reasons name="For" reasons={pair.reasons.filter(({ isFor }) => isFor)} tasks={tasks} />
        <Reasons name="Against" reasons={pair.reasons.filter(({ isFor }) => !isFor)} tasks={tasks} />
      </div>
      {isOpen && (
        <>
          {tasks.length > 1 && (
            <nav className="mt-3 flex flex-wrap gap-1" aria-label="Tasks">
              {tasks.map(({ id, title }, i) => (
                <button
                  key={id}
                  type="button"
                  className={`h-7 min-w-9 cursor-pointer rounded-lg border px-1.5 text-sm font-semibold ${
                    i === task ? 'border-accent bg-accent-soft' : 'border-hairline hover:bg-accent-soft'
                  }`}
                  aria-current={i === task ? 'step' : undefined}
                  onClick={() => setTask(i)}
                  {...hint(title)}
                >
                  {i + 1}
                </button>
              ))}
            </nav>
          )}
          <div className="mt-3 grid gap-3 sm:grid-cols-2">
            {[one, other].map((row) => (
              <Work key={row.key} row={row} task={row.marks[task]!.task} gist={row.marks[task]!.mark.gist} />
            ))}
          </div>
        </>
      )}
    </article>
  );
}

/** Reasons that are told of one kind, at most. */
const MOST_REASONS = 6;

function Reasons({
  name,
  reasons,
  tasks,
}: {
  readonly name: string;
  readonly reasons: readonly Reason[];
  readonly tasks: readonly Task[];
}) {
  const byText = [...new Set(reasons.map(({ text }) => text))].map(
    (text) =>
      [text, reasons.flatMap((r) => (r.text === text ? [r.task] : [])).sort((a, b) => a - b)] as const,
  );
  return (
    <div>
      <h3 className="font-semibold">{name}</h3>
      {reasons.length === 0 ? (
        <p className="text-quiet">nothing that is seen here</p>
      ) : (
        <ul className="list-disc pl-5">
          {byText.slice(0, MOST_REASONS).map(([text, at]) => (
            <li key={text}>
              {tasks.length > 1 && (
                <span className="text-quiet">{at.map((task) => task + 1).join(', ')}: </span>
              )}
              {text}
            </li>
          ))}
          {byText.length > MOST_REASONS && (
            <li className="list-none text-quiet">and {byText.length - MOST_REASONS} more</li>
          )}
        </ul>
      )}
    </div>
  );
}

/** What a student did at a task: the circuit as it was drawn, or what was filled in. */
function Work({ row, task, gist }: { readonly row: Row; readonly task: Task; readonly gist: string }) {
  const [picture, setPicture] = useState<string | null>(null);
  const isCircuit = row.answers.find((_, i) => row.marks[i]!.task.id === task.id)?.circuit !== null;
  useEffect(() => {
    let left = false;
    setPicture(null);
    if (isCircuit)
      drawnBy(row.key, task).then(
        (svg) => !left && setPicture(svg),
        // The words stand without it.
        () => {},
      );
    return () => {
      left = true;
    };
  }, [row.key, task, isCircuit]);
  return (
    <figure className="min-w-0 rounded-lg border border-hairline bg-paper p-2">
      <figcaption className="truncate text-sm">
        <bdi className="font-semibold">{row.handIn.name}</bdi>
        <span className="text-quiet"> · {gist || 'nothing'}</span>
      </figcaption>
      {picture && (
        // biome-ignore lint/performance/noImgElement: the picture is made here, there is nothing to fetch
        <img
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(picture)}`}
          alt={`The circuit of ${row.handIn.name}`}
          className="mt-2 max-h-96 w-full rounded bg-white object-contain p-1"
        />
      )}
    </figure>
  );
}

/** The circuit of a hand-in at a task, as a picture. */
async function drawnBy(key: number, task: Task): Promise<string | null> {
  const [kept] = await handInTexts([key]);
  const read = kept && readHandIn(kept.text);
  if (!read?.ok) return null;
  const { writeSvg } = await load('the pictures of circuits', () => import('@/core/formats/svg'));
  const lesson: Lesson = read.value.lesson;
  return writeSvg(solutionOf(task, lesson).sheet, lesson.settings);
}
