import type { Body, Call, Declaration, Expression, Module, Range, Routine } from '../syntax';
import { type Place, VerilogError } from '../tokens';
import type { Names, Shape } from '../types';
import {
  floatingWord,
  isKnown,
  isSame,
  numberIn,
  resized,
  resolvedWords,
  unknownWord,
  type Word,
  wordOf,
} from '../word';

/*
 * What a design consists of while its text is interpreted: places with names, and the variables in them.
 */

export const fail = (message: string, { line, column }: Place): never => {
  throw new VerilogError(message, { line, column });
};

/** Words of one memory. */
const MOST_WORDS = 65_536;

/** A net or a variable; a memory has several words. */
export class Variable implements Shape {
  readonly words: Word[];
  /** Who is told when a word changes. */
  readonly watchers = new Set<() => void>();
  /** What drives a net, by its driver; null for a variable. */
  drivers: Map<object, Word> | null;
  /** The value of undriven bits. */
  pull: Word | null = null;

  constructor(
    readonly name: string,
    readonly width: number,
    readonly signed: boolean,
    readonly type: Declaration['type'],
    readonly high: number,
    readonly low: number,
    readonly isVector: boolean,
    /** Lowest and highest address of a memory. */
    readonly addresses: readonly [from: number, to: number] | null,
  ) {
    this.drivers = type === 'wire' || type.startsWith('supply') ? new Map() : null;
    const first = this.drivers
      ? floatingWord(width)
      : type === 'event'
        ? wordOf(0, width)
        : unknownWord(width, signed);
    this.words = Array.from({ length: addresses ? addresses[1] - addresses[0] + 1 : 1 }, () => ({
      ...first,
      signed,
    }));
    if (type === 'supply0' || type === 'supply1')
      this.drive(this, wordOf(type === 'supply1' ? -1n : 0n, width));
  }

  get isMemory(): boolean {
    return this.addresses !== null;
  }

  /** Takes a new value, and tells who watches. */
  set(at: number, word: Word): void {
    const before = this.words[at];
    if (!before || isSame(before, word)) return;
    this.words[at] = { ...word, signed: this.signed };
    for (const watcher of [...this.watchers]) watcher();
  }

  /** One of the drivers of a net has another value. */
  drive(driver: object, word: Word): void {
    this.drivers!.set(driver, word);
    let made = this.drivers!.size === 1 ? word : floatingWord(this.width);
    if (this.drivers!.size > 1) for (const each of this.drivers!.values()) made = resolvedWords(made, each);
    if (this.pull) {
      const floats = made.unknown & ~made.ones & ~this.pull.unknown;
      made = { ...made, ones: made.ones | (floats & this.pull.ones), unknown: made.unknown & ~floats };
    }
    this.set(0, made);
  }

  /** The place of a bit in a word; -1 beyond its ends. */
  placeOf(index: number): number {
    const place = this.high >= this.low ? index - this.low : this.low - index;
    return place >= 0 && place < this.width ? place : -1;
  }
}

export interface Known {
  readonly word: Word;
  readonly real?: number;
}

/** A module's instance, a generated block, or a routine that was called: names, and where they are looked up otherwise. */
export class Scope implements Names {
  readonly constants = new Map<string, Known>();
  readonly variables = new Map<string, Variable>();
  readonly routines = new Map<string, Routine>();
  readonly children = new Map<string, Scope>();
  /** Widths and signs of expressions that were asked for before. */
  readonly shapes = new Map<Expression, Shape>();

  constructor(
    readonly name: string,
    readonly parent: Scope | null,
    /** Null for an instance, whose names end at itself. */
    readonly outer: Scope | null,
    readonly module: Module,
    private readonly evaluate: (e: Expression, scope: Scope) => Word,
  ) {}

  get path(): string {
    return this.parent ? `${this.parent.path}.${this.name}` : this.name;
  }

  inner(name: string): Scope {
    return new Scope(name, this, this, this.module, this.evaluate);
  }

