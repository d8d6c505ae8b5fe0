import type { Infer } from '../values/schema';
import {
  FARTHEST,
  FAULT,
  ID,
  LONGEST_FAULT,
  LONGEST_LABEL,
  LONGEST_PARAM,
  LONGEST_PORT,
  MOST_NUMBERS,
  MOST_RANK,
  PARAM_NAME,
  type PartFile,
  type WireFile,
} from './lesson-schema';
import { MOST_CORNERS } from './limits';
import { SYMBOLS, WIRE_COLOURS } from './sheet';

/*
 * Recognises parts and wires of a file that are in canonical form: every field with a default is given, nothing else is, and
 * `PartFile` or `WireFile` would return them unchanged. This takes a fraction of the time of the schema, which counts for tens of
 * thousands of them. Anything else is left to the schema, which reads it or reports the error.
 */

const isText = (value: unknown, longest: number): value is string =>
  typeof value === 'string' && value.length <= longest;
const isWhole = (value: unknown, least: number, most: number): boolean =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most;
const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isId = (value: unknown): boolean => typeof value === 'string' && ID.test(value);
const isOneOf = (value: unknown, all: readonly unknown[]): boolean => all.includes(value);

function isPoint(value: unknown): boolean {
  if (!isObject(value)) return false;
  let count = 0;
  for (const name in value) {
    if ((name !== 'x' && name !== 'y') || !isWhole(value[name], -FARTHEST, FARTHEST)) return false;
    count++;
  }
  return count === 2;
}

function areParams(value: unknown): boolean {
  if (!isObject(value)) return false;
  for (const name in value) {
    const one = value[name];
    const isSound =
      typeof one === 'boolean' ||
      (typeof one === 'number' && Number.isFinite(one)) ||
      isText(one, LONGEST_PARAM) ||
      (Array.isArray(one) && one.length <= MOST_NUMBERS && one.every(Number.isSafeInteger));
    if (!isSound || !PARAM_NAME.test(name)) return false;
  }
  return true;
}

/** Whether all entries are parts in canonical form. */
export function areCanonicalParts(list: readonly unknown[]): list is Infer<typeof PartFile>[] {
  return list.every(isCanonicalPart);
}

function isCanonicalPart(value: unknown): boolean {
  if (!isObject(value)) return false;
  let needed = 0;
  for (const name in value) {
    const one = value[name];
    switch (name) {
      case 'id':
      case 'kind':
        if (!isId(one)) return false;
        break;
      case 'at':
        if (!isPoint(one)) return false;
        break;
      case 'turn':
        if (!isWhole(one, 0, 3)) return false;
        break;
      case 'label':
        if (!isText(one, LONGEST_LABEL)) return false;
        break;
      case 'rank':
        if (!isWhole(one, 0, MOST_RANK)) return false;
        break;
      case 'params':
        if (!areParams(one)) return false;
        break;
      case 'mirrored':
        if (typeof one !== 'boolean') return false;
        continue;
      case 'symbols':
        if (!isOneOf(one, SYMBOLS)) return false;
        continue;
      default:
        return false;
    }
    needed++;
  }
  return needed === 7;
}

function isEnd(value: unknown): boolean {
  if (!isObject(value)) return false;
  let count = 0;
  for (const name in value) {
    const one = value[name];
    if (name === 'port') {
      if (!isText(one, LONGEST_PORT) || one === '' || one !== one.trim()) return false;
    } else if (name === 'at') {
      if (!isPoint(one)) return false;
    } else if ((name !== 'part' && name !== 'wire') || !isId(one)) return false;
    count++;
  }
  return count === 2 && ('part' in value ? 'port' in value : 'at' in value && 'wire' in value);
}

/** Whether all entries are wires in canonical form. */
export function areCanonicalWires(list: readonly unknown[]): list is Infer<typeof WireFile>[] {
  return list.every(isCanonicalWire);
}

function isCanonicalWire(value: unknown): boolean {
  if (!isObject(value)) return false;
  let needed = 0;
  for (const name in value) {
    const one = value[name];
    switch (name) {
      case 'id':
        if (!isId(one)) return false;
        break;
      case 'from':
      case 'to':
        if (!isEnd(one)) return false;
        break;
      case 'course':
        if (!Array.isArray(one) || one.length > MOST_CORNERS || !one.every(isPoint)) return false;
        break;
      case 'drawn':
        if (typeof one !== 'boolean') return false;
        continue;
      case 'colour':
        if (!isOneOf(one, WIRE_COLOURS)) return false;
        continue;
      case 'fault':
        if (!isText(one, LONGEST_FAULT) || !FAULT.test(one)) return false;
        continue;
      default:
        return false;
    }
    needed++;
  }
  return needed === 4;
}
