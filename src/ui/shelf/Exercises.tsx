'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useCallback, useEffect, useState } from 'react';
import { counted } from '@/core/values/wording';
import { load } from '@/loading/load';
import { randomId } from '@/store/database';
import { type KeptExercise, keptExercises, removeExercise, saveExercise } from '@/store/exercises';
import { READY_SETS, type ReadySet, takeReadySet } from '@/store/ready-sets';
import type { NoticeProps } from '@/ui/controls/Notice';
import { fileName, saveFile } from '@/ui/controls/save-file';

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
  return (
    <section aria-labelledby="exercises">
      <div className="mb-2 flex items-center gap-3">
        <h2 id="exercises" className="text-lg font-bold">
          Exercises
        </h2>
        <ReadySets fail={fail} />
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(20rem,1fr))] gap-3">
        {kept.map((one) => (
          <Row key={one.exercise.id} kept={one} reload={reload} say={say} fail={fail} />
        ))}
      </ul>
    </section>
  );
}

/** The sets that come with Manege: one that is taken becomes one's own. */
function ReadySets({ fail }: Pick<Props, 'fail'>) {
  const router = useRouter();
  const take = async (set: ReadySet) => {
    const taken = await takeReadySet(set);
    if (!taken.ok) throw new Error(taken.problem.message);
    router.push(`/set?id=${taken.value}`);
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button small">Take a ready set ▾</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu max-w-md" align="start">
          {READY_SETS.map((set) => (
            <DropdownMenu.Item
              key={set.id}
              className="menu-item h-auto py-1.5"
              onSelect={() => void take(set).catch(fail)}
            >
              <span>
                <span className="block font-semibold">{set.title}</span>
                <span className="block text-sm text-quiet">{set.says}</span>
              </span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
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
