import { BOARD_COLOURS, type BoardColour } from '../circuit/board';
import { apart, BESIDE, GAP, packageColumns, pinPlace } from './arrange';
import type { Signal } from './cell-builder';
import type { Terminal } from './cells';
import { dataSheet, type PackagePlan, type PlannedPackage, type PlannedUnit } from './plan';

/*
 * The wires of a plan, from pin to pin, in the order in which they are laid: the supply first, then stage by stage from the
 * inputs on.
 */

/** An end of a wire: a pin of a package or of a switch or lamp (`U1.3`, `X2.1`), or an end of the supply. */
export type WireEnd = string;

export interface PlannedWire {
  readonly from: WireEnd;
  readonly to: WireEnd;
  /** The name of its signal: the input or output, `+`, `-`, or the pin that drives it. */
  readonly net: string;
  /** 0 for the supply. */
  readonly stage: number;
  readonly colour: BoardColour;
  /** Why it exists, if not for the drawing: an unused input. */
  readonly why?: string;
}

/** Colours of signals, one net after the other. */
const SIGNAL_COLOURS = BOARD_COLOURS.slice(2);

/** One step of the wiring after which something can be tested. */
export interface Stage {
  /** From 1; stage 0 is the supply. */
  readonly number: number;
  /** The units that are complete with it, as `U1.a`. */
  readonly units: readonly UnitName[];
  /** Pins at which its signals can be read, without those of later stages. */
  readonly pins: readonly WireEnd[];
  /** Whether everything that it depends on is wired then: a loop is closed only by its last stage. */
  readonly canBeTested: boolean;
}

export interface UnitName {
  readonly ref: string;
  readonly letter: string;
}

export interface Wiring {
  readonly wires: readonly PlannedWire[];
  readonly stages: readonly Stage[];
  /** The name of each signal. */
  readonly names: ReadonlyMap<Signal, string>;
}

/** `X1` for the first input. */
export const terminalRef = (index: number): string => `X${index + 1}`;

interface UnitAt {
  readonly one: PlannedPackage;
  readonly unit: PlannedUnit;
  readonly inputs: readonly Pin[];
  readonly outputs: readonly Pin[];
}

interface Pin {
  readonly end: WireEnd;
  readonly signal: Signal;
  /** The place on the board, in columns. */
  readonly column: number;
  readonly side: 0 | 1;
  /** Its name within the unit. */
  readonly name: string;
}

