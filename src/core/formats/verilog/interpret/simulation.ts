import { connectionsAt } from '../elaborate';
import { expand, type Generator } from '../expand';
import { memoryBase, memoryFile } from '../memory-file';
import type { Includes } from '../preprocess';
import type { Body, Call, Expression, Generated, Item, Module, Sensitivity, Statement } from '../syntax';
import { implicitWire } from '../types';
import {
  bitsAt,
  digitsOf,
  floatingWord,
  isSame,
  resized,
  truthOf,
  type Word,
  wordOf,
  wordOfDigits,
} from '../word';
import { type DriverHost, Drivers } from './drivers';
import { assigned, evaluate } from './evaluate';
import { fail, type Known, Scope, Variable } from './place';
import { type Base, Printer } from './printer';
import { readsIn } from './reads';
import { RandomNumbers, Schedule } from './schedule';
import { called, type Processes, piecesOf, running, type Wait, widthOfPieces } from './statements';

/** Statements in one instant, and in all of a run before it is ended. */
const MOST_IN_AN_INSTANT = 100_000;
const MOST_STATEMENTS = 500_000;
const MOST_INSTANCES = 2_000;

/** A design that is carried out as its text says it, process by process (IEEE Std 1364-2005, clause 11). */
export class Simulation implements Processes, DriverHost, Generator<Scope> {
  readonly root: Scope;
  /** Whether `$finish` or `$stop` was reached. */
  get isEnded(): boolean {
    return this.schedule.isEnded;
  }
  private readonly modules: ReadonlyMap<string, Module>;
  readonly printer: Printer;
  private readonly drivers = new Drivers(this);
  private readonly schedule = new Schedule();
  private readonly numbers = new RandomNumbers();
  private statements = 0;
  private inInstant = 0;
  private instances = 0;
  /** What happens first: “always” blocks come to what they wait for, then wires are driven, then “initial” blocks begin. */
  private readonly starts = {
    always: [] as (() => void)[],
    drive: [] as (() => void)[],
    initial: [] as (() => void)[],
  };

  /** @throws VerilogError where names or parameters do not fit. */
  constructor(
    modules: readonly Module[],
    root: Module,
    parameters: ReadonlyMap<string, Known> = new Map(),
    private readonly includes: Includes = new Map(),
  ) {
    this.modules = new Map(modules.map((m) => [m.name, m]));
    this.printer = new Printer(this, Math.min(...modules.map((m) => m.precision)));
    this.root = this.instance(root, root.name, null, parameters);
    const { always, drive, initial } = this.starts;
    for (const start of [...always, ...drive, ...initial]) start();
  }

  /** Whether it has done so much that it may go on for ever. */
  get isSpent(): boolean {
    return this.statements > MOST_STATEMENTS;
  }

  /** Time in ps. */
  get now(): number {
    return this.schedule.now;
  }

  /** When something is to happen next, in ps; Infinity where nothing is. */
  get next(): number {
    return this.schedule.next;
  }

  /** Goes on to a time in ps. */
  run(until: number): void {
    this.schedule.run(until, () => {
      this.inInstant = 0;
      this.printer.atEnd();
    });
  }

  /** Sets a variable or an input of the root. */
  set(name: string, word: Word): void {
    const variable = this.root.variables.get(name)!;
    if (variable.drivers) variable.drive(this, word);
    else variable.set(0, word);
  }

  value(name: string): Word {
    return this.root.find(name)!.words[0]!;
  }

  random(): number {
    return this.numbers.next();
  }

  callFunction(e: Call, scope: Scope): Word {
    return called(e, scope, this);
  }

  count(at: Statement | Expression): void {
    this.inInstant++;
    if (this.inInstant > MOST_IN_AN_INSTANT)
      fail('the design goes on for ever within one instant: something here needs a delay', at);
    this.statements++;
  }

  soon(work: () => void): void {
    this.schedule.add('active', work);
  }

  atStart(work: () => void): void {
    this.starts.drive.push(work);
  }

  later(work: () => void, ps: number): void {
    if (ps === 0) this.schedule.add('inactive', work);
    else this.schedule.add('active', work, ps);
  }

  nextStep(work: () => void, ps: number): void {
    this.schedule.add('nonblocking', work, ps);
  }

  private instance(
    module: Module,
    name: string,
    parent: Scope | null,
    given: ReadonlyMap<string, Known>,
  ): Scope {
    if (++this.instances > MOST_INSTANCES)
      fail(`the design has more than ${MOST_INSTANCES} instances`, module);
    const scope = new Scope(name, parent, null, module, (e, at) => evaluate(e, at, this));
    this.fill(module, scope, given);
    for (const item of module.items) expand(item, scope, this);
    return scope;
  }

