import type { Params } from '../../circuit/sheet';
import { type Bit, C0, C1, CX } from './cells';
import { asOneChoice, coversAll, wantedBy } from './labels';
import type { Env, Logic } from './logic';
import { memoryBase, memoryFile } from './memory-file';
import { bitsOfWord, fail, type Scope } from './scope';
import type { Assign, Call, Declaration, Expression, Routine, Statement } from './syntax';
import { type Target, Targets, widthOfTarget } from './targets';
import type { Place } from './tokens';
import { chosen, Growth, KEPT, type Meeting, type Tree } from './trees';
import { signedOf, widthOf } from './types';
import { resized, wordOfDigits } from './word';

/** Rounds of one loop, and of all loops of a block. */
const MOST_ROUNDS = 100_000;
/** Routines that call each other. */
const MOST_CALLS = 200;
/** Items of a case. */
const MOST_CASES = 400;

/** What signals have become: at once (`=`), and at the end of the step (`<=`). */
interface State {
  now: Map<Bit, Tree>;
  next: Map<Bit, Tree>;
}

const copied = ({ now, next }: State): State => ({ now: new Map(now), next: new Map(next) });

/** Executes the statements of a process: loops are unrolled, routines put in, branches become choices. */
export class Execution implements Env {
  private state: State = { now: new Map(), next: new Map() };
  /** Variables that only this execution has: unknown before they are assigned. */
  private readonly locals = new Set<Bit>();
  readonly growth: Growth;
  private readonly targets: Targets;
  /** Bits whose value from before was asked for. */
  readonly readBefore = new Set<Bit>();
  readonly delays = new Map<Bit, Params>();
  private rounds = 0;
  private calls = 0;

  constructor(private readonly logic: Logic) {
    this.growth = new Growth(logic.gates);
    this.targets = new Targets(logic);
  }

  readAll(bits: readonly Bit[]): Bit[] {
    const { now } = this.state;
    if (!bits.some((bit) => bit < 0 || now.has(bit) || this.locals.has(bit))) {
      for (const bit of bits) this.readBefore.add(bit);
      return [...bits];
    }
    const trees = bits.map((bit): Tree => (bit < 0 ? bit : (now.get(bit) ?? KEPT)));
    const self = bits.map((bit) => (this.locals.has(bit) ? CX : bit));
    for (const [i, tree] of trees.entries())
      if (tree !== C0 && tree !== C1 && mayKeep(tree)) this.readBefore.add(bits[i]!);
    return this.growth.read(trees, self);
  }

  /** What each bit that was assigned becomes. @throws VerilogError where one is assigned both ways. */
  results(at: Place): Map<Bit, Tree> {
    const { now, next } = this.state;
    const made = new Map<Bit, Tree>();
    for (const [bit, tree] of now) if (!this.locals.has(bit)) made.set(bit, tree);
    for (const [bit, tree] of next) {
      if (made.has(bit))
        fail('a signal is assigned with “=” and with “<=” in one block: one of them is expected', at);
      made.set(bit, tree);
    }
    return made;
  }

  /** Whether a bit was assigned with “=”. */
  isBlocking(bit: Bit): boolean {
    return this.state.now.has(bit);
  }

  run(s: Statement): void {
    switch (s.is) {
      case 'block':
        this.block(s);
        return;
      case 'assign':
        this.assign(s);
        return;
      case 'if':
        this.branch(this.logic.truth(s.condition), s.yes, s.no);
        return;
      case 'case':
        this.cases(s);
        return;
      case 'for':
        this.assign(s.first);
        for (let round = 0; this.goesOn(s.condition, round); round++) {
          this.run(s.body);
          this.assign(s.step);
        }
        return;
      case 'while':
        for (let round = 0; this.goesOn(s.condition, round); round++) this.run(s.body);
        return;
      case 'repeat': {
        const times = this.logic.scope.number(s.count);
        for (let round = 0; round < times; round++) {
          this.count(s);
          this.run(s.body);
        }
        return;
      }
      case 'call':
        // What a simulator prints is no part of the circuit.
        if (memoryBase(s.name)) this.readMemory(s);
        else if (!s.name.startsWith('$')) this.task(s);
        return;
      case 'delay':
      case 'event':
      case 'wait':
      case 'forever':
        fail(
          `${WAITING[s.is]} belongs in a test bench: a circuit waits for a clock edge, as in always @(posedge clk)`,
          s,
        );
        break;
      case 'disable':
        fail('“disable” is outside the part of Verilog that is read in a circuit: use an “if”', s);
        break;
      case 'trigger':
        fail('an event belongs in a test bench', s);
    }
  }

  private block(s: Extract<Statement, { is: 'block' }>): void {
    if (s.declarations.length === 0) {
      for (const inner of s.statements) this.run(inner);
      return;
    }
    const scope = this.logic.scope.inner();
    this.declareLocals(scope, s.declarations);
    this.logic.within(scope, this, () => {
      for (const inner of s.statements) this.run(inner);
    });
  }

