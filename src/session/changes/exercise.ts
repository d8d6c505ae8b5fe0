import type { Exercise, WantedRun } from '@/core/circuit/exercise';
import { type Lesson, type Params, sheetOf } from '@/core/circuit/lesson';
import { NO_TIME_PLAN, type TimePlan } from '@/core/circuit/time-plan';
import { stimulusOf } from '@/core/exercise/wanted-run';
import { compile } from '@/core/netlist/compile';
import type { Netlist } from '@/core/netlist/netlist';
import { defaultParams, findKind } from '@/core/parts/catalogue';
import { DONE, type Result } from '@/core/values/result';
import { PS_PER_SECOND } from '@/core/values/time';
import type { Session } from '../session';
import { goToWantedRow } from './columns';
import { placeColumn } from './place';

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
export function goToWanted(session: Session, { wanted }: Exercise, row: number): Result<undefined> {
  if (wanted.is !== 'run') {
    goToWantedRow(session, wanted.inputs, row);
    return DONE;
  }
  const under = isUnder(session, wanted) ? DONE : putUnder(session, wanted);
  if (!under.ok) return under;
  // From power-up each time: what ran before may have been another circuit.
  session.time.restart();
  session.time.runUntil({ is: 'time', time: wanted.readings[row]! });
  return DONE;
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

/** Lets it drive the inputs, in one step of undo. */
function putUnder(session: Session, wanted: WantedRun): Result<undefined> {
  const { lesson, rootId, netlist } = session.state;
  const time = planUnder(sheetOf(lesson, rootId)?.time ?? NO_TIME_PLAN, wanted, netlist);
  const { delays, powerUp } = wanted;
  return session.edit('run as the task does', {
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

/** Places the inputs and outputs that a task wants, each with its name and width, in one step of undo. */
export function placeWanted(session: Session, { wanted }: Exercise): Result<undefined> {
  const placed = session.transaction('place the inputs and outputs', (made) => {
    const put = (kind: string, params: Params, names: readonly string[], x: number, row = 0) => {
      const found = findKind(kind)!;
      placeColumn(made, found, { ...defaultParams(found), ...params }, names, { x, y: row * BELOW });
    };
    if (wanted.is !== 'run') {
      put('switch', {}, wanted.inputs, 0);
      put(
        'lamp',
        {},
        wanted.outputs.map((o) => o.name),
        APART,
      );
      return;
    }
    for (const [row, { name, width, wave }] of wanted.inputs.entries()) {
      const hertz = PS_PER_SECOND / wave.step;
      const isClock = wave.pattern === 'periodic' && hertz >= 0.01 && hertz <= 1e9;
      if (isClock) put('clock', { hertz }, [name], 0, row);
      else put('switch', { width }, [name], 0, row);
    }
    for (const [row, { name, width }] of wanted.outputs.entries()) put('lamp', { width }, [name], APART, row);
  });
  if (!placed.ok) return placed;
  session.lookAtAll();
  return DONE;
}
