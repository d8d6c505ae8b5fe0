/** The place of a problem in the input, as far as it is known. */
export interface Place {
  /** Characters before it in a text; line and column count from 1. */
  readonly offset?: number;
  readonly line?: number;
  readonly column?: number;
  /** The way to it in a file: `sheets › 1 › name`. */
  readonly path?: string;
}

/** Why something was refused. */
export interface Problem {
  /** Stable, for programs and tests: `file-too-large`. */
  readonly code: string;
  /** The problem as a clause that can follow a name and a colon: no full stop, no capital of its own. */
  readonly message: string;
  readonly place?: Place;
}

/** The requested value, or why it was refused; never half of it. */
export type Result<T, P extends Problem = Problem> = Done<T> | Refused<P>;

export interface Done<T> {
  readonly ok: true;
  readonly value: T;
}

export interface Refused<P extends Problem = Problem> {
  readonly ok: false;
  readonly problem: P;
}

export const done = <T>(value: T): Done<T> => ({ ok: true, value });

/** Done, with nothing to give. */
export const DONE: Done<undefined> = done(undefined);

/** Characters of a message at most: what it quotes may be as long as the file it is from. */
const MOST_SAID = 600;

/** Shortens a message in its middle if a quotation has made it too long. */
export const bounded = (message: string): string =>
  message.length <= MOST_SAID
    ? message
    : `${message.slice(0, MOST_SAID * 0.7)} … ${message.slice(-MOST_SAID * 0.2)}`;

/** Every refusal is made here: a message that quotes too much is shortened in its middle. */
export const refusal = <P extends Problem>(problem: P): Refused<P> => ({
  ok: false,
  problem: problem.message.length > MOST_SAID ? { ...problem, message: bounded(problem.message) } : problem,
});

/** A problem; a message that quotes too much is shortened in its middle. */
export const problem = (code: string, message: string, place?: Place): Problem =>
  place ? { code, message: bounded(message), place } : { code, message: bounded(message) };

export const refused = (code: string, message: string, place?: Place): Refused =>
  refusal(problem(code, message, place));

/** A problem of an inner thing, named together with its holder. */
export const within = (holder: string, { code, message, place }: Problem): Problem =>
  problem(code, `${holder}: ${message}`, place);

/** The problem with its path said: `at sheets › 1 › name: …`. */
export const located = ({ code, message, place }: Problem): Problem =>
  problem(code, place?.path ? `at ${place.path}: ${message}` : message, place);

/** The problem as a sentence of its own. */
export function sentence({ message }: Problem): string {
  const end = /[.…?!=]$/.test(message) ? '' : '.';
  return `${message[0]?.toUpperCase() ?? ''}${message.slice(1)}${end}`;
}

/** The same refusal, or `of` applied to the value. */
export const mapped = <T, U, P extends Problem>(result: Result<T, P>, of: (value: T) => U): Result<U, P> =>
  result.ok ? done(of(result.value)) : result;

/** The message of a thrown error, as a problem. */
export function problemOf(error: unknown, code = 'failed'): Problem {
  const message = error instanceof Error ? error.message : String(error);
  return problem(code, message.replace(/\.$/, '') || 'no reason was given');
}

/** The value, or an error that says the problem: for callers to whom a refusal is a fault of the program. */
export function expectDone<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Error(result.problem.message);
}