  private declareLocals(scope: Scope, declarations: readonly Declaration[]): void {
    scope.declare(declarations);
    for (const { name } of declarations)
      for (const bit of scope.signals.get(name)!.bits) this.locals.add(bit);
  }

  private count(at: Place): void {
    if (++this.rounds > MOST_ROUNDS) fail(`the loops here go round more than ${MOST_ROUNDS} times`, at);
  }

  private goesOn(condition: Expression, round: number): boolean {
    this.count(condition);
    const truth = this.logic.truth(condition);
    if (truth >= 0)
      fail(
        'how often this loop goes round depends on signals: a circuit needs a number that is known',
        condition,
      );
    if (truth === CX && round === 0)
      fail('whether this loop begins is unknown: give its variable a value', condition);
    return truth === C1;
  }

  /** Runs statements as if nothing else did, from the present state. */
  private aside(work: () => void): State {
    const before = this.state;
    this.state = copied(before);
    work();
    const after = this.state;
    this.state = before;
    return after;
  }

  private meet(at: Meeting, states: readonly State[]): void {
    const joined = (of: (state: State) => Map<Bit, Tree>): Map<Bit, Tree> => {
      const made = new Map<Bit, Tree>();
      for (const state of new Set(states))
        for (const bit of of(state).keys())
          if (!made.has(bit))
            made.set(
              bit,
              chosen(
                at,
                states.map((one) => of(one).get(bit) ?? KEPT),
              ),
            );
      return made;
    };
    this.state = { now: joined((state) => state.now), next: joined((state) => state.next) };
  }

  private branch(condition: Bit, yes: Statement, no: Statement | null): void {
    if (condition === C1) this.run(yes);
    else if (condition < 0) {
      // An unknown condition takes the else branch, as 0 does.
      if (no) this.run(no);
    } else {
      const [then, otherwise] = [this.aside(() => this.run(yes)), this.aside(() => no && this.run(no))];
      this.meet({ select: [condition] }, [otherwise, then]);
    }
  }

  private assign(s: Assign): void {
    const target = this.targets.of(s.target);
    const width = target.reduce((sum, piece) => sum + widthOfTarget(piece), 0);
    const { bits } = this.logic.assigned(s.value, width);
    if (s.delay) {
      const delay = this.logic.delay(s.delay);
      for (const piece of target)
        if ('bits' in piece) for (const bit of piece.bits) this.delays.set(bit, delay);
    }
    this.put(target, bits, s.blocking);
  }

  private put(target: readonly Target[], value: readonly Bit[], blocking: boolean): void {
    const into = blocking ? this.state.now : this.state.next;
    let from = 0;
    for (const piece of target) {
      const bits = value.slice(from, from + widthOfTarget(piece));
      from += bits.length;
      if ('bits' in piece) for (const [i, bit] of piece.bits.entries()) into.set(bit, bits[i]!);
      else
        for (const { when, bits: own } of piece.places) {
          const at: Meeting = { select: [when] };
          for (const [i, bit] of own.entries())
            if (bit >= 0)
              into.set(bit, when === C1 ? bits[i]! : chosen(at, [into.get(bit) ?? KEPT, bits[i]!]));
        }
    }
  }

  private cases(s: Extract<Statement, { is: 'case' }>): void {
    const { logic } = this;
    if (s.items.length > MOST_CASES)
      fail(`a chain of more than ${MOST_CASES} cases is outside the part of Verilog that is read`, s);
    const all = [s.chosen, ...s.items.flatMap(({ labels }) => labels)];
    const width = Math.max(...all.map((e) => widthOf(e, logic.scope)));
    const signed = all.every((e) => signedOf(e, logic.scope));
    const bits = logic.value(s.chosen, width, signed).bits;
    const patterns = s.items.map(({ labels }) =>
      labels.map((label) => logic.value(label, width, signed).bits),
    );
    const wanted = patterns.map((list) => list.map((pattern) => wantedBy(s.how, pattern)));
    const one = asOneChoice(s.items, bits, wanted);
    if (one) {
      const bodies = s.items.map(({ body }) => this.aside(() => this.run(body)));
      const rest = this.aside(() => s.otherwise && this.run(s.otherwise));
      this.meet(
        { select: one.select },
        one.items.map((item) => (item === -1 ? rest : bodies[item]!)),
      );
      return;
    }
    const full = s.otherwise === null && coversAll(bits, wanted.flat());
    const conditions = s.items.map((_, i) => {
      if (full && i === s.items.length - 1) return C1;
      return patterns[i]!.reduce((or, pattern, n) => {
        const want = wanted[i]![n]!;
        return logic.gates.or(
          or,
          want === 'never'
            ? C0
            : want === 'signals'
              ? this.sameBits(bits, pattern)
              : logic.gates.equals(bits, want),
        );
      }, C0);
    });
    this.chain(s, conditions);
  }

  private sameBits(a: readonly Bit[], b: readonly Bit[]): Bit {
    const { gates } = this.logic;
    return gates.reduced('nor', gates.bitwise('xor', [a, b]).bits).bits[0]!;
  }

