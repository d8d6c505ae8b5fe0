import type { Params } from '../../circuit/sheet';
import { type Bit, C0, C1, type Cells, CX } from './cells';
import { type Logic, MOST_PART, NOW } from './logic';
import { fail, type Scope } from './scope';
import type { Expression, Item, Statement } from './syntax';

interface Register {
  readonly edge: 'rising' | 'falling' | null;
  readonly clock: Bit;
}

/** An asynchronous condition, active at 1, and its signal bit if it is a plain one. */
interface Asynchronous {
  readonly signal: Bit;
  readonly active: 0 | 1;
  readonly values: ReadonlyMap<Bit, Bit>;
}

/** One `if` of a chain with its effect. */
interface Branch {
  readonly condition: Expression;
  readonly made: Statement;
}

interface Level {
  readonly bit: Bit;
  readonly active: 0 | 1;
}

/** A statement without a begin and end around it, if it is the only one. */
function sole(s: Statement | null): Statement | null {
  let at = s;
  while (at?.is === 'block' && at.statements.length === 1) at = at.statements[0]!;
  return at;
}

/** Makes storage, and logic, of always blocks. */
export class Registers {
  constructor(
    private readonly scope: Scope,
    private readonly logic: Logic,
    private readonly cells: Cells,
  ) {}

  readonly powerUp = new Map<Bit, Bit>();

  private readonly latched = new Set<Bit>();

  private readonly delays = new Map<Bit, Params>();

  always(item: Extract<Item, { is: 'always' }>): void {
    const blocking = item.edges && firstBlocking(item.body);
    if (blocking) fail('“<=” is expected in a block with edges, not “=”', blocking);
    const targets = this.assigned(item.body);
    if (targets.size === 0) return;
    const branches: Branch[] = [];
    let rest: Statement | null = sole(item.body);
    const isReset = (s: Statement | null): s is Extract<Statement, { is: 'if' }> =>
      s?.is === 'if' &&
      s.no !== null &&
      (item.edges === null ? this.isConstantAssign(s.yes) : branches.length < item.edges.length - 1);
    while (isReset(rest)) {
      branches.push({ condition: rest.condition, made: rest.yes });
      rest = sole(rest.no);
    }
    if (item.edges === null) {
      this.levelSensitive(item, branches, rest, targets);
      return;
    }
    const asynchronous = branches.map(({ condition, made }) =>
      this.asynchronous(condition, made, item.edges!),
    );
    const clocks = item.edges.filter(
      ({ signal }) => !asynchronous.some((a) => a.signal === this.logic.value(signal, 0).bits[0]),
    );
    if (clocks.length !== 1)
      fail('one clock, and an “if” for each other edge in the list, is expected', item);
    const clock: Register = {
      edge: clocks[0]!.edge === 'posedge' ? 'rising' : 'falling',
      clock: this.logic.value(clocks[0]!.signal, 0).bits[0]!,
    };
    this.store(rest, targets, clock, asynchronous, false);
  }

  /** A latch where something keeps its value, else plain logic. */
  private levelSensitive(
    item: Extract<Item, { is: 'always' }>,
    branches: readonly Branch[],
    rest: Statement | null,
    targets: ReadonlySet<Bit>,
  ): void {
    if (rest?.is === 'if' && rest.no === null && this.assignsAll(rest.yes, targets)) {
      const asynchronous = branches.map(({ condition, made }) => this.asynchronous(condition, made, null));
      const gate = this.logic.truth(rest.condition);
      this.store(rest.yes, targets, { edge: null, clock: gate }, asynchronous, true);
      return;
    }
    const now = new Map<Bit, Bit>();
    this.run(item.body, now, true);
    for (const [bit, next] of now) this.cells.join(bit, next);
  }

  private assignsAll(s: Statement, targets: ReadonlySet<Bit>): boolean {
    const body = sole(s);
    const list = body?.is === 'block' ? body.statements : body ? [body] : [];
    const assigned = new Set(
      list.flatMap((a) => (a.is === 'assign' ? this.scope.target(a.target, false) : [])),
    );
    return [...targets].every((t) => assigned.has(t));
  }

