import { useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { Dialog, PageContext } from '@/commands/context';
import { fetcher } from '@/loading/load';
import type { Session } from '@/session/session';
import { holdKeys } from '@/ui/controls/held-keys';
import { chooseTheme, currentTheme, nextProjectorSize } from '@/ui/controls/theme';
import { FACES } from '@/ui/faces';
import { canKeepFile, saveToChosenFile, saveToFile } from '@/ui/session/lesson-file';

export interface Page {
  /** For commands: it stays the same for as long as the lesson is open. */
  readonly context: PageContext;
  /** The faces that are open beside the drawing. */
  readonly faces: ReadonlySet<string>;
  readonly dialog: Dialog | null;
  readonly closeDialog: () => void;
}

const saving = fetcher('the writers of sheets', () => import('./save-sheet'));

/**
 * The page around the faces. A sensible pair of faces is open from the start; faces that the user opens or
 * closes stay so.
 * @param begun the ids of the faces to open first, if given.
 */
export function usePage(session: Session, begun?: readonly string[]): Page {
  const [dialog, openDialog] = useState<Dialog | null>(null);
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>(() =>
    begun ? Object.fromEntries(FACES.map(({ id }) => [id, begun.includes(id)])) : {},
  );
  const opening = useStore(session.store, (state) =>
    FACES.filter((face) => face.opensWhen(state))
      .map((face) => face.id)
      .join(),
  );
  const isOpen = (id: string) => chosen[id] ?? opening.split(',').includes(id);
  const latest = useRef(isOpen);
  latest.current = isOpen;
  const context = useMemo((): PageContext => {
    /** Says so where something could not be made. */
    const told = (work: Promise<void>) =>
      void work.catch((error: Error) => session.say(`That did not work: ${error.message}.`, 'bad'));
    return {
      faces: () => FACES.map(({ id, name }) => ({ id, name, isOpen: latest.current(id) })),
      showFace: (id, open) => setChosen((all) => ({ ...all, [id]: open })),
      openDialog: (next) => {
        // What is typed before the dialog has the focus is typed into it.
        holdKeys()();
        openDialog(next);
      },
      nextProjectorSize: () => {
        nextProjectorSize();
        session.lookAtAll();
      },
      toggleTheme: () => chooseTheme(currentTheme() === 'dark' ? 'light' : 'dark'),
      saveAs: (format) => told(saving().then(({ saveSheet }) => saveSheet(session, format))),
      saveFile: () => told(saveToFile(session)),
      saveToChosenFile: canKeepFile() ? () => told(saveToChosenFile(session)) : null,
      print: () => told(saving().then(({ printOpenSheet }) => printOpenSheet(session))),
    };
  }, [session]);
  return {
    context,
    faces: new Set(FACES.map((face) => face.id).filter(isOpen)),
    dialog,
    closeDialog: () => openDialog(null),
  };
}
