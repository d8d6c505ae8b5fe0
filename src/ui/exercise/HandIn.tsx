'use client';

import { useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { sheetOf } from '@/core/circuit/lesson';
import { sheetsUsedBy } from '@/core/drawing/editing/paste-dependencies';
import { check } from '@/core/exercise/check';
import { exerciseKindOf } from '@/core/exercise/kinds';
import { writeHandIn } from '@/core/formats/hand-in-file';
import { remember, remembered } from '@/loading/page-memory';
import { fileName, saveFile } from '@/ui/controls/files';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useSessionState } from '@/ui/session/session-context';

interface Props {
  readonly exercise: Exercise;
  readonly seconds: () => number;
  readonly onClose: () => void;
}

const NAME_KEY = 'manege-student';

const rememberedName = () => remembered(NAME_KEY) ?? '';

/** The student's last step: a name, how it stands, and the file to give back. */
export function HandIn({ exercise, seconds, onClose }: Props) {
  const lesson = useSessionState((s) => s.lesson);
  const rootId = useSessionState((s) => s.rootId);
  const sheet = sheetOf(lesson, rootId)!;
  const result = useMemo(() => check(sheet, exercise, lesson.sheets), [sheet, exercise, lesson]);
  const [name, setName] = useState(rememberedName);
  const [saved, setSaved] = useState('');
  const save = () => {
    const student = name.trim();
    if (!student) {
      setSaved('Write your name first.');
      return;
    }
    remember(NAME_KEY, student);
    const { right, rows, complaints } = result;
    // The sheet that is open, and those that its blocks are of.
    const held = sheetsUsedBy(lesson, sheet);
    const file = fileName(`${exercise.title} ${student}`, '.handin.json');
    saveFile(
      file,
      writeHandIn({
        exercise: { id: exercise.id, title: exercise.title },
        name: student,
        result: { right, rows, complaints: complaints.slice(0, 100).map((c) => c.slice(0, 500)) },
        handedIn: new Date().toISOString(),
        seconds: seconds(),
        lesson: { ...lesson, sheets: [sheet, ...lesson.sheets.filter((s) => s !== sheet && held.has(s.id))] },
      }),
    );
    setSaved(`Saved as ${file}. Give this file to your teacher.`);
  };
  return (
    <Modal
      title="Hand in"
      says="Your circuit is saved as a file, with your name and how it stands now. You can go on working and hand in again."
      onClose={onClose}
      foot={<DialogFoot onClose={onClose} main={{ name: 'Save the hand-in file', onClick: save }} />}
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
      {lesson.sheets.length > 1 && (
        <p>
          The sheet “{sheet.name}” is handed in, with those of its blocks. To hand in another, open that one
          first.
        </p>
      )}
      <p>
        <b className={result.solved ? 'text-good' : ''}>
          {result.right} of {result.rows} {exerciseKindOf(exercise.expected).rows(exercise.expected).word}s
          right
        </b>
        {result.complaints.length > 0 &&
          `, ${result.complaints.length} problem${result.complaints.length > 1 ? 's' : ''}:`}
      </p>
      {result.complaints.length > 0 && (
        <ul className="list-disc pl-5 text-sm">
          {result.complaints.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      <p role="status" className="font-semibold">
        {saved}
      </p>
    </Modal>
  );
}
