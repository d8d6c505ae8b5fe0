'use client';

import { createContext, type ReactNode, useContext } from 'react';
import type { DrawingContext, EditorContext, PageContext } from '@/commands/context';
import { START_VIEW } from '@/core/drawing/geometry/viewport';
import type { Session } from '@/session/session';
import { SessionProvider } from './session-context';

/** Before a drawing is there, nothing can be shown on it. */
const NO_DRAWING: DrawingContext = {
  popup: () => null,
  open: () => {},
  spot: () => ({ x: 0, y: 0 }),
  isPointed: () => false,
  view: () => START_VIEW,
  setView: () => {},
  repaint: () => {},
  showAll: () => {},
  goToProblem: () => {},
  cancelGesture: () => false,
};

/**
 * The context of commands and gestures, from the moment that a lesson is open; the drawing joins it when it
 * is shown.
 */
export class Editor implements EditorContext {
  drawing: DrawingContext = NO_DRAWING;

  constructor(
    readonly session: Session,
    readonly page: PageContext,
  ) {}
}

const Context = createContext<Editor | null>(null);

export function EditorProvider({ value, children }: { value: Editor; children: ReactNode }) {
  return (
    <Context value={value}>
      <SessionProvider value={value.session}>{children}</SessionProvider>
    </Context>
  );
}

export function useEditor(): Editor {
  const editor = useContext(Context);
  if (!editor) throw new Error('useEditor: no lesson is open here');
  return editor;
}
