import type { Sheet } from '../circuit/sheet';
import { atOnce, type Steps } from '../values/steps';
import { byRank, terminalName } from './declared';
import { gatedClocks, gateLoops, sameNames, tiedOutputs } from './diagnose';
import { FlatSheet, type Instance } from './flatten';
import { fanOut, levelled } from './levels';
import { type Netlist, type SheetNets, type Terminal, terminalColumns } from './netlist';
import { Packing } from './pack';
import { wiringSteps } from './sheet-wiring';

/**
 * Compiles a sheet with all its blocks to its flat netlist. Costs time proportional to parts and wires. Never
 * fails: problems are in `diagnostics`, and the rest of the circuit runs.
 * @param sheets where the sheets of its blocks are.
 */
export const compile = (sheet: Sheet, sheets: readonly Sheet[] = []): Netlist =>
  atOnce(compileSteps(sheet, sheets));

function* compileSteps(sheet: Sheet, sheets: readonly Sheet[]): Steps<Netlist> {
  yield* wiringSteps(sheet);
  yield;
  const flat = new FlatSheet(sheet, sheets);
  yield;
  const packing = yield* Packing.of(flat);
  const { packed } = packing;
  yield;
  const inputs = terminals('input', 'Y', flat, packing);
  const outputs = terminals('output', 'A', flat, packing);
  yield;
  const fan = fanOut(packed.nets, packed.inStart, packed.ins);
  const wired = {
    ...packed,
    ...fan,
    ...levelled({ ...packed, ...fan }),
    ...viewOf(flat.root, flat, packing),
    partName: (owner: number) => flat.partName(owner),
    at: (path: string) => {
      const found = flat.instances.find((instance) => instance.path === path);
      return found && viewOf(found, flat, packing);
    },
  };
  yield;
  const tied = tiedOutputs(flat, packing.meetings.values());
  yield;
  return {
    ...wired,
    inputs,
    outputs,
    inputColumns: terminalColumns(inputs),
    outputColumns: terminalColumns(outputs),
    diagnostics: [
      ...flat.diagnostics,
      ...tied,
      ...sameNames(sheet, { inputs, outputs }),
      ...gateLoops(flat, wired),
      ...gatedClocks(flat, wired),
    ],
  };
}

/** By the sheets of a lesson's version, for as long as anyone has that. */
const compiledOf = new WeakMap<readonly Sheet[], Map<string, Netlist>>();

/** `compile` for a sheet of a lesson that is shown in several places: done once for this version of the lesson. */
export const compileOnce = (sheet: Sheet, sheets: readonly Sheet[]): Netlist =>
  atOnce(compileOnceSteps(sheet, sheets));

/** As `compileOnce`, in steps. */
export function* compileOnceSteps(sheet: Sheet, sheets: readonly Sheet[]): Steps<Netlist> {
  const compiled = compiledOf.get(sheets) ?? new Map<string, Netlist>();
  compiledOf.set(sheets, compiled);
  const netlist = compiled.get(sheet.id) ?? (yield* compileSteps(sheet, sheets));
  compiled.set(sheet.id, netlist);
  return netlist;
}

/** The nets of one instance, by the ids of its parts and wires. */
function viewOf(instance: Instance, flat: FlatSheet, packing: Packing): SheetNets {
  const { wiring } = instance;
  const nets = ([first, width]: readonly [number, number]) =>
    Array.from({ length: width }, (_, bit) => flat.netOf(instance, first + bit));
  const portOf = (part: string, port: string) => {
    const index = wiring.indexOf.get(part);
    const at = index === undefined ? undefined : wiring.templates[index]!.portIndex.get(port);
    return at === undefined ? undefined : ([index!, at] as const);
  };
  return {
    netsOfPin: (part, port) => {
      const at = portOf(part, port);
      return at && nets(wiring.groupOfPin(...at));
    },
    netsOfWire: (wire) => {
      const group = wiring.groupOfWire(wire);
      return group && nets(group);
    },
    ownNet: (part, port, bit = 0) => {
      const at = portOf(part, port);
      if (!at || bit >= wiring.templates[at[0]]!.ports[at[1]]!.width) return undefined;
      return packing.drivenNet(instance, at[0], wiring.templates[at[0]]!.pinStart[at[1]]! + bit);
    },
  };
}

/** Inputs, by their port Y, or outputs, by their port A, in declared order with their nets. */
function terminals(role: 'input' | 'output', port: string, flat: FlatSheet, packing: Packing): Terminal[] {
  const { root } = flat;
  const { templates } = root.wiring;
  const parts = root.wiring.parts.filter((_, i) => templates[i]!.role?.role === role);
  return parts.sort(byRank).map((p) => {
    const index = root.wiring.indexOf.get(p.id)!;
    const template = root.wiring.templates[index]!;
    const at = template.portIndex.get(port)!;
    const { width } = template.ports[at]!;
    const first = template.pinStart[at]!;
    const nets: number[] = [];
    for (let ref = first; ref < first + width; ref++)
      nets.push(port === 'Y' ? packing.drivenNet(root, index, ref) : flat.netOfPin(root, index, ref));
    return { part: p.id, name: terminalName(p), nets };
  });
}
