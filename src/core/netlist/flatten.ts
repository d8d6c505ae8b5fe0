import type { Sheet } from '../circuit/sheet';
import { sheetIdInside, spokenName } from '../parts/catalogue';
import { counted } from '../values/wording';
import type { Diagnostic } from './diagnostic';
import { type SheetWiring, wiringOf } from './sheet-wiring';
import { UnionFind } from './union-find';

/*
 * The first half of compiling: a sheet and its blocks, unfolded into instances whose bits are joined to nets.
 */

/** Blocks inside blocks, at most. */
const MOST_DEPTH = 100;
/** Parts with everything inside their blocks, at most: a few nested blocks can make endlessly many. */
const MOST_PARTS = 500_000;

/** One use of a sheet: the compiled one itself, or a block somewhere in it. */
export interface Instance {
  readonly wiring: SheetWiring;
  /** '' for the compiled sheet, else ids of blocks with slashes between. */
  readonly path: string;
  /** Number of its first net bit, pin bit and part among those of all instances. */
  readonly bits: number;
  readonly pinBits: number;
  readonly parts: number;
}

/** A sheet with everything inside its blocks, and the net of each bit. */
export class FlatSheet {
  readonly instances: Instance[] = [];
  /** The problems of blocks, and of each sheet on its own. */
  readonly diagnostics: Diagnostic[] = [];
  /** How many nets the wires make. */
  nets = 0;
  private readonly seen = new Set<SheetWiring>();
  private readonly library: ReadonlyMap<string, Sheet>;
  private readonly joins: [number, number][] = [];
  private bits = 0;
  private pinBits = 0;
  private parts = 0;
  /** The net of each net bit. */
  private netOfBit = new Int32Array(0);

  /** @param sheets where the sheets of its blocks are. */
  constructor(
    readonly sheet: Sheet,
    sheets: readonly Sheet[],
  ) {
    this.library = new Map(sheets.map((s) => [s.id, s]));
    this.unfold(wiringOf(sheet), '', [sheet.id]);
    this.numberNets();
  }

  get root(): Instance {
    return this.instances[0]!;
  }

  /** The net of a bit of an instance's wiring. */
  netOf(instance: Instance, bit: number): number {
    return this.netOfBit[instance.bits + bit]!;
  }

  /** The net on which a pin bit of a part lies. */
  netOfPin(instance: Instance, part: number, ref: number): number {
    return this.netOfBit[this.bitAt(instance, part, ref)]!;
  }

  /** Adds an instance and, block by block, those inside it. */
  private unfold(wiring: SheetWiring, path: string, above: readonly string[]): Instance {
    const instance = { wiring, path, bits: this.bits, pinBits: this.pinBits, parts: this.parts };
    this.instances.push(instance);
    this.bits += wiring.bits;
    this.pinBits += wiring.bitOf.length;
    this.parts += wiring.parts.length;
    const inside = above.length > 1 ? { inside: wiring.sheet.id } : {};
    if (!this.seen.has(wiring))
      for (const d of wiring.diagnostics) this.diagnostics.push({ ...d, ...inside });
    this.seen.add(wiring);
    for (let i = 0; i < wiring.parts.length; i++) {
      const template = wiring.templates[i]!;
      for (const [a, b] of template.joins)
        this.joins.push([this.bitAt(instance, i, a), this.bitAt(instance, i, b)]);
      if (template.kind.insideSheet) this.enter(instance, i, above);
    }
    return instance;
  }

  private bitAt(instance: Instance, part: number, ref: number): number {
    const { wiring } = instance;
    return instance.bits + wiring.bitOf[wiring.pinBits[part]! + ref]!;
  }

