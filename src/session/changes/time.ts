import { DEFAULT_WAVE } from '@/core/circuit/default-wave';
import { sheetOf } from '@/core/circuit/lesson';
import type { Delays } from '@/core/circuit/time-setup';
import { NO_TIME_SETUP, type Stimulus, type TimeSetup, type Wave } from '@/core/circuit/time-setup';
import { inputAt } from '@/core/logic/table/truth-table';
import { waveLevels } from '@/core/parts/wave';
import { countThrough, withLevel } from '@/core/simulate/draw-wave';
import { drivingOf } from '@/core/simulate/drive';
import { waveformOfRun, waveformText } from '@/core/simulate/waveform';
import { sameName } from '@/core/values/names';
import { readWord, wordValue } from '@/core/values/radix';
import { DONE, type Result, refused } from '@/core/values/result';
import type { Session } from '../session';
import { changeSettings } from './lesson';

/** The content of the running sheet's time face, and its stimuli. */
export const timeSetupOf = (session: Session): TimeSetup =>
  sheetOf(session.state.lesson, session.state.rootId)?.time ?? NO_TIME_SETUP;

/** Changes it, in one step of undo. @param what the change, as it follows “Undo:”. */
export function setTimeSetup(
  session: Session,
  change: Partial<TimeSetup>,
  what: string,
  merge: string | null = null,
): Result<undefined> {
  const time = { ...timeSetupOf(session), ...change };
  return session.edit(what, { type: 'changeSheet', id: session.state.rootId, change: { time } }, merge);
}

/** Whether parts take time when the circuit runs. */
export const setDelays = (session: Session, delays: Delays): Result<undefined> =>
  changeSettings(session, 'the delays', { delays });

/** Puts a stimulus in the place of the one of its name, or behind all others, and lets it drive the inputs. */
export function putStimulus(
  session: Session,
  stimulus: Stimulus,
  what: string,
  { was = stimulus.name, merge = null }: { was?: string; merge?: string | null } = {},
): Result<undefined> {
  const { stimuli } = timeSetupOf(session);
  const isThere = stimuli.some((s) => s.name === was);
  const change = {
    stimuli: isThere ? stimuli.map((s) => (s.name === was ? stimulus : s)) : [...stimuli, stimulus],
    driven: stimulus.name,
  };
  return setTimeSetup(session, change, what, merge);
}

export function removeStimulus(session: Session, name: string): Result<undefined> {
  const { stimuli } = timeSetupOf(session);
  const change = { stimuli: stimuli.filter((s) => s.name !== name), driven: '' };
  const removed = setTimeSetup(session, change, `remove the stimulus “${name}”`);
  if (removed.ok) session.sayUndoable(`The stimulus “${name}” is removed.`);
  return removed;
}

/** A name that no stimulus has yet. */
export function freshStimulusName(session: Session, preferred = 'Stimulus'): string {
  const names = new Set(timeSetupOf(session).stimuli.map((s) => s.name));
  if (!names.has(preferred)) return preferred;
  for (let n = 2; ; n++) if (!names.has(`${preferred} ${n}`)) return `${preferred} ${n}`;
}

/** Lets the inputs count through all their combinations: the diagram becomes the truth table laid in time. */
export function driveThroughAll(session: Session, step: number): Result<undefined> {
  const { netlist } = session.state;
  const known = timeSetupOf(session).stimuli.find((s) => s.name === ALL);
  const stimulus = countThrough(ALL, netlist, step, DEFAULT_WAVE);
  const put = putStimulus(session, stimulus, 'drive all combinations', { was: known?.name });
  if (put.ok) session.time.runUntil({ is: 'time', time: step * 2 ** netlist.inputColumns.length });
  return put;
}
const ALL = 'All combinations';

/** When the input changes that may make a glitch, in ps; it changes back as long after. */
const GLITCH_AT = 20_000;
const GLITCH = 'One input changes';

/**
 * Changes one input while the others stay, so that a static hazard shows in the diagram; in one step of undo.
 * With 1 ns a part, because a gate swallows pulses shorter than its own delay, and so hides some hazards.
 * Does nothing if there is no input of that name.
 * @param row the inputs in the order of `names`, the first the highest bit; the changing one is 1 at first.
 */
