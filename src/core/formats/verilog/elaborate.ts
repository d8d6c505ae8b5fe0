import { MOST_PARTS, MOST_SHEETS, MOST_WIRES } from '../../circuit/limits';
import type { Sheet } from '../../circuit/sheet';
import { writePins } from '../../parts/block';
import { type Bit, Cells } from './cells';
import { Logic } from './logic';
import { Registers } from './registers';
import { fail, Scope } from './scope';
import type { Connection, Expression, Item, Module } from './syntax';
import type { Place } from './tokens';

/** Levels of modules in one another, as many as of blocks. */
export const MOST_NESTED = 100;

/**
 * The sheets of a design, each root module before those that it uses. A module that is used with other parameters has a
 * sheet for each set of them.
 * @throws VerilogError
 */
export function elaborate(modules: readonly Module[], roots: readonly Module[]): Sheet[] {
  const design = new Design(modules);
  for (const root of roots) design.use(root, new Map());
  return design.sheets();
}

/** Modules that no other uses. */
export function rootsOf(modules: readonly Module[]): Module[] {
  const used = new Set(modules.flatMap((m) => m.items.map((i) => (i.is === 'instance' ? i.module : ''))));
  return modules.filter((m) => !used.has(m.name));
}

interface PortOf {
  readonly name: string;
  readonly direction: 'input' | 'output';
  readonly width: number;
}

interface Use {
  readonly id: string;
  readonly ports: readonly PortOf[];
}

class Design {
  private readonly byName: ReadonlyMap<string, Module>;
  private readonly uses = new Map<string, Use>();
  private readonly made: (Sheet | null)[] = [];
  private readonly open: string[] = [];

  constructor(modules: readonly Module[]) {
    this.byName = new Map(modules.map((m) => [m.name, m]));
  }

  sheets(): Sheet[] {
    return this.made.filter((s) => s !== null);
  }

  /** The sheet of a module with these parameters. */
  use(module: Module, parameters: ReadonlyMap<string, number>): Use {
    const key = `${module.name} ${[...parameters].map(([n, v]) => `${n}=${v}`).join(' ')}`;
    const known = this.uses.get(key);
    if (known) return known;
    if (this.open.includes(module.name))
      fail(
        `module ${module.name} holds itself: ${[...this.open.slice(this.open.indexOf(module.name)), module.name].join(' holds ')}`,
        module,
      );
    if (this.open.length >= MOST_NESTED)
      fail(`modules are held in one another deeper than ${MOST_NESTED} levels`, module);
    if (this.made.length >= MOST_SHEETS)
      fail(`there are more than ${MOST_SHEETS} modules, counting each set of parameters`, module);
    const at = this.made.push(null) - 1;
    this.open.push(module.name);
    const title = parameters.size ? `${module.name} ${[...parameters.values()].join(', ')}` : module.name;
    const reader = new ModuleReader(module, parameters, this, `m${at + 1}`, title.slice(0, 60));
    this.made[at] = reader.sheet();
    this.open.pop();
    const use = { id: `m${at + 1}`, ports: reader.ports() };
    this.uses.set(key, use);
    return use;
  }

  module(name: string): Module | undefined {
    return this.byName.get(name);
  }
}

/** One module with one set of parameters on its way to a sheet. */
class ModuleReader {
  private readonly cells: Cells;
  private readonly scope: Scope;
  private readonly logic: Logic;
  private readonly registers: Registers;

  constructor(
    private readonly module: Module,
    given: ReadonlyMap<string, number>,
    private readonly design: Design,
    id: string,
    name: string,
  ) {
    this.cells = new Cells(id, name);
    this.scope = new Scope(module, given, this.cells);
    this.logic = new Logic(this.scope, this.cells);
    this.registers = new Registers(this.scope, this.logic, this.cells);
  }

  ports(): PortOf[] {
    return this.module.ports.map((name) => ({
      name,
      direction: this.scope.directions.get(name)!,
      width: this.scope.signals.get(name)!.bits.length,
    }));
  }

  sheet(): Sheet {
    this.checkSize(this.module.ports.length, MOST_PARTS, 'parts', this.module);
    for (const [rank, { name, direction, width }] of this.ports().entries()) {
      const into = direction === 'input';
      const { bits } = this.scope.signals.get(name)!;
      this.cells.add(
        'port',
        { direction: into ? 'in' : 'out', width },
        { [into ? 'Y' : 'A']: bits },
        `p_${name}`,
        name,
        rank,
      );
    }
    for (const item of this.module.items) if (item.is === 'initial') this.initial(item);
    for (const item of this.module.items) {
      this.item(item);
      this.checkSize(this.cells.count, MOST_PARTS, 'parts', item);
    }
    const made = this.cells.sheet();
    this.checkSize(made.parts.size, MOST_PARTS, 'parts', this.module);
    this.checkSize(made.wires.size, MOST_WIRES, 'wires', this.module);
    return made;
  }

