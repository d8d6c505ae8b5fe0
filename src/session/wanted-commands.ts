import type { Exercise, WantedRun } from '@/core/circuit/exercise';
import { type Lesson, type Params, sheetOf } from '@/core/circuit/lesson';
import { NO_TIME_PLAN, type TimePlan } from '@/core/circuit/time-plan';
import { stimulusOf } from '@/core/exercise/wanted-run';
import { compile } from '@/core/netlist/compile';
import type { Netlist } from '@/core/netlist/netlist';
import { defaultParams, findKind } from '@/core/parts/catalogue';
import { PS_PER_SECOND } from '@/core/values/time';
import { place } from './commands';
import { goToWantedRow } from './face-commands';
import type { Session } from './session';

/** The stimulus under which a circuit is held against the run that is wanted. */
const NAME = 'The task’s run';

/** A time plan in which the run that is wanted drives the inputs. */
function planUnder(plan: TimePlan, wanted: WantedRun, netlist: Netlist): TimePlan {
  const stimulus = stimulusOf(wanted, netlist, NAME);
  return { ...plan, stimuli: [...plan.stimuli.filter((s) => s.name !== NAME), stimulus], driven: NAME };
}

/** A hand-in as it is held against its exercise: its first sheet is driven as the run that is wanted says. */
export function underWantedRun(lesson: Lesson, { wanted }: Exercise): Lesson {
  if (wanted.is !== 'run') return lesson;
  const [sheet, ...others] = lesson.sheets;
  const time = planUnder(sheet!.time ?? NO_TIME_PLAN, wanted, compile(sheet!, lesson.sheets));
  const { delays, powerUp } = wanted;
  return {
    ...lesson,
    sheets: [{ ...sheet!, time }, ...others],
    settings: { ...lesson.settings, delays, powerUp },
  };
}

/** Takes all faces to a row of the function that is wanted, or to a reading of the run. */
export function goToWanted(session: Session, { wanted }: Exercise, row: number): void {
  if (wanted.is !== 'run') {
    goToWantedRow(session, wanted.inputs, row);
    return;
  }
  if (!isUnder(session, wanted) && !putUnder(session, wanted)) return;
  // From power-up each time: what ran before may have been another circuit.
  session.time.restart();
  session.time.runUntil({ is: 'time', time: wanted.readings[row]! });
}

/** Whether the run that is wanted drives the inputs already, as it would anew. */
function isUnder({ state }: Session, wanted: WantedRun): boolean {
  const plan = sheetOf(state.lesson, state.rootId)?.time;
  const there = plan?.stimuli.find((s) => s.name === plan.driven);
  const { settings } = state.lesson;
  const stimulus = stimulusOf(wanted, state.netlist, NAME);
  return (
    there !== undefined &&
    settings.delays === wanted.delays &&
    settings.powerUp === wanted.powerUp &&
    JSON.stringify(there) === JSON.stringify(stimulus)
  );
}

/** In one step of undo. @returns whether it could be done. */
function putUnder(session: Session, wanted: WantedRun): boolean {
  const { lesson, rootId, netlist } = session.state;
  const time = planUnder(sheetOf(lesson, rootId)?.time ?? NO_TIME_PLAN, wanted, netlist);
  const { delays, powerUp } = wanted;
  return session.edit({
    type: 'group',
    edits: [
      { type: 'changeSheet', id: rootId, change: { time } },
      { type: 'changeLesson', change: { settings: { ...lesson.settings, delays, powerUp } } },
    ],
  });
}

/** Steps of the grid between the inputs and the outputs that are placed, and from one to the next. */
const APART = 30;
const BELOW = 4;

/** Places the inputs and outputs that a task wants, each with its name and width. */
export function placeWanted(session: Session, { wanted }: Exercise): void {
  const put = (kind: string, params: Params, name: string, x: number, row: number) => {
    const found = findKind(kind)!;
    place(session, found, { ...defaultParams(found), ...params }, [name], { x, y: row * BELOW });
  };
  if (wanted.is !== 'run') {
    const column = (kind: string, names: readonly string[], x: number) =>
      place(session, findKind(kind)!, defaultParams(findKind(kind)!), names, { x, y: 0 });
    column('switch', wanted.inputs, 0);
    column(
      'lamp',
      wanted.outputs.map((o) => o.name),
      APART,
    );
    session.lookAtAll();
    return;
  }
  for (const [row, { name, width, wave }] of wanted.inputs.entries()) {
    const hertz = PS_PER_SECOND / wave.step;
    const isClock = wave.pattern === 'periodic' && hertz >= 0.01 && hertz <= 1e9;
    if (isClock) put('clock', { hertz }, name, 0, row);
    else put('switch', { width }, name, 0, row);
  }
  for (const [row, { name, width }] of wanted.outputs.entries()) put('lamp', { width }, name, APART, row);
  session.lookAtAll();
}