  declare(declarations: readonly Declaration[]): void {
    for (const d of declarations) {
      if (d.type === 'genvar') continue;
      const before = this.variables.get(d.name);
      const [high, low] = d.range
        ? [this.number(d.range.high), this.number(d.range.low)]
        : before
          ? [before.high, before.low]
          : (FIXED[d.type] ?? [0, 0]);
      const isVector = d.range !== null || d.type in FIXED || (before?.isVector ?? false);
      const words = d.words ? this.addresses(d.words, d) : null;
      const type = d.type === 'wire' && before ? before.type : d.type;
      const width = Math.abs(high - low) + 1;
      const signed = d.signed || (before?.signed ?? false);
      this.variables.set(d.name, new Variable(d.name, width, signed, type, high, low, isVector, words));
    }
  }

  private addresses({ high, low }: Range, at: Place): [number, number] {
    const [a, b] = [this.number(high), this.number(low)];
    if (Math.abs(a - b) >= MOST_WORDS) fail(`a memory has ${MOST_WORDS} words at most`, at);
    return [Math.min(a, b), Math.max(a, b)];
  }

  addParameters(
    { parameters }: Pick<Body, 'parameters'>,
    given: ReadonlyMap<string, Known> = new Map(),
  ): void {
    for (const { name, value, local, range, signed } of parameters) {
      const own = (local ? undefined : given.get(name)) ?? this.known(value);
      const word = range
        ? resized(own.word, Math.abs(this.number(range.high) - this.number(range.low)) + 1)
        : own.word;
      this.constants.set(name, { ...own, word: range || signed ? { ...word, signed } : word });
    }
  }

  known(e: Expression): Known {
    if (e.is === 'number' && e.digits.startsWith('r'))
      return { word: unknownWord(1), real: Number(e.digits.slice(1)) };
    return (e.is === 'name' ? this.constant(e.name) : undefined) ?? { word: this.evaluate(e, this) };
  }

  constant(name: string): Known | undefined {
    for (let at: Scope | null = this; at; at = at.outer) {
      const found = at.constants.get(name);
      if (found) return found;
      if (at.variables.has(name)) return undefined;
    }
    return undefined;
  }

  /** A variable by its name, or by a path through instances and blocks. */
  find(name: string): Variable | undefined {
    for (let at: Scope | null = this; at; at = at.outer) {
      const found = at.variables.get(name);
      if (found) return found;
    }
    if (!name.includes('.')) return undefined;
    const [first, ...rest] = name.split('.');
    for (let at: Scope | null = this; at; at = at.parent) {
      let inside = at.children.get(first!) ?? (at.name === first ? at : undefined);
      for (const step of rest.slice(0, -1)) inside = inside?.children.get(step);
      const found = inside?.variables.get(rest.at(-1)!);
      if (found) return found;
    }
    return undefined;
  }

  variable(e: { readonly name: string } & Place): Variable {
    return this.find(e.name) ?? fail(`${e.name} is not declared`, e);
  }

  /** The routine, and the scope in which it stands. */
  routine(name: string): { routine: Routine; home: Scope } | undefined {
    for (let at: Scope | null = this; at; at = at.outer) {
      const routine = at.routines.get(name);
      if (routine) return { routine, home: at };
    }
    return undefined;
  }

  shape(e: { readonly name: string } & Place): Shape {
    const constant = this.constant(e.name);
    return constant ? { ...constant.word, isVector: true } : this.variable(e);
  }

  resultOf(e: Call): Shape {
    const found = this.routine(e.name);
    if (!found?.routine.result) return fail(`there is no function called ${e.name}`, e);
    const { range, signed, isInteger } = found.routine.result;
    const width = range
      ? Math.abs(found.home.number(range.high) - found.home.number(range.low)) + 1
      : isInteger
        ? 32
        : 1;
    return { width, signed };
  }

  number(e: Expression): number {
    const { word } = this.known(e);
    return isKnown(word) ? Number(numberIn(word)) : fail('a number without x and z is expected', e);
  }
}

const FIXED: Readonly<Record<string, readonly [number, number]>> = {
  integer: [31, 0],
  time: [63, 0],
  real: [63, 0],
};
