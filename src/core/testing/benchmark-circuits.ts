/*
 * Circuits as sets of benchmarks have them, written straight in the formats in which such sets are exchanged: adders, multipliers, parity
 * and counters of any size, each in two ways that do the same.
 */

/** Lines of a BLIF model that grows gate by gate. */
class Blif {
  private readonly lines: string[] = [];
  private readonly inputs: string[] = [];
  private readonly outputs: string[] = [];
  private made = 0;

  constructor(private readonly name: string) {}

  input(name: string): string {
    this.inputs.push(name);
    return name;
  }

  /** @param rows of ones, as `11 1`. */
  private names(ins: readonly string[], rows: readonly string[], out = `n${this.made++}`): string {
    this.lines.push(`.names ${[...ins, out].join(' ')}`, ...rows);
    return out;
  }

  and = (a: string, b: string) => this.names([a, b], ['11 1']);
  xor = (a: string, b: string) => this.names([a, b], ['10 1', '01 1']);
  or3 = (a: string, b: string, c: string) => this.names([a, b, c], ['1-- 1', '-1- 1', '--1 1']);
  majority = (a: string, b: string, c: string) => this.names([a, b, c], ['11- 1', '1-1 1', '-11 1']);
  not = (a: string) => this.names([a], ['0 1']);
  zero = () => this.names([], []);

  latch(next: string, name: string): void {
    this.lines.push(`.latch ${next} ${name} re clock 0`);
  }

  output(name: string, of: string): void {
    this.outputs.push(name);
    this.names([of], ['1 1'], name);
  }

  text(): string {
    return [
      `.model ${this.name}`,
      `.inputs ${this.inputs.join(' ')}`,
      `.outputs ${this.outputs.join(' ')}`,
      ...this.lines,
      '.end',
      '',
    ].join('\n');
  }
}

/** An and-inverter graph that grows gate by gate. Inputs come first, as the format wants them. */
class Aiger {
  private readonly ands: string[] = [];
  private readonly outputs: { readonly name: string; readonly of: number }[] = [];
  private next: number;

  constructor(private readonly inputs: readonly string[]) {
    this.next = inputs.length + 1;
  }

  input = (name: string): number => 2 * (this.inputs.indexOf(name) + 1);

  and(a: number, b: number): number {
    const out = 2 * this.next++;
    this.ands.push(`${out} ${Math.max(a, b)} ${Math.min(a, b)}`);
    return out;
  }

  or = (a: number, b: number): number => this.and(a ^ 1, b ^ 1) ^ 1;
  xor = (a: number, b: number): number => this.and(this.and(a, b) ^ 1, this.and(a ^ 1, b ^ 1) ^ 1);

  output(name: string, of: number): void {
    this.outputs.push({ name, of });
  }

  text(): string {
    const { inputs, outputs, ands } = this;
    return [
      `aag ${this.next - 1} ${inputs.length} 0 ${outputs.length} ${ands.length}`,
      ...inputs.map((_, i) => String(2 * (i + 1))),
      ...outputs.map(({ of }) => String(of)),
      ...ands,
      ...inputs.map((name, i) => `i${i} ${name}`),
      ...outputs.map(({ name }, i) => `o${i} ${name}`),
      '',
    ].join('\n');
  }
}

const bits = (name: string, n: number): string[] => Array.from({ length: n }, (_, i) => `${name}${i}`);

/** An adder of n bits whose carry ripples, in BLIF: a0…, b0…, the sum s0… and its carry s{n}. */
export function rippleAdder(n: number): string {
  const g = new Blif('ripple');
  const [a, b] = [bits('a', n), bits('b', n)].map((names) => names.map((name) => g.input(name)));
  let carry = g.zero();
  for (let i = 0; i < n; i++) {
    g.output(`s${i}`, g.xor(g.xor(a![i]!, b![i]!), carry));
    carry = g.majority(a![i]!, b![i]!, carry);
  }
  g.output(`s${n}`, carry);
  return g.text();
}

/** The same with all carries in parallel (Kogge and Stone, 1973), as an and-inverter graph. */
export function prefixAdder(n: number): string {
  const g = new Aiger([...bits('a', n), ...bits('b', n)]);
  const pairs = Array.from({ length: n }, (_, i) => [g.input(`a${i}`), g.input(`b${i}`)] as const);
  const half = pairs.map(([a, b]) => g.xor(a, b));
  let made = pairs.map(([a, b], i) => ({ generate: g.and(a, b), passes: half[i]! }));
  for (let by = 1; by < n; by *= 2)
    made = made.map((high, i) => {
      const low = made[i - by];
      if (!low) return high;
      return {
        generate: g.or(high.generate, g.and(high.passes, low.generate)),
        passes: g.and(high.passes, low.passes),
      };
    });
  for (let i = 0; i < n; i++) g.output(`s${i}`, i === 0 ? half[0]! : g.xor(half[i]!, made[i - 1]!.generate));
  g.output(`s${n}`, made[n - 1]!.generate);
  return g.text();
}

