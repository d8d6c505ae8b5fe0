import { mirrorSelected, spreadFromSelected } from '@/session/changes/arrange';
import { duplicateSelected } from '@/session/changes/clipboard';
import { moveParts, removeSelected, setParam, turnSelected } from '@/session/changes/parts';
import { place } from '@/session/changes/place';
import { pullSelected } from '@/session/changes/wires';
import { selectAll } from '@/session/select';
import type { Session } from '@/session/session';
import { NOTHING } from '@/session/state';
import type { Popup } from '../popups/popup';

/** What of a key event counts; it can wait until there is someone to take it. */
export interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
  /** Whether another face has the focus: what is selected on the sheet is not what the hand is at. */
  readonly elsewhere?: boolean;
}

export interface KeySurroundings {
  readonly session: Session;
  readonly opened: Popup | null;
  open(next: Popup | null): void;
  openRing(): void;
  openTyping(letter: string): void;
  openActions(): void;
  act(part: string): void;
  showAll(): void;
  nextProblem(): void;
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
export function drawingKey(event: KeyPress, around: KeySurroundings): boolean {
  const { session } = around;
  const { selection } = session.state;
  const parts = [...selection.parts];
  const only = parts.length === 1 ? parts[0]! : null;
  const onlyWires = parts.length === 0 && selection.wires.size > 0;
  if (afterPlacing(event, around)) return true;
  if (event.elsewhere && !beginsSomething(event)) return false;
  if (event.ctrlKey || event.metaKey) return commandKey(event, session);
  // A key that moves a switch does nothing else.
  if (session.boundTo(event.key)) return false;
  const nudge = NUDGE[event.key];
  if (event.altKey) {
    if (!nudge || parts.length === 0) return false;
    spreadFromSelected(session, nudge.x !== 0 ? 'across' : 'down', nudge.x + nudge.y);
    return true;
  }
  if (nudge && parts.length > 0) {
    const far = event.shiftKey ? 5 : 1;
    moveParts(session, selection.parts, { x: nudge.x * far, y: nudge.y * far });
    return true;
  }
  if (nudge && pullSelected(session, { x: nudge.x, y: nudge.y }) !== null) return true;
  switch (event.key) {
    case ' ':
      around.openRing();
      return true;
    case 'ContextMenu':
    case 'F10':
      if (event.key === 'F10' && !event.shiftKey) return false;
      around.openActions();
      return true;
    case 'Delete':
    case 'Backspace':
      removeSelected(session, event.shiftKey);
      return true;
    case 'Escape':
      if (!around.cancel()) session.select(NOTHING);
      return true;
    case 'Enter':
      if (only) around.act(only);
      return only !== null;
    case 'F2':
      if (parts.length > 0) around.open({ is: 'settings', parts, at: 'label' });
      return parts.length > 0;
    case '/':
      if (only) around.open({ is: 'wire', part: only });
      else if (onlyWires) around.open({ is: 'ends', wires: [...selection.wires] });
      return only !== null || onlyWires;
    case '?':
      if (only) around.open({ is: 'own', part: only });
      return only !== null;
    case 'F8':
      around.nextProblem();
      return true;
    case '[':
      turnSelected(session, -1);
      return true;
    case ']':
      turnSelected(session);
      return true;
    case '|':
      mirrorSelected(session, 'across');
      return true;
    case '_':
      mirrorSelected(session, 'down');
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
      if (/^[2-9]$/.test(event.key)) return setInputs(session, Number(event.key));
      if (!/^[a-z]$/i.test(event.key)) return false;
      around.openTyping(event.key);
      return true;
  }
}

/** Whether a key opens something over the sheet, whatever is selected there. */
function beginsSomething({ key, ctrlKey, metaKey, altKey }: KeyPress): boolean {
  return !ctrlKey && !metaKey && !altKey && (key === 'F8' || /^[a-z ]$/i.test(key));
}

/** A digit sets how many inputs the selected gates have. */
function setInputs(session: Session, inputs: number): boolean {
  const gates = [...session.state.selection.parts].filter(
    (id) => session.sheet.parts.get(id)?.params.inputs !== undefined,
  );
  if (gates.length === 0) return false;
  const set = setParam(session, gates, 'inputs', inputs);
  if (!set.ok) session.say(`${inputs} inputs: ${set.problem.message}.`, 'bad');
  return true;
}

/** Right after parts were placed, Enter places another and Tab sets its first parameter. */
function afterPlacing(event: KeyPress, { session, opened, open }: KeySurroundings): boolean {
  if (opened?.is !== 'placed') return false;
  if (event.ctrlKey || event.metaKey || event.altKey || ['Shift', 'Control', 'Alt'].includes(event.key))
    return false;
  const { kind, params, parts } = opened;
  const last = session.sheet.parts.get(parts.at(-1)!);
  if (event.key === 'Enter' && last) {
    const placed = place(session, kind, params, [''], last.at, false);
    open(placed.ok ? { ...opened, parts: placed.value } : null);
    return true;
  }
  open(null);
  if (event.key !== 'Tab' || !last || !kind.settings?.length) return false;
  open({ is: 'settings', parts: [last.id], at: 'parameter' });
  return true;
}

function commandKey(event: KeyPress, session: Session): boolean {
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