  /** Refuses a module that is too large for a sheet. */
  private checkSize(size: number, most: number, noun: string, at: Place): void {
    if (size > most)
      fail(`module ${this.module.name} needs more than ${most} ${noun}, the most of a sheet`, at);
  }

  private item(item: Item): void {
    switch (item.is) {
      case 'assign': {
        const target = this.scope.target(item.target, true);
        const value = this.logic.value(item.value, target.length);
        this.logic.connect(target, value, this.logic.delay(item.delay));
        return;
      }
      case 'gate':
        this.scope.implicit = true;
        this.gate(item);
        this.scope.implicit = false;
        return;
      case 'instance':
        this.scope.implicit = true;
        this.instance(item);
        this.scope.implicit = false;
        return;
      case 'always':
        this.registers.always(item);
        return;
      case 'initial':
        return;
    }
  }

  private gate(item: Extract<Item, { is: 'gate' }>): void {
    const { kind, terminals, name } = item;
    const delay = this.logic.delay(item.delay);
    const single = (e: Expression) => {
      const { bits } = this.logic.value(e, 0);
      return bits[0]!;
    };
    const output = (e: Expression) => {
      const bits = this.scope.target(e, true);
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
        this.logic.gateCell(kind === 'buf' ? 'buffer' : 'not', [[from]], delay, name, [output(e)]);
      return;
    }
    if (kind.includes('if')) {
      const [data, enable] = [single(terminals[1]!), single(terminals[2]!)];
      const A = kind.startsWith('notif') ? this.logic.gateCell('not', [[data]], { delayRise: 0 }) : [data];
      const level = kind.endsWith('1') ? 'high' : 'low';
      this.cells.add(
        'tri',
        { enable: level, ...delay },
        { A, EN: [enable], Y: [output(terminals[0]!)] },
        name,
      );
      return;
    }
    this.logic.wideGate(
      kind,
      terminals.slice(1).map((e) => [single(e)]),
      delay,
      name,
      [output(terminals[0]!)],
    );
  }

  private instance(item: Extract<Item, { is: 'instance' }>): void {
    const module = this.design.module(item.module) ?? fail(`there is no module called ${item.module}`, item);
    const parameters = new Map<string, number>();
    const open = module.parameters.filter((p) => !p.local);
    for (const [i, p] of item.parameters.entries()) {
      const name = p.port ?? open[i]?.name ?? fail(`${item.module} has ${open.length} parameters`, p);
      if (!p.to) continue;
      if (!open.some((o) => o.name === name)) fail(`${item.module} has no parameter ${name}`, p);
      parameters.set(name, this.scope.constant(p.to));
    }
    const { id, ports } = this.design.use(module, parameters);
    const known = new Set(ports.map((p) => p.name));
    const tied = new Map<string, Connection>();
    const byName = item.connections.some((c) => c.port !== null);
    for (const [i, c] of item.connections.entries()) {
      if (byName !== (c.port !== null)) fail('connections are all by name or all by position', c);
      const name = c.port ?? ports[i]?.name ?? fail(`${item.module} has ${ports.length} ports`, c);
      if (!known.has(name)) fail(`${item.module} has no port ${name}`, c);
      if (tied.has(name)) fail(`port ${name} is connected twice`, c);
      tied.set(name, c);
    }
    const pins: Record<string, Bit[]> = {};
    for (const { name, direction, width } of ports) {
      const c = tied.get(name);
      if (!c?.to) continue;
      if (direction === 'input') pins[name] = this.logic.value(c.to, width).bits.slice(0, width);
      else {
        const bits = this.scope.target(c.to, true).slice(0, width);
        pins[name] = [...bits, ...this.cells.fresh(width - bits.length)];
      }
    }
    const pinsOf = (direction: string) => writePins(ports.filter((p) => p.direction === direction));
    const params = {
      sheet: id,
      title: item.module.slice(0, 60),
      inputs: pinsOf('input'),
      outputs: pinsOf('output'),
    };
    this.cells.add('block', params, pins, item.name, item.name.slice(0, 60));
  }

  private initial(item: Extract<Item, { is: 'initial' }>): void {
    const bits = this.scope.target(item.target, false);
    const value = this.logic.value(item.value, bits.length).bits;
    for (const [i, bit] of bits.entries()) {
      if (value[i]! >= 0) fail('a constant is expected', item.value);
      this.registers.powerUp.set(bit, value[i]!);
    }
  }
}