  private isConstantAssign(s: Statement): boolean {
    const body = sole(s);
    if (!body) return false;
    if (body.is === 'block')
      return body.statements.length > 0 && body.statements.every((x) => this.isConstantAssign(x));
    return body.is === 'assign' && this.scope.isConstant(body.value);
  }

  /** `if (clear)` or `if (!clear)` with constants, which agrees with its edge in the list. */
  private asynchronous(
    condition: Expression,
    then: Statement,
    edges: readonly { edge: string; signal: Expression }[] | null,
  ): Asynchronous {
    const { of, active } = this.level(condition);
    const signal = this.logic.value(of, 0).bits[0]!;
    const edge = edges?.find((e) => this.logic.value(e.signal, 0).bits[0] === signal);
    if (edges && !edge) fail('the signal of this “if” is not in the list of edges', condition);
    if (edge && (edge.edge === 'posedge' ? 1 : 0) !== active)
      fail(`“${edge.edge}” in the list and this “if” do not agree on the level`, condition);
    const values = new Map<Bit, Bit>();
    this.run(then, values, false);
    for (const value of values.values())
      if (value >= 0) fail('a constant is expected where a register is set or cleared', then);
    return { signal, active, values };
  }

  private level(e: Expression): { of: Expression; active: 0 | 1 } {
    if (e.is === 'unary' && (e.operator === '!' || e.operator === '~')) {
      const inner = this.level(e.of);
      return { of: inner.of, active: inner.active ? 0 : 1 };
    }
    if (e.is === 'binary' && (e.operator === '==' || e.operator === '!=') && this.scope.isConstant(e.right)) {
      const same = this.scope.constant(e.right) === 1;
      const inner = this.level(e.left);
      return same === (e.operator === '==') ? inner : { of: inner.of, active: inner.active ? 0 : 1 };
    }
    if (this.scope.widthOf(e) !== 1) fail('a signal of one bit is expected', e);
    return { of: e, active: 1 };
  }

  /** Bits that a statement assigns somewhere. */
  private assigned(s: Statement, found = new Set<Bit>()): Set<Bit> {
    if (s.is === 'block') for (const inner of s.statements) this.assigned(inner, found);
    else if (s.is === 'if') {
      this.assigned(s.yes, found);
      if (s.no) this.assigned(s.no, found);
    } else for (const bit of this.scope.target(s.target, false)) found.add(bit);
    return found;
  }

  /**
   * Executes a statement on the next values of bits. An unassigned bit keeps its value.
   * @param inOrder whether earlier assignments are visible already.
   */
  private run(s: Statement, now: Map<Bit, Bit>, inOrder: boolean): void {
    if (s.is === 'block') {
      for (const inner of s.statements) this.run(inner, now, inOrder);
      return;
    }
    const seen = inOrder ? now : undefined;
    if (s.is === 'assign') {
      const target = this.scope.target(s.target, false);
      const { bits } = this.logic.value(s.value, target.length, seen);
      for (const [i, bit] of target.entries()) now.set(bit, bits[i]!);
      if (s.delay) for (const bit of target) this.delays.set(bit, this.logic.delay(s.delay));
      return;
    }
    const condition = this.logic.truth(s.condition, seen);
    const [yes, no] = [new Map(now), new Map(now)];
    this.run(s.yes, yes, inOrder);
    if (s.no) this.run(s.no, no, inOrder);
    const differ = [...new Set([...yes.keys(), ...no.keys()])].filter(
      (b) => (yes.get(b) ?? b) !== (no.get(b) ?? b),
    );
    const { bits } = differ.length
      ? this.logic.mux(
          condition,
          differ.map((b) => no.get(b) ?? b),
          differ.map((b) => yes.get(b) ?? b),
        )
      : { bits: [] };
    for (const b of new Set([...yes.keys(), ...no.keys()])) now.set(b, yes.get(b) ?? b);
    for (const [i, b] of differ.entries()) now.set(b, bits[i]!);
  }

