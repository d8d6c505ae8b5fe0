import type { Sheet } from '../circuit/sheet';
import { kindOf, spokenName } from '../parts/catalogue';
import { Primitive } from '../parts/primitive';
import { listed } from '../values/wording';
import type { Diagnostic } from './diagnostic';
import { type FlatSheet, insideOf } from './flatten';
import { onLoops } from './levels';
import type { Netlist } from './netlist';
import type { Meeting } from './pack';

/*
 * The problems of a compiled sheet, in words, with a place and where possible the remedy.
 */

type Terminals = Pick<Netlist, 'inputs' | 'outputs'>;
type Wired = Omit<Netlist, 'inputs' | 'outputs' | 'inputColumns' | 'outputColumns' | 'diagnostics'>;

/**
 * Reported on the sheet that holds all drivers of the net; a driver inside a block is reported at the block.
 */
export function tiedOutputs(flat: FlatSheet, meetings: Iterable<Meeting>): Diagnostic[] {
  const found: Diagnostic[] = [];
  const told = new Set<string>();
  for (const { drivers, isStrong } of meetings) {
    if (drivers.length < 2 || !isStrong) continue;
    const depth = sharedDepth(drivers.map((d) => d.way));
    const path = drivers[0]!.way.slice(0, depth).join('/');
    const instance = flat.instances.find((i) => i.path === path)!;
    // What touches by a fault is not told.
    if (instance.wiring.hasTiedWires) continue;
    const pins = new Map(
      drivers.map(({ way, port }) => [
        way[depth]!,
        { part: way[depth]!, port: way.length === depth + 1 ? port : '' },
      ]),
    );
    const key = `${instance.wiring.sheet.id} ${[...pins.keys()].join()}`;
    if (told.has(key)) continue;
    told.add(key);
    const names = [...pins.keys()].map((id) => spokenName(instance.wiring.sheet.parts.get(id)!));
    found.push({
      code: 'outputs-tied',
      severity: 'problem',
      message: `The outputs of ${listed(names)} are tied together. Where one drives 0 and the other 1, neither wins: combine them with a gate instead.`,
      pins: [...pins.values()],
      ...insideOf(instance),
    });
  }
  return found;
}

/** Inputs, or outputs, of the same name. */
export function sameNames({ parts }: Sheet, { inputs, outputs }: Terminals): Diagnostic[] {
  const found: Diagnostic[] = [];
  for (const [word, group] of [
    ['inputs', inputs],
    ['outputs', outputs],
  ] as const) {
    const byName = new Map<string, string[]>();
    for (const { name, part } of group) {
      const same = byName.get(name);
      if (same) same.push(part);
      else byName.set(name, [part]);
    }
    for (const [name, same] of byName)
      if (same.length > 1)
        found.push({
          code: 'duplicate-name',
          severity: 'problem',
          message: `${same.length} ${word} are called “${name}”. Give each a name of its own, or tables cannot tell them apart.`,
          pins: same.map((part) => ({
            part,
            port: kindOf(parts.get(part)!).ports(parts.get(part)!.params)[0]!.name,
          })),
        });
  }
  return found;
}

/** Loops of gates, on the compiled sheet or inside its blocks. */
export function gateLoops(flat: FlatSheet, netlist: Wired): Diagnostic[] {
  if (netlist.looped.length === 0) return [];
  const names = new Set(onLoops(netlist, netlist.looped).map((g) => flat.partName(netlist.owner[g]!)));
  const here = [...names].filter((n) => !n.includes('/'));
  const called = here.map((id) => spokenName(flat.sheet.parts.get(id)!));
  const shown = called.length > 8 ? [...called.slice(0, 7), `${called.length - 7} more`] : called;
  return [
    {
      code: 'loop',
      severity: 'note',
      message: here.length
        ? `The signal goes round through ${listed(shown)} without a flip-flop. That is how a latch remembers; anything else may never come to rest.`
        : 'Inside a block the signal goes round without a flip-flop. That is how a latch remembers; anything else may never come to rest.',
      pins: here.map((part) => ({ part, port: 'Y' })),
    },
  ];
}

/** A clock that has come through a gate is late, and may have spikes. */
export function gatedClocks(flat: FlatSheet, netlist: Wired): Diagnostic[] {
  const found: Diagnostic[] = [];
  if (netlist.storage.length === 0) return found;
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.op.length; g++) driver[netlist.out[g]!] = g;
  const told = new Set<number>();
  for (const s of netlist.storage) {
    if (netlist.op[s] === Primitive.LATCH) continue;
    const g = driver[netlist.ins[netlist.inStart[s]! + 1]!]!;
    if (g === -1 || netlist.op[g]! < Primitive.NOT || netlist.op[g]! > Primitive.XNOR) continue;
    const owner = netlist.owner[s]!;
    if (netlist.owner[g] === owner || told.has(owner)) continue;
    told.add(owner);
    const [part, gate] = [flat.partName(owner), flat.partName(netlist.owner[g]!)];
    const here = flat.sheet.parts.get(part);
    const by = flat.sheet.parts.get(gate);
    if (!here || !by || kindOf(by).stores) continue;
    found.push({
      code: 'gated-clock',
      severity: 'note',
      message: `The clock of ${spokenName(here)} comes out of ${spokenName(by)}: it arrives late, and a glitch there counts as an edge. An enable does the same without the risk.`,
      pins: [{ part, port: 'C' }],
    });
  }
  return found;
}

/** How many blocks all paths lead into together. */
function sharedDepth(ways: readonly (readonly string[])[]): number {
  const shortest = Math.min(...ways.map((way) => way.length)) - 1;
  let depth = 0;
  while (depth < shortest && ways.every((way) => way[depth] === ways[0]![depth])) depth++;
  return depth;
}
