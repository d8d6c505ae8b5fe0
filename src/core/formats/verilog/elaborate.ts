import { MOST_PARTS, MOST_SHEETS, MOST_WIRES } from '../../circuit/limits';
import type { Sheet } from '../../circuit/sheet';
import { writePins } from '../../parts/block';
import { type Bit, Cells } from './cells';
import { expand, type Generator } from './expand';
import { NOW } from './gates';
import { Logic } from './logic';
import type { Includes } from './preprocess';
import { Registers } from './registers';
import { type Constant, fail, Scope } from './scope';
import type { Body, Connection, Direction, Expression, Generated, Item, Module, Statement } from './syntax';
import type { Place } from './tokens';
import { digitsOf, wordOf } from './word';

/** Levels of modules in one another, as many as of blocks. */
export const MOST_NESTED = 100;

/** Something that one should know of a circuit that was made: `line 12: q became a latch`. */
export interface Note extends Place {
  readonly text: string;
}

/**
 * The sheets of a design, each root module before those that it uses. A module that is used with other parameters has a
 * sheet for each set of them.
 * @param given parameters of the roots.
 * @param includes texts of files that memories are filled from.
 * @throws VerilogError
 */
export function elaborate(
  modules: readonly Module[],
  roots: readonly Module[],
  given: ReadonlyMap<string, Constant> = new Map(),
  includes?: Includes,
): { readonly sheets: Sheet[]; readonly notes: readonly Note[] } {
  const design = new Design(modules, includes);
  for (const root of roots) design.use(root, given, root);
  return { sheets: design.sheets(), notes: design.notes };
}

/** Modules that no other uses. */
export function rootsOf(modules: readonly Module[]): Module[] {
  const used = new Set(modules.flatMap((m) => instancesIn(m.items)));
  return modules.filter((m) => !used.has(m.name));
}

/** Names of the modules that items use, those in generate constructs too. */
export function instancesIn(items: readonly Item[]): string[] {
  return items.flatMap((item): string[] => {
    switch (item.is) {
      case 'instance':
        return [item.module];
      case 'generate block':
      case 'generate for':
        return instancesIn(item.body.items);
      case 'generate if':
        return [...instancesIn(item.yes.items), ...instancesIn(item.no?.items ?? [])];
      case 'generate case':
        return [...item.items, ...(item.otherwise ? [{ body: item.otherwise }] : [])].flatMap(({ body }) =>
          instancesIn(body.items),
        );
      default:
        return [];
    }
  });
}

interface PortOf {
  readonly name: string;
  readonly direction: Direction;
  readonly width: number;
}

interface Use {
  readonly id: string;
  readonly ports: readonly PortOf[];
}

/** The pin through which a port of both directions is read. */
const readPin = (name: string) => `${name}_in`;

class Design {
  private readonly byName: ReadonlyMap<string, Module>;
  private readonly uses = new Map<string, Use>();
  private readonly made: (Sheet | null)[] = [];
  private readonly open: string[] = [];
  readonly notes: Note[] = [];

  constructor(
    modules: readonly Module[],
    readonly includes: Includes = new Map(),
  ) {
    this.byName = new Map(modules.map((m) => [m.name, m]));
  }

  sheets(): Sheet[] {
    return this.made.filter((s) => s !== null);
  }

