'use client';

import { useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { exerciseToFragment, LONGEST_LINK, writeExercise } from '@/core/formats/exercise-file';
import { copyText } from '@/session/page-clipboard';
import { fileName, saveFile } from '@/ui/controls/files';
import { Modal } from '@/ui/controls/Modal';

interface ReadyProps {
  readonly exercise: Exercise;
  readonly problem: string;
  readonly onBack: () => void;
  readonly onClose: () => void;
}

/** An exercise that is made: its file and its link. */
export function Ready({ exercise, problem, onBack, onClose }: ReadyProps) {
  const link = useMemo(() => `${location.origin}/exercise#${exerciseToFragment(exercise)}`, [exercise]);
  const long = link.length > LONGEST_LINK;
  const [copied, setCopied] = useState('');
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
          <a className="button" href={`/marking?exercise=${exercise.id}`}>
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
        {long && (
          <p role="alert" className="text-sm text-bad">
            The link has {link.length.toLocaleString('en')} characters; many mail, chat and learning tools cut
            links at {LONGEST_LINK.toLocaleString('en')}. Hand out the file instead.
          </p>
        )}
        <textarea
          readOnly
          className="field h-20 resize-none py-1.5 font-mono text-xs break-all"
          value={link}
          aria-label="Link to the exercise"
          onFocus={(event) => event.target.select()}
        />
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="button"
            onClick={() =>
              copyText(link).then((isTaken) =>
                setCopied(
                  isTaken
                    ? 'Copied.'
                    : 'This browser does not let pages copy: select the link and copy it by hand.',
                ),
              )
            }
          >
            Copy the link
          </button>
          <span className="text-sm text-quiet" role="status">
            {copied || `${link.length.toLocaleString('en')} characters`}
          </span>
        </div>
      </div>
      <p className="text-sm text-quiet">
        What comes back are files: drop them on the marking page, all at once. The exercise stays listed there
        in this browser.
      </p>
    </Modal>
  );
}