  private fill(body: Body, scope: Scope, given?: ReadonlyMap<string, Known>): void {
    for (const routine of body.routines) scope.routines.set(routine.name, routine);
    scope.addParameters(body, given);
    scope.declare(body.declarations);
  }

  number(e: Expression, scope: Scope): number {
    return scope.number(e);
  }

  enter(block: Generated, scope: Scope, name: string, variable: readonly [string, number] | null): Scope {
    const inner = scope.inner(name);
    if (variable) inner.constants.set(variable[0], { word: wordOf(variable[1], 32, true) });
    this.fill(block, inner);
    if (name) scope.children.set(name, inner);
    return inner;
  }

  place(item: Item, scope: Scope): void {
    switch (item.is) {
      case 'assign':
        this.implicit([item.target], scope);
        this.drivers.assign(item.target, item.value, scope, item.delay);
        return;
      case 'gate':
        this.implicit(item.terminals, scope);
        this.drivers.gate(item, scope);
        return;
      case 'instance':
        this.child(item, scope);
        return;
      case 'initial':
        this.starts.initial.push(() => this.begin(item.body, scope, false));
        return;
      case 'always': {
        const { on, body, line, column } = item;
        const loop: Statement = on === null ? body : { is: 'event', on, body, line, column };
        this.starts.always.push(() => this.begin(loop, scope, true));
        return;
      }
    }
  }

  /** Names that stand among terminals and nowhere else are wires (4.5). */
  private implicit(list: readonly Expression[], scope: Scope): void {
    for (const e of list)
      if (e.is === 'name' && !scope.find(e.name) && !scope.constant(e.name))
        scope.declare([implicitWire(e.name, e)]);
  }

  /** Lets a process run, and waits for what it waits for. */
  private begin(body: Statement, scope: Scope, isLoop: boolean): void {
    const self = this;
    function* loop(): globalThis.Generator<Wait, void, void> {
      do yield* running(body, scope, self);
      while (isLoop);
    }
    const process = loop();
    const goOn = () => {
      const step = process.next();
      if (!step.done) this.wait(step.value, goOn);
    };
    this.schedule.add('active', goOn);
  }

  private wait(wait: Wait, goOn: () => void): void {
    if (wait.for === 'time') this.later(goOn, wait.ps);
    else if (wait.for === 'truth') {
      const { condition, scope } = wait;
      const isTrue = () => truthOf(evaluate(condition, scope, this)) === true;
      if (isTrue()) this.schedule.add('active', goOn);
      else this.watch(variablesIn(condition, scope), isTrue, goOn);
    } else this.watchChange(wait.on, wait.reads, wait.scope, goOn);
  }

  /** Calls `goOn` once, after a change at which `holds`. */
  private watch(variables: Iterable<Variable>, holds: () => boolean, goOn: () => void): void {
    const all = [...variables];
    const watcher = () => {
      if (!holds()) return;
      for (const variable of all) variable.watchers.delete(watcher);
      this.schedule.add('active', goOn);
    };
    for (const variable of all) variable.watchers.add(watcher);
  }

  private watchChange(on: Sensitivity, body: Statement, scope: Scope, goOn: () => void): void {
    if (on === 'all') {
      this.watch(readsIn(body, scope), () => true, goOn);
      return;
    }
    const asked = on.map(({ edge, signal }) => ({ edge, signal, last: evaluate(signal, scope, this) }));
    const variables = new Set(asked.flatMap(({ signal }) => [...variablesIn(signal, scope)]));
    this.watch(
      variables,
      () => {
        let holds = false;
        for (const one of asked) {
          const now = evaluate(one.signal, scope, this);
          if (one.edge === null ? !isSame(one.last, now) : isEdge(one.edge, one.last, now)) holds = true;
          one.last = now;
        }
        return holds;
      },
      goOn,
    );
  }