  /** The sheet of a module with these parameters. */
  use(module: Module, parameters: ReadonlyMap<string, Constant>, at: Place): Use {
    const values = [...parameters].map(([name, { word, real }]) => `${name}=${real ?? digitsOf(word)}`);
    const key = `${module.name} ${values.join(' ')}`;
    const known = this.uses.get(key);
    if (known) return known;
    if (this.open.length >= MOST_NESTED) {
      const chain = [...this.open.slice(this.open.indexOf(module.name)), module.name];
      if (this.open.includes(module.name) && chain.length < 8)
        fail(`module ${module.name} holds itself: ${chain.join(' holds ')}`, module);
      fail(`modules are held in one another deeper than ${MOST_NESTED} levels`, at);
    }
    if (this.made.length >= MOST_SHEETS)
      fail(`there are more than ${MOST_SHEETS} modules, counting each set of parameters`, module);
    const at0 = this.made.push(null) - 1;
    this.open.push(module.name);
    const shown = [...parameters.values()].map(
      ({ word, real }) => real ?? (word.unknown ? digitsOf(word) : word.ones),
    );
    const title = parameters.size ? `${module.name} ${shown.join(', ')}` : module.name;
    const reader = new ModuleReader(module, parameters, this, `m${at0 + 1}`, title.slice(0, 60));
    this.made[at0] = reader.sheet();
    this.open.pop();
    const use = { id: `m${at0 + 1}`, ports: reader.ports() };
    this.uses.set(key, use);
    return use;
  }

  module(name: string): Module | undefined {
    return this.byName.get(name);
  }
}

/** One module with one set of parameters on its way to a sheet. */
class ModuleReader implements Generator<Scope> {
  private readonly cells: Cells;
  private readonly scope: Scope;
  private readonly logic: Logic;
  private readonly registers: Registers;

  constructor(
    private readonly module: Module,
    given: ReadonlyMap<string, Constant>,
    private readonly design: Design,
    id: string,
    name: string,
  ) {
    this.cells = new Cells(id, name);
    this.logic = new Logic(this.cells, design.includes);
    const evaluate = (e: Expression, scope: Scope) => this.logic.constant(e, scope);
    this.scope = new Scope(this.cells, evaluate, null, module.unit);
    this.logic.scope = this.scope;
    this.registers = new Registers(this.logic, this.cells, (text, { line, column }) => {
      if (!design.notes.some((note) => note.text === text && note.line === line))
        design.notes.push({ text, line, column });
    });
    this.logic.callFunction = (e) => this.registers.called(e);
    const local = (name: string) => module.parameters.find((p) => p.name === name && !p.local);
    for (const p of given.keys()) if (!local(p)) fail(`module ${module.name} has no parameter ${p}`, module);
    this.declare(module, this.scope, given);
    this.checkPorts();
  }

  private declare(body: Body, scope: Scope, given?: ReadonlyMap<string, Constant>): void {
    // Functions may stand in the ranges of signals and in parameters.
    for (const routine of body.routines) scope.routines.set(routine.name, routine);
    scope.addParameters(body, given);
    scope.declare(body.declarations);
  }

  private checkPorts(): void {
    const { module, scope } = this;
    const ports = new Set(module.ports);
    for (const d of module.declarations)
      if (d.direction && !ports.has(d.name))
        fail(`${d.name} is not in the list of ports of ${module.name}`, d);
    for (const name of module.ports)
      if (!scope.directions.has(name))
        fail(`port ${name} of ${module.name} is neither input nor output`, module);
    for (const port of module.ports) if (!ports.delete(port)) fail(`port ${port} is named twice`, module);
  }

  ports(): PortOf[] {
    return this.module.ports.map((name) => ({
      name,
      direction: this.scope.directions.get(name)!,
      width: this.scope.signals.get(name)!.width,
    }));
  }

  sheet(): Sheet {
    this.checkSize(this.module.ports.length, MOST_PARTS, 'parts', this.module);
    for (const [rank, { name, direction, width }] of this.ports().entries()) {
      const { bits, driven } = this.scope.signals.get(name)!;
      if (direction !== 'output')
        this.port('in', direction === 'inout' ? readPin(name) : name, width, bits, rank);
      if (direction !== 'input') this.port('out', name, width, driven ?? bits, rank);
    }
    this.initialValues(this.module.items, this.scope);
    for (const item of this.module.items) {
      expand(item, this.scope, this);
      this.checkSize(this.cells.count, MOST_PARTS, 'parts', item);
    }
    const leaving = new Set(this.module.ports.flatMap((name) => this.scope.signals.get(name)!.bits));
    this.registers.finish((bit) => leaving.has(bit));
    const made = this.cells.sheet();
    this.checkSize(made.parts.size, MOST_PARTS, 'parts', this.module);
    this.checkSize(made.wires.size, MOST_WIRES, 'wires', this.module);
    return made;
  }

