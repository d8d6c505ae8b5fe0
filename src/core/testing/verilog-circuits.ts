/**
 * Verilog of a ripple-carry adder, of plain gates or of NAND gates only.
 * @param spoiled the bit whose carry is wrong, in one of NAND gates.
 */
export function adder(bits: number, of: 'gates' | 'nand', spoiled = -1): string {
  const lines = [
    `module add(input [${bits - 1}:0] a, b, output [${bits}:0] s); wire [${bits}:0] c; assign c[0] = 0;`,
  ];
  for (let i = 0; i < bits; i++) {
    const [a, b, c, next, sum] = [`a[${i}]`, `b[${i}]`, `c[${i}]`, `c[${i + 1}]`, `s[${i}]`];
    if (of === 'gates') {
      lines.push(`assign ${sum} = ${a} ^ ${b} ^ ${c}; assign ${next} = ${a} & ${b} | ${c} & (${a} | ${b});`);
      continue;
    }
    const [n, p, q, x, m, r, t] = ['n', 'p', 'q', 'x', 'm', 'r', 't'].map((w) => w + i);
    lines.push(
      `wire ${[n, p, q, x, m, r, t].join(', ')};`,
      `nand(${n}, ${a}, ${b}); nand(${p}, ${a}, ${n}); nand(${q}, ${b}, ${n}); nand(${x}, ${p}, ${q});`,
      `nand(${m}, ${x}, ${c}); nand(${r}, ${x}, ${m}); nand(${t}, ${c}, ${m}); nand(${sum}, ${r}, ${t});`,
      `nand(${next}, ${m}, ${i === spoiled ? m : n});`,
    );
  }
  return `${lines.join('\n')} assign s[${bits}] = c[${bits}]; endmodule`;
}

/** Verilog of a multiplier that adds up the rows of one of its numbers, by plain gates or by NAND gates only. */
export function product(bits: number, rowsOf: 'a' | 'b', of: 'gates' | 'nand' = 'gates'): string {
  const other = rowsOf === 'a' ? 'b' : 'a';
  const lines = [`module mul(input [${bits - 1}:0] a, b, output [${2 * bits - 1}:0] p);`];
  let sum: string[] = Array.from({ length: bits }, (_, i) => `(${rowsOf}[0] & ${other}[${i}])`);
  for (let r = 1; r < bits; r++) {
    lines.push(`assign p[${r - 1}] = ${sum[0]};`);
    const next: string[] = [];
    let carry = "1'b0";
    for (let i = 0; i < bits; i++) {
      const [u, v] = [sum[i + 1] ?? "1'b0", `(${rowsOf}[${r}] & ${other}[${i}])`];
      const name = `${r}_${i}`;
      lines.push(`wire s${name}, c${name};`);
      if (of === 'gates')
        lines.push(
          `assign s${name} = ${u} ^ ${v} ^ ${carry};`,
          `assign c${name} = ${u} & ${v} | ${carry} & (${u} | ${v});`,
        );
      else {
        const [p, n, x, m] = ['p', 'n', 'x', 'm'].map((w) => w + name);
        lines.push(
          `wire ${p}, ${n}, ${x}, ${m}; assign ${p} = ${v}; assign ${n} = ~(${u} & ${p});`,
          `assign ${x} = ~(~(${u} & ${n}) & ~(${p} & ${n})); assign ${m} = ~(${x} & ${carry});`,
          `assign s${name} = ~(~(${x} & ${m}) & ~(${carry} & ${m})); assign c${name} = ~(${m} & ${n});`,
        );
      }
      next.push(`s${name}`);
      carry = `c${name}`;
    }
    sum = [...next, carry];
  }
  for (const [i, bit] of sum.entries()) lines.push(`assign p[${bits - 1 + i}] = ${bit};`);
  return `${lines.join('\n')}\nendmodule`;
}

