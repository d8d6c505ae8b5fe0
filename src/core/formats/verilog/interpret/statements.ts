import type { Assign, Call, Expression, Select, Sensitivity, Statement } from '../syntax';
import { widthOf } from '../types';
import {
  bitsAt,
  digitsOf,
  isKnown,
  numberIn,
  resized,
  truthOf,
  type Word,
  withBits,
  wordOf,
  wordOfDigits,
} from '../word';
import { addressOf, assigned, bitsNamed, evaluate, type Surroundings } from './evaluate';
import { fail, type Scope, type Variable } from './place';

/** What a process waits for: ps, or a change. */
export type Wait =
  | { readonly for: 'time'; readonly ps: number }
  | { readonly for: 'change'; readonly on: Sensitivity; readonly reads: Statement; readonly scope: Scope }
  | { readonly for: 'truth'; readonly condition: Expression; readonly scope: Scope };

/** What statements ask of the simulation. */
export interface Processes extends Surroundings {
  count(at: Statement | Expression): void;
  later(work: () => void, ps: number): void;
  nextStep(work: () => void, ps: number): void;
  system(name: string, given: readonly (Expression | null)[], scope: Scope, at: Statement): void;
}

type Running = Generator<Wait, void, void>;

/** A block that is left from inside. */
class Left {
  constructor(readonly name: string) {}
}

/** Statements, one after the other; each wait is handed out. */
export function* running(s: Statement, scope: Scope, on: Processes): Running {
  on.count(s);
  switch (s.is) {
    case 'block':
      yield* block(s, scope, on);
      return;
    case 'assign':
      yield* assignment(s, scope, on);
      return;
    case 'if': {
      const taken = truthOf(evaluate(s.condition, scope, on)) ? s.yes : s.no;
      if (taken) yield* running(taken, scope, on);
      return;
    }
    case 'case': {
      const taken = branchOf(s, scope, on);
      if (taken) yield* running(taken, scope, on);
      return;
    }
    case 'for':
      yield* assignment(s.first, scope, on);
      while (truthOf(evaluate(s.condition, scope, on))) {
        yield* running(s.body, scope, on);
        yield* assignment(s.step, scope, on);
      }
      return;
    case 'while':
      while (truthOf(evaluate(s.condition, scope, on))) {
        on.count(s);
        yield* running(s.body, scope, on);
      }
      return;
    case 'repeat': {
      const count = evaluate(s.count, scope, on);
      const times = isKnown(count) ? numberIn(count) : 0n;
      for (let round = 0n; round < times; round++) yield* running(s.body, scope, on);
      return;
    }
    case 'forever':
      for (;;) {
        on.count(s);
        yield* running(s.body, scope, on);
      }
    case 'delay':
      yield { for: 'time', ps: psOf(s.delay, scope, on) };
      yield* running(s.body, scope, on);
      return;
    case 'event':
      yield { for: 'change', on: s.on, reads: s.body, scope };
      yield* running(s.body, scope, on);
      return;
    case 'wait':
      yield { for: 'truth', condition: s.condition, scope };
      yield* running(s.body, scope, on);
      return;
    case 'call':
      if (s.name.startsWith('$')) on.system(s.name, s.arguments, scope, s);
      else yield* task(s, scope, on);
      return;
    case 'disable':
      throw new Left(s.name);
    case 'trigger': {
      const event = scope.find(s.name) ?? fail(`there is no event called ${s.name}`, s);
      event.set(0, wordOf(event.words[0]!.ones + 1n, event.width));
      return;
    }
  }
}

function* block(s: Extract<Statement, { is: 'block' }>, scope: Scope, on: Processes): Running {
  const inner = s.declarations.length > 0 ? blockScope(s, scope) : scope;
  try {
    for (const one of s.statements) yield* running(one, inner, on);
  } catch (left) {
    if (!(left instanceof Left) || s.name === null || left.name !== s.name) throw left;
  }
}

/** Variables of a block keep what they have from one time to the next. */
function blockScope(s: Extract<Statement, { is: 'block' }>, scope: Scope): Scope {
  const name = s.name ?? `block at ${s.line}:${s.column}`;
  const known = scope.children.get(name);
  if (known) return known;
  const made = scope.inner(name);
  made.declare(s.declarations);
  scope.children.set(name, made);
  return made;
}

export function psOf(delay: Expression, scope: Scope, on: Surroundings): number {
  if (delay.is === 'number' && delay.digits.startsWith('r'))
    return Math.round(Number(delay.digits.slice(1)) * scope.module.unit);
  const { word, real } =
    delay.is === 'name' ? scope.known(delay) : { word: evaluate(delay, scope, on), real: undefined };
  if (real !== undefined) return Math.round(real * scope.module.unit);
  return isKnown(word) ? Math.max(0, Math.round(Number(numberIn(word)) * scope.module.unit)) : 0;
}

function branchOf(s: Extract<Statement, { is: 'case' }>, scope: Scope, on: Processes): Statement | null {
  const all = [s.chosen, ...s.items.flatMap(({ labels }) => labels)];
  const width = Math.max(...all.map((e) => widthOf(e, scope)));
  const digits = (e: Expression) => digitsOf(assigned(e, width, scope, on));
  const value = digits(s.chosen);
  const isFree = (digit: string) =>
    (s.how !== 'case' && digit === 'z') || (s.how === 'casex' && digit === 'x');
  for (const { labels, body } of s.items)
    for (const label of labels) {
      const wanted = digits(label);
      if ([...wanted].every((digit, i) => digit === value[i] || isFree(digit) || isFree(value[i]!)))
        return body;
    }
  return s.otherwise;
}

