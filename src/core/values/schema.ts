import * as z from 'zod/mini';
import english from 'zod/v4/locales/en.js';

z.config(english());

/*
 * The small build of Zod, with English messages: pages load a third of what they would with the whole. Text has
 * its own limits here so that every schema reads alike.
 */

/** Text of at most that many characters. */
export const text = (most: number) => z.string().check(z.maxLength(most));

/** Text without blanks around it, from one character to that many. */
export const title = (most: number, whenEmpty = 'the text is empty') =>
  z.string().check(z.trim(), z.minLength(1, whenEmpty), z.maxLength(most));

/** A whole number within limits. */
export const whole = (least: number, most: number) => z.int().check(z.minimum(least), z.maximum(most));

/** A list of at most that many. */
export const list = <T extends z.ZodMiniType>(of: T, most: number) => z.array(of).check(z.maxLength(most));