/** A multiplier of n by n bits that adds row after row, in BLIF. */
export function arrayMultiplier(n: number): string {
  const g = new Blif('array');
  const [a, b] = [bits('a', n), bits('b', n)].map((names) => names.map((name) => g.input(name)));
  let sum: string[] = [];
  for (let row = 0; row < n; row++) {
    const products = a!.map((bit) => g.and(bit, b![row]!));
    const next: string[] = [];
    let carry = g.zero();
    for (const [i, product] of products.entries()) {
      const above = sum[i];
      if (above === undefined) {
        next.push(g.xor(product, carry));
        carry = g.and(product, carry);
      } else {
        next.push(g.xor(g.xor(product, above), carry));
        carry = g.majority(product, above, carry);
      }
    }
    next.push(carry);
    g.output(`p${row}`, next[0]!);
    sum = next.slice(1);
  }
  for (const [i, bit] of sum.entries()) g.output(`p${n + i}`, bit);
  return g.text();
}

/** The same with carries kept from row to row, and added in the last one, as an and-inverter graph. */
export function carrySaveMultiplier(n: number): string {
  const g = new Aiger([...bits('a', n), ...bits('b', n)]);
  const columns: number[][] = Array.from({ length: 2 * n }, () => []);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) columns[i + j]!.push(g.and(g.input(`a${i}`), g.input(`b${j}`)));
  for (const [at, column] of columns.entries()) {
    while (column.length > 1) {
      const [x, y] = [column.shift()!, column.shift()!];
      const z = column.shift();
      const half = g.xor(x, y);
      const both = g.and(x, y);
      column.push(z === undefined ? half : g.xor(half, z));
      const carry = z === undefined ? both : g.or(both, g.and(half, z));
      columns[at + 1]?.push(carry);
    }
    g.output(`p${at}`, column[0] ?? 0);
  }
  return g.text();
}

/** The parity of n bits, one after the other, in BLIF. */
export function parityChain(n: number): string {
  const g = new Blif('chain');
  const ins = bits('x', n).map((name) => g.input(name));
  g.output('odd', ins.reduce(g.xor));
  return g.text();
}

/** The same as a tree, as an and-inverter graph. */
export function parityTree(n: number): string {
  const g = new Aiger(bits('x', n));
  let level = bits('x', n).map(g.input);
  while (level.length > 1)
    level = Array.from({ length: Math.ceil(level.length / 2) }, (_, i) => {
      const [a, b] = [level[2 * i]!, level[2 * i + 1]];
      return b === undefined ? a : g.xor(a, b);
    });
  g.output('odd', level[0]!);
  return g.text();
}

/** A counter of n bits with an enable, in BLIF; its carry passes from bit to bit. */
export function counter(n: number): string {
  const g = new Blif('counter');
  g.input('clock');
  let carry = g.input('on');
  for (const q of bits('q', n)) {
    g.latch(g.xor(q, carry), q);
    carry = g.and(q, carry);
  }
  g.output('full', carry);
  return g.text();
}

/** The same as a state table, in KISS2: it counts while `on` is 1, and tells where it is full. */
export function counterTable(n: number): string {
  const states = 2 ** n;
  const lines = Array.from({ length: states }, (_, s) => [
    `0 s${s} s${s} 0`,
    `1 s${s} s${(s + 1) % states} ${s === states - 1 ? 1 : 0}`,
  ]).flat();
  return [
    '.i 1',
    '.o 1',
    `.p ${lines.length}`,
    `.s ${states}`,
    '.r s0',
    '.ilb on',
    '.ob full',
    ...lines,
    '.e',
    '',
  ].join('\n');
}

/** Whether more than half of n bits are 1, as a table of products. @param n odd. */
export function majorityTable(n: number): string {
  const most = (n + 1) / 2;
  const rows: string[] = [];
  const choose = (from: number, left: number, row: string): void => {
    if (left === 0) rows.push(`${row.padEnd(n, '-')} 1`);
    else for (let i = from; i <= n - left; i++) choose(i + 1, left - 1, `${row.padEnd(i, '-')}1`);
  };
  choose(0, most, '');
  return [
    `.i ${n}`,
    '.o 1',
    `.ilb ${bits('x', n).join(' ')}`,
    '.ob most',
    `.p ${rows.length}`,
    ...rows,
    '.e',
    '',
  ].join('\n');
}

/** The same by counting the ones, in BLIF. */
export function majorityCount(n: number): string {
  const g = new Blif('count');
  let word: string[] = [];
  for (const name of bits('x', n)) {
    let carry = g.input(name);
    word = word.map((bit) => {
      const sum = g.xor(bit, carry);
      carry = g.and(bit, carry);
      return sum;
    });
    if (2 ** word.length - 1 < n) word.push(carry);
  }
  // As many as most, or more: counted from the top bit, greater where a bit is 1 and the bound has 0.
  const most = (n + 1) / 2;
  let same = '';
  let greater = g.zero();
  for (let i = word.length - 1; i >= 0; i--) {
    const wanted = (most >> i) & 1;
    if (wanted) same = same ? g.and(same, word[i]!) : word[i]!;
    else {
      const here = same ? g.and(same, word[i]!) : word[i]!;
      greater = g.or3(greater, here, here);
      const not = g.not(word[i]!);
      same = same ? g.and(same, not) : not;
    }
  }
  g.output('most', g.or3(greater, same, same));
  return g.text();
}