  /** One item after the other: the first that fits. */
  private chain(s: Extract<Statement, { is: 'case' }>, conditions: readonly Bit[]): void {
    const last = conditions.indexOf(C1);
    const asked = s.items.slice(0, last === -1 ? undefined : last).flatMap((item, i) => {
      const condition = conditions[i]!;
      return condition === C0 ? [] : [{ condition, state: this.aside(() => this.run(item.body)) }];
    });
    const otherwise = last === -1 ? s.otherwise : s.items[last]!.body;
    this.state = this.aside(() => otherwise && this.run(otherwise));
    for (const { condition, state } of asked.reverse())
      this.meet({ select: [condition] }, [this.state, state]);
  }

  private readMemory(s: Extract<Statement, { is: 'call' }>): void {
    const [file, memory] = s.arguments;
    if (file?.is !== 'text' || memory?.is !== 'name') {
      fail('the name of a file in quotes and a memory are expected', s);
      return;
    }
    const signal = this.logic.scope.signal(memory.name, memory, false);
    if (!signal.isMemory) fail(`${memory.name} is no memory`, memory);
    const words = this.logic.selects.wordsOf(signal);
    let next = 0;
    for (const { address, digits } of memoryFile(file.text, memoryBase(s.name)!, this.logic.includes, s)) {
      next = address === null ? next : address - signal.from;
      const bits = words[next] ?? fail(`${file.text} has more words than ${memory.name}`, s);
      const value = bitsOfWord(resized(wordOfDigits(digits), signal.width));
      for (const [i, bit] of bits.entries()) this.state.now.set(bit, value[i]!);
      next++;
    }
  }

  /** Puts in a function of the file. */
  callFunction(e: Call): Bit[] {
    const { routine, scope } = this.enter(e.name, e);
    if (!routine.result) fail(`${e.name} is a task, and a function is expected`, e);
    const { width, signed } = this.logic.scope.resultOf(e);
    const { line, column } = e;
    const range = width === 1 ? null : sizedRange(width, e);
    this.declareLocals(scope, [
      { name: routine.name, range, direction: null, type: 'reg', signed, words: null, line, column },
    ]);
    if (e.arguments.length !== routine.arguments.length)
      fail(`${e.name} has ${routine.arguments.length} arguments, not ${e.arguments.length}`, e);
    const values = routine.arguments.map(
      (argument, i) => this.logic.assigned(e.arguments[i]!, scope.signals.get(argument.name)!.width).bits,
    );
    for (const [i, argument] of routine.arguments.entries())
      this.put([scope.signals.get(argument.name)!], values[i]!, true);
    this.logic.within(scope, this, () => this.run(routine.body));
    this.calls--;
    return this.readAll(scope.signals.get(routine.name)!.bits);
  }

  private task(s: Extract<Statement, { is: 'call' }>): void {
    const { routine, scope } = this.enter(s.name, s);
    if (routine.result) fail(`${s.name} is a function, and a task is expected`, s);
    if (s.arguments.length !== routine.arguments.length)
      fail(`${s.name} has ${routine.arguments.length} arguments, not ${s.arguments.length}`, s);
    for (const [i, argument] of routine.arguments.entries()) {
      const given = s.arguments[i] ?? fail('an argument is expected', s);
      const local = scope.signals.get(argument.name)!;
      if (argument.direction !== 'output')
        this.put([local], this.logic.assigned(given, local.width).bits, true);
    }
    this.logic.within(scope, this, () => this.run(routine.body));
    this.calls--;
    for (const [i, argument] of routine.arguments.entries()) {
      if (argument.direction === 'input') continue;
      const target = this.targets.of(s.arguments[i]!);
      const width = target.reduce((sum, piece) => sum + widthOfTarget(piece), 0);
      const bits = this.readAll(scope.signals.get(argument.name)!.bits);
      this.put(
        target,
        Array.from({ length: width }, (_, n) => bits[n] ?? C0),
        true,
      );
    }
  }

  private enter(name: string, at: Place): { routine: Routine; scope: Scope } {
    const from = this.logic.scope;
    const routine = from.routine(name) ?? fail(`there is no function or task called ${name}`, at);
    if (++this.calls > MOST_CALLS) fail(`${name} calls itself deeper than ${MOST_CALLS} levels`, at);
    const scope = from.homeOf(name).inner();
    this.declareLocals(scope, [...routine.arguments, ...routine.declarations]);
    return { routine, scope };
  }
}

const mayKeep = (tree: Tree): boolean =>
  tree === KEPT || (typeof tree === 'object' && tree.branches.some(mayKeep));

const sizedRange = (width: number, { line, column }: Place) => {
  const number = (value: number): Expression => ({
    is: 'number',
    digits: value.toString(2).padStart(32, '0'),
    sized: false,
    signed: true,
    line,
    column,
  });
  return { high: number(width - 1), low: number(0) };
};

const WAITING = {
  delay: 'a delay (#)',
  event: 'waiting for an event (@)',
  wait: '“wait”',
  forever: '“forever”',
} as const;
