import { useMemo, useRef, useState } from 'react';
import { useStore } from 'zustand';
import type { Dialog, PageContext } from '@/commands/context';
import type { Session } from '@/session/session';
import { chooseTheme, currentTheme, toggleProjector } from '@/ui/controls/theme';
import { FACES } from '@/ui/faces';
import { printOpenSheet, SHEET_FORMATS } from './sheet-formats';

export interface Page {
  /** For commands: it stays the same for as long as the lesson is open. */
  readonly context: PageContext;
  /** The faces that are open beside the drawing. */
  readonly faces: ReadonlySet<string>;
  readonly dialog: Dialog | null;
  readonly closeDialog: () => void;
}

/** The page around the faces. A sensible pair of faces is open from the start; what the user opens or closes stays so. */
export function usePage(session: Session): Page {
  const [dialog, openDialog] = useState<Dialog | null>(null);
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>({});
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
      openDialog,
      toggleProjector,
      toggleTheme: () => chooseTheme(currentTheme() === 'dark' ? 'light' : 'dark'),
      formats: () => SHEET_FORMATS,
      saveAs: (format) => told(SHEET_FORMATS.find(({ id }) => id === format)!.save(session)),
      print: () => told(printOpenSheet(session)),
    };
  }, [session]);
  return {
    context,
    faces: new Set(FACES.map((face) => face.id).filter(isOpen)),
    dialog,
    closeDialog: () => openDialog(null),
  };
}
