import { around } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import { newPart } from '@/core/drawing/gestures';
import { footprintOf } from '@/core/drawing/placement';
import type { Form } from '@/core/logic/forms';
import type { Notation } from '@/core/logic/notation';
import { findKind } from '@/core/parts/catalogue';
import { follow } from '@/core/synthesis/follow';
import type { Result } from '@/core/values/result';
import type { Session } from '../session';

/** Puts the formulas of the running sheet onto it as a note that follows the circuit, below what is there. */
export function placeFormulas(session: Session, form: Form, notation: Notation): Result<undefined> {
  session.setUpdateDerived(follow);
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const all = around([...sheet.parts.values()].map(footprintOf));
  const at = { x: Math.round(all?.x0 ?? 0), y: Math.ceil(all?.y1 ?? 0) + 3 };
  const part = newPart(sheet, findKind('formula')!, at, { form, notation }, '');
  const placed = session.edit('place the formulas', { type: 'addPart', sheet: sheet.id, part });
  if (placed.ok) session.lookAtAll();
  return placed;
}
