import { type Infer, list, type Schema, text, title, whole, z } from '../values/schema';
import { FAULT_TEXT } from './fault';
import { MOST_BITS, PIN_SIDES } from './limits';

const oneOf = <const V extends readonly [string, ...string[]]>(values: V, usual: V[number]) =>
  z._default(z.enum(values), usual as never);

/** The message for a number outside its limits, where the schema's own words would not do. */
interface OutsideLimits {
  readonly low: string;
  readonly high: string;
}

/** A time of the part itself in ps, if it differs from its kind's. */
const ownTime = z.optional(whole(0, 1_000_000_000));

/**
 * The pieces of which parameters are made. Each takes its `usual` value where a file or a typed line gives
 * none. A kind receives these rather than importing them, so that a page shows a sheet without loading the
 * checks.
 */
export const PARAM_SCHEMAS = {
  object: z.object,
  oneOf,
  flag: (usual: boolean) => z._default(z.boolean(), usual),
  whole: (least: number, most: number, usual: number) => z._default(whole(least, most), usual),
  number: (least: number, most: number, usual: number, outside?: OutsideLimits) =>
    z._default(z.number().check(z.minimum(least, outside?.low), z.maximum(most, outside?.high)), usual),
  /** Whole numbers, from `fewest` to `most` of them. */
  wholes: (least: number, greatest: number, most: number, usual: number[], fewest = 0) =>
    z._default(list(whole(least, greatest), most).check(z.minLength(fewest)), usual),
  text: (most: number, usual: string) => z._default(text(most), usual),
  title: (most: number, usual: string) => z._default(title(most), usual),
  /** Number of bits of a word. */
  bits: (least = 1, most = MOST_BITS, usual = least) => z._default(whole(least, most), usual),
  yesNo: oneOf(['no', 'yes'], 'no'),
  edge: oneOf(['rising', 'falling'], 'rising'),
  /** The level at which an optional control input acts. */
  active: oneOf(['none', 'high', 'low'], 'none'),
  /** The power-up value of storage: as the lesson says, or a fixed one. */
  powerUp: oneOf(['lesson', '0', '1', 'X'], 'lesson'),
  pinSide: oneOf(PIN_SIDES, 'usual'),
  /** The caption over an input or output, and the key that moves it in front of a class. */
  caption: z._default(text(12), ''),
  boundKey: z._default(text(1), ''),
  /** Delays of one part that differ from those of its kind, in ps, and what is wrong inside it; see `PartFault`. */
  ownDelay: {
    delayRise: ownTime,
    delayFall: ownTime,
    fault: z.optional(z.string().check(z.regex(FAULT_TEXT, 'this is no fault of a part'))),
  },
  /** How long the data must stand still around the clock edge where that differs from the kind's, in ps. */
  ownWindow: { setup: ownTime, hold: ownTime },
  /** Refuses parameters that do not go together, with that sentence. */
  together: <S extends Schema>(schema: S, fits: (params: Infer<S>) => boolean, message: string): S =>
    schema.check(z.refine(fits, message)) as S,
};

export type ParamSchemas = typeof PARAM_SCHEMAS;
