import { around } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import { newPart } from '@/core/drawing/gestures';
import { footprintOf } from '@/core/drawing/placement';
import { isAllowed } from '@/core/exercise/allowed';
import { type Form, Formula, togetherIn } from '@/core/logic/forms';
import type { Notation } from '@/core/logic/notation';
import { openCells, wishPlanned } from '@/core/logic/planned';
import { findKind } from '@/core/parts/catalogue';
import { drawFunctions, replaceCircuit } from '@/core/synthesis/draw-functions';
import type { Session } from './session';

/*
 * The function of the sheet that runs: the table that is filled in for it, the circuit that is drawn from that, and
 * its formulas on the sheet.
 */

export function setPlan(session: Session, plan: Plan | undefined): void {
  session.edit({ type: 'changeSheet', id: session.state.rootId, change: { plan } });
}

export interface DrawnAs {
  readonly form: Exclude<Form, 'drawn'>;
  readonly mostInputs: number;
  /** Whether what several outputs can share is built once. */
  readonly isShared: boolean;
}

/** Draws the circuit of the table in place of what is on the sheet, as one step of undo. */
export function drawPlan(session: Session, { form, mostInputs, isShared }: DrawnAs): void {
  const { lesson, rootId } = session.state;
  const sheet = sheetOf(lesson, rootId)!;
  const { plan } = sheet;
  if (!plan) return;
  const formulas = plan.outputs.map(({ name }, o) => new Formula(name, plan.inputs, wishPlanned(plan, o)));
  const expressions = isShared ? togetherIn(form, formulas) : formulas.map((f) => f.in(form));
  const functions = plan.outputs.map(({ name }, o) => ({ name, expression: expressions[o]! }));
  const circuit = drawFunctions(rootId, sheet.name, plan.inputs, functions, { mostInputs, isShared });
  const forbidden = [...circuit.parts.values()].find((p) => !isAllowed(lesson.exercise, p.kind));
  if (forbidden) {
    session.say(`This exercise does not allow ${findKind(forbidden.kind)!.name}.`, 'bad');
    return;
  }
  const open = openCells(plan);
  if (!session.edit(replaceCircuit(sheet, circuit))) return;
  session.lookAtAll();
  if (open > 0)
    session.say(
      `${open === 1 ? 'One cell is' : `${open} cells are`} still open: either value was taken there, whichever is simpler.`,
    );
}

/** Puts the formulas of the running sheet onto it as a note that follows the circuit, below what is there. */
export function placeFormulas(session: Session, form: Form, notation: Notation): void {
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const all = around([...sheet.parts.values()].map(footprintOf));
  const at = { x: Math.round(all?.x0 ?? 0), y: Math.ceil(all?.y1 ?? 0) + 3 };
  const part = newPart(sheet, findKind('formula')!, at, { form, notation }, '');
  if (session.edit({ type: 'addPart', sheet: sheet.id, part })) session.lookAtAll();
}