  private store(
    body: Statement | null,
    targets: ReadonlySet<Bit>,
    clock: Register,
    asynchronous: readonly Asynchronous[],
    latch: boolean,
  ): void {
    for (const bit of targets)
      if (this.latched.has(bit)) fail('a register is assigned in two always blocks', this.scope.module);
      else this.latched.add(bit);
    const now = new Map<Bit, Bit>();
    let enable: Bit | null = null;
    const alone = body ? sole(body) : null;
    if (!latch && alone?.is === 'if' && alone.no === null && this.assignsAll(alone.yes, targets)) {
      enable = this.logic.truth(alone.condition);
      this.run(alone.yes, now, false);
    } else if (body) this.run(body, now, latch);
    const order = [...targets];
    const controls = order.map((bit) => this.controls(bit, asynchronous));
    const usual = (i: number) =>
      JSON.stringify([controls[i], this.powerUp.get(order[i]!), this.delays.get(order[i]!)]);
    // Neighbours that are set, cleared and begin alike are one register.
    for (let from = 0; from < order.length; ) {
      let to = from + 1;
      const wide = !latch && controls[from]!.preset === null;
      while (wide && to < order.length && to - from < MOST_PART && usual(to) === usual(from)) to++;
      this.storage(order.slice(from, to), now, clock, enable, controls[from]!);
      from = to;
    }
  }

  /** Preset and clear of a bit, clear being the stronger. */
  private controls(
    bit: Bit,
    asynchronous: readonly Asynchronous[],
  ): { preset: Level | null; clear: Level | null } {
    const found = { preset: null as Level | null, clear: null as Level | null };
    for (const { signal, active, values } of asynchronous) {
      const value = values.get(bit);
      if (value === undefined) continue;
      const to = value === C1 ? 'preset' : 'clear';
      const first = to === 'clear' ? found.preset : null;
      const level = { bit: signal, active };
      const had = found[to];
      if (!had && !first) found[to] = level;
      else {
        // An earlier “if” has priority; a later one acts only without it.
        const high = (l: Level) => (l.active ? l.bit : this.logic.gateCell('not', [[l.bit]], NOW)[0]!);
        const own = first
          ? this.logic.gateCell(
              'and',
              [[high(level)], this.logic.gateCell('not', [[high(first)]], NOW)],
              NOW,
            )[0]!
          : high(level);
        found[to] = {
          bit: had ? this.logic.gateCell('or', [[high(had)], [own]], NOW)[0]! : own,
          active: 1,
        };
      }
    }
    return found;
  }

  private storage(
    bits: readonly Bit[],
    now: ReadonlyMap<Bit, Bit>,
    { edge, clock }: Register,
    enable: Bit | null,
    { preset, clear }: { preset: Level | null; clear: Level | null },
  ): void {
    const named = (level: Level | null) => (level ? (level.active ? 'high' : 'low') : 'none');
    const begun = this.powerUp.get(bits[0]!);
    const params: Params = {
      ...(this.delays.get(bits[0]!) ?? NOW),
      setup: 0,
      hold: 0,
      clear: named(clear),
      powerUp: begun === C1 ? '1' : begun === C0 ? '0' : begun === CX ? 'X' : 'lesson',
    };
    const D = bits.map((b) => now.get(b) ?? b);
    const controls = { ...(clear ? { CLR: [clear.bit] } : {}), ...(preset ? { PRE: [preset.bit] } : {}) };
    const preferred = [...this.scope.signals].find(([, s]) => s.bits.includes(bits[0]!))?.[0] ?? '';
    if (edge === null) {
      this.cells.add(
        'dlatch',
        { ...params, preset: named(preset) },
        { D, EN: [clock], Q: bits, ...controls },
        preferred,
      );
      return;
    }
    const pins = { D, C: [clock], Q: bits, ...controls, ...(enable === null ? {} : { EN: [enable] }) };
    const clocked = { ...params, edge, enable: enable === null ? 'no' : 'yes' };
    if (bits.length === 1) this.cells.add('dff', { ...clocked, preset: named(preset) }, pins, preferred);
    else this.cells.add('register', { ...clocked, width: bits.length }, pins, preferred);
  }
}

/** The first assignment with `=`, which would have to be read in order. */
function firstBlocking(s: Statement): Statement | null {
  if (s.is === 'assign') return s.blocking ? s : null;
  const inside = s.is === 'block' ? s.statements : [s.yes, ...(s.no ? [s.no] : [])];
  for (const inner of inside) {
    const found = firstBlocking(inner);
    if (found) return found;
  }
  return null;
}
