import type { Expected } from '@/core/circuit/exercise';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Params } from '@/core/circuit/sheet';
import { NO_TIME_SETUP, type TimeSetup } from '@/core/circuit/time-setup';
import { expectedKindOf } from '@/core/exercise/expected';
import type { ExpectedDrive, ExpectedSignal } from '@/core/exercise/expected/expected-kind';
import { inputPart } from '@/core/exercise/expected/input-part';
import { compile } from '@/core/netlist/compile';
import type { Netlist } from '@/core/netlist/netlist';
import { findKind } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';
import { goToNamedRow } from './columns';
import { type NewPart, placeColumn } from './place';

/** The name of the stimulus under which a circuit is checked against the task. */
const NAME = 'The task’s run';

/** How time runs while a circuit is checked; null if the switches alone decide. */
const driveOf = (expected: Expected) => expectedKindOf(expected).drive(expected);

/** A time setup in which the task drives the inputs. */
function setupUnderTask(setup: TimeSetup, drive: ExpectedDrive, netlist: Netlist): TimeSetup {
  const stimulus = drive.stimulus(netlist, NAME);
  return { ...setup, stimuli: [...setup.stimuli.filter((s) => s.name !== NAME), stimulus], driven: NAME };
}

/** A hand-in prepared for looking at a task: what is expected drives the sheet of the task. */
export function drivenByTask(lesson: Lesson, expected: Expected, sheetId: string): Lesson {
  const drive = driveOf(expected);
  const sheet = sheetOf(lesson, sheetId);
  if (!drive || !sheet) return lesson;
  const time = setupUnderTask(sheet.time ?? NO_TIME_SETUP, drive, compile(sheet, lesson.sheets));
  const { delays, powerUp } = drive;
  return {
    ...lesson,
    sheets: lesson.sheets.map((s) => (s === sheet ? { ...sheet, time } : s)),
    settings: { ...lesson.settings, delays, powerUp },
  };
}

/** Takes all faces to a row of the expectation, or to a reading of the run. */
export function goToExpected(session: Session, expected: Expected, row: number): Result<undefined> {
  const drive = driveOf(expected);
  if (!drive) {
    const { inputs } = expectedKindOf(expected).signals(expected);
    goToNamedRow(
      session,
      inputs.map((i) => i.name),
      row,
    );
    return DONE;
  }
  const under = isDrivenByTask(session, drive) ? DONE : driveByTask(session, drive);
  if (!under.ok) return under;
  // From power-up each time: the previous run may be of another circuit.
  session.time.restart();
  session.time.runUntil({ is: 'time', time: drive.timeOf(row) });
  return DONE;
}

/** Whether the task already drives the inputs as it would now. */
function isDrivenByTask({ state }: Session, drive: ExpectedDrive): boolean {
  const setup = sheetOf(state.lesson, state.rootId)?.time;
  const there = setup?.stimuli.find((s) => s.name === setup.driven);
  const { settings } = state.lesson;
  return (
    there !== undefined &&
    settings.delays === drive.delays &&
    settings.powerUp === drive.powerUp &&
    JSON.stringify(there) === JSON.stringify(drive.stimulus(state.netlist, NAME))
  );
}

/** Lets the task drive the inputs, in one step of undo. */
function driveByTask(session: Session, drive: ExpectedDrive): Result<undefined> {
  const { lesson, rootId, netlist } = session.state;
  const time = setupUnderTask(sheetOf(lesson, rootId)?.time ?? NO_TIME_SETUP, drive, netlist);
  const { delays, powerUp } = drive;
  return session.edit('run as the task does', {
    type: 'group',
    edits: [
      { type: 'changeSheet', id: rootId, change: { time } },
      { type: 'changeLesson', change: { settings: { ...lesson.settings, delays, powerUp } } },
    ],
  });
}

/** Grid steps between the inputs and the outputs that are placed. */
const APART = 30;

function partFor(kindName: string, params: Params, { name }: ExpectedSignal): NewPart {
  const kind = findKind(kindName)!;
  return { kind, params: { ...defaultParams(kind), ...params }, label: name };
}

const inputFor = (input: ExpectedSignal): NewPart => partFor(...inputPart(input), input);

/** Places the inputs and outputs that a task expects, each with its name and width, in one step of undo. */
export function placeExpected(
  session: Session,
  {
    inputs,
    outputs,
  }: { readonly inputs: readonly ExpectedSignal[]; readonly outputs: readonly ExpectedSignal[] },
): Result<undefined> {
  const placed = session.transaction('place the inputs and outputs', (made) => {
    placeColumn(made, inputs.map(inputFor), { x: 0, y: 0 }, false);
    placeColumn(
      made,
      outputs.map((output) => partFor('lamp', { width: output.width }, output)),
      { x: APART, y: 0 },
      false,
    );
  });
  if (!placed.ok) return placed;
  session.lookAtAll();
  return DONE;
}
