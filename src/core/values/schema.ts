import {
  _default,
  array,
  boolean,
  config,
  enum as enumOf,
  int,
  iso,
  literal,
  maximum,
  maxLength,
  minimum,
  minLength,
  nullable,
  number,
  object,
  optional,
  record,
  refine,
  regex,
  strictObject,
  string,
  trim,
  union,
  unknown,
  type ZodMiniType,
} from 'zod/mini';
import english from 'zod/v4/locales/en.js';

config(english());

/** What the schemas here are made of, named one by one: the whole of Zod would be a tenth of a page's load. */
export const z = {
  _default,
  array,
  boolean,
  datetime: iso.datetime,
  enum: enumOf,
  int,
  literal,
  maximum,
  maxLength,
  minimum,
  minLength,
  nullable,
  number,
  object,
  optional,
  record,
  refine,
  regex,
  strictObject,
  string,
  trim,
  union,
  unknown,
};
export type { core, infer as Infer, ZodMiniType as Schema } from 'zod/mini';

/** Text of at most that many characters. */
export const text = (most: number) => z.string().check(z.maxLength(most));

/** Text without blanks around it, from one character to that many. */
export const title = (most: number, whenEmpty = 'the text is empty') =>
  z.string().check(z.trim(), z.minLength(1, whenEmpty), z.maxLength(most));

/** A whole number within limits. */
export const whole = (least: number, most: number) => z.int().check(z.minimum(least), z.maximum(most));

/** A list of at most that many. */
export const list = <T extends ZodMiniType>(of: T, most: number) => z.array(of).check(z.maxLength(most));
