import type { Point } from '@/core/circuit/geometry';
import type { Lesson } from '@/core/circuit/lesson';
import { START_VIEW, type View } from '@/core/drawing/geometry/viewport';
import { updateDerived } from '@/core/synthesis/update-derived';
import { Session } from '@/session/session';
import type { EditorContext } from '../context';
import type { Popup } from '../popup';

/** A lesson open in an editor without a page; everything that it would show is recorded. */
export function editorOn(lesson: Lesson) {
  const session = new Session(lesson, { updateDerived });
  let view: View = START_VIEW;
  let popup: Popup | null = null;
  let spot: Point = { x: 200, y: 200 };
  /** Everything that was asked of the page or shown by the drawing, in order. */
  const asked: string[] = [];
  const faces = new Map([
    ['table', true],
    ['map', false],
  ]);
  const context: EditorContext = {
    session,
    drawing: {
      popup: () => popup,
      open: (next) => {
        popup = next;
      },
      spot: () => spot,
      isPointed: () => true,
      view: () => view,
      setView: (next) => {
        view = next;
      },
      repaint: () => {},
      showAll: () => asked.push('show all'),
      goToProblem: (index) => {
        asked.push(`problem ${index}`);
        popup = { is: 'problem', index };
      },
      cancelGesture: () => false,
    },
    page: {
      faces: () => [...faces].map(([id, isOpen]) => ({ id, name: `Face ${id}`, isOpen })),
      showFace: (id, open) => faces.set(id, open),
      openDialog: (dialog) => asked.push(dialog),
      nextProjectorSize: () => asked.push('projector'),
      toggleTheme: () => asked.push('theme'),
      saveAs: (format) => asked.push(`save ${format}`),
      print: () => asked.push('print'),
      saveFile: () => asked.push('save file'),
      saveToChosenFile: () => asked.push('choose file'),
    },
  };
  return {
    session,
    context,
    asked,
    popup: () => popup,
    view: () => view,
    /** Moves the pointer to a pixel. */
    pointAt: (pixel: Point) => {
      spot = pixel;
    },
  };
}
