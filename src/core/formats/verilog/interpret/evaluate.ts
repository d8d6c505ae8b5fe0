import { wordOfText } from '../logic';
import type { Call, Expression, Select } from '../syntax';
import { isSystemFunction, ONE_BIT, SHIFTS, type Shape, signedOf, widthOf } from '../types';
import {
  binary,
  bitsAt,
  either,
  isKnown,
  joinedWords,
  numberIn,
  power,
  resized,
  shifted,
  truthOf,
  unary,
  unknownWord,
  type Word,
  wordOf,
  wordOfDigits,
} from '../word';
import { fail, type Scope, type Variable } from './place';

/** What expressions ask of the simulation around them. */
export interface Surroundings {
  /** Time in ps. */
  readonly now: number;
  random(): number;
  callFunction(e: Call, scope: Scope): Word;
}

/** Width and sign of an expression; neither changes while a design runs. */
function shapeOf(e: Expression, scope: Scope): Shape {
  const known = scope.shapes.get(e);
  if (known) return known;
  const shape = { width: widthOf(e, scope), signed: signedOf(e, scope) };
  scope.shapes.set(e, shape);
  return shape;
}

/** The value of an expression by itself. */
export function evaluate(e: Expression, scope: Scope, around: Surroundings): Word {
  const { width, signed } = shapeOf(e, scope);
  return inContext(e, width, signed, scope, around);
}

/** The value of an expression that is assigned to so many bits (IEEE Std 1364-2005, 5.4). */
export function assigned(e: Expression, bits: number, scope: Scope, around: Surroundings): Word {
  const { width: own, signed } = shapeOf(e, scope);
  return resized(inContext(e, Math.max(bits, own), signed, scope, around), bits);
}

function inContext(e: Expression, width: number, signed: boolean, scope: Scope, around: Surroundings): Word {
  const own = (of: Expression) => evaluate(of, scope, around);
  const inside = (of: Expression) => inContext(of, width, signed, scope, around);
  const fitted = (word: Word) => ({ ...resized(word, width, signed && word.signed), signed });
  switch (e.is) {
    case 'number':
      if (e.digits.startsWith('r'))
        return wordOf(BigInt(Math.round(Number(e.digits.slice(1)))), width, signed);
      return fitted(literal(e));
    case 'text':
      return fitted(wordOfText(e.text));
    case 'name': {
      const constant = scope.constant(e.name);
      if (constant?.real !== undefined) return wordOf(BigInt(Math.round(constant.real)), width, signed);
      return fitted(constant ? constant.word : scope.variable(e).words[0]!);
    }
    case 'select':
      return fitted(selected(e, scope, around));
    case 'concat':
      return fitted(joinedWords(e.items.map(own)));
    case 'repeat': {
      const item = own(e.item);
      return fitted(joinedWords(Array.from({ length: scope.number(e.count) }, () => item)));
    }
    case 'unary':
      if (e.operator === '~' || e.operator === '-' || e.operator === '+')
        return { ...unary(e.operator, inside(e.of)), signed };
      return fitted(unary(e.operator, own(e.of)));
    case 'binary': {
      const { operator, left, right } = e;
      if (operator === '&&' || operator === '||') return fitted(binary(operator, own(left), own(right)));
      if (ONE_BIT.has(operator)) {
        const [l, r] = [shapeOf(left, scope), shapeOf(right, scope)];
        const both = Math.max(l.width, r.width);
        const sign = l.signed && r.signed;
        const [a, b] = [left, right].map((of) => inContext(of, both, sign, scope, around));
        return fitted(binary(operator, a!, b!));
      }
      if (SHIFTS.has(operator)) return { ...shifted(operator, inside(left), own(right)), signed };
      if (operator === '**') return { ...power(inside(left), own(right)), signed };
      return { ...binary(operator, inside(left), inside(right)), signed };
    }
    case 'choose': {
      const truth = truthOf(own(e.condition));
      if (truth === null) return { ...either(inside(e.yes), inside(e.no)), signed };
      return inside(truth ? e.yes : e.no);
    }
    case 'call':
      return fitted(called(e, scope, around));
  }
}

