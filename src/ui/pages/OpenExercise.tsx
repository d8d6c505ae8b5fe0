'use client';

import { useCallback, useEffect, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { exerciseFromFragment } from '@/core/formats/exercise-file';
import { done, type Result, refused, sentence } from '@/core/values/result';
import { pathTo } from '@/loading/base';
import { load } from '@/loading/load';
import { storeProblem, storeReady } from '@/store/database';
import { beginAgain, rawWork, workAt } from '@/store/exercises';
import { DropZone } from '@/ui/controls/DropZone';
import { FileButton } from '@/ui/controls/FileButton';
import { HomeLink } from '@/ui/controls/HomeLink';
import { Loading } from '@/ui/controls/Loading';
import { Mark } from '@/ui/controls/Mark';
import { NotKept } from '@/ui/controls/NotKept';
import { acceptedAt, readContent } from '@/ui/controls/read-content';
import { readFiles } from '@/ui/controls/read-files';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { OpenLesson } from '@/ui/pages/OpenLesson';

/** Hands damaged work to the browser as a file, unread. */
async function saveRaw(exercise: Exercise): Promise<void> {
  saveFile(fileName(exercise.title, '.damaged.json'), JSON.stringify(await rawWork(exercise), null, 2));
}

/** The student's page: the exercise from the link's fragment, or from a file that is dropped here. */
export function OpenExercise() {
  const [lesson, setLesson] = useState<string | null>(null);
  const [waiting, setWaiting] = useState(true);
  const [problem, setProblem] = useState('');
  /** The exercise at which earlier work is there and cannot be opened. */
  const [damaged, setDamaged] = useState<Exercise | null>(null);

  const take = useCallback(async (read: Result<Exercise>, what: string) => {
    if (!read.ok) {
      setProblem(`${what}: ${read.problem.message}.`);
      return;
    }
    try {
      await storeReady();
      const work = await workAt(read.value);
      if (work.ok) setLesson(work.value.id);
      else {
        setProblem(sentence(work.problem));
        setDamaged(read.value);
      }
    } catch (error) {
      setProblem(sentence(storeProblem(error)));
    }
  }, []);

  useEffect(() => {
    const fromLink = () => {
      const fragment = location.hash.slice(1);
      if (!fragment) {
        // What is chosen here next is to be kept.
        storeReady()
          .catch((error) => setProblem(sentence(storeProblem(error))))
          .finally(() => setWaiting(false));
        return;
      }
      take(exerciseFromFragment(fragment), 'The exercise in this link cannot be opened').finally(() =>
        setWaiting(false),
      );
    };
    fromLink();
    window.addEventListener('hashchange', fromLink);
    return () => window.removeEventListener('hashchange', fromLink);
  }, [take]);

  if (lesson) return <OpenLesson key={lesson} id={lesson} />;
  if (waiting) return <Loading what="Opening the exercise …" />;
  const onFiles = async (files: File[]) => {
    const [file] = await readFiles(files.slice(0, 1));
    if (!file) return;
    const read = await readContent(file, 'exercise page');
    if (read.ok && read.value.is === 'returned') {
      const { returned } = read.value;
      const { keepReturned } = await load('the marked work', () => import('@/store/returned'));
      await storeReady();
      await keepReturned(returned);
      location.assign(pathTo(`/returned?id=${returned.lesson.exercise!.id}`));
      return;
    }
    if (read.ok && read.value.is === 'hand-in') {
      const { keepHanded } = await load('the work that was handed in', () => import('@/store/returned'));
      await storeReady();
      const handed = await keepHanded(read.value.handIn);
      if (handed.ok) location.assign(pathTo(`/returned?id=${encodeURIComponent(handed.value)}`));
      else setProblem(`${file.name} cannot be opened: ${handed.problem.message}.`);
      return;
    }
    const exercise = !read.ok
      ? read
      : read.value.is === 'exercise'
        ? done(read.value.exercise)
        : refused('other-format', 'it is not an exercise');
    await take(exercise, `${file.name} cannot be opened`);
  };
  return (
    <DropZone hint="Drop the exercise file here" onFiles={onFiles} className="h-dvh">
      <main className="flex h-full flex-col items-center justify-center gap-3 p-6 text-center">
        <Mark size={44} />
        <h1 className="text-xl font-bold">Open an exercise</h1>
        <p className="max-w-md text-quiet">
          Use the link that you were given, or drop the exercise file here.
        </p>
        <NotKept />
        {problem && (
          <p role="alert" className="max-w-lg text-bad">
            {problem}
          </p>
        )}
        {damaged && (
          <div className="flex flex-wrap justify-center gap-2">
            <button type="button" className="button" onClick={() => void saveRaw(damaged)}>
              Save the earlier work as a file
            </button>
            <button
              type="button"
              className="button"
              onClick={() => void beginAgain(damaged).then((work) => setLesson(work.id))}
            >
              Begin again, keep the earlier work on the shelf
            </button>
          </div>
        )}
        <FileButton
          className="button main"
          label="Exercise file"
          accept={acceptedAt('exercise page')}
          onFiles={onFiles}
        >
          Choose the file
        </FileButton>
        <HomeLink href="/" className="text-accent underline">
          All lessons
        </HomeLink>
      </main>
    </DropZone>
  );
}
