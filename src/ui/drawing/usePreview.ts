import { useRef } from 'react';
import type { Edit } from '@/core/circuit/edit';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { Session } from '@/session/session';
import { type DraggedObjects, draggedObjects } from './canvas/scene';
import { applied } from './gestures/applied';

interface Preview {
  readonly edit: Edit;
  readonly from: Sheet;
  readonly sheet: Sheet;
  readonly dragged: DraggedObjects;
}

export interface ShownSheet {
  readonly sheet: Sheet;
  /** The objects that the gesture has moved; null if there are none. */
  readonly dragged: DraggedObjects | null;
}

/** The sheet as it would be if the gesture that is under way made its edit now. */
export function usePreview(session: Session): (edit: Edit | null) => ShownSheet {
  const preview = useRef<Preview | null>(null);
  return (edit) => {
    const now = session.sheet;
    const last = preview.current;
    if (!edit) {
      preview.current = null;
      return { sheet: now, dragged: null };
    }
    if (last && last.from === now && last.edit === edit) return last;
    const made = applied(session.state.lesson, edit);
    const sheet = made.ok ? sheetOf(made.value, now.id)! : now;
    const dragged = draggedObjects(now, sheet, last?.dragged ?? null);
    preview.current = { edit, from: now, sheet, dragged };
    return preview.current;
  };
}
