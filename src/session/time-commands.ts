import { sheetOf } from '@/core/circuit/lesson';
import type { Delays } from '@/core/circuit/time-plan';
import { NO_TIME_PLAN, type Stimulus, type TimePlan, USUAL_WAVE, type Wave } from '@/core/circuit/time-plan';
import { inputAt } from '@/core/logic/truth-table';
import { courseOfRun, courseText } from '@/core/simulate/course';
import { countThrough, drivingOf, waveLevels, withLevel } from '@/core/simulate/drive';
import { sameName } from '@/core/values/names';
import type { Session } from './session';

/** What the time face of the running sheet shows, and what drives its inputs. */
export const timePlanOf = (session: Session): TimePlan =>
  sheetOf(session.state.lesson, session.state.rootId)?.time ?? NO_TIME_PLAN;

/** Changes it, in one step of undo. */
export function setTimePlan(session: Session, change: Partial<TimePlan>): void {
  const time = { ...timePlanOf(session), ...change };
  session.edit({ type: 'changeSheet', id: session.state.rootId, change: { time } });
}

/** Whether parts take time when the circuit runs. */
export function setDelays(session: Session, delays: Delays): void {
  const { settings } = session.state.lesson;
  session.edit({ type: 'changeLesson', change: { settings: { ...settings, delays } } });
}

/** Puts a stimulus in the place of the one of its name, or behind all others, and lets it drive the inputs. */
export function putStimulus(session: Session, stimulus: Stimulus, was = stimulus.name): void {
  const { stimuli } = timePlanOf(session);
  const isThere = stimuli.some((s) => s.name === was);
  setTimePlan(session, {
    stimuli: isThere ? stimuli.map((s) => (s.name === was ? stimulus : s)) : [...stimuli, stimulus],
    driven: stimulus.name,
  });
}

export function removeStimulus(session: Session, name: string): void {
  const { stimuli } = timePlanOf(session);
  setTimePlan(session, { stimuli: stimuli.filter((s) => s.name !== name), driven: '' });
  session.say(`The stimulus “${name}” is gone.`, 'calm', () => session.undo());
}

/** A name that no stimulus has yet. */
export function freshStimulusName(session: Session, wished = 'Stimulus'): string {
  const names = new Set(timePlanOf(session).stimuli.map((s) => s.name));
  if (!names.has(wished)) return wished;
  for (let n = 2; ; n++) if (!names.has(`${wished} ${n}`)) return `${wished} ${n}`;
}

/** Lets the inputs count through all their combinations: the diagram becomes the truth table laid in time. */
export function driveThroughAll(session: Session, step: number): void {
  const { netlist } = session.state;
  const known = timePlanOf(session).stimuli.find((s) => s.name === ALL);
  const stimulus = countThrough(ALL, netlist, step, USUAL_WAVE);
  putStimulus(session, stimulus, known?.name);
  session.time.runUntil({ is: 'time', time: step * 2 ** netlist.inputColumns.length });
}
const ALL = 'All combinations';

/** When the input changes that may make a glitch, in ps; it changes back as long after. */
const GLITCH_AT = 20_000;
const GLITCH = 'One input changes';

/**
 * Lets one input change while the others stay, so that a static hazard is seen in the diagram; in one step of undo. With
 * 1 ns a part, because a gate swallows pulses that are shorter than its own delay, and so hides some hazards. Nothing where an input of that name is not there.
 * @param row the inputs in the order of `names`, the first the highest bit; the one that changes is 1 at first.
 */
export function showHazard(session: Session, names: readonly string[], row: number, input: number): void {
  const { netlist, lesson, rootId } = session.state;
  const inputs = names.map((name, i) => {
    const column = netlist.inputColumns.find((c) => sameName(c.name, name));
    const levels =
      i === input
        ? `0 1, ${GLITCH_AT} ps 0, ${2 * GLITCH_AT} ps 1`
        : inputAt(names.length, i, row)
          ? '0 1'
          : '';
    return column && { part: column.part, wave: { ...USUAL_WAVE, data: levels } };
  });
  if (inputs.some((i) => i === undefined)) return;
  const plan = timePlanOf(session);
  const stimulus: Stimulus = { name: GLITCH, inputs: inputs.filter((i) => i !== undefined) };
  const time = {
    ...plan,
    stimuli: [...plan.stimuli.filter((s) => s.name !== GLITCH), stimulus],
    driven: GLITCH,
  };
  const made = session.edit({
    type: 'group',
    edits: [
      { type: 'changeSheet', id: rootId, change: { time } },
      { type: 'changeLesson', change: { settings: { ...lesson.settings, delays: 'unit' } } },
    ],
  });
  if (made) session.time.runUntil({ is: 'time', time: 3 * GLITCH_AT });
}

/** Turns over a stretch of an input's course, from one time to another in ps; where nothing drives, a stimulus begins. */
export function drawLevel(session: Session, part: string, from: number, to: number): void {
  if (to <= from) return;
  const plan = timePlanOf(session);
  const known = drivingOf(plan);
  const stimulus: Stimulus = known ?? { name: freshStimulusName(session), inputs: [] };
  const wave = stimulus.inputs.find((i) => i.part === part)?.wave ?? null;
  const value = wave && waveLevels(wave, 1)(from).value === 1 ? 0 : 1;
  const data = withLevel(wave, from, to, value);
  putStimulus(session, withWave(stimulus, part, { ...USUAL_WAVE, data }));
}

/** Longest text of a course that is kept. */
const LONGEST_COURSE = 400_000;

/** Keeps with the stimulus what the outputs did up to now: later runs are held against it. */
export function keepExpected(session: Session): void {
  const stimulus = drivingOf(timePlanOf(session));
  if (!stimulus) return;
  const { netlist, now } = session.state;
  const outputs = netlist.outputs.map(({ part, nets }) => ({
    part,
    course: courseText(courseOfRun(session.trace, nets, now)),
  }));
  if (outputs.some((o) => o.course.length > LONGEST_COURSE)) {
    session.say('The run is too long to be kept with the lesson. Save it as VCD instead.', 'bad');
    return;
  }
  putStimulus(session, { ...stimulus, expected: { until: now, outputs } });
  session.say(`What the outputs did is expected of “${stimulus.name}” from now on.`, 'calm', () =>
    session.undo(),
  );
}

/** Lets the stimulus that drives the inputs expect nothing; in one step of undo. */
export function forgetExpected(session: Session): void {
  const stimulus = drivingOf(timePlanOf(session));
  if (stimulus) putStimulus(session, { name: stimulus.name, inputs: stimulus.inputs });
}

/** Changes the wave of one input of a stimulus. */
export function withWave(stimulus: Stimulus, part: string, wave: Wave | null): Stimulus {
  const rest = stimulus.inputs.filter((i) => i.part !== part);
  const at = stimulus.inputs.findIndex((i) => i.part === part);
  if (!wave) return { ...stimulus, inputs: rest };
  const inputs = at === -1 ? [...rest, { part, wave }] : rest.toSpliced(at, 0, { part, wave });
  return { ...stimulus, inputs };
}
