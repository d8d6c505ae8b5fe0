'use client';

import { useEffect, useState } from 'react';
import { sizeText } from '@/core/formats/size-limit';
import { load } from '@/loading/load';
import { storeProblem } from '@/store/database';
import { hint } from '@/ui/controls/hint';
import { saveFile } from '@/ui/controls/save-file';

interface Room {
  /** Bytes that are used, and that may be. */
  readonly used: number;
  readonly may: number;
  /** Whether the browser has promised not to clear them by itself. */
  readonly isPersistent: boolean;
}

/** What the browser says of its room; null where it does not, as on plain HTTP. */
async function roomOfBrowser(): Promise<Room | null> {
  if (!navigator.storage?.estimate) return null;
  const [{ usage, quota }, isPersistent] = await Promise.all([
    navigator.storage.estimate(),
    navigator.storage.persisted?.() ?? false,
  ]);
  return { used: usage ?? 0, may: quota ?? 0, isPersistent };
}

/** What this browser keeps and how much it is, with ways to have all of it as one file and to make it last. */
export function Kept({ say }: { say: (text: string, tone: 'calm' | 'bad') => void }) {
  const [room, setRoom] = useState<Room | null>(null);
  useEffect(() => {
    roomOfBrowser().then(setRoom, () => {});
  }, []);
  const save = async () => {
    const [{ everything }, { archived }] = await load('what saves everything', () =>
      Promise.all([import('@/store/everything'), import('@/core/formats/archive')]),
    );
    const files = await everything();
    const day = new Date().toISOString().slice(0, 10);
    saveFile(`manege-${day}.zip`, archived(files), 'application/zip');
    say('Everything is in one file. Import it on a shelf to bring it back.', 'calm');
  };
  const ask = async () => {
    const isPersistent = await navigator.storage.persist();
    if (isPersistent) setRoom(room && { ...room, isPersistent });
    say(
      isPersistent
        ? 'The browser keeps these lessons until you delete them.'
        : 'The browser decides by itself: it may clear pages that are not used for long. Save everything as a file now and then.',
      'calm',
    );
  };
  return (
    <footer className="mt-auto flex flex-wrap items-center gap-x-3 gap-y-1.5 text-sm text-quiet">
      <span>
        Lessons stay in this browser; nothing is sent anywhere.
        {room &&
          ` ${room.used < 1e6 ? 'Less than 1 MB' : sizeText(room.used)} of ${sizeText(room.may)} is used.`}
      </span>
      <button
        type="button"
        className="button small"
        {...hint('All lessons, exercises and hand-ins as one zip file; import it to bring them back')}
        onClick={() => save().catch((error) => say(`${storeProblem(error).message}.`, 'bad'))}
      >
        Save everything
      </button>
      {room && !room.isPersistent && (
        <button
          type="button"
          className="button small"
          {...hint('Browsers may clear pages that are not used for long: ask this one not to')}
          onClick={() => void ask()}
        >
          Keep for good
        </button>
      )}
    </footer>
  );
}
