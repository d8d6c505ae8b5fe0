/*
 * The content of a lesson file: every file, link and stored lesson passes this.
 */

import { RADICES } from '../values/radix';
import { type Infer, list, text, title, whole, z } from '../values/schema';
import { Board } from './board';
import { ChipsSetup } from './chips-setup';
import { LESSON_VERSION } from './lesson';
import { MOST_CORNERS, MOST_PARTS, MOST_SHEETS, MOST_WIRES } from './limits';
import { DEFAULT_SETTINGS, SYMBOLS, WIRE_COLOURS } from './sheet';
import { SpecTable } from './spec-table';
import { DELAYS, TimeSetup } from './time-setup';

export const ID = /^[A-Za-z][A-Za-z0-9_-]{0,63}$/;
export const FARTHEST = 100_000;
export const PARAM_NAME = /^[a-z][A-Za-z]{0,30}$/;
export const LONGEST_PARAM = 20_000;
export const MOST_NUMBERS = 4096;
export const LONGEST_LABEL = 60;
export const MOST_RANK = 1_000_000;
export const LONGEST_PORT = 40;
export const LONGEST_FAULT = 70;
export const FAULT = /^(?:cut|tied \S{1,64})$/;

const Id = z.string().check(z.regex(ID, 'an id is letters, digits, - and _, at most 64'));
const Coordinate = whole(-FARTHEST, FARTHEST);
const GridPoint = z.object({ x: Coordinate, y: Coordinate });

/** A part's parameters as in the file; the parts catalogue says what each kind allows. */
const Params = z.record(
  z.string().check(z.regex(PARAM_NAME)),
  z.union([text(LONGEST_PARAM), z.number(), z.boolean(), list(z.int(), MOST_NUMBERS)]),
);

/** Anything that is placed on a sheet. */
export const PartFile = z.object({
  id: Id,
  kind: Id,
  at: GridPoint,
  turn: z._default(z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]), 0),
  label: z._default(text(LONGEST_LABEL), ''),
  /** Whether it is mirrored left to right, before it is turned. */
  mirrored: z.optional(z.boolean()),
  /** How its symbol is drawn where that is not as the lesson's settings say. */
  symbols: z.optional(z.enum(SYMBOLS)),
  /** Place among the sheet's inputs or outputs, for parts that are one; ties are broken by id. */
  rank: z._default(whole(0, MOST_RANK), 0),
  params: z._default(Params, {}),
});

/** Where a wire ends: at a part's port, or at a point of another wire. */
const EndFile = z.union([
  z.strictObject({ part: Id, port: title(LONGEST_PORT) }),
  z.strictObject({ wire: Id, at: GridPoint }),
]);

/** A wire joins two ends; `course` are the corners that it takes from the first to the second. */
export const WireFile = z.object({
  id: Id,
  from: EndFile,
  to: EndFile,
  course: z._default(list(GridPoint, MOST_CORNERS), []),
  /** Whether the course was drawn by hand, and is therefore kept if possible when an end moves. */
  drawn: z.optional(z.boolean()),
  colour: z.optional(z.enum(WIRE_COLOURS)),
  /** What is wrong with it: `cut`, or `tied` and another wire. */
  fault: z.optional(
    text(LONGEST_FAULT).check(z.regex(FAULT, 'the fault of a wire is cut, or tied and a wire')),
  ),
});

export const SheetFile = z.object({
  id: Id,
  name: title(60),
  parts: list(PartFile, MOST_PARTS),
  wires: list(WireFile, MOST_WIRES),
  /** The table that was filled in for it. */
  plan: z.optional(SpecTable),
  /** The content of its time face, and its stimuli. */
  time: z.optional(TimeSetup),
  /** How it is planned in logic packages. */
  chips: z.optional(ChipsSetup),
  /** Its wiring board. */
  board: z.optional(Board),
});

export const SettingsFile = z.object({
  symbols: z._default(z.enum(SYMBOLS), 'distinctive'),
  /** The value of storage parts when time begins. */
  powerUp: z._default(z.enum(['0', '1', 'X']), '0'),
  /** How wires that cross and are not joined are told from those that are. */
  crossings: z._default(z.enum(['plain', 'gap', 'bridge']), 'plain'),
  /** How the value of a bus is written along its wires. */
  buses: z._default(z.enum(RADICES), 'hexadecimal'),
  /** Whether parts take time: not at all, 1 ns each, or their own. */
  delays: z._default(z.enum(DELAYS), 'zero'),
  /** Whether a statement draws equal terms as often as they are written, or once. */
  terms: z._default(z.enum(['written', 'shared']), 'written'),
});

export const LessonFile = z.object({
  format: z.literal('manege-lesson'),
  version: z.literal(LESSON_VERSION),
  id: z.string().check(z.regex(/^[a-z0-9-]{4,64}$/i)),
  title: title(120),
  settings: z._default(SettingsFile, DEFAULT_SETTINGS),
  sheets: z
    .array(SheetFile)
    .check(z.minLength(1, 'a lesson has at least one sheet'), z.maxLength(MOST_SHEETS)),
  /** The exercise that this lesson answers, in a student's hands, and the work at it; `exercise/` has their schemas. */
  exercise: z._default(z.unknown(), null),
  work: z.optional(z.unknown()),
});

export type LessonFile = Infer<typeof LessonFile>;
