'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { isSealed, isToSeal } from '@/core/exercise/sealed';
import { exerciseToFragment, writeExercise } from '@/core/formats/exercise-file';
import { problemOf, sentence } from '@/core/values/result';
import { pathTo } from '@/loading/base';
import { load } from '@/loading/load';
import { LinkOut } from '@/ui/controls/LinkOut';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { fileName, saveFile } from '@/ui/controls/save-file';

const SealedWith = lazyComponent('the key', () => import('./SealedWith').then((m) => m.SealedWith));

interface ReadyProps {
  readonly exercise: Exercise;
  readonly problem: string;
  readonly onBack: () => void;
  readonly onClose: () => void;
}

/** An exercise that is made: its file and its link. */
export function Ready(props: ReadyProps) {
  const { exercise } = props;
  const [sealed, setSealed] = useState<Exercise | null>(() =>
    exercise.tasks.some(isToSeal) ? null : exercise,
  );
  const [failed, setFailed] = useState('');
  useEffect(() => {
    if (sealed) return;
    Promise.all([
      load('what seals answers', () => import('@/store/keys')),
      load('what seals answers', () => import('@/core/exercise/sealing')),
    ])
      .then(async ([keys, sealing]) => sealing.sealedExercise(exercise, (await keys.ownKeysMade()).publicKey))
      .then(setSealed, (error) => setFailed(sentence(problemOf(error))));
  }, [exercise, sealed]);
  if (!sealed)
    return (
      <Modal
        title={`“${exercise.title}”`}
        says={failed || 'Sealing the wanted answers …'}
        onClose={props.onClose}
        foot={<DialogFoot onClose={props.onClose} />}
      >
        {null}
      </Modal>
    );
  return <Out {...props} exercise={sealed} />;
}

function Out({ exercise, problem, onBack, onClose }: ReadyProps) {
  const fragment = useMemo(() => exerciseToFragment(exercise), [exercise]);
  return (
    <Modal
      title={`“${exercise.title}” is ready`}
      says="Give it to your students as a file or as a link; both hold the whole exercise, nothing is on a server."
      onClose={onClose}
      foot={
        <>
          <button type="button" className="button mr-auto" onClick={onBack}>
            Back
          </button>
          <a className="button" href={pathTo(`/marking?exercise=${exercise.id}`)}>
            Go to marking
          </a>
          <button type="button" className="button main" onClick={onClose}>
            Done
          </button>
        </>
      }
    >
      {problem && (
        <p role="alert" className="text-bad">
          {problem}
        </p>
      )}
      <div className="flex flex-col gap-2">
        <h3 className="font-semibold">As a file</h3>
        <button
          type="button"
          className="button main self-start"
          onClick={() => saveFile(fileName(exercise.title, '.exercise.json'), writeExercise(exercise))}
        >
          Save the exercise file
        </button>
      </div>
      <div className="flex flex-col gap-2">
        <h3 className="font-semibold">As a link</h3>
        <LinkOut
          name="Link to the exercise"
          path={`/exercise#${fragment}`}
          instead="Hand out the file instead."
        />
      </div>
      {exercise.tasks.some(isSealed) && <SealedWith />}
      <p className="text-sm text-quiet">
        What comes back are files: drop them on the marking page, all at once. The exercise stays listed there
        in this browser.
      </p>
    </Modal>
  );
}
