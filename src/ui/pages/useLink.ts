'use client';

import { useEffect, useState } from 'react';
import type { LessonLink } from '@/core/formats/link/lesson-link';
import { problemOf, type Result, sentence } from '@/core/values/result';
import { load } from '@/loading/load';

export type LinkRead =
  | { readonly state: 'reading' }
  | { readonly state: 'read'; readonly link: LessonLink; readonly fragment: string }
  | { readonly state: 'refused'; readonly problem: string };

/** The lesson in the fragment of the address, also after another link was put there. */
export function useLink(): LinkRead {
  const [read, setRead] = useState<LinkRead>({ state: 'reading' });
  useEffect(() => {
    const take = () => {
      const fragment = location.hash.slice(1);
      if (!fragment) {
        setRead({
          state: 'refused',
          problem: 'The address holds no lesson: it ends where the lesson begins.',
        });
        return;
      }
      load('the reader of links', () => import('@/core/formats/link/lesson-link')).then(
        ({ lessonFromFragment }) => {
          const link: Result<LessonLink> = lessonFromFragment(fragment);
          setRead(
            link.ok
              ? { state: 'read', link: link.value, fragment }
              : { state: 'refused', problem: sentence(link.problem) },
          );
        },
        (error) => setRead({ state: 'refused', problem: sentence(problemOf(error)) }),
      );
    };
    take();
    window.addEventListener('hashchange', take);
    return () => window.removeEventListener('hashchange', take);
  }, []);
  return read;
}
