'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import type { Attendance } from '@/core/exercise/class-list';
import { type ClassMarks, pointsFor, remarksOn } from '@/core/exercise/teacher-marks';
import { type Column, type Given, markingCsv } from '@/core/formats/marking-csv';
import { load } from '@/loading/load';
import { ownKeysMade } from '@/store/keys';
import { hint } from '@/ui/controls/hint';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import type { NoticeProps } from '@/ui/controls/Notice';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { SaveKey } from '@/ui/exercise/SealedWith';
import { CsvDialog } from './CsvDialog';
import { columnsKept } from './csv-columns';
import { answerIn, type Row } from './marked-row';
import type { Progress } from './useMarkedRows';

/** What is shown of a class. */
export const VIEWS = ['Hand-ins', 'The class', 'Likeness'] as const;
export type ClassView = (typeof VIEWS)[number];

interface Props {
  readonly rows: readonly Row[];
  readonly exercise: Exercise;
  readonly marks: ClassMarks;
  readonly attendance: Attendance | null;
  readonly view: ClassView;
  readonly onView: (view: ClassView) => void;
  readonly onGiveBack: () => void;
  readonly onClear: () => void;
  readonly say: (text: string, offer: NoticeProps['offer']) => void;
  readonly fail: (error: unknown) => void;
}

/** What is shown of the class, and what can be made of it. */
export function MarkingBar(props: Props) {
  const { rows, exercise, marks, attendance, view, onView, onGiveBack, onClear, say, fail } = props;
  const [isCsv, setCsv] = useState(false);
  const [isKey, setKey] = useState(false);
  const given = (row: Row): Given => ({
    ...(attendance ? { student: attendance.students.get(row.handIn.name) ?? null } : {}),
    points: row.marks.map((_, at) => pointsFor(marks, answerIn(row, at))),
    remarks: row.marks.flatMap((_, at) => remarksOn(marks, answerIn(row, at)).map(({ text }) => text)),
  });
  const saveCsv = (columns: readonly Column[]) =>
    saveFile(
      fileName(`marks ${exercise.title}`, '.csv'),
      markingCsv(exercise, rows, given, columns),
      'text/csv',
    );
  const saveMarking = async () => {
    const { writeSealedMarking } = await load(
      'what seals a marking',
      () => import('@/core/formats/marking-file'),
    );
    const { publicKey } = await ownKeysMade();
    saveFile(fileName(exercise.title, '.marking.json'), writeSealedMarking(exercise, marks, publicKey));
    say('Saved under your key: your other computer opens it with that key.', {
      label: 'Save the key',
      run: () => setKey(true),
    });
  };
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <fieldset className="mr-auto flex gap-1 rounded-xl bg-paper" aria-label="What is shown of the class">
        {VIEWS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={view === one}
            className={`h-9 cursor-pointer border-b-2 px-3 ${
              view === one
                ? 'border-accent font-semibold'
                : 'border-transparent text-quiet hover:border-hairline'
            }`}
            onClick={() => onView(one)}
          >
            {one}
          </button>
        ))}
      </fieldset>
      <button type="button" className="button small" onClick={onGiveBack}>
        Give back
      </button>
      <span className="flex">
        <button type="button" className="button small rounded-r-none" onClick={() => saveCsv(columnsKept())}>
          Save as CSV
        </button>
        <button
          type="button"
          className="button small rounded-l-none border-l-0 px-2"
          aria-label="Columns of the CSV"
          {...hint('Columns of the CSV')}
          onClick={() => setCsv(true)}
        >
          …
        </button>
      </span>
      <button type="button" className="button small" onClick={() => void saveMarking().catch(fail)}>
        Save the marking
      </button>
      <button type="button" className="button small" onClick={onClear}>
        Clear
      </button>
      {isKey && (
        <Modal
          title="The key of this browser"
          says="It opens your markings, and answers that are sealed, on another computer: write a passphrase, and take the file there."
          onClose={() => setKey(false)}
          foot={<DialogFoot onClose={() => setKey(false)} />}
        >
          <SaveKey />
        </Modal>
      )}
      {isCsv && <CsvDialog hasList={attendance !== null} onSave={saveCsv} onClose={() => setCsv(false)} />}
    </div>
  );
}

/** How far the reading or marking is, with a button that ends it. */
export function MarkingProgress({
  progress,
  onStop,
}: {
  readonly progress: Progress;
  readonly onStop: () => void;
}) {
  return (
    <div className="flex items-center gap-3">
      <progress
        className="flex-1"
        value={progress.done}
        max={progress.of}
        aria-label={`Hand-ins that are ${progress.is}`}
      />
      <span className="text-sm text-quiet tabular-nums">
        {progress.done} of {progress.of} {progress.is}
      </span>
      <button type="button" className="button small" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
