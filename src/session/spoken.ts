import { type End, isPinEnd, type Part, type PinEnd, type Sheet } from '@/core/circuit/sheet';
import { pinsOf } from '@/core/drawing/geometry/placement';
import { type WireNets, wireNets } from '@/core/drawing/geometry/wire-nets';
import { declaredInputs, declaredOutputs } from '@/core/netlist/declared';
import { isUnfinished } from '@/core/netlist/diagnostic';
import { kindOf, spokenName } from '@/core/parts/catalogue';
import { drivenClocks } from '@/core/simulate/drive';
import { type Logic, letterOf } from '@/core/values/logic';
import { RADICES, wordText } from '@/core/values/radix';
import { netsTold } from './nets-told';
import type { SessionState } from './state';

interface Neighbours {
  readonly drives: string[];
  readonly driven: string[];
}

/** A pin with its net. */
export interface NetPin {
  readonly part: Part;
  readonly port: string;
  readonly out: boolean;
}

/** The pins that each net joins; which they are stays while parts only move. */
const pinsOfNets = new WeakMap<WireNets, ReadonlyMap<number, readonly PinEnd[]>>();

function pinEnds(sheet: Sheet, nets: WireNets): ReadonlyMap<number, readonly PinEnd[]> {
  const known = pinsOfNets.get(nets);
  if (known) return known;
  const found = new Map<number, PinEnd[]>();
  const seen = new Set<string>();
  for (const wire of sheet.wires.values())
    for (const end of [wire.from, wire.to]) {
      if (!isPinEnd(end) || seen.has(`${end.part} ${end.port}`)) continue;
      seen.add(`${end.part} ${end.port}`);
      const net = nets.ofWire(wire.id)!;
      const list = found.get(net);
      if (list) list.push(end);
      else found.set(net, [end]);
    }
  pinsOfNets.set(nets, found);
  return found;
}

/** The pins of a net with their parts as they are now; none for no net. */
function pinsOfNet(sheet: Sheet, nets: WireNets, net: number | undefined): NetPin[] {
  if (net === undefined) return [];
  const pins = (pinEnds(sheet, nets).get(net) ?? []).flatMap(({ part: id, port }) => {
    const part = sheet.parts.get(id);
    const pin = part && pinsOf(part).find((p) => p.port.name === port);
    return pin ? [{ part, port, out: pin.port.direction === 'out' }] : [];
  });
  // From top to bottom, as they are read.
  return pins.sort((a, b) => a.part.at.y - b.part.at.y || a.part.at.x - b.part.at.x);
}

/** The drivers and readers of the net of a wire or a pin; null if nothing is wired. */
export function netOf(
  sheet: Sheet,
  at: End | { readonly wire: string },
): { readonly drivers: readonly NetPin[]; readonly readers: readonly NetPin[] } | null {
  const nets = wireNets(sheet);
  const net = 'part' in at ? nets.ofEnd(at) : nets.ofWire(at.wire);
  if (net === undefined) return null;
  const list = pinsOfNet(sheet, nets, net);
  return { drivers: list.filter((p) => p.out), readers: list.filter((p) => !p.out) };
}

function neighbours(sheet: Sheet, part: Part): Neighbours {
  const nets = wireNets(sheet);
  const drives: string[] = [];
  const driven: string[] = [];
  for (const pin of pinsOf(part)) {
    const net = nets.ofEnd({ part: part.id, port: pin.port.name });
    const others = pinsOfNet(sheet, nets, net).filter((p) => p.part.id !== part.id);
    const out = pin.port.direction === 'out';
    for (const other of others) if (other.out !== out) (out ? drives : driven).push(spokenName(other.part));
  }
  return { drives, driven };
}

/** The parts in reading order: inputs in declared order, then from left to right, then outputs. */
export function readingOrder(sheet: Sheet): Part[] {
  const inputs = declaredInputs(sheet);
  const outputs = declaredOutputs(sheet);
  const ends = new Set([...inputs, ...outputs]);
  const between = [...sheet.parts.values()].filter((p) => !ends.has(p));
  return [...inputs, ...between.sort((a, b) => a.at.x - b.at.x || a.at.y - b.at.y), ...outputs];
}

const listed = (names: readonly string[]) =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** A part with its state and its neighbours in one sentence: `XOR 1, two-input XOR, from A and B, output 1, drives Sum`. */
export function spokenPart(state: SessionState, sheet: Sheet, part: Part): string {
  const kind = kindOf(part);
  const { drives, driven } = neighbours(sheet, part);
  const ports = kind.ports(part.params);
  // A part that shows a number shows it in a radix of its own.
  const radix = RADICES.find((r) => r === part.params.radix) ?? state.lesson.settings.buses;
  const value = (port: string) => {
    const width = ports.find((p) => p.name === port)?.width ?? 1;
    const nets = Array.from({ length: width }, (_, bit) => state.view.ownNet(part.id, port, bit));
    if (nets.includes(undefined)) return 'nothing';
    const told = netsTold(state);
    if (told && nets.some((net) => !told.has(net!))) return 'not probed';
    const bits = nets.map((net) => state.values[net!] as Logic);
    return width === 1 ? letterOf(bits[0]!) : wordText(bits, radix);
  };
  const outputs = ports.filter((p) => p.direction === 'out');
  if (ports.length === 0) return kind.spoken(part.params);
  const caption = state.path.length === 0 ? drivenClocks(sheet).get(part.id) : undefined;
  const words = [
    spokenName(part),
    caption ? `clock driven by the stimulus, ${caption}` : kind.spoken(part.params),
  ];
  if (driven.length) words.push(`from ${listed(driven)}`);
  if (outputs.length === 1) words.push(`${kind.role ? '' : 'output '}${value(outputs[0]!.name)}`);
  for (const port of outputs.length > 1 ? outputs : []) words.push(`${port.name} is ${value(port.name)}`);
  if (outputs.length === 0)
    words.push(
      ports[0]!.width === 1 && value(ports[0]!.name) === '1' ? 'on' : `shows ${value(ports[0]!.name)}`,
    );
  if (drives.length) words.push(`drives ${listed(drives)}`);
  const found = state.diagnostics.filter((d) => d.pins.some((p) => p.part === part.id));
  if (found.some((d) => !isUnfinished(d))) words.push('something is wrong here');
  else if (found.length > 0) words.push('not wired completely');
  return words.join(', ');
}
