import { type Netlist, stateName } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { evaluate } from '../simulate/evaluate';
import { levelAt, type Timed } from '../simulate/timed-sources';
import type { Trace } from '../simulate/trace';
import { type Logic, ONE, X, ZERO } from '../values/logic';
import { justBefore } from '../values/time';

/** One stage of a chain that divides a clock. Times in ps; null if unknown. */
export interface Stage {
  /** As `stateName` has it: a part, or one bit of it. */
  readonly name: string;
  readonly net: number;
  /** How many periods of the clock it takes: 2, 4, 8 ... */
  readonly periods: number;
  readonly computed: { readonly period: number; readonly firstRise: number };
  readonly measured: { readonly period: number | null; readonly firstRise: number | null };
}

/** The driver of a stage: a net with its period and first edges in ps. */
interface Driver {
  readonly net: number;
  readonly period: number;
  readonly periods: number;
  readonly firstRise: number;
  readonly firstFall: number;
}

/** A stage with what the next one needs to know. */
interface FoundStage extends Stage {
  readonly driver: Driver;
}

/** Goes back from a net over gates that only hand on or turn over. */
function origin(
  netlist: Netlist,
  driver: Int32Array,
  net: number,
): { net: number; delay: number; turned: boolean } {
  let at = net;
  let delay = 0;
  let turned = false;
  for (let steps = 0; steps < 64; steps++) {
    const g = driver[at]!;
    if (g === -1) break;
    const op = netlist.op[g]!;
    if (op !== Primitive.BUF && op !== Primitive.NOT) break;
    if (op === Primitive.NOT) turned = !turned;
    delay += Math.max(netlist.rise[g]!, netlist.fall[g]!);
    at = netlist.ins[netlist.inStart[g]!]!;
  }
  return { net: at, delay, turned };
}

/**
 * The stages that divide a clock. A stage is storage that toggles at each active edge or, in a counter, only when all lower
 * stages of the same clock are 1 (or all 0); or storage clocked by such a stage. Each has its period and first rise as they
 * follow from the drawing (all stages at 0 at power-up), and as measured in a run.
 * @param source the clock.
 * @param period of the clock, in ps.
 * @param delayed whether the parts' own delays count.
 */
export function divisionOf(
  netlist: Netlist,
  trace: Trace,
  source: Timed,
  period: number,
  delayed: boolean,
): Stage[] {
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.out.length; g++) driver[netlist.out[g]!] = g;
  const toggles = new ToggleTest(netlist, trace);
  const left = new Set(netlist.storage);
  const chain: Stage[] = [];
  let from: Driver | null = { net: source.net, period, periods: 1, ...firstEdges(source) };
  while (from) {
    const group = groupOf(netlist, trace, driver, toggles, left, from, delayed);
    chain.push(...group.map(({ driver: _, ...stage }) => stage));
    // The next stages are clocked by the slowest bit that clocks any.
    from = group.findLast((stage) => clocksAny(netlist, driver, left, stage.driver.net))?.driver ?? null;
  }
  return chain;
}

const clocksAny = (netlist: Netlist, driver: Int32Array, left: ReadonlySet<number>, net: number) =>
  [...left].some((g) => origin(netlist, driver, clockPin(netlist, g)).net === net);

const clockPin = (netlist: Netlist, g: number) => netlist.ins[netlist.inStart[g]! + 1]!;

/** The first rising and falling edge of a clock after time 0, in ps. */
function firstEdges(source: Timed): { firstRise: number; firstFall: number } {
  const first = levelAt(source, 0).next;
  const second = first === Number.POSITIVE_INFINITY ? first : levelAt(source, first).next;
  return levelAt(source, 0).value === ZERO
    ? { firstRise: first, firstFall: second }
    : { firstRise: second, firstFall: first };
}

/** The stages that one clock drives, the quickest first; they are taken out of `left`. */
function groupOf(
  netlist: Netlist,
  trace: Trace,
  driver: Int32Array,
  toggles: ToggleTest,
  left: Set<number>,
  from: Driver,
  delayed: boolean,
): FoundStage[] {
  const group: FoundStage[] = [];
  const lower: number[] = [];
  const mine = [...left].filter((g) => origin(netlist, driver, clockPin(netlist, g)).net === from.net);
  for (;;) {
    let found: { g: number; when: Logic } | null = null;
    for (const g of mine) {
      const when = left.has(g) ? toggles.when(g, lower) : null;
      if (when !== null) {
        found = { g, when };
        break;
      }
    }
    if (!found) return group;
    const { g, when } = found;
    left.delete(g);
    const by = origin(netlist, driver, clockPin(netlist, g));
    const falls = (netlist.op[g] === Primitive.DFF_FALL) !== by.turned;
    const out = netlist.out[g]!;
    // Readers see the output through the gates that stand for the part's delay.
    const owner = netlist.owner[g]!;
    const shown = [...netlist.fan.subarray(netlist.fanStart[out]!, netlist.fanStart[out + 1]!)].find(
      (reader) => netlist.owner[reader] === owner && netlist.op[reader] === Primitive.BUF,
    );
    const net = shown === undefined ? out : netlist.out[shown]!;
    const own = delayed && shown !== undefined ? netlist.rise[shown]! : 0;
    const edge = (falls ? from.firstFall : from.firstRise) + (delayed ? by.delay : 0);
    // Counting up from 0, all lower stages are 1 for the first time before edge 2^k; counting down, at once.
    const rise = edge + (when === ONE ? (2 ** lower.length - 1) * from.period : 0);
    const ratio = 2 ** (lower.length + 1);
    const period = ratio * from.period;
    lower.push(out);
    group.push({
      name: stateName(netlist, netlist.storage.indexOf(g)),
      net,
      periods: ratio * from.periods,
      computed: { period, firstRise: rise + own },
      measured: measured(trace, net),
      // The next stage sees the storage itself; its delay lies on the way there.
      driver: {
        net: out,
        period,
        periods: ratio * from.periods,
        firstRise: rise,
        firstFall: rise + period / 2,
      },
    });
  }
}

