import { SettingsFile, SheetFile } from '../circuit/lesson-schema';
import { MOST_SHEETS } from '../circuit/limits';
import { z } from '../values/schema';

/** A circuit in an exercise file; the reader of the file looks up its parts. */
export const GivenCircuit = z.object({
  settings: SettingsFile,
  sheets: z
    .array(SheetFile)
    .check(z.minLength(1, 'a given circuit has at least one sheet'), z.maxLength(MOST_SHEETS)),
});