/** Assigned bits of a variable: the word, the first bit and the count; `from` is null if unknown. */
interface Piece {
  readonly of: Variable;
  readonly at: number;
  readonly from: number | null;
  readonly width: number;
}

/** The pieces of a target, the highest first. */
export function piecesOf(e: Expression, scope: Scope, on: Surroundings): Piece[] {
  switch (e.is) {
    case 'name': {
      const of = scope.variable(e);
      if (of.isMemory) fail(`${e.name} is a memory: say which word of it, as in ${e.name}[0]`, e);
      return [{ of, at: 0, from: 0, width: of.width }];
    }
    case 'concat':
      return e.items.flatMap((item) => piecesOf(item, scope, on));
    case 'select':
      return [selectedPiece(e, scope, on)];
    default:
      return fail('a signal, or some of its bits, is expected', e);
  }
}

function selectedPiece(e: Select, scope: Scope, on: Surroundings): Piece {
  const of = scope.variable(e);
  const [address, rest] = of.isMemory ? [e.path[0], e.path.slice(1)] : [undefined, e.path];
  const at = address ? addressOf(of, address, scope, on) : 0;
  const { from, width } = bitsNamed(e, of, rest, scope, on);
  return { of, at, from: at === -1 ? null : from, width };
}

export const widthOfPieces = (pieces: readonly Piece[]): number =>
  pieces.reduce((sum, piece) => sum + piece.width, 0);

export function put(pieces: readonly Piece[], word: Word): void {
  let low = word.width;
  for (const { of, at, from, width } of pieces) {
    low -= width;
    if (from === null) continue;
    if (width === of.width && from === 0) of.set(at, pieces.length === 1 ? word : bitsAt(word, low, width));
    else of.set(at, withBits(of.words[at]!, from, bitsAt(word, low, width)));
  }
}

function* assignment(s: Assign, scope: Scope, on: Processes): Running {
  on.count(s);
  const pieces = piecesOf(s.target, scope, on);
  const word = assigned(s.value, widthOfPieces(pieces), scope, on);
  const ps = s.delay ? psOf(s.delay.rise, scope, on) : 0;
  if (!s.blocking) {
    on.nextStep(() => put(pieces, word), ps);
    return;
  }
  if (s.delay) yield { for: 'time', ps };
  put(pieces, word);
}

function* task(s: Extract<Statement, { is: 'call' }>, scope: Scope, on: Processes): Running {
  const { routine, home } = scope.routine(s.name) ?? fail(`there is no task called ${s.name}`, s);
  if (routine.arguments.length !== s.arguments.length)
    fail(`${s.name} has ${routine.arguments.length} arguments, not ${s.arguments.length}`, s);
  const inner = home.inner(s.name);
  inner.declare([...routine.arguments, ...routine.declarations].map(stored));
  for (const [i, { name, direction }] of routine.arguments.entries()) {
    const local = inner.variables.get(name)!;
    const given = s.arguments[i] ?? fail('an argument is expected', s);
    if (direction !== 'output') local.set(0, assigned(given, local.width, scope, on));
  }
  yield* running(routine.body, inner, on);
  for (const [i, { name, direction }] of routine.arguments.entries()) {
    if (direction === 'input') continue;
    const pieces = piecesOf(s.arguments[i]!, scope, on);
    put(pieces, resized(inner.variables.get(name)!.words[0]!, widthOfPieces(pieces)));
  }
}

/** Arguments are variables, whatever is said of them. */
const stored = <T extends { readonly type: string }>(d: T) =>
  (d.type === 'wire' ? { ...d, type: 'reg' as const } : d) as T & { type: 'reg' };

/** Carries out a function, which takes no time. */
export function called(e: Call, scope: Scope, on: Processes): Word {
  const { routine, home } = scope.routine(e.name) ?? fail(`there is no function called ${e.name}`, e);
  const { width, signed } = scope.resultOf(e);
  if (routine.arguments.length !== e.arguments.length)
    fail(`${e.name} has ${routine.arguments.length} arguments, not ${e.arguments.length}`, e);
  const inner = home.inner(e.name);
  inner.declare([...routine.arguments, ...routine.declarations].map(stored));
  const { line, column } = e;
  inner.declare([
    { name: e.name, range: null, direction: null, type: 'reg', signed, words: null, line, column },
  ]);
  const result = inner.variables.get(e.name)!;
  const sized = Object.assign(Object.create(Object.getPrototypeOf(result)), result, {
    width,
    high: width - 1,
    low: 0,
    isVector: true,
    words: [wordOfDigits('x'.repeat(width), signed)],
  }) as Variable;
  inner.variables.set(e.name, sized);
  for (const [i, { name }] of routine.arguments.entries()) {
    const local = inner.variables.get(name)!;
    local.set(0, assigned(e.arguments[i]!, local.width, scope, on));
  }
  for (const _ of running(routine.body, inner, on))
    fail(`the function ${e.name} waits, which only a task may`, e);
  return { ...sized.words[0]!, signed };
}
