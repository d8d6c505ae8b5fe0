'use client';

import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { useCallback, useEffect, useState } from 'react';
import { counted } from '@/core/values/wording';
import { load } from '@/loading/load';
import { randomId } from '@/store/database';
import { type KeptExercise, keptExercises, removeExercise, saveExercise } from '@/store/exercises';
import { fileName, saveFile } from '@/ui/controls/files';
import type { NoticeProps } from '@/ui/controls/Notice';

interface Props {
  readonly say: (said: Omit<NoticeProps, 'dismiss'>) => void;
  readonly fail: (error: unknown) => void;
}

/** The exercises of this browser: being made, handed out, or marked here. */
export function Exercises({ say, fail }: Props) {
  const [kept, setKept] = useState<readonly KeptExercise[]>([]);
  const reload = useCallback(() => keptExercises().then(setKept), []);
  useEffect(() => {
    reload().catch(fail);
  }, [reload, fail]);
  if (kept.length === 0) return null;
  return (
    <section aria-labelledby="exercises">
      <h2 id="exercises" className="mb-2 text-lg font-bold">
        Exercises
      </h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(20rem,1fr))] gap-3">
        {kept.map((one) => (
          <Row key={one.exercise.id} kept={one} reload={reload} say={say} fail={fail} />
        ))}
      </ul>
    </section>
  );
}

function Row({
  kept: { exercise, handedOut, editions },
  reload,
  say,
  fail,
}: Props & { readonly kept: KeptExercise; readonly reload: () => Promise<void> }) {
  const { id, title, tasks } = exercise;
  const remove = () =>
    removeExercise(id).then((putBack) => {
      say({
        text: `“${title}” deleted. Its hand-ins stay.`,
        tone: 'calm',
        offer: { label: 'Undo', run: () => putBack().then(reload, fail) },
      });
      return reload();
    }, fail);
  const duplicate = () =>
    saveExercise({ ...exercise, id: randomId(), edition: 1, title: `${title} copy`.slice(0, 120) }).then(
      reload,
      fail,
    );
  const save = async () => {
    const { writeExercise } = await load(
      'the writer of exercises',
      () => import('@/core/formats/exercise-file'),
    );
    saveFile(fileName(title, '.exercise.json'), writeExercise(editions.at(-1) ?? exercise));
  };
  return (
    <li className="flex items-center gap-2 rounded-xl border border-hairline bg-raised px-4 py-2.5 hover:border-quiet">
      <Link href={`/set?id=${id}`} className="min-w-0 flex-1" aria-label={`Tasks of ${title}`}>
        <bdi className="block truncate font-bold">{title}</bdi>
        <span className="block truncate text-sm text-quiet">
          {counted(tasks.length, 'task')} ·{' '}
          {handedOut > 0
            ? `handed out ${new Date(handedOut).toLocaleDateString('en-GB')}`
            : 'not handed out yet'}
        </span>
      </Link>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="icon-button" aria-label={`More about the exercise ${title}`}>
          ⋯
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="end">
            <DropdownMenu.Item className="menu-item" asChild>
              <Link href={`/marking?exercise=${id}`}>Marking</Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={duplicate}>
              Duplicate
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={() => void save().catch(fail)}>
              Export as a file
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item text-bad" onSelect={remove}>
              Delete
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}