export function showHazard(
  session: Session,
  names: readonly string[],
  row: number,
  input: number,
): Result<undefined> {
  const { netlist, lesson, rootId } = session.state;
  const inputs = names.map((name, i) => {
    const column = netlist.inputColumns.find((c) => sameName(c.name, name));
    const levels =
      i === input
        ? `0 1, ${GLITCH_AT} ps 0, ${2 * GLITCH_AT} ps 1`
        : inputAt(names.length, i, row)
          ? '0 1'
          : '';
    return column && { part: column.part, wave: { ...DEFAULT_WAVE, data: levels } };
  });
  if (inputs.some((i) => i === undefined)) return DONE;
  const plan = timeSetupOf(session);
  const stimulus: Stimulus = { name: GLITCH, inputs: inputs.filter((i) => i !== undefined) };
  const time = {
    ...plan,
    stimuli: [...plan.stimuli.filter((s) => s.name !== GLITCH), stimulus],
    driven: GLITCH,
  };
  const made = session.edit('show the hazard', {
    type: 'group',
    edits: [
      { type: 'changeSheet', id: rootId, change: { time } },
      { type: 'changeLesson', change: { settings: { ...lesson.settings, delays: 'unit' } } },
    ],
  });
  if (made.ok) session.time.runUntil({ is: 'time', time: 3 * GLITCH_AT });
  return made;
}

/** Turns over a stretch of an input's course, from one time to another in ps; where nothing drives, a stimulus begins. */
export function drawLevel(session: Session, part: string, from: number, to: number): Result<undefined> {
  const wave = waveOf(session, part);
  return drawn(session, part, from, to, wave && waveLevels(wave, 1)(from).value === 1 ? 0 : 1, 1);
}

/** Gives an input of several bits a value over a stretch of time in ps. @param text the value, as a word is typed. */
export function drawValue(
  session: Session,
  part: string,
  from: number,
  to: number,
  text: string,
): Result<undefined> {
  const width = session.state.netlist.inputs.find((t) => t.part === part)?.nets.length ?? 1;
  const value = readWord(text, width);
  const number = value && wordValue(value);
  if (number === null) {
    const message = `“${text.slice(0, 20)}” is no number that fits ${width} bits`;
    session.say(`${message}.`, 'bad');
    return refused('bad-value', message);
  }
  return drawn(session, part, from, to, number, width);
}

const waveOf = (session: Session, part: string): Wave | null =>
  drivingOf(timeSetupOf(session))?.inputs.find((i) => i.part === part)?.wave ?? null;

function drawn(
  session: Session,
  part: string,
  from: number,
  to: number,
  value: number,
  width: number,
): Result<undefined> {
  if (to <= from) return DONE;
  const known = drivingOf(timeSetupOf(session));
  const stimulus: Stimulus = known ?? { name: freshStimulusName(session), inputs: [] };
  const data = withLevel(waveOf(session, part), from, to, value, width);
  const what = width === 1 ? 'draw a level' : 'draw a value';
  return putStimulus(session, withWave(stimulus, part, { ...DEFAULT_WAVE, data }), what);
}

/** Longest text of a course that is kept. */
const LONGEST_COURSE = 400_000;

/** Keeps the outputs up to now with the stimulus: later runs are compared with them. */
export function keepExpected(session: Session): Result<undefined> {
  const stimulus = drivingOf(timeSetupOf(session));
  if (!stimulus) return DONE;
  const { netlist, now } = session.state;
  const outputs = netlist.outputs.map(({ part, nets }) => ({
    part,
    course: waveformText(waveformOfRun(session.trace, nets, now)),
  }));
  if (outputs.some((o) => o.course.length > LONGEST_COURSE)) {
    session.say('The run is too long to be kept with the lesson. Save it as VCD instead.', 'bad');
    return refused('run-too-long', 'the run is too long to be kept with the lesson');
  }
  const kept = putStimulus(
    session,
    { ...stimulus, expected: { until: now, outputs } },
    'keep the outputs as expected',
  );
  if (kept.ok) session.sayUndoable(`From now on “${stimulus.name}” expects what the outputs did.`);
  return kept;
}

/** Lets the stimulus that drives the inputs expect nothing; in one step of undo. */
export function forgetExpected(session: Session): Result<undefined> {
  const stimulus = drivingOf(timeSetupOf(session));
  if (!stimulus) return DONE;
  const { expected: _, ...rest } = stimulus;
  return putStimulus(session, rest, 'forget what was expected');
}

/** Changes the wave of one input of a stimulus; what a test bench printed under the old one goes. */
export function withWave({ printed: _, ...stimulus }: Stimulus, part: string, wave: Wave | null): Stimulus {
  const rest = stimulus.inputs.filter((i) => i.part !== part);
  const at = stimulus.inputs.findIndex((i) => i.part === part);
  if (!wave) return { ...stimulus, inputs: rest };
  const inputs = at === -1 ? [...rest, { part, wave }] : rest.toSpliced(at, 0, { part, wave });
  return { ...stimulus, inputs };
}
