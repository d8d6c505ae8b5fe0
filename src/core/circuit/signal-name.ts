import { z } from '../values/schema';

/** A signal's name as people write it on a sheet. */
export const SignalName = z
  .string()
  .check(z.trim(), z.minLength(1, 'a name is empty'), z.maxLength(40, 'a name is longer than 40 letters'));