const literals = new WeakMap<Expression, Word>();

function literal(e: Extract<Expression, { is: 'number' }>): Word {
  const known = literals.get(e);
  if (known) return known;
  const word = wordOfDigits(e.digits, e.signed);
  literals.set(e, word);
  return word;
}

function called(e: Call, scope: Scope, around: Surroundings): Word {
  const given = () => e.arguments[0] ?? fail(`${e.name} is given too little`, e);
  switch (e.name) {
    case '$signed':
    case '$unsigned':
      return { ...evaluate(given(), scope, around), signed: e.name === '$signed' };
    case '$clog2': {
      const value = evaluate(given(), scope, around).ones;
      return wordOf(value <= 1n ? 0 : (value - 1n).toString(2).length, 32, true);
    }
    case '$time':
    case '$realtime':
    case '$stime':
      return wordOf(Math.round(around.now / scope.module.unit), 64);
    case '$random':
    case '$urandom':
      return wordOf(around.random(), 32, e.name === '$random');
    default:
      if (isSystemFunction(e.name) || e.name.startsWith('$'))
        return fail(`${e.name} is outside the part of Verilog that is read`, e);
      return around.callFunction(e, scope);
  }
}

/** Which word of a memory; -1 where there is none. */
export function addressOf(of: Variable, index: Expression, scope: Scope, around: Surroundings): number {
  const word = evaluate(index, scope, around);
  if (!isKnown(word)) return -1;
  const at = Number(numberIn(word)) - of.addresses![0];
  return at >= 0 && at < of.words.length ? at : -1;
}

/** The lowest of some bits of a word, and how many; `from` is null where that is unknown. */
export function bitsNamed(
  e: Select,
  of: Variable,
  path: readonly Expression[],
  scope: Scope,
  around: Surroundings,
): { from: number | null; width: number } {
  const { part } = e;
  if (part?.how === ':') {
    const [high, low] = [scope.number(part.first), scope.number(part.second)];
    return {
      from: Math.min(...[high, low].map((index) => (of.high >= of.low ? index - of.low : of.low - index))),
      width: Math.abs(high - low) + 1,
    };
  }
  if (part) {
    const [index, width] = [evaluate(part.first, scope, around), scope.number(part.second)];
    if (!isKnown(index)) return { from: null, width };
    const lowest = part.how === '+:' ? Number(numberIn(index)) : Number(numberIn(index)) - width + 1;
    return { from: of.high >= of.low ? lowest - of.low : of.low - (lowest + width - 1), width };
  }
  const [index] = path;
  if (!index) return { from: 0, width: of.width };
  const word = evaluate(index, scope, around);
  if (!isKnown(word)) return { from: null, width: 1 };
  const place = of.placeOf(Number(numberIn(word)));
  return { from: place === -1 ? null : place, width: 1 };
}

function selected(e: Select, scope: Scope, around: Surroundings): Word {
  const constant = scope.constant(e.name);
  if (constant) {
    const { width } = constant.word;
    const shape = {
      high: width - 1,
      low: 0,
      width,
      placeOf: (i: number) => (i >= 0 && i < width ? i : -1),
    } as Variable;
    const { from, width: bits } = bitsNamed(e, shape, e.path, scope, around);
    return from === null ? unknownWord(bits) : bitsAt(constant.word, from, bits);
  }
  const of = scope.variable(e);
  const [address, rest] = of.isMemory ? [e.path[0], e.path.slice(1)] : [undefined, e.path];
  const at = address ? addressOf(of, address, scope, around) : 0;
  const word = at === -1 ? unknownWord(of.width, of.signed) : of.words[at]!;
  if (rest.length === 0 && !e.part) return word;
  const { from, width } = bitsNamed(e, of, rest, scope, around);
  return from === null ? unknownWord(width) : bitsAt(word, from, width);
}
