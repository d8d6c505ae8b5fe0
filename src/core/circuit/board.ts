import { type Infer, list, text, whole, z } from '../values/schema';

/*
 * A solderless wiring board as a document: packages across the trench, wires between holes, switches and lamps beside it. Changed
 * only as a whole, by an edit of its sheet.
 */

/** Columns of one board. */
export const BOARD_SIZES = [30, 63] as const;
export const MOST_BOARDS = 6;
const MOST_COLUMN = MOST_BOARDS * 63;
export const MOST_BOARD_WIRES = 2000;

export const BOARD_COLOURS = [
  'red',
  'black',
  'blue',
  'green',
  'yellow',
  'violet',
  'orange',
  'teal',
  'brown',
  'rose',
] as const;
export type BoardColour = (typeof BOARD_COLOURS)[number];

/**
 * A place into which a wire goes: a hole (`a12` to `e12` below the trench, `f12` to `j12` above it), a hole of a rail (`T+12`,
 * `T-12` above, `B+12`, `B-12` below), or a pin of something beside the board (`X1.1`).
 */
const Hole = z
  .string()
  .check(
    z.regex(/^(?:[a-j]\d{1,3}|[TB][+-]\d{1,3}|X\d{1,3}\.(?:\d|[a-g]))$/, 'this is no hole of the board'),
  );

const Ref = z.string().check(z.regex(/^[UX]\d{1,3}$/, 'a designator is U or X and a number'));

export const Board = z.object({
  columns: z._default(z.union([z.literal(30), z.literal(63)]), 30),
  /** Boards side by side. */
  boards: z._default(whole(1, MOST_BOARDS), 1),
  isOn: z._default(z.boolean(), true),
  packages: z._default(
    list(
      z.object({
        ref: Ref,
        type: text(12),
        /** The column of pin 1, or of the last pin where it is turned; from 1. */
        column: whole(1, MOST_COLUMN),
        /** Whether it stands the wrong way round. */
        turned: z.optional(z.boolean()),
      }),
      200,
    ),
    [],
  ),
  devices: z._default(
    list(
      z.object({
        ref: Ref,
        kind: z.enum(['switch', 'button', 'clock', 'lamp', 'segments']),
        label: text(60),
        /** Whether a lamp stands without its resistor. */
        bare: z.optional(z.boolean()),
      }),
      200,
    ),
    [],
  ),
  wires: z._default(
    list(
      z.object({
        id: z.string().check(z.regex(/^w\d{1,6}$/, 'a wire of the board is called w and a number')),
        from: Hole,
        to: Hole,
        colour: z.enum(BOARD_COLOURS),
      }),
      MOST_BOARD_WIRES,
    ),
    [],
  ),
  /** Hidden faults: a dead unit, a wire that does not conduct, a package drawn correctly but standing the wrong way round. */
  faults: z._default(
    list(
      z.union([
        z.object({ is: z.literal('dead unit'), ref: Ref, unit: text(1) }),
        z.object({ is: z.literal('broken wire'), wire: text(8) }),
        z.object({ is: z.literal('turned package'), ref: Ref }),
      ]),
      20,
    ),
    [],
  ),
});
export type Board = Infer<typeof Board>;
export type BoardPackage = Board['packages'][number];
export type BoardDevice = Board['devices'][number];
export type BoardWire = Board['wires'][number];
export type BoardFault = Board['faults'][number];

export const EMPTY_BOARD: Board = {
  columns: 30,
  boards: 1,
  isOn: true,
  packages: [],
  devices: [],
  wires: [],
  faults: [],
};
