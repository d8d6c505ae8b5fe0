'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { editFrames, MOST_FRAMES } from '@/core/exercise/edit-frames';
import { handInOf } from '@/core/exercise/hand-in';
import { markAll, type Verdicts } from '@/core/exercise/marking';
import { packFrames } from '@/core/formats/edit-frames-file';
import { handInToText, writeHandIn } from '@/core/formats/hand-in-file';
import { problemOf, sentence } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { remember, remembered } from '@/loading/page-memory';
import { copyText } from '@/session/page-clipboard';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { useSessionState } from '@/ui/session/session-context';
import { standing } from './Told';
import { verdictsFor } from './verdicts';

interface Props {
  readonly exercise: Exercise;
  readonly seconds: () => number;
  readonly onClose: () => void;
}

/** Longer texts are cut by many mail and chat tools. */
const LONGEST_TEXT = 20_000;

const NAME_KEY = 'manege-student';

const rememberedName = () => remembered(NAME_KEY) ?? '';

/** The student's last step: a name, how it stands, and the file to give back. */
export function HandIn({ exercise, seconds, onClose }: Props) {
  const lesson = useSessionState((s) => s.lesson);
  const [verdicts, setVerdicts] = useState<Verdicts | null>(null);
  const [isReady, setReady] = useState(!exercise.tasks.some(({ digest }) => digest));
  const [saved, setSaved] = useState('');
  useEffect(() => {
    verdictsFor(exercise.tasks, lesson).then(
      (all) => {
        setVerdicts(() => all);
        setReady(true);
      },
      (error) => setSaved(sentence(problemOf(error))),
    );
  }, [exercise, lesson]);
  const marks = useMemo(() => markAll(exercise, lesson, verdicts), [exercise, lesson, verdicts]);
  const [name, setName] = useState(rememberedName);
  const steps = useSessionState((s) => s.history.undo);
  const [withSteps, setWithSteps] = useState(false);
  /** The work under the student's name; null where none is written. */
  const handed = () => {
    const student = name.trim();
    if (!student) {
      setSaved('Write your name first.');
      return null;
    }
    if (!isReady) {
      setSaved('Your answers are still being checked: one moment.');
      return null;
    }
    remember(NAME_KEY, student);
    return handInOf(exercise, lesson, student, seconds(), new Date(), verdicts);
  };
  const save = () => {
    const work = handed();
    if (!work) return;
    const frames = withSteps ? editFrames(lesson, steps) : [];
    const handIn = frames.length > 0 ? { ...work, drawn: packFrames(frames) } : work;
    const file = fileName(`${exercise.title} ${handIn.name}`, '.handin.json');
    saveFile(file, writeHandIn(handIn));
    setSaved(`Saved as ${file}. Give this file to your teacher.`);
  };
  const copy = () => {
    const handIn = handed();
    if (!handIn) return;
    const text = handInToText(handIn);
    if (text.length > LONGEST_TEXT) {
      setSaved('This is too much for a text: save the file.');
      return;
    }
    copyText(text).then((isTaken) =>
      setSaved(
        isTaken
          ? `Copied, ${text.length.toLocaleString('en')} characters. Paste it into a message to your teacher.`
          : 'This browser does not let pages copy: save the file.',
      ),
    );
  };
  const single = marks.length === 1;
  return (
    <Modal
      title="Hand in"
      says="Your work is saved as a file, with your name and how it stands now. You can go on working and hand in again."
      onClose={onClose}
      foot={
        <DialogFoot onClose={onClose} main={{ name: 'Save the hand-in file', onClick: save }}>
          <button type="button" className="button" onClick={copy}>
            Copy as text
          </button>
        </DialogFoot>
      }
    >
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Your name</span>
        <input
          className="field max-w-80"
          value={name}
          maxLength={120}
          // biome-ignore lint/a11y/noAutofocus: the dialog was opened to type this
          autoFocus
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && save()}
        />
      </label>
      <ul className="flex flex-col gap-1.5">
        {marks.map(({ task, mark }, i) => (
          <li key={task.id}>
            {!single && (
              <span className="text-quiet">
                {i + 1}. {task.title}:{' '}
              </span>
            )}
            <b className={mark.solved && task.tells !== 'nothing' ? 'text-good' : ''}>
              {task.tells === 'nothing'
                ? 'It is marked after you have handed in.'
                : task.digest && !isReady
                  ? 'Checking …'
                  : standing(mark, task.tells)}
            </b>
            {task.tells !== 'nothing' && mark.complaints.length > 0 && (
              <ul className="list-disc pl-5 text-sm">
                {mark.complaints.map((c) => (
                  <li key={c}>{c}</li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
      {steps.length > 0 && (
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1"
            checked={withSteps}
            onChange={(event) => setWithSteps(event.target.checked)}
          />
          <span>
            Also send how it was drawn
            <span className="block text-sm text-quiet">
              The last {counted(Math.min(steps.length, MOST_FRAMES), 'step')} of this visit, so that your
              teacher can follow your way. Only if you want to; it goes into the file, not into the text.
            </span>
          </span>
        </label>
      )}
      <p role="status" className="font-semibold">
        {saved}
      </p>
    </Modal>
  );
}
