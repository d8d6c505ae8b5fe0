import { RADICES } from '../values/radix';
import { type Infer, list, moment, text, title, whole, z } from '../values/schema';

/** Whether parts take time: not at all, 1 ns each, or their own. */
export const DELAYS = ['zero', 'unit', 'parts'] as const;
export type Delays = (typeof DELAYS)[number];

/** How an input's level goes over time. */
export const PATTERNS = ['levels', 'periodic', 'values', 'bits', 'count', 'random'] as const;

/** Longest time in ps of a step, a period or a phase: 1,000 s. */
export const LONGEST_STEP = 1e15;
export const MOST_STIMULI = 40;
export const MOST_LANES = 500;
/** Lines that a test bench printed, and letters of each. */
export const MOST_PRINTED = 2000;
export const MOST_PRINTED_LETTERS = 400;
/** Most times at which a run that is wanted is read. */
export const MOST_READINGS = 1000;

const Key = z.string().check(z.regex(/^[A-Za-z][A-Za-z0-9_-]{0,63}$/, 'a part is named by its id'));

/**
 * The waveform of one input. `step` in ps is the length of a value, a bit or a row, or the period. `data`
 * holds level changes at times (`0 1, 25ns 0`), values one after the other, or a string of bits.
 */
export const Wave = z.object({
  pattern: z.enum(PATTERNS),
  data: z._default(text(200_000), ''),
  step: z._default(whole(0, LONGEST_STEP), 10_000),
  /** Ps of a period during which it is 1. */
  high: z._default(whole(0, LONGEST_STEP), 5000),
  /** Ps by which a periodic one begins later. */
  phase: z._default(whole(0, LONGEST_STEP), 0),
  /** Which end of a string of bits comes first. */
  first: z._default(z.enum(['most', 'least']), 'most'),
  repeat: z._default(z.boolean(), false),
  /** The input is 0 after the last bit or value; without effect if the wave repeats. */
  endsAtZero: z._default(z.boolean(), false),
  /** Which bit of the count its lowest bit is: at 1 it goes half as fast as at 0. */
  place: z._default(whole(0, 40), 0),
  seed: z._default(whole(0, 1_000_000_000), 1),
});
export type Wave = Infer<typeof Wave>;

/**
 * A stimulus: it drives the inputs of a sheet over time; inputs that it does not name stay with their
 * switches.
 */
const Stimulus = z.object({
  name: title(60),
  inputs: list(z.object({ part: Key, wave: Wave }), MOST_LANES),
  /** The expected outputs under it, up to a time in ps: each as `0:0 25000:1`. */
  expected: z.optional(
    z.object({
      until: moment(),
      outputs: list(z.object({ part: Key, course: text(400_000) }), MOST_LANES),
      /** Times in ps, in order, at which alone a run is held against it; without them at all times. */
      at: z.optional(list(moment(), MOST_READINGS)),
    }),
  ),
  /** Where a run under it ends, if it says so. */
  until: z.optional(moment()),
  /** The lines that its test bench printed, in order of time. */
  printed: z.optional(list(z.object({ time: moment(), text: text(MOST_PRINTED_LETTERS) }), MOST_PRINTED)),
});
export type Stimulus = Infer<typeof Stimulus>;

/** A lane of the timing diagram: an input or output, several of them as one number, or a line with words. */
const Lane = z.object({
  /** Ids of inputs and outputs, that with the highest bits first; none for a caption. */
  of: list(Key, 64),
  name: z._default(text(60), ''),
  radix: z.optional(z.enum(RADICES)),
  /** Whether its number is drawn as a staircase. */
  stairs: z.optional(z.boolean()),
  /** How many times as high as others it is. */
  height: z.optional(whole(1, 4)),
});
export type Lane = Infer<typeof Lane>;

/** The content of the time face of a sheet, and its stimuli. */
export const TimeSetup = z.object({
  /** The lanes from top to bottom; inputs and outputs that stand neither here nor in `hidden` follow them. */
  lanes: z._default(list(Lane, MOST_LANES), []),
  hidden: z._default(list(Key, MOST_LANES), []),
  stimuli: z._default(list(Stimulus, MOST_STIMULI), []),
  /** The name of the stimulus that drives the inputs, or nothing. */
  driven: z._default(text(60), ''),
  /** Names that were given to states, by the number that storage holds. */
  states: z._default(list(z.object({ state: text(64), name: title(40) }), 4096), []),
});
export type TimeSetup = Infer<typeof TimeSetup>;

export const NO_TIME_SETUP: TimeSetup = { lanes: [], hidden: [], stimuli: [], driven: '', states: [] };