  private port(
    direction: 'in' | 'out',
    name: string,
    width: number,
    bits: readonly Bit[],
    rank: number,
  ): void {
    this.cells.add(
      'port',
      { direction, width },
      { [direction === 'in' ? 'Y' : 'A']: bits },
      `p_${name}`,
      name,
      rank,
    );
  }

  /** Refuses a module that is too large for a sheet. */
  private checkSize(size: number, most: number, noun: string, at: Place): void {
    if (size > most)
      fail(`module ${this.module.name} needs more than ${most} ${noun}, the most of a sheet`, at);
  }

  /** What storage begins with comes first, wherever it stands; memories that nothing else writes become tables. */
  private initialValues(items: readonly Item[], scope: Scope): void {
    const written = new Set<string>();
    for (const item of items) {
      if (item.is === 'initial') this.logic.within(scope, null, () => this.registers.initial(item));
      if (item.is === 'always') targetsIn(item.body, written);
    }
    for (const signal of scope.signals.values())
      if (signal.isMemory && !written.has(signal.name)) {
        const content = this.registers.content(this.logic.selects.wordsOf(signal));
        if (content) this.logic.fixed.set(signal.bits[0]!, content);
      }
  }

  number(e: Expression, scope: Scope): number {
    return this.logic.within(scope, null, () => scope.number(e));
  }

  enter(block: Generated, scope: Scope, _: string, variable: readonly [string, number] | null): Scope {
    const inner = scope.inner();
    if (variable) inner.constants.set(variable[0], { word: wordOf(variable[1], 32, true) });
    this.logic.within(inner, null, () => this.declare(block, inner));
    this.initialValues(block.items, inner);
    return inner;
  }

  place(item: Item, scope: Scope): void {
    this.logic.within(scope, null, () => this.item(item, scope));
  }

  private item(item: Item, scope: Scope): void {
    switch (item.is) {
      case 'assign': {
        const target = this.logic.target(item.target, true);
        this.logic.connect(
          target,
          this.logic.assigned(item.value, target.length),
          this.logic.delay(item.delay),
        );
        return;
      }
      case 'gate':
        scope.implicit = true;
        this.gate(item);
        scope.implicit = false;
        return;
      case 'instance':
        scope.implicit = true;
        this.instance(item);
        scope.implicit = false;
        return;
      case 'always':
        this.registers.always(item);
        return;
    }
  }

  private gate(item: Extract<Item, { is: 'gate' }>): void {
    const { kind, terminals, name } = item;
    const { gates } = this.logic;
    const delay = this.logic.delay(item.delay);
    const single = (e: Expression) => this.logic.own(e).bits[0]!;
    const output = (e: Expression) => {
      const bits = this.logic.target(e, true);
      if (bits.length !== 1) fail(`the output of ${kind} has one bit, not ${bits.length}`, e);
      return bits[0]!;
    };
    if (kind === 'pullup' || kind === 'pulldown') {
      this.cells.add('pull', { to: kind === 'pullup' ? 'up' : 'down' }, { A: [output(terminals[0]!)] }, name);
      return;
    }
    if (kind === 'buf' || kind === 'not') {
      const from = single(terminals.at(-1)!);
      for (const e of terminals.slice(0, -1))
        gates.gate(kind === 'buf' ? 'buffer' : 'not', [[from]], delay, name, [output(e)]);
      return;
    }
    if (kind.includes('if')) {
      const [data, enable] = [single(terminals[1]!), single(terminals[2]!)];
      const A = kind.startsWith('notif') ? gates.gate('not', [[data]], NOW) : [data];
      const level = kind.endsWith('1') ? 'high' : 'low';
      this.cells.add(
        'tri',
        { enable: level, ...delay },
        { A, EN: [enable], Y: [output(terminals[0]!)] },
        name,
      );
      return;
    }
    gates.wide(
      kind,
      terminals.slice(1).map((e) => [single(e)]),
      delay,
      name,
      [output(terminals[0]!)],
    );
  }

