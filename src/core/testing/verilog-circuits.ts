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
