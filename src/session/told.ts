import type { Result } from '@/core/values/result';

/** For a change on which nothing more depends: the session has told the person of a refusal already. */
export const told = (_: Result<unknown> | Promise<Result<unknown>>): void => {};
