import type { Params } from '../circuit/sheet';
import { done, type Result, refusal } from '../values/result';
import { firstIssue, type Schema } from '../values/schema';
import { PARAM_SCHEMAS } from './param-schemas';
import type { PartKind } from './part-kind';

const schemas = new WeakMap<PartKind, Schema<Params>>();

function schemaOf(kind: PartKind): Schema<Params> {
  let schema = schemas.get(kind);
  if (!schema) {
    schema = kind.params(PARAM_SCHEMAS);
    schemas.set(kind, schema);
  }
  return schema;
}

/** Parameters of a kind, those that are not given at their usual values. Refused with the place in `given`. */
export function readParams(kind: PartKind, given: unknown): Result<Params> {
  const read = schemaOf(kind).safeParse(given);
  return read.success ? done(sharedParams(kind, read.data)) : refusal(firstIssue(read.error));
}

/** Sets of parameters of a kind that are remembered: a memory that is long has its own price. */
const MOST_SHARED = 4096;
const shared = new WeakMap<PartKind, Map<string, Params>>();

/**
 * One object for all parameters of a kind that are the same: parts by the thousand have few different ones, and what is known of
 * a part by its parameters is then known of all of them.
 */
export function sharedParams(kind: PartKind, params: Params): Params {
  const known = shared.get(kind) ?? new Map<string, Params>();
  shared.set(kind, known);
  const key = JSON.stringify(params);
  const same = known.get(key);
  if (same) return same;
  if (known.size >= MOST_SHARED) known.clear();
  known.set(key, params);
  return params;
}

const usual = new WeakMap<PartKind, Params>();

/** The kind's parameters, each at its usual value. */
export function defaultParams(kind: PartKind): Params {
  let params = usual.get(kind);
  if (!params) {
    params = Object.freeze(schemaOf(kind).parse({}));
    usual.set(kind, params);
  }
  return params;
}
