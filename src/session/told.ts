import type { Result } from '@/core/values/result';

/** For a change on which nothing more depends: where it is refused, the session has told the person already. */
export const told = (_: Result<unknown> | Promise<Result<unknown>>): void => {};