  private child(item: Extract<Item, { is: 'instance' }>, scope: Scope): void {
    const module = this.modules.get(item.module) ?? fail(`there is no module called ${item.module}`, item);
    const open = module.parameters.filter((p) => !p.local);
    const given = new Map<string, Known>();
    for (const [i, p] of item.parameters.entries()) {
      const name = p.port ?? open[i]?.name;
      if (name && p.to) given.set(name, scope.known(p.to));
    }
    const tied = connectionsAt(item, module.ports);
    this.implicit(
      [...tied.values()].flatMap((c) => (c.to ? [c.to] : [])),
      scope,
    );
    if (this.depthOf(scope) > 100) fail(`module ${item.module} holds itself`, item);
    const child = this.instance(module, item.name, scope, given);
    scope.children.set(item.name, child);
    const directions = new Map(
      module.declarations.flatMap((d) => (d.direction ? [[d.name, d.direction] as const] : [])),
    );
    for (const [name, { to }] of tied) {
      if (!to) continue;
      const { line, column } = to;
      const inside: Expression = { is: 'name', name, line, column };
      const port = child.variable(inside);
      if (directions.get(name) === 'inout') {
        if (to.is !== 'name') fail('a wire is expected at a port of both directions', to);
        this.join(port, scope.variable(to as Extract<Expression, { is: 'name' }>));
      } else if (directions.get(name) === 'input')
        this.drivers.driven(
          inside,
          scope,
          variablesIn(to, scope),
          () => assigned(to, port.width, scope, this),
          null,
          child,
        );
      else {
        const width = widthOfPieces(piecesOf(to, scope, this));
        this.drivers.driven(to, scope, [port], () => resized(port.words[0]!, width), null);
      }
    }
  }

  private depthOf(scope: Scope): number {
    let depth = 0;
    for (let at: Scope | null = scope; at; at = at.parent) depth++;
    return depth;
  }

  /** Two nets that are one: each takes on what the others drive. */
  private join(a: Variable, b: Variable): void {
    const drive = Variable.prototype.drive;
    for (const [own, other] of [
      [a, b],
      [b, a],
    ] as const)
      own.drive = (driver: object, word: Word) => {
        drive.call(own, driver, word);
        if (!isSame(other.drivers!.get(driver) ?? floatingWord(other.width), resized(word, other.width)))
          other.drive(driver, resized(word, other.width));
      };
    for (const [own, other] of [
      [a, b],
      [b, a],
    ] as const)
      for (const [driver, word] of [...own.drivers!]) other.drive(driver, word);
  }

  system(name: string, given: readonly (Expression | null)[], scope: Scope, at: Statement): void {
    const kind = /^\$(display|write|strobe|monitor)([boh]?)$/.exec(name);
    if (kind) {
      const usual = (kind[2] || 'd') as Base;
      const print = () => this.printer.print(given, scope, usual, kind[1] !== 'write');
      if (kind[1] === 'strobe') this.schedule.add('last', print);
      else if (kind[1] === 'monitor') this.printer.watch(given, scope, usual);
      else print();
      return;
    }
    const base = memoryBase(name);
    if (base) {
      this.readMemory(base, given, scope, at);
      return;
    }
    if (name === '$timeformat') {
      this.printer.timeFormat(given, scope);
      return;
    }
    switch (name) {
      case '$finish':
      case '$stop':
        this.schedule.isEnded = true;
        return;
      case '$monitoron':
      case '$monitoroff':
      case '$dumpfile':
      case '$dumpvars':
      case '$dumpon':
      case '$dumpoff':
      case '$dumpall':
        return;
      default:
        fail(`${name} is outside the part of Verilog that is read`, at);
    }
  }

  private readMemory(
    base: 'h' | 'b',
    given: readonly (Expression | null)[],
    scope: Scope,
    at: Statement,
  ): void {
    const [file, memory] = given;
    if (file?.is !== 'text' || memory?.is !== 'name') {
      fail('the name of a file in quotes and a memory are expected', at);
      return;
    }
    const of = scope.variable(memory);
    const [from, to] = of.addresses ?? fail(`${memory.name} is no memory`, memory);
    let next = from;
    for (const { address, digits } of memoryFile(file.text, base, this.includes, at)) {
      next = address ?? next;
      if (next > to) fail(`${file.text} has more words than ${memory.name}`, at);
      of.set(next - from, resized(wordOfDigits(digits), of.width));
      next++;
    }
  }
}

const lowest = (word: Word): string => digitsOf(bitsAt(word, 0, 1));

/** Whether the lowest bit has an edge (table 9-1). */
function isEdge(edge: 'posedge' | 'negedge', before: Word, after: Word): boolean {
  const [from, to] = edge === 'posedge' ? ['0', '1'] : ['1', '0'];
  const [a, b] = [lowest(before), lowest(after)];
  return a !== b && (a === from || b === to) && a !== to && b !== from;
}

/** The variables that an expression reads. */
function variablesIn(e: Expression, scope: Scope): Set<Variable> {
  return readsIn(e, scope);
}
