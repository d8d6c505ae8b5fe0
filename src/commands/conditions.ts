import { DONE, type Result, refused } from '@/core/values/result';
import type { EditorContext } from './context';

/*
 * When a command applies. A refusal is a clause that names the missing condition.
 */

type Condition = (context: EditorContext) => Result<undefined>;

export const always: Condition = () => DONE;

/** All of several conditions: the first refusal counts. */
export const all =
  (...conditions: readonly Condition[]): Condition =>
  (context) => {
    for (const condition of conditions) {
      const met = condition(context);
      if (!met.ok) return met;
    }
    return DONE;
  };

const where = (isMet: (context: EditorContext) => boolean, code: string, message: string): Condition => {
  const refusal = refused(code, message);
  return (context) => (isMet(context) ? DONE : refusal);
};

const parts = ({ session }: EditorContext) => session.state.selection.parts.size;
const wires = ({ session }: EditorContext) => session.state.selection.wires.size;

/** Refusals of this code mean that a key has nothing to act on, which needs no words. */
export const NOTHING_SELECTED = 'nothing-selected';

/** Refusals of this code mean that no gate is selected: a digit may begin a name then. */
export const NO_GATE = 'no-gate';

/** The lesson can be changed, be it on a sheet that stays as it is. */
export const canWrite = where(
  ({ session }) => !session.state.readOnly,
  'read-only',
  'this lesson cannot be changed here',
);
export const canEdit: Condition = (context) => {
  const { fixed } = context.session.state.rules;
  return fixed ? refused('fixed-sheet', fixed) : canWrite(context);
};
/** The circuit may be seen at work. */
export const isRunning: Condition = ({ session }) => {
  const { still } = session.state.rules;
  return still ? refused('still', still) : DONE;
};
/** Work at an exercise goes out as a hand-in. */
export const canBeLinked = where(
  ({ session }) => session.state.lesson.exercise === null,
  'is-exercise',
  'work at an exercise is handed in as a file',
);
/** The browser lets pages write to a file of one's choice. */
export const canChooseFile = where(
  ({ page }) => page.saveToChosenFile !== null,
  'no-file-access',
  'this browser saves files as downloads only',
);
/** Its answer sheet would tell a student the answer. */
export const isOwnLesson = where(
  ({ session }) => session.state.lesson.exercise === null,
  'is-exercise',
  'worksheets are made of lessons and of exercises, not of work at an exercise',
);
export const someParts = where((c) => parts(c) > 0, NOTHING_SELECTED, 'select a part first');
export const onePart = where((c) => parts(c) === 1, NOTHING_SELECTED, 'select one part first');
export const twoParts = where((c) => parts(c) > 1, NOTHING_SELECTED, 'select two or more parts first');
export const threeParts = where((c) => parts(c) > 2, NOTHING_SELECTED, 'select three or more parts first');
export const someWires = where((c) => wires(c) > 0, NOTHING_SELECTED, 'select a wire first');
export const onlyWires = where(
  (c) => wires(c) > 0 && parts(c) === 0,
  NOTHING_SELECTED,
  'select wires, and no parts, first',
);
export const oneWire = where(
  (c) => wires(c) === 1 && parts(c) === 0,
  NOTHING_SELECTED,
  'select one wire, and nothing else, first',
);
export const somethingSelected = where(
  (c) => parts(c) + wires(c) > 0,
  NOTHING_SELECTED,
  'select parts or wires first',
);
export const someOnSheet = where(
  ({ session }) => session.sheet.parts.size > 0,
  'empty-sheet',
  'there is nothing on the sheet yet',
);
