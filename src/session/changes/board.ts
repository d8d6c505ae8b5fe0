import { type Board, EMPTY_BOARD } from '@/core/circuit/board';
import { sheetOf } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';
import type { Session } from '../session';

/** The wiring board of the running sheet; an empty one where it has none. */
export const boardOf = (session: Session): Board =>
  sheetOf(session.state.lesson, session.state.rootId)?.board ?? EMPTY_BOARD;

/** Changes the board of the running sheet, as a step of undo. @param what the change, as it follows “Undo:”. */
export const setBoard = (
  session: Session,
  board: Board,
  what: string,
  merge: string | null = null,
): Result<undefined> =>
  session.edit(what, { type: 'changeSheet', id: session.state.rootId, change: { board } }, merge);