  private instance(item: Extract<Item, { is: 'instance' }>): void {
    const module = this.design.module(item.module) ?? fail(`there is no module called ${item.module}`, item);
    const { id, ports } = this.design.use(module, parametersAt(item, module, this.logic.scope), item);
    const tied = connectionsAt(
      item,
      ports.map((p) => p.name),
    );
    const pins: Record<string, readonly Bit[]> = {};
    for (const { name, direction, width } of ports) {
      const c = tied.get(name);
      if (!c?.to) continue;
      if (direction === 'input') {
        pins[name] = this.logic.assigned(c.to, width).bits.slice(0, width);
        continue;
      }
      const bits = this.logic.target(c.to, true).slice(0, width);
      pins[name] = [...bits, ...this.cells.fresh(width - bits.length)];
      if (direction === 'inout') pins[readPin(name)] = this.logic.assigned(c.to, width).bits.slice(0, width);
    }
    const pinsOf = (direction: Direction) =>
      writePins(
        ports
          .filter((p) => p.direction === direction || p.direction === 'inout')
          .map((p) =>
            p.direction === 'inout' && direction === 'input' ? { ...p, name: readPin(p.name) } : p,
          ),
      );
    const params = {
      sheet: id,
      title: item.module.slice(0, 60),
      inputs: pinsOf('input'),
      outputs: pinsOf('output'),
    };
    this.cells.add('block', params, pins, item.name, item.name.slice(0, 60));
  }
}

/** The parameters that an instance gives to a module. */
export function parametersAt(
  item: Extract<Item, { is: 'instance' }>,
  module: Module,
  scope: Scope,
): Map<string, Constant> {
  const parameters = new Map<string, Constant>();
  const open = module.parameters.filter((p) => !p.local);
  for (const [i, p] of item.parameters.entries()) {
    const name = p.port ?? open[i]?.name ?? fail(`${item.module} has ${open.length} parameters`, p);
    if (!p.to) continue;
    if (!open.some((o) => o.name === name)) fail(`${item.module} has no parameter ${name}`, p);
    parameters.set(name, scope.constantOf(p.to));
  }
  return parameters;
}

/** What is connected to each port of an instance. */
export function connectionsAt(
  item: Extract<Item, { is: 'instance' }>,
  ports: readonly string[],
): Map<string, Connection> {
  const tied = new Map<string, Connection>();
  const byName = item.connections.some((c) => c.port !== null);
  for (const [i, c] of item.connections.entries()) {
    if (byName !== (c.port !== null)) fail('connections are all by name or all by position', c);
    const name = c.port ?? ports[i] ?? fail(`${item.module} has ${ports.length} ports`, c);
    if (!ports.includes(name)) fail(`${item.module} has no port ${name}`, c);
    if (tied.has(name)) fail(`port ${name} is connected twice`, c);
    tied.set(name, c);
  }
  return tied;
}

/** Names of signals that statements assign. */
function targetsIn(s: Statement | null, into: Set<string>): void {
  if (!s) return;
  const named = (e: Expression): void => {
    if (e.is === 'name' || e.is === 'select') into.add(e.name);
    else if (e.is === 'concat') for (const item of e.items) named(item);
  };
  switch (s.is) {
    case 'block':
      for (const inner of s.statements) targetsIn(inner, into);
      return;
    case 'if':
      targetsIn(s.yes, into);
      targetsIn(s.no, into);
      return;
    case 'case':
      for (const { body } of s.items) targetsIn(body, into);
      targetsIn(s.otherwise, into);
      return;
    case 'assign':
      named(s.target);
      return;
    case 'call':
      for (const given of s.arguments) if (given) named(given);
      return;
    case 'for':
    case 'while':
    case 'repeat':
    case 'forever':
    case 'wait':
    case 'delay':
    case 'event':
      targetsIn(s.body, into);
      return;
  }
}
