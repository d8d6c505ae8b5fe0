import type { End, Part, Sheet, Wire } from '../circuit/sheet';
import { findKind } from '../parts/catalogue';
import { defaultParams } from '../parts/params';
import { sameName } from '../values/names';

/** An input or output by its name, with its bits. */
export interface NamedBus {
  readonly name: string;
  readonly width: number;
}

interface Buses {
  readonly inputs: readonly NamedBus[];
  readonly outputs: readonly NamedBus[];
}

/** The label of one wire of a bus. */
export const bitLabel = ({ name, width }: NamedBus, bit: number): string =>
  width === 1 ? name : `${name}[${bit}]`;

/**
 * The circuit of a board with buses for its inputs and outputs: switches called `A[3]` to `A[0]` become one switch `A` of four
 * bits, lamps likewise. Buses of which a bit is missing stay as they are.
 */
export function withBusTerminals(sheet: Sheet, { inputs, outputs }: Buses): Sheet {
  const parts = new Map(sheet.parts);
  const wires = new Map(sheet.wires);
  /** The pin at which each part that went is now. */
  const moved = new Map<string, End>();
  const place = (like: Part, id: string, kind: string, params: Part['params'], label = '') =>
    parts.set(id, { ...like, id, kind, label, params: { ...defaultParams(findKind(kind)!), ...params } });
  const bitsOf = (bus: NamedBus, kind: string): Part[] | null => {
    const all = Array.from({ length: bus.width }, (_, bit) =>
      [...sheet.parts.values()].find(
        (part) => part.kind === kind && sameName(part.label, bitLabel(bus, bit)),
      ),
    );
    return bus.width > 1 && all.every((part) => part !== undefined) ? all : null;
  };
  for (const bus of inputs) {
    const bits = bitsOf(bus, 'switch');
    if (!bits) continue;
    place(bits[0]!, `bus ${bus.name}`, 'switch', { width: bus.width }, bus.name);
    for (const [bit, part] of bits.entries()) {
      // A slice gives its bit at the pin at which the switch gave it.
      place(part, part.id, 'slice', { width: bus.width, high: bit, low: bit });
      const id = `bus ${part.id}`;
      const from = { part: `bus ${bus.name}`, port: 'Y' };
      wires.set(id, { id, from, to: { part: part.id, port: 'A' }, course: [] } satisfies Wire);
    }
  }
  for (const bus of outputs) {
    const bits = bitsOf(bus, 'lamp');
    if (!bits) continue;
    const joint = `join ${bus.name}`;
    place(bits[0]!, joint, 'join', { widths: bits.map(() => 1) });
    place(bits[0]!, `bus ${bus.name}`, 'lamp', { width: bus.width }, bus.name);
    const to = { part: `bus ${bus.name}`, port: 'A' };
    wires.set(joint, { id: joint, from: { part: joint, port: 'Y' }, to, course: [] });
    for (const [bit, part] of bits.entries()) {
      parts.delete(part.id);
      moved.set(part.id, { part: joint, port: `I${bit}` });
    }
  }
  const end = (at: End): End => ('part' in at ? (moved.get(at.part) ?? at) : at);
  return {
    ...sheet,
    parts,
    wires: new Map([...wires].map(([id, wire]) => [id, { ...wire, from: end(wire.from), to: end(wire.to) }])),
  };
}
