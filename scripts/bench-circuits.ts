import { isPinEnd, type Part, type Sheet, type Wire } from '../src/core/circuit/sheet';
import { findKind } from '../src/core/parts/catalogue';
import { defaultParams } from '../src/core/parts/params';

/** Small and repeatable (Marsaglia, 2003, "Xorshift RNGs"). */
export function random(seed: number): () => number {
  let s = seed;
  return () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return (s >>> 0) / 2 ** 32;
  };
}

/** A sheet of two-input gates, each reading two recent outputs; eight lamps. */
const OUTPUTS = 8;

export function gates(inputs: number, count: number): Sheet {
  const next = random(42);
  const parts = new Map<string, Part>();
  const wires = new Map<string, Wire>();
  const add = (id: string, kind: string) =>
    parts.set(id, {
      id,
      kind,
      at: { x: 10 * (parts.size % 100), y: 8 * Math.floor(parts.size / 100) },
      turn: 0,
      label: '',
      rank: parts.size,
      params: defaultParams(findKind(kind)!),
    });
  const join = (from: string, part: string, port: string) => {
    const id = `w${wires.size + 1}`;
    wires.set(id, { id, from: { part: from, port: 'Y' }, to: { part, port }, course: [] });
  };
  const sources: string[] = [];
  for (let i = 0; i < inputs; i++) {
    add(`s${i}`, 'switch');
    sources.push(`s${i}`);
  }
  const kinds = ['and', 'or', 'nand', 'nor', 'xor', 'xnor'];
  for (let g = 0; g < count; g++) {
    const id = `g${g}`;
    add(id, kinds[Math.floor(next() * kinds.length)]!);
    for (const port of ['A', 'B'])
      join(sources[Math.max(0, sources.length - 1 - Math.floor(next() * (inputs + 20)))]!, id, port);
    sources.push(id);
  }
  // Unread outputs are gathered by exclusive-ors, so that no gate can be left out.
  const read = new Set([...wires.values()].map((w) => (isPinEnd(w.from) ? w.from.part : '')));
  let loose = sources.filter((source) => !read.has(source));
  for (let g = 0; loose.length > OUTPUTS; g++) {
    add(`x${g}`, 'xor');
    join(loose[0]!, `x${g}`, 'A');
    join(loose[1]!, `x${g}`, 'B');
    loose = [...loose.slice(2), `x${g}`];
  }
  for (const id of loose) {
    add(`l${id}`, 'lamp');
    join(id, `l${id}`, 'A');
  }
  return { id: 'sheet1', name: 'Bench', parts, wires };
}

/**
 * An array multiplier: rows of full adders, each row adding one partial product (Rabaey, Chandrakasan and
 * Nikolic, 2003, "Digital Integrated Circuits", section 11.4).
 */
export function multiplier(bits: number): Sheet {
  const parts = new Map<string, Part>();
  const wires = new Map<string, Wire>();
  let rank = 0;
  const add = (kind: string, label = '') => {
    const id = `${kind}${rank}`;
    const at = { x: 10 * (rank % 100), y: 8 * Math.floor(rank / 100) };
    parts.set(id, { id, kind, at, turn: 0, label, rank: rank++, params: defaultParams(findKind(kind)!) });
    return id;
  };
  const gate = (kind: string, a: string, b: string) => {
    const id = add(kind);
    for (const [from, port] of [
      [a, 'A'],
      [b, 'B'],
    ] as const) {
      const wire = `w${wires.size + 1}`;
      wires.set(wire, { id: wire, from: { part: from, port: 'Y' }, to: { part: id, port }, course: [] });
    }
    return id;
  };
  const a = Array.from({ length: bits }, (_, i) => add('switch', `A${i}`));
  const b = Array.from({ length: bits }, (_, i) => add('switch', `B${i}`));
  const product: string[] = [];
  let sum: (string | null)[] = a.map((bit) => gate('and', bit, b[0]!));
  for (let row = 1; row <= bits; row++) {
    product.push(sum[0]!);
    if (row === bits) break;
    const next: (string | null)[] = [];
    let carry: string | null = null;
    for (let i = 0; i < bits; i++) {
      const partial = gate('and', a[i]!, b[row]!);
      const above = sum[i + 1] ?? null;
      if (above === null && carry === null) {
        next.push(partial);
        continue;
      }
      if (above === null || carry === null) {
        const other = (above ?? carry)!;
        next.push(gate('xor', partial, other));
        carry = gate('and', partial, other);
        continue;
      }
      const half = gate('xor', partial, above);
      next.push(gate('xor', half, carry));
      carry = gate('or', gate('and', partial, above), gate('and', half, carry));
    }
    next.push(carry);
    sum = next;
  }
  product.push(...sum.slice(1).filter((bit) => bit !== null));
  for (const [i, bit] of product.entries()) {
    const lamp = add('lamp', `P${i}`);
    const wire = `w${wires.size + 1}`;
    wires.set(wire, { id: wire, from: { part: bit, port: 'Y' }, to: { part: lamp, port: 'A' }, course: [] });
  }
  return { id: 'sheet1', name: 'Multiplier', parts, wires };
}
