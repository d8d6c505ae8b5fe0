import type { Expected } from '../../circuit/exercise';
import { done, type Result } from '../../values/result';
import { z } from '../../values/schema';
import { circuit } from './circuit';
import type { ExpectedKind } from './expected-kind';
import { run } from './run';
import { table } from './table';

/** All kinds of exercise, in the order in which they are offered. A new kind is a folder here and an entry in this list. */
export const EXPECTED_KINDS = [table, run, circuit] as const;

type OneSchema = [(typeof EXPECTED_KINDS)[number]['schema']];

/** The expectation in a file, of any kind, told apart by `kind`. */
export const AnyExpected = z.discriminatedUnion(
  'kind',
  EXPECTED_KINDS.map((kind) => kind.schema) as unknown as OneSchema,
);

/** The expectation in a file, of a kind that has rows. */
export const ExpectedByRows = z.discriminatedUnion(
  'kind',
  EXPECTED_KINDS.filter((kind) => !('prove' in kind)).map((kind) => kind.schema) as unknown as OneSchema,
);

/** An expectation from a file with its circuits read. */
export const expectedContent = (expected: Expected): Result<Expected> =>
  expectedKindOf(expected).content?.(expected) ?? done(expected);

/** The kind of an expectation. @throws Error for an unknown kind: file readers let none pass. */
export function expectedKindOf<E extends Expected>({ kind }: E): ExpectedKind<E> {
  const found = EXPECTED_KINDS.find((k) => k.kind === kind);
  if (!found) throw new Error(`no kind of exercise is called ${kind}`);
  return found as unknown as ExpectedKind<E>;
}
