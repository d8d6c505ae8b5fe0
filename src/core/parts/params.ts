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
  const key = JSON.stringify(given);
  const before = remembered(readBefore, kind);
  const known = before.get(key);
  if (known) return done(known);
  const read = schemaOf(kind).safeParse(given);
  if (!read.success) return refusal(firstIssue(read.error));
  return done(remember(before, key, sharedParams(kind, read.data)));
}

/** Sets of parameters of a kind that are remembered: a memory that is long has its own price. */
const MOST_SHARED = 4096;
/** Characters of parameters that are worth it; long texts are seldom the same. */
const LONGEST_KEY = 2000;
type Remembered = Map<string, Params>;
const shared = new WeakMap<PartKind, Remembered>();
/** Parameters read before, by the JSON text that they were read from. */
const readBefore = new WeakMap<PartKind, Remembered>();

function remembered(all: WeakMap<PartKind, Remembered>, kind: PartKind): Remembered {
  let own = all.get(kind);
  if (!own) {
    own = new Map();
    all.set(kind, own);
  }
  return own;
}

function remember(own: Remembered, key: string, params: Params): Params {
  if (key.length > LONGEST_KEY) return params;
  if (own.size >= MOST_SHARED) own.clear();
  own.set(key, params);
  return params;
}

/**
 * One object for all parameters of a kind that are the same: parts by the thousand have few different ones, and what is known of
 * a part by its parameters is then known of all of them.
 */
export function sharedParams(kind: PartKind, params: Params): Params {
  const own = remembered(shared, kind);
  const key = JSON.stringify(params);
  return own.get(key) ?? remember(own, key, params);
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