/** Inputs that act at once, whatever the clock does: a loop that runs through one is closed last. */
const AT_ONCE = /^(?:PRE'|CLR'|S|R|CLR|LOAD'|R0\(\d\)|R9\(\d\)|PE)$/;

/** The wires and stages of a plan, and what its signals are called. */
export function wiringOf(plan: PackagePlan): Wiring {
  const units = unitsOf(plan);
  const names = signalNames(plan, units);
  const stageOf = stagesOf(units);
  const wires = [...supplyWires(plan, units, stageOf), ...signalWires(plan, units, stageOf, names)];
  wires.sort((a, b) => a.stage - b.stage);
  return { wires, stages: stageList(units, stageOf), names };
}

function unitsOf({ packages }: PackagePlan): UnitAt[] {
  let first = 0;
  return packages.flatMap((one) => {
    const type = dataSheet(one);
    const left = first;
    first += packageColumns(type) + GAP;
    return one.units.map((unit): UnitAt => {
      const named = [...type.units.find(({ letter }) => letter === unit.letter)!.pins];
      const pins = [...unit.pins].map(([number, signal]) => {
        const [name, { use }] = named.find(([, pin]) => pin.number === number)!;
        const place = pinPlace(type, number);
        return {
          end: `${one.ref}.${number}`,
          signal,
          name,
          use,
          column: left + place.column,
          side: place.side,
        };
      });
      const isOutput = ({ use }: { use: string }) => use === 'out';
      return {
        one,
        unit,
        inputs: pins.filter((pin) => !isOutput(pin)),
        outputs: pins.filter(isOutput),
      };
    });
  });
}

/** Inputs and outputs of the sheet lend a signal their name; otherwise it is called after the pin that drives it. */
function signalNames({ terminals }: PackagePlan, units: readonly UnitAt[]): Map<Signal, string> {
  const names = new Map<Signal, string>([
    ['+', '+'],
    ['-', '-'],
  ]);
  const give = ({ signal, label }: Terminal) => {
    if (!names.has(signal)) names.set(signal, label);
  };
  for (const terminal of terminals) if (terminal.direction === 'in') give(terminal);
  for (const terminal of terminals) if (terminal.direction === 'out') give(terminal);
  for (const { outputs } of units)
    for (const { signal, end } of outputs) if (!names.has(signal)) names.set(signal, end);
  return names;
}

/**
 * The stage of each unit: one more than that of the last unit whose output it reads. Units in a loop are in one stage, as
 * long as the loop does not run through an input that acts at once.
 */
function stagesOf(units: readonly UnitAt[]): number[] {
  const drivers = new Map<Signal, number>();
  for (const [u, { outputs }] of units.entries()) for (const { signal } of outputs) drivers.set(signal, u);
  const before = units.map(({ inputs }) => [
    ...new Set(
      inputs.flatMap(({ signal, name }) => {
        const driver = AT_ONCE.test(name) ? undefined : drivers.get(signal);
        return driver === undefined ? [] : [driver];
      }),
    ),
  ]);
  const component = components(before);
  const stages = new Map<number, number>();
  const result = units.map(() => 0);
  // Components come in topological order: drivers before their readers.
  const order = units.map((_, u) => u).sort((a, b) => component[a]! - component[b]!);
  for (const u of order) {
    const own = component[u]!;
    const behind = before[u]!.filter((d) => component[d] !== own).map((d) => stages.get(component[d]!)!);
    stages.set(own, Math.max(stages.get(own) ?? 1, 1, ...behind.map((stage) => stage + 1)));
  }
  for (const u of order) result[u] = units[u]!.unit.parts.length === 0 ? 0 : stages.get(component[u]!)!;
  return result;
}

/** The number of each node's strongly connected component, those that are reached first (Tarjan 1972). */
function components(before: readonly (readonly number[])[]): number[] {
  const index = before.map(() => -1);
  const low = before.map(() => 0);
  const component = before.map(() => -1);
  const stack: number[] = [];
  let [next, count] = [0, 0];
  const visit = (u: number): void => {
    index[u] = low[u] = next++;
    stack.push(u);
    for (const d of before[u]!) {
      if (index[d] === -1) visit(d);
      if (component[d] === -1) low[u] = Math.min(low[u]!, low[d]!);
    }
    if (low[u] !== index[u]) return;
    for (let d = -1; d !== u; ) {
      d = stack.pop()!;
      component[d] = count;
    }
    count++;
  };
  for (let u = 0; u < before.length; u++) if (index[u] === -1) visit(u);
  return component;
}

/** The supply of each package, and every input that is tied. */
function supplyWires(
  { packages }: PackagePlan,
  units: readonly UnitAt[],
  stageOf: readonly number[],
): PlannedWire[] {
  const wires: PlannedWire[] = [];
  const add = (from: '+' | '-', to: WireEnd, stage: number, why?: string) =>
    wires.push({
      from,
      to,
      net: from,
      stage,
      colour: from === '+' ? 'red' : 'black',
      ...(why ? { why } : {}),
    });
  for (const use of ['plus', 'minus'] as const)
    for (const { ref, name } of packages)
      for (const pin of dataSheet({ name }).pins)
        if (pin.use === use) add(use === 'plus' ? '+' : '-', `${ref}.${pin.number}`, 0);
  for (const [u, { inputs, unit }] of units.entries())
    for (const { signal, end } of inputs)
      if (signal === '+' || signal === '-')
        add(signal, end, stageOf[u]!, unit.parts.length === 0 ? 'unit not used' : undefined);
  return wires;
}

/** Each signal from its driving pin to its reading pins, each joined to the nearest pin already joined. */
function signalWires(
  { terminals }: PackagePlan,
  units: readonly UnitAt[],
  stageOf: readonly number[],
  names: ReadonlyMap<Signal, string>,
): PlannedWire[] {
  interface Joined extends Omit<Pin, 'name'> {
    readonly stage: number;
  }
  const width = Math.max(
    0,
    ...units.flatMap(({ inputs, outputs }) => [...inputs, ...outputs]).map((p) => p.column),
  );
  const driving = new Map<Signal, Joined>();
  const reading = new Map<Signal, Joined[]>();
  const read = (joined: Joined) =>
    reading.set(joined.signal, [...(reading.get(joined.signal) ?? []), joined]);
  for (const [u, { outputs }] of units.entries())
    for (const pin of outputs) driving.set(pin.signal, { ...pin, stage: stageOf[u]! });
  for (const [i, { direction, signal }] of terminals.entries()) {
    const at = { end: `${terminalRef(i)}.1`, signal, side: 0 as const };
    if (direction === 'in') driving.set(signal, { ...at, column: -BESIDE, stage: 0 });
  }
  for (const [u, { inputs }] of units.entries())
    for (const pin of inputs) read({ ...pin, stage: stageOf[u]! });
  for (const [i, { direction, signal }] of terminals.entries())
    if (direction === 'out') {
      const stage = Math.max(1, driving.get(signal)?.stage ?? 1);
      read({ end: `${terminalRef(i)}.1`, signal, side: 0, column: width + BESIDE, stage });
    }
  const wires: PlannedWire[] = [];
  let colour = 0;
  for (const [signal, pins] of reading) {
    const driver = driving.get(signal);
    const name = names.get(signal) ?? '';
    // The supply reaches a lamp that shows a constant; the inputs of packages have their wires.
    const ends = typeof signal === 'number' ? pins : pins.filter(({ end }) => end.startsWith('X'));
    const joined: Joined[] = driver ? [driver] : [];
    const paint =
      signal === '+' ? 'red' : signal === '-' ? 'black' : SIGNAL_COLOURS[colour++ % SIGNAL_COLOURS.length]!;
    for (const pin of ends.sort((a, b) => a.stage - b.stage)) {
      const near = joined.reduce<Joined | null>(
        (best, one) => (!best || apart(one, pin) < apart(best, pin) ? one : best),
        null,
      );
      if (near) wires.push({ from: near.end, to: pin.end, net: name, stage: pin.stage, colour: paint });
      else if (typeof signal !== 'number')
        wires.push({ from: signal, to: pin.end, net: name, stage: 1, colour: paint });
      joined.push(pin);
    }
  }
  return wires;
}

function stageList(units: readonly UnitAt[], stageOf: readonly number[]): Stage[] {
  const last = Math.max(0, ...stageOf);
  const drivers = new Map<Signal, number>();
  for (const [u, { outputs }] of units.entries())
    for (const { signal } of outputs) drivers.set(signal, stageOf[u]!);
  return Array.from({ length: last }, (_, i) => {
    const number = i + 1;
    const own = units.filter((_unit, u) => stageOf[u] === number);
    const upTo = units.filter((_unit, u) => stageOf[u]! > 0 && stageOf[u]! <= number);
    return {
      number,
      units: own.map(({ one, unit }) => ({ ref: one.ref, letter: unit.letter })),
      pins: own.flatMap(({ outputs }) => outputs.map(({ end }) => end)),
      canBeTested: upTo.every(({ inputs }) =>
        inputs.every(({ signal }) => (drivers.get(signal) ?? 0) <= number),
      ),
    };
  });
}
