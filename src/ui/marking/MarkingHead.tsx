'use client';

import Link from 'next/link';
import type { KeptExercise } from '@/store/exercises';
import { Bar, Fold } from '@/ui/controls/Bar';
import { FileButton } from '@/ui/controls/FileButton';
import { hint } from '@/ui/controls/hint';
import { Mark } from '@/ui/controls/Mark';
import { acceptedAt } from '@/ui/controls/read-content';
import { ThemeButton } from '@/ui/controls/ThemeButton';

interface Props {
  readonly exercises: readonly KeptExercise[];
  /** The id of the one that is shown, or null. */
  readonly shown: string | null;
  readonly onShow: (exercise: KeptExercise) => void;
  readonly onFiles: (files: File[]) => void;
  readonly onClassList: (files: File[]) => void;
  readonly onPaste: () => void;
}

/** The head of the marking page: which exercise, and how hand-ins come in. */
export function MarkingHead({ exercises, shown, onShow, onFiles, onClassList, onPaste }: Props) {
  return (
    <Bar className="flex items-center gap-3">
      <Link href="/" aria-label="All lessons" {...hint('All lessons')}>
        <Mark size={34} />
      </Link>
      <h1 className="text-xl font-bold" data-way={2}>
        Marking
      </h1>
      {exercises.length > 0 && (
        <select
          className="field max-w-96"
          data-shrinks
          aria-label="Exercise"
          value={shown ?? ''}
          onChange={(event) => {
            const chosen = exercises.find((e) => e.exercise.id === event.target.value);
            if (chosen) onShow(chosen);
          }}
        >
          {exercises.map((e) => (
            <option key={e.exercise.id} value={e.exercise.id}>
              {e.exercise.title} · {new Date(e.handedOut).toLocaleDateString('en-GB')}
            </option>
          ))}
        </select>
      )}
      <span className="ml-auto" />
      <Fold way={1} label="More ways to take hand-ins in">
        <FileButton className="button" label="Class list" accept=".csv,.txt" onFiles={onClassList}>
          Class list
        </FileButton>
        <button type="button" className="button" onClick={onPaste}>
          Paste
        </button>
        <FileButton className="button" label="Folder of hand-ins" folder onFiles={onFiles}>
          Folder
        </FileButton>
      </Fold>
      <div>
        <FileButton
          className="button main"
          label="Hand-in files"
          multiple
          accept={acceptedAt('marking')}
          onFiles={onFiles}
        >
          Add hand-ins
        </FileButton>
      </div>
      <span data-way={0}>
        <ThemeButton />
      </span>
    </Bar>
  );
}
