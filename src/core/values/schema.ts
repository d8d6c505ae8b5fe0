import {
  _default,
  array,
  boolean,
  config,
  type core,
  discriminatedUnion,
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
  tuple,
  union,
  unknown,
  type ZodMiniType,
} from 'zod/mini';
import { type Problem, problem } from './result';

/** The messages for values that do not fit; the package's own messages would be part of each page's load. */
config({
  localeError: (issue) => {
    switch (issue.code) {
      case 'invalid_type':
        return `${issue.expected} is expected`;
      case 'invalid_value':
        return `one of ${issue.values.map(String).join(', ')} is expected`;
      case 'too_big':
        return `at most ${issue.maximum} ${counted(issue.origin)}`;
      case 'too_small':
        return `at least ${issue.minimum} ${counted(issue.origin)}`;
      case 'unrecognized_keys':
        return `${issue.keys.slice(0, 5).join(', ')} is not known here`;
      case 'invalid_union':
        return 'this kind is not known here';
      default:
        return 'this does not fit';
    }
  },
});

function counted(origin: string): string {
  return origin === 'string'
    ? 'letters are allowed'
    : origin === 'array'
      ? 'entries are allowed'
      : 'is allowed';
}

/** The pieces of schemas, named one by one: the whole of Zod would be a tenth of a page's load. */
export const z = {
  _default,
  array,
  boolean,
  datetime: iso.datetime,
  discriminatedUnion,
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
  tuple,
  union,
  unknown,
};
/** The first complaint of a schema, with the path to its place. */
export function firstIssue(error: core.$ZodError): Problem {
  const { path, message } = error.issues[0]!;
  return problem(
    'bad-value',
    message,
    path.length > 0
      ? { path: path.map((p) => (typeof p === 'number' ? p + 1 : String(p))).join(' › ') }
      : undefined,
  );
}

export type { infer as Infer, ZodMiniType as Schema } from 'zod/mini';

/** Text of at most that many characters. */
export const text = (most: number) => z.string().check(z.maxLength(most));

/** Text without blanks around it, from one character to that many. */
export const title = (most: number, whenEmpty = 'the text is empty') =>
  z.string().check(z.trim(), z.minLength(1, whenEmpty), z.maxLength(most));

/** A whole number within limits. */
export const whole = (least: number, most: number) => z.int().check(z.minimum(least), z.maximum(most));

/** A moment in ps of a run, up to some years; beyond 2^53 the number nearest to it. */
export const moment = () =>
  z.number().check(
    z.minimum(0),
    z.maximum(1e20),
    z.refine((time) => Number.isInteger(time), 'a time is a whole number of ps'),
  );

/** A list of at most that many. */
export const list = <T extends ZodMiniType>(of: T, most: number) => z.array(of).check(z.maxLength(most));