/** Verilog of a multiplier that keeps its carries until the last row, which adds them (Rabaey and others, 2003, section 11.4). */
export function carrySave(bits: number): string {
  const lines = [`module mul(input [${bits - 1}:0] a, b, output [${2 * bits - 1}:0] p);`];
  /** The bits of each weight that wait to be added. */
  const columns: string[][] = Array.from({ length: 2 * bits }, () => []);
  let count = 0;
  const name = (of: string) => {
    const wire = `w${count++}`;
    lines.push(`wire ${wire}; assign ${wire} = ${of};`);
    return wire;
  };
  const add = (weight: number, x: string, y: string, z: string | undefined) => {
    columns[weight]!.push(name(z ? `${x} ^ ${y} ^ ${z}` : `${x} ^ ${y}`));
    columns[weight + 1]?.push(name(z ? `${x} & ${y} | ${x} & ${z} | ${y} & ${z}` : `${x} & ${y}`));
  };
  for (let row = 0; row < bits; row++) {
    for (let i = 0; i < bits; i++) columns[row + i]!.push(name(`a[${i}] & b[${row}]`));
    // Three of a weight become one of it and one of the next.
    for (let weight = 2 * bits - 1; weight >= 0; weight--)
      if (columns[weight]!.length === 3) {
        const [x, y, z] = columns[weight]!.splice(0, 3);
        add(weight, x!, y!, z);
      }
  }
  for (let weight = 0; weight < 2 * bits; weight++) {
    while (columns[weight]!.length > 1) {
      const [x, y, z] = columns[weight]!.splice(0, 3);
      add(weight, x!, y!, z);
    }
    lines.push(`assign p[${weight}] = ${columns[weight]![0] ?? "1'b0"};`);
  }
  return `${lines.join('\n')}\nendmodule`;
}

/** Verilog of an adder whose carries are found by joining neighbouring ones in ever larger steps (Kogge and Stone, 1973). */
export function prefixAdder(bits: number): string {
  const lines = [`module add(input [${bits - 1}:0] a, b, output [${bits}:0] s);`];
  let [g, p] = ['&', '^'].map((op, k) =>
    Array.from({ length: bits }, (_, i) => {
      lines.push(`wire ${'gp'[k]}0_${i}; assign ${'gp'[k]}0_${i} = a[${i}] ${op} b[${i}];`);
      return `${'gp'[k]}0_${i}`;
    }),
  ) as [string[], string[]];
  const half = p;
  for (let step = 1; step < bits; step *= 2) {
    const [lastG, lastP] = [g, p];
    [g, p] = [[...g], [...p]];
    for (let i = step; i < bits; i++) {
      const [newG, newP] = [`g${step}x${i}`, `p${step}x${i}`];
      lines.push(
        `wire ${newG}, ${newP};`,
        `assign ${newG} = ${lastG[i]} | ${lastP[i]} & ${lastG[i - step]}; assign ${newP} = ${lastP[i]} & ${lastP[i - step]};`,
      );
      g[i] = newG;
      p[i] = newP;
    }
  }
  for (let i = 0; i < bits; i++) lines.push(`assign s[${i}] = ${half[i]}${i > 0 ? ` ^ ${g[i - 1]}` : ''};`);
  lines.push(`assign s[${bits}] = ${g[bits - 1]};`);
  return `${lines.join('\n')}\nendmodule`;
}

/** Verilog of a counter with an enable, of stages that toggle, or of a register behind something that adds one. */
export function counter(bits: number, by: 'toggle' | 'add'): string {
  const lines = [`module count(input clk, input on, output reg [${bits - 1}:0] q);`];
  const below = (i: number) => ['on', ...Array.from({ length: i }, (_, k) => `q[${k}]`)].join(' & ');
  if (by === 'toggle') {
    for (let i = 0; i < bits; i++) lines.push(`always @(posedge clk) q[${i}] <= q[${i}] ^ (${below(i)});`);
  } else {
    lines.push(`wire [${bits}:0] c; assign c[0] = on;`);
    for (let i = 0; i < bits; i++)
      lines.push(
        `assign c[${i + 1}] = c[${i}] & q[${i}];`,
        `always @(posedge clk) q[${i}] <= c[${i}] & ~q[${i}] | ~c[${i}] & q[${i}];`,
      );
  }
  return `${lines.join('\n')}\nendmodule`;
}

/** A circuit with one output in the place of its word, which says whether that has an odd number of ones. */
export function parityOf(text: string, word: string, bits: number): string {
  return text
    .replace(`output [${bits - 1}:0] ${word});`, `output odd); wire [${bits - 1}:0] ${word};`)
    .replace(
      'endmodule',
      `assign odd = ${Array.from({ length: bits }, (_, i) => `${word}[${i}]`).join(' ^ ')}; endmodule`,
    );
}
