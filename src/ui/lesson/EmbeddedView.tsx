'use client';

import { useEffect, useMemo } from 'react';
import type { Session } from '@/session/session';
import { hint } from '@/ui/controls/hint';
import { Mark } from '@/ui/controls/Mark';
import { Editor, EditorProvider } from '@/ui/session/editor-context';
import { freeKeysAfterPresses } from '@/ui/session/key-owner';
import { useSessionState } from '@/ui/session/session-context';
import { Faces } from './Faces';
import { MomentBar } from './MomentBar';
import { usePage } from './usePage';

interface Props {
  readonly session: Session;
  /** Ids of the faces beside the drawing. */
  readonly faces: readonly string[];
  /** The address of the same lesson as a page of its own. */
  readonly wholeAt: string;
}

/** A lesson in a frame: drawing and faces, and a line for the moment and the way out. */
export function EmbeddedView({ session, faces, wholeAt }: Props) {
  const page = usePage(session, faces);
  const editor = useMemo(() => new Editor(session, page.context), [session, page.context]);
  useEffect(freeKeysAfterPresses, []);
  return (
    <EditorProvider value={editor}>
      <div className="flex h-dvh flex-col gap-1 p-1">
        <main className="flex min-h-0 flex-1 flex-col">
          <Faces open={page.faces} />
        </main>
        <footer className="flex min-h-12 shrink-0 items-center gap-2 overflow-hidden px-1">
          <MomentBar />
          <a
            className="ml-auto flex min-w-0 items-center gap-1.5 text-sm text-quiet hover:underline"
            href={wholeAt}
            target="_blank"
            rel="noopener"
            {...hint('Opens it as a page of its own')}
          >
            <Mark size={18} />
            <Title />
          </a>
        </footer>
      </div>
    </EditorProvider>
  );
}

function Title() {
  const title = useSessionState((s) => s.lesson.title);
  return <bdi className="truncate">{title}</bdi>;
}
