'use client';

import { useMemo } from 'react';
import type { LessonLink } from '@/core/formats/link/lesson-link';
import { pathTo } from '@/loading/base';
import { standingIn } from '@/session/lesson-link';
import { Session } from '@/session/session';
import { Loading } from '@/ui/controls/Loading';
import { LessonView } from '@/ui/lesson/LessonView';
import { tableMaker } from '@/workers/table-client';
import { NoLink } from './OpenLink';
import { useLink } from './useLink';

/** A session on the lesson of a link that changes nothing in this browser. */
export const looking = (link: LessonLink): Session =>
  new Session(link.lesson, {
    readOnly: true,
    makeTable: tableMaker,
    sheetId: link.view.sheet,
    standings: new Map([[link.view.sheet, standingIn(link)]]),
  });

/** A lesson that came by a link, only to be looked at and run. */
export function LookLink() {
  const read = useLink();
  if (read.state === 'reading') return <Loading what="Opening the lesson …" />;
  if (read.state === 'refused') return <NoLink problem={read.problem} />;
  return <Look key={read.fragment} link={read.link} fragment={read.fragment} />;
}

function Look({ link, fragment }: { readonly link: LessonLink; readonly fragment: string }) {
  const session = useMemo(() => looking(link), [link]);
  return (
    <LessonView
      session={session}
      faces={link.view.faces}
      actions={
        <a className="button main" href={pathTo(`/open#${fragment}`)}>
          Open a copy
        </a>
      }
      banner={
        <p className="rounded-xl border border-hairline bg-raised px-3 py-1.5 text-quiet">
          To be looked at: switches and time are yours, the circuit stays as it is.
        </p>
      }
    />
  );
}
