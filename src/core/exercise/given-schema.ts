import type { GivenCircuit as Circuit } from '../circuit/exercise';
import { SettingsFile, SheetFile } from '../circuit/lesson-schema';
import { MOST_SHEETS } from '../circuit/limits';
import { type Schema, z } from '../values/schema';

/** A circuit in an exercise file: it is whole when its parts have been looked up, see `circuitContent`. */
export const GivenCircuit = z.object({
  settings: SettingsFile,
  sheets: z
    .array(SheetFile)
    .check(z.minLength(1, 'a given circuit has at least one sheet'), z.maxLength(MOST_SHEETS)),
}) as unknown as Schema<Circuit>;
