'use client';

import { useEffect, useState } from 'react';
import { problemOf, sentence } from '@/core/values/result';
import { pathTo } from '@/loading/base';
import { load } from '@/loading/load';
import { type OpenSession, openSession } from '@/session/open-session';
import { storeProblem, storeReady } from '@/store/database';
import { isShelfNew } from '@/store/lessons';
import { keepEarlyKeys, takeEarlyKeys } from '@/ui/session/early-keys';

export type Opening =
  | { readonly state: 'opening' }
  | { readonly state: 'open'; readonly open: OpenSession }
  | { readonly state: 'missing' }
  | { readonly state: 'broken'; readonly problem: string };

/** Opens a kept lesson. A browser that has never seen the shelf gets the demos first: the lesson may be one of them. */
async function opened(id: string): ReturnType<typeof openSession> {
  await storeReady();
  const read = await openSession(id);
  if (read !== null || !(await isShelfNew())) return read;
  const [{ seedShelf }, demos] = await load('the demo lessons', () =>
    Promise.all([import('@/store/seed'), fetch(pathTo('/demos')).then(demosIn)]),
  );
  if (demos === null) return null;
  await seedShelf(demos);
  return openSession(id);
}

/** The demo lessons in an answer of the server; null where it has none to give. */
async function demosIn(answer: Response): Promise<readonly string[] | null> {
  return answer.ok ? ((await answer.json()) as string[]) : null;
}

/** Opens a kept lesson for as long as the page shows it. */
export function useOpenSession(id: string | null): Opening {
  const [opening, setOpening] = useState<Opening>({ state: 'opening' });
  useEffect(() => {
    if (id === null) return;
    let left = false;
    let open: OpenSession | null = null;
    const leave = () => open?.close();
    keepEarlyKeys();
    const fail = (problem: Opening) => {
      takeEarlyKeys();
      if (!left) setOpening(problem);
    };
    opened(id).then(
      (read) => {
        if (read?.ok) {
          open = read.value;
          if (left) leave();
          else setOpening({ state: 'open', open: read.value });
        } else fail(read ? { state: 'broken', problem: sentence(read.problem) } : { state: 'missing' });
      },
      (error: Error) =>
        fail({
          state: 'broken',
          problem: sentence(error.name === 'VersionError' ? storeProblem(error) : problemOf(error)),
        }),
    );
    // A page that comes back from the browser's memory has released its lesson: the lesson is opened again.
    const comeBack = (event: PageTransitionEvent) => event.persisted && location.reload();
    window.addEventListener('pagehide', leave);
    window.addEventListener('pageshow', comeBack);
    return () => {
      left = true;
      takeEarlyKeys();
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', comeBack);
      leave();
    };
  }, [id]);
  return opening;
}
