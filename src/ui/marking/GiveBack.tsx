'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { problemOf, sentence } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { load } from '@/loading/load';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { pointsOfRow, type Row } from './marked-row';

interface Props {
  readonly rows: readonly Row[];
  readonly exercise: Exercise;
  readonly marks: ClassMarks;
  readonly onClose: () => void;
}

/** What goes back to the students: a file for each, all in one archive where there are several. */
export function GiveBack({ rows, exercise, marks, onClose }: Props) {
  const [isOpen, setOpen] = useState(true);
  const [said, setSaid] = useState('');
  const [isBusy, setBusy] = useState(false);
  const open = rows.filter((row) => pointsOfRow(row, marks).open > 0).length;
  const save = async () => {
    const { filesBack, zipped } = await load('what goes back', () => import('./give-back'));
    const files = filesBack(rows, exercise, marks, isOpen);
    if (rows.length === 1) {
      const { value: only } = await files.next();
      if (!only) return;
      saveFile(only.name, only.text);
      setSaid(`Saved as ${only.name}.`);
      return;
    }
    const name = fileName(`marked ${exercise.title}`, '.zip');
    let count = 0;
    const archive = await zipped(files, (done) => {
      count = done;
      setSaid(`${done} of ${rows.length} …`);
    });
    saveFile(name, archive, 'application/zip');
    setSaid(`Saved as ${name}: ${counted(count, 'file')}, each for its own student.`);
  };
  return (
    <Modal
      title="Give back"
      says="Each student gets a file with their own work, points and remarks, and nothing of anybody else. They drop it on their page of lessons."
      onClose={onClose}
      foot={
        <DialogFoot
          onClose={onClose}
          main={{
            name: rows.length === 1 ? 'Save the file' : `Save ${rows.length} files as one archive`,
            isOff: isBusy,
            onClick: () => {
              setBusy(true);
              save()
                .catch((error) => setSaid(sentence(problemOf(error))))
                .finally(() => setBusy(false));
            },
          }}
        />
      }
    >
      {open > 0 && (
        <p className="text-bad">
          {counted(open, 'hand-in')} of them {open === 1 ? 'has' : 'have'} points that you have still to give.
        </p>
      )}
      <label className="flex items-center gap-2">
        <input type="checkbox" checked={isOpen} onChange={(event) => setOpen(event.target.checked)} />
        With the wanted answers
        <span className="text-quiet">else those that were sealed stay so</span>
      </label>
      <p role="status" className="font-semibold">
        {said}
      </p>
    </Modal>
  );
}
