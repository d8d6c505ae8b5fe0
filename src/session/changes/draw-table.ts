import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { SpecTable } from '@/core/circuit/spec-table';
import { openCells } from '@/core/logic/specification/spec-edits';
import { type CircuitForm, circuitOfSpec } from '@/core/synthesis/circuit-of-spec';
import { replaceCircuit } from '@/core/synthesis/draw-functions';
import { circuitDrawer } from '@/workers/draw-client';
import type { Session } from '../session';

/** Tables of up to this many inputs are drawn between two frames; larger ones by a worker. */
const DRAWN_AT_ONCE = 6;

/** A circuit that a worker is drawing. */
export interface DrawingJob {
  readonly done: Promise<void>;
  readonly cancel: () => void;
}

/**
 * Draws the circuit of the table in place of the sheet's content, as one step of undo.
 * @returns the work that continues if it takes longer than a frame, else null.
 */
export function drawSpec(session: Session, as: CircuitForm): DrawingJob | null {
  const { lesson, rootId } = session.state;
  const sheet = sheetOf(lesson, rootId)!;
  const { plan: spec } = sheet;
  if (!spec) return null;
  if (spec.inputs.length <= DRAWN_AT_ONCE) {
    takeDrawn(session, spec, circuitOfSpec(spec, as, rootId, sheet.name));
    return null;
  }
  const job = circuitDrawer(spec, as, rootId, sheet.name);
  const done = job.result.then(
    (circuit) => takeDrawn(session, spec, circuit),
    (error: Error) => session.say(`The circuit could not be drawn: ${error.message}.`, 'bad'),
  );
  return { done, cancel: job.cancel };
}

/** Puts a circuit in place of the sheet's content, if it still matches the filled-in table. */
function takeDrawn(session: Session, spec: SpecTable, circuit: Sheet): void {
  const { lesson } = session.state;
  const sheet = sheetOf(lesson, circuit.id);
  if (sheet?.plan !== spec) {
    session.say('The table was changed meanwhile: draw it once more.');
    return;
  }
  const open = openCells(spec);
  if (!session.edit('draw the circuit of the table', replaceCircuit(sheet, circuit)).ok) return;
  session.lookAtAll();
  if (open > 0)
    session.say(
      `${open === 1 ? 'One cell is' : `${open} cells are`} still open: the value that gives the simpler circuit was taken there.`,
    );
}
