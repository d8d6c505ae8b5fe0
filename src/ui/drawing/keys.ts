import { isAllowed } from '@/core/exercise/allowed';
import { duplicateSelected, moveParts, removeSelected, selectAll, turnSelected } from '@/session/commands';
import { NOTHING, type Session } from '@/session/session';

export interface KeySurroundings {
  readonly session: Session;
  openRing(): void;
  openTyping(letter: string): void;
  openSettings(part: string): void;
  act(part: string): void;
  showAll(): void;
  zoom(factor: number): void;
  /** Gives up a gesture. @returns whether one was under way. */
  cancel(): boolean;
}

const NUDGE: Record<string, { x: number; y: number }> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** What a key does on the drawing. @returns whether it did anything, so that the browser need not. */
export function drawingKey(event: React.KeyboardEvent, around: KeySurroundings): boolean {
  const { session } = around;
  const { selection } = session.state;
  const only = selection.parts.size === 1 ? [...selection.parts][0]! : null;
  if (event.ctrlKey || event.metaKey) return commandKey(event, session);
  if (event.altKey) return false;
  const nudge = NUDGE[event.key];
  if (nudge && selection.parts.size > 0) {
    const far = event.shiftKey ? 5 : 1;
    moveParts(session, selection.parts, { x: nudge.x * far, y: nudge.y * far });
    return true;
  }
  switch (event.key) {
    case ' ':
      around.openRing();
      return true;
    case 'Delete':
    case 'Backspace':
      removeSelected(session);
      return true;
    case 'Escape':
      if (!around.cancel()) session.select(NOTHING);
      return true;
    case 'Enter':
      if (only) around.act(only);
      return only !== null;
    case 'F2':
      if (only) around.openSettings(only);
      return only !== null;
    case '[':
    case ']':
      turnSelected(session);
      return true;
    case '0':
      around.showAll();
      return true;
    case '+':
    case '=':
      around.zoom(1.2);
      return true;
    case '-':
      around.zoom(1 / 1.2);
      return true;
    default:
      if (!/^[a-z]$/i.test(event.key)) return false;
      around.openTyping(event.key);
      return true;
  }
}

function commandKey(event: React.KeyboardEvent, session: Session): boolean {
  switch (event.key.toLowerCase()) {
    case 'a':
      selectAll(session);
      return true;
    case 'd':
      duplicateSelected(session);
      return true;
    default:
      return false;
  }
}

/** Whether the open lesson lets a kind be placed: an exercise may not. */
export function allowedIn(session: Session): (kind: string) => boolean {
  return (kind) => isAllowed(session.state.lesson.exercise, kind);
}
