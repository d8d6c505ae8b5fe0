import { type Infer, list, text, whole, z } from '../values/schema';

/** How a sheet is planned in logic packages: what people set on the Chips face. */

const Ref = z.string().check(z.regex(/^U\d{1,3}$/, 'a package is called U and its number'));
const UnitLetter = z.string().check(z.regex(/^[a-f]$/, 'a unit is a letter from a to f'));

export const ChipsSetup = z.object({
  family: z._default(z.enum(['74HC', '74LS', '4000B']), '74HC'),
  /** Numbers of packages that are not used, because the drawer has none. */
  without: z._default(list(text(12), 100), []),
  /** The packages in the drawer; without it there are enough of each. */
  stock: z.optional(list(z.object({ type: text(12), count: whole(0, 10_000) }), 200)),
  /** Gates that stay in the unit into which somebody put them. */
  pinned: z._default(
    list(z.object({ part: text(400), bit: whole(0, 63), ref: Ref, unit: UnitLetter }), 2000),
    [],
  ),
  /** Gates with two inputs exchanged, by the letters of the pins. */
  exchanged: z._default(list(z.object({ part: text(400), bit: whole(0, 63), pins: text(8) }), 2000), []),
  /** Whether the drawing shows designators and the numbers of pins. */
  shown: z._default(z.boolean(), false),
});
export type ChipsSetup = Infer<typeof ChipsSetup>;

export const NO_CHIPS_SETUP: ChipsSetup = {
  family: '74HC',
  without: [],
  pinned: [],
  exchanged: [],
  shown: false,
};
