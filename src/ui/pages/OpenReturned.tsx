'use client';

import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import { rulesForLook } from '@/core/exercise/marking';
import type { Returned } from '@/core/exercise/returned';
import { sentence } from '@/core/values/result';
import { load } from '@/loading/load';
import { Session } from '@/session/session';
import { storeProblem, storeReady } from '@/store/database';
import { Loading } from '@/ui/controls/Loading';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { Mark } from '@/ui/controls/Mark';
import { ReturnedPane } from '@/ui/exercise/ReturnedPane';
import { LessonView } from '@/ui/lesson/LessonView';

/** The page of work that came back from the teacher: as it was handed in, with points and remarks. */
export function OpenReturned() {
  const [returned, setReturned] = useState<Returned | null | 'missing'>(null);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    const id = new URLSearchParams(location.search).get('id') ?? '';
    storeReady()
      .then(() => load('the marked work', () => import('@/store/returned')))
      .then(({ keptReturned }) => keptReturned(id))
      .then((kept) => setReturned(kept ?? 'missing'))
      .catch((error) => {
        setReturned('missing');
        setProblem(sentence(storeProblem(error)));
      });
  }, []);
  if (returned === null) return <Loading what="Opening the marked work …" />;
  if (returned === 'missing')
    return (
      <main className="flex h-dvh flex-col items-center justify-center gap-3 p-6 text-center">
        <Mark size={44} />
        <h1 className="text-xl font-bold">This marked work is not in this browser</h1>
        <p className="max-w-md text-quiet">
          Drop the file that your teacher gave back on the page of lessons.
        </p>
        {problem && (
          <p role="alert" className="text-bad">
            {problem}
          </p>
        )}
        <Link href="/" className="text-accent underline">
          All lessons
        </Link>
      </main>
    );
  return <Opened returned={returned} />;
}

const PrintedReturn = lazyComponent(
  'the marked work on paper',
  async () => (await import('@/ui/exercise/PrintedReturn')).PrintedReturn,
);

function Opened({ returned }: { readonly returned: Returned }) {
  const { lesson, name, handedIn } = returned;
  const isMarked = Object.keys(returned.tasks).length > 0;
  const [task, setTask] = useState<Task>(lesson.exercise!.tasks[0]!);
  const session = useMemo(
    () =>
      new Session(lesson, {
        readOnly: true,
        sheetId: lesson.work?.tasks[task.id]?.sheet ?? lesson.sheets[0]!.id,
        rules: () => rulesForLook(task),
      }),
    [lesson, task],
  );
  return (
    <LessonView
      key={task.id}
      session={session}
      home={{ href: '/', label: 'All lessons' }}
      beside={<ReturnedPane returned={returned} task={task} onTask={setTask} />}
      banner={
        <div className="flex items-center gap-3 rounded-xl border border-hairline bg-raised px-3 py-1.5">
          <p className="min-w-0">
            {isMarked ? 'Marked work of' : 'Handed in by'} <bdi className="font-bold">{name}</bdi>
            <span className="text-quiet">
              {isMarked ? ', handed in on' : ' on'}{' '}
              {new Date(handedIn).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}.
              Nothing here can be changed; your own work goes on where it was.
            </span>
          </p>
          <button type="button" className="button small ml-auto" onClick={() => window.print()}>
            Print
          </button>
          <PrintedReturn returned={returned} />
        </div>
      }
    />
  );
}
