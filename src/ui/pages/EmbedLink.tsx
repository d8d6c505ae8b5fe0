'use client';

import { useMemo } from 'react';
import type { LessonLink } from '@/core/formats/link/lesson-link';
import { pathTo } from '@/loading/base';
import { Loading } from '@/ui/controls/Loading';
import { Mark } from '@/ui/controls/Mark';
import { EmbeddedView } from '@/ui/lesson/EmbeddedView';
import { looking } from './LookLink';
import { useLink } from './useLink';

/** A lesson in a frame of another page: the drawing and the chosen faces, live, and nothing around them. */
export function EmbedLink() {
  const read = useLink();
  if (read.state === 'reading') return <Loading what="Opening the lesson …" />;
  if (read.state === 'refused')
    return (
      <main className="flex h-dvh flex-col items-center justify-center gap-2 p-3 text-center">
        <Mark size={32} />
        <p role="alert" className="max-w-md text-quiet">
          {read.problem}
        </p>
      </main>
    );
  return <Embedded key={read.fragment} link={read.link} fragment={read.fragment} />;
}

function Embedded({ link, fragment }: { readonly link: LessonLink; readonly fragment: string }) {
  const session = useMemo(() => looking(link), [link]);
  return <EmbeddedView session={session} faces={link.view.faces} wholeAt={pathTo(`/look#${fragment}`)} />;
}
