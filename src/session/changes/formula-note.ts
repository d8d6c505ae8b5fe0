import { boundingBox } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import { newPart } from '@/core/drawing/editing/gestures';
import { footprintOf } from '@/core/drawing/geometry/placement';
import type { Form } from '@/core/logic/expression/forms';
import type { Notation } from '@/core/logic/expression/notation';
import { findKind } from '@/core/parts/catalogue';
import { updateDerived } from '@/core/synthesis/update-derived';
import type { Result } from '@/core/values/result';
import type { Session } from '../session';

/**
 * Puts the formulas of the running sheet onto it as a note that follows the circuit, below the other parts.
 */
export function placeFormulas(session: Session, form: Form, notation: Notation): Result<undefined> {
  session.setUpdateDerived(updateDerived);
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const all = boundingBox([...sheet.parts.values()].map(footprintOf));
  const at = { x: Math.round(all?.x0 ?? 0), y: Math.ceil(all?.y1 ?? 0) + 3 };
  const part = newPart(sheet, findKind('formula')!, at, { form, notation }, '');
  const placed = session.edit('place the formulas', { type: 'addPart', sheet: sheet.id, part });
  if (placed.ok) session.lookAtAll();
  return placed;
}