/**
 * Tells when storage turns over, by evaluating its data with three values: what holds although everything that is left open
 * is X holds for all values of it. Switches and constants stand as at the end of the run.
 */
class ToggleTest {
  private readonly values: Uint8Array;
  private readonly present: Uint8Array;
  /** The gate without memory that drives each net; -1 where there is none. */
  private readonly gateOf: Int32Array;

  constructor(
    private readonly netlist: Netlist,
    trace: Trace,
  ) {
    this.gateOf = new Int32Array(netlist.nets).fill(-1);
    this.present = trace.stateAt(Number.POSITIVE_INFINITY);
    this.values = new Uint8Array(netlist.nets);
    for (const g of netlist.order) this.gateOf[netlist.out[g]!] = g;
  }

  /**
   * The value that all lower stages have when storage turns over, while it holds its state as long as one of them has the
   * other; null if it does neither. With no lower stages it turns over always.
   */
  when(g: number, lower: readonly number[]): Logic | null {
    const cone = this.coneOf(g);
    const levels: readonly (readonly [all: Logic, other: Logic])[] = [
      [ONE, ZERO],
      [ZERO, ONE],
    ];
    for (const [all, other] of levels) {
      if (!this.changes(g, cone, new Map(lower.map((net) => [net, all])), true)) continue;
      // Told apart by the highest stage with the other value; those below it are open.
      const holds = lower.every((net, at) =>
        this.changes(
          g,
          cone,
          new Map([[net, other], ...lower.slice(at + 1).map((n) => [n, all] as const)]),
          false,
        ),
      );
      if (holds) return all;
    }
    return null;
  }

  /** The gates on which the next state of storage depends, each after those that it reads. */
  private coneOf(g: number): number[] {
    const { netlist, gateOf } = this;
    const cone = new Set<number>();
    const meet = (of: number) => {
      for (let i = netlist.inStart[of]!; i < netlist.inStart[of + 1]!; i++) {
        const before = gateOf[netlist.ins[i]!]!;
        if (before === -1 || cone.has(before)) continue;
        cone.add(before);
        ahead.push(before);
      }
    };
    const ahead: number[] = [];
    meet(g);
    for (let next = ahead.pop(); next !== undefined; next = ahead.pop()) meet(next);
    return [...cone].sort((a, b) => netlist.level[a]! - netlist.level[b]!);
  }

  /** Whether storage surely turns over, or surely does not, with some nets given and all other storage unknown. */
  private changes(
    g: number,
    cone: readonly number[],
    given: ReadonlyMap<number, Logic>,
    turns: boolean,
  ): boolean {
    const { netlist, values } = this;
    const out = netlist.out[g]!;
    return [ZERO, ONE].every((state) => {
      values.fill(X);
      for (const s of netlist.sources) if (s.kind !== 'clock') values[s.net] = this.present[s.net]!;
      for (const [net, value] of given) values[net] = value;
      values[out] = state;
      for (const o of cone)
        values[netlist.out[o]!] = evaluate(
          netlist.op[o]!,
          netlist.ins,
          netlist.inStart[o]!,
          netlist.inStart[o + 1]!,
          values,
        );
      const from = netlist.inStart[g]!;
      // Preset and clear must rest.
      for (let i = from + 2; i < netlist.inStart[g + 1]!; i++)
        if (values[netlist.ins[i]!] !== ZERO) return false;
      return values[netlist.ins[from]!] === (turns ? 1 - state : state);
    });
  }
}

/** The first rise of a net in a trace, and from there to the next one. */
function measured(trace: Trace, net: number): Stage['measured'] {
  // The earliest changes are no longer kept.
  if (trace.trimmed) return { ...laterPeriod(trace, net), firstRise: null };
  return laterPeriod(trace, net);
}

function laterPeriod(trace: Trace, net: number): Stage['measured'] {
  const nets = new Set([net]);
  let rise: number | null = null;
  for (let at = trace.begins; ; ) {
    const next = trace.changeAfter(nets, at);
    if (next === null) return { period: null, firstRise: rise };
    if (trace.valueAt(net, next) === ONE && trace.valueAt(net, justBefore(next)) === ZERO) {
      if (rise !== null) return { period: next - rise, firstRise: rise };
      rise = next;
    }
    at = next;
  }
}
