'use client';

import { useState } from 'react';
import type { Lesson } from '@/core/circuit/lesson';
import { counted } from '@/core/values/wording';
import { discardSetAside, rawLesson } from '@/store/shelf';
import { fileName, saveFile } from '@/ui/controls/save-file';

/** Tells of edits of an earlier visit that no longer apply, with a way to save them before they are discarded. */
export function SetAside({ lesson, count }: { lesson: Lesson; count: number }) {
  const [isThere, setThere] = useState(true);
  if (!isThere) return null;
  const save = async () => {
    const raw = await rawLesson(lesson.id);
    saveFile(fileName(lesson.title, '.journal.json'), JSON.stringify(raw, null, 2));
  };
  const discard = async () => {
    await discardSetAside(lesson.id);
    setThere(false);
  };
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-3 rounded-xl border border-bad bg-raised px-3 py-1.5 text-sm"
    >
      {counted(count, 'edit')} of an earlier visit could not be made again and {count === 1 ? 'was' : 'were'}{' '}
      set aside; all others are in the lesson.
      <button type="button" className="button small" onClick={() => void save()}>
        Save as a file
      </button>
      <button type="button" className="button small" onClick={() => void discard()}>
        Discard
      </button>
    </div>
  );
}
