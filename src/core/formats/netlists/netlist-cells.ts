import type { Sheet } from '../../circuit/sheet';
import { type Bit, C0, C1, Cells } from '../verilog/cells';
import { Gates, NOW } from '../verilog/gates';

/** A circuit that is made of bits with names, line by line. */
export class NamedBits {
  private readonly cells: Cells;
  readonly gates: Gates;
  private readonly bits = new Map<string, Bit>();

  constructor(id: string, name: string) {
    this.cells = new Cells(id, name);
    this.gates = new Gates(this.cells);
  }

  bit(name: string): Bit {
    const known = this.bits.get(name);
    if (known !== undefined) return known;
    const [made] = this.cells.fresh(1) as [Bit];
    this.bits.set(name, made);
    return made;
  }

  input(name: string, rank: number): void {
    this.cells.add(
      'port',
      { direction: 'in', width: 1 },
      { Y: [this.bit(name)] },
      `p_${name}`,
      name.slice(0, 60),
      rank,
    );
  }

  output(name: string, rank: number, from: Bit = this.bit(name)): void {
    this.cells.add(
      'port',
      { direction: 'out', width: 1 },
      { A: [from] },
      `p_${name}`,
      name.slice(0, 60),
      rank,
    );
  }

  /** Makes a name stand for what something else gives. */
  join(name: string, from: Bit): void {
    this.cells.join(this.bit(name), from);
  }

  /** Adds a D flip-flop. @param begins its power-up value; null for that of the lesson. */
  store(
    name: string,
    data: Bit,
    clock: Bit,
    edge: 'rising' | 'falling',
    begins: 0 | 1 | null,
    isUnknown = false,
  ): void {
    const powerUp = begins === null ? (isUnknown ? 'X' : 'lesson') : `${begins}`;
    const params = { ...NOW, setup: 0, hold: 0, edge, enable: 'no', clear: 'none', preset: 'none', powerUp };
    this.cells.add('dff', params, { D: [data], C: [clock], Q: [this.bit(name)] }, name);
  }

  block(
    id: string,
    title: string,
    inputs: string,
    outputs: string,
    pins: Readonly<Record<string, Bit>>,
  ): void {
    const tied = Object.fromEntries(Object.entries(pins).map(([pin, bit]) => [pin, [bit]]));
    this.cells.add(
      'block',
      { sheet: id, title: title.slice(0, 60), inputs, outputs },
      tied,
      title,
      title.slice(0, 60),
    );
  }

  /** Builds a sum of products. @param cubes one literal an input: 1, 0 (inverted), or -1 (absent). */
  sum(inputs: readonly Bit[], cubes: readonly (readonly (0 | 1 | -1)[])[]): Bit {
    const { gates } = this;
    if (cubes.length === 2 && inputs.length === 2) {
      const [a, b] = cubes.map((cube) => cube.join()).sort();
      if (a === '0,1' && b === '1,0') return gates.gate('xor', [[inputs[0]!], [inputs[1]!]], NOW)[0]!;
      if (a === '0,0' && b === '1,1') return gates.gate('xnor', [[inputs[0]!], [inputs[1]!]], NOW)[0]!;
    }
    return this.anyOf(cubes.map((cube) => gates.equals(inputs, cube)));
  }

  /** The OR of bits; 0 of none. */
  anyOf(terms: readonly Bit[]): Bit {
    if (terms.includes(C1)) return C1;
    const open = [...new Set(terms)].filter((term) => term !== C0);
    return open.length === 0 ? C0 : this.gates.reduced('or', open).bits[0]!;
  }

  get count(): number {
    return this.cells.count;
  }

  sheet(): Sheet {
    return this.cells.sheet();
  }
}
