'use client';

import { useMemo, useState } from 'react';
import { LONGEST_LESSON_FRAGMENT, lessonToFragment } from '@/core/formats/link/lesson-link';
import { linkOf } from '@/session/lesson-link';
import { LinkOut } from '@/ui/controls/LinkOut';
import { DialogFoot, Modal } from '@/ui/controls/Modal';
import { useEditor } from '@/ui/session/editor-context';
import { saveLesson } from '@/ui/session/save-lesson';
import { useSessionState } from '@/ui/session/session-context';

const WAYS = [
  { id: 'open', name: 'A copy to work on', says: 'Whoever opens the link gets a copy of their own.' },
  { id: 'look', name: 'Only to look at', says: 'Switches and time can be moved; nothing is kept.' },
  {
    id: 'embed',
    name: 'In a page of a course',
    says: 'HTML for the page: the drawing runs there, with the faces that are open now.',
  },
] as const;

type Way = (typeof WAYS)[number]['id'];

/** Height in CSS pixels of the frame in a page, which its author may change. */
const FRAME_HEIGHT = 420;

/** The lesson as a link: as it is shown now, with switches, time and faces. */
export function LinkDialog({ onClose }: { readonly onClose: () => void }) {
  const { session, page } = useEditor();
  const lesson = useSessionState((s) => s.lesson);
  const rootId = useSessionState((s) => s.rootId);
  const [way, setWay] = useState<Way>('open');
  const [isAlone, setAlone] = useState(false);
  const hasMore = lesson.sheets.length > 1;
  const sheet = lesson.sheets.find((s) => s.id === rootId)!;
  // Made once: a run that goes on behind the dialog would give another link at every step.
  const fragment = useMemo(() => {
    const faces = page.faces().filter((face) => face.isOpen);
    return lessonToFragment(
      linkOf(
        session,
        faces.map(({ id }) => id),
        isAlone,
      ),
    );
  }, [session, page, isAlone]);
  const isTooLong = fragment.length > LONGEST_LESSON_FRAGMENT;
  const title = isAlone ? sheet.name : lesson.title;
  return (
    <Modal
      title={`“${title}” as a link`}
      says="The link holds the lesson as you see it now, with its switches, its time and the open faces. Nothing is on a server."
      onClose={onClose}
      foot={<DialogFoot onClose={onClose} close="Done" />}
    >
      <fieldset className="flex flex-col gap-1.5">
        <legend className="mb-1 font-semibold">What it opens</legend>
        {WAYS.map(({ id, name, says }) => (
          <label key={id} className="flex items-baseline gap-2">
            <input type="radio" name="way" checked={way === id} onChange={() => setWay(id)} />
            <span>
              {name} <span className="text-sm text-quiet">{says}</span>
            </span>
          </label>
        ))}
      </fieldset>
      {hasMore && (
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={isAlone} onChange={() => setAlone(!isAlone)} />
          Only the sheet “{sheet.name}”, with its blocks
        </label>
      )}
      {isTooLong ? (
        <div role="alert" className="flex flex-col gap-2">
          <p className="text-bad">
            This lesson is too large for a link: it would have {fragment.length.toLocaleString('en')}{' '}
            characters, and {LONGEST_LESSON_FRAGMENT.toLocaleString('en')} are the most. Give it away as a
            file.
          </p>
          <button type="button" className="button self-start" onClick={() => saveLesson(lesson)}>
            Save file
          </button>
        </div>
      ) : (
        <div className="flex flex-col gap-2">
          <LinkOut
            key={way}
            name={way === 'embed' ? 'HTML for the page' : 'Link to the lesson'}
            path={`/${way}#${fragment}`}
            instead="Give the lesson away as a file there."
            wrap={way === 'embed' ? (link) => frameFor(link, title) : undefined}
          />
        </div>
      )}
    </Modal>
  );
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** The element that shows a link in a page. */
function frameFor(link: string, title: string): string {
  const written = title.replaceAll(/[&<>"]/g, (sign) => ESCAPES[sign]!);
  return `<iframe src="${link}" title="${written}" width="100%" height="${FRAME_HEIGHT}" style="border: 0" loading="lazy" allowfullscreen></iframe>`;
}