  /** Unfolds the sheet inside a block and ties its ports to the pins of the block. */
  private enter(instance: Instance, index: number, above: readonly string[]): void {
    const { wiring } = instance;
    const part = wiring.parts[index]!;
    const at = {
      pins: [{ part: part.id, port: '' }],
      severity: 'problem' as const,
      ...insideOf(instance),
    };
    const id = sheetIdInside(part) ?? '';
    const sheet = this.library.get(id);
    if (!sheet) {
      this.diagnostics.push({
        ...at,
        code: 'unknown-block',
        message: `${spokenName(part)} is a block of a sheet that this lesson does not have (${id || 'none named'}). Bring the sheet into the lesson, or take the block away.`,
      });
      return;
    }
    if (above.includes(id) || above.length > MOST_DEPTH || this.parts > MOST_PARTS) {
      const names = [...above.slice(Math.max(0, above.indexOf(id))), id].map(
        (s) => this.library.get(s)?.name ?? this.sheet.name,
      );
      this.diagnostics.push({
        ...at,
        code: 'recursion',
        message: above.includes(id)
          ? `A sheet cannot hold itself: ${names.map((n) => `“${n}”`).join(' holds ')}. Take ${spokenName(part)} away.`
          : `Blocks inside blocks have become too many: the rest inside ${spokenName(part)} is left out.`,
      });
      return;
    }
    const path = instance.path ? `${instance.path}/${part.id}` : part.id;
    const inner = this.unfold(wiringOf(sheet), path, [...above, id]);
    const template = wiring.templates[index]!;
    const tied = new Set<string>();
    for (let p = 0; p < inner.wiring.parts.length; p++) {
      const port = inner.wiring.parts[p]!;
      if (!inner.wiring.templates[p]!.kind.boundary) continue;
      const pin = template.portIndex.get(port.label);
      if (pin === undefined) continue;
      tied.add(port.label);
      const start = template.pinStart[pin]!;
      const width = template.ports[pin]!.width;
      const innerWidth = inner.wiring.templates[p]!.ports[0]!.width;
      for (let bit = 0; bit < Math.min(width, innerWidth); bit++)
        this.joins.push([this.bitAt(instance, index, start + bit), this.bitAt(inner, p, bit)]);
      if (width !== innerWidth)
        this.diagnostics.push({
          ...at,
          code: 'width-mismatch',
          pins: [{ part: part.id, port: port.label }],
          message: `${port.label} of ${spokenName(part)} has ${counted(width, 'bit')}, but ${innerWidth} inside “${sheet.name}”. Take the block's ports from its sheet anew.`,
        });
    }
    for (const { name } of template.ports)
      if (!tied.has(name))
        this.diagnostics.push({
          ...at,
          code: 'missing-port',
          pins: [{ part: part.id, port: name }],
          message: `${spokenName(part)} has a pin ${name}, but “${sheet.name}” has no port of that name. Name a port so inside, or take the block's ports from its sheet anew.`,
        });
  }

  private numberNets(): void {
    this.netOfBit = new Int32Array(this.bits);
    if (this.joins.length === 0) {
      for (let b = 0; b < this.bits; b++) this.netOfBit[b] = b;
      this.nets = this.bits;
      return;
    }
    const sets = new UnionFind(this.bits);
    for (const [a, b] of this.joins) sets.union(a, b);
    const number = new Int32Array(this.bits).fill(-1);
    for (let b = 0; b < this.bits; b++) {
      const root = sets.find(b);
      if (number[root] === -1) number[root] = this.nets++;
      this.netOfBit[b] = number[root]!;
    }
  }

  /** The path of a part by its number among the parts of all instances. */
  partName(owner: number): string {
    let low = 0;
    for (let high = this.instances.length - 1; low < high; ) {
      const middle = (low + high + 1) >> 1;
      if (this.instances[middle]!.parts <= owner) low = middle;
      else high = middle - 1;
    }
    const { wiring, path, parts } = this.instances[low]!;
    const id = wiring.parts[owner - parts]?.id ?? '';
    return path ? `${path}/${id}` : id;
  }
}

/** Where a problem is told that lies inside a block. */
export const insideOf = ({ path, wiring }: Instance) => (path ? { inside: wiring.sheet.id } : {});
