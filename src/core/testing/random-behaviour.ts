/*
 * Random modules as they are taught: processes, loops, cases, functions, memories, numbers with a sign. Only texts: what they mean
 * is left to the interpreter.
 */

export interface RandomBehaviour {
  readonly text: string;
  /** Names and widths; `clk` and `rst` are not among them. */
  readonly inputs: readonly (readonly [name: string, width: number])[];
  readonly outputs: readonly string[];
  readonly isClocked: boolean;
}

interface Named {
  readonly name: string;
  readonly width: number;
  readonly signed: boolean;
}

const BINARY = [
  '+',
  '-',
  '*',
  '&',
  '|',
  '^',
  '~^',
  '<<',
  '>>',
  '<<<',
  '>>>',
  '<',
  '<=',
  '>',
  '>=',
  '==',
  '!=',
  '&&',
  '||',
];
const UNARY = ['~', '-', '!', '&', '|', '^', '~&', '~|', '~^', '+'];

class Writer {
  constructor(private readonly roll: () => number) {}

  below(n: number): number {
    return Math.floor(this.roll() * n);
  }

  one<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }

  chance(share: number): boolean {
    return this.roll() < share;
  }

  literal(): string {
    const width = 1 + this.below(6);
    const value = this.below(2 ** width);
    return this.one([
      `${width}'b${value.toString(2)}`,
      `${width}'h${value.toString(16)}`,
      `${width}'d${value}`,
      `${width}'sd${value}`,
      `${value}`,
      `-${width}'sd${value}`,
    ]);
  }

  expression(known: readonly Named[], depth: number, functions: readonly string[] = []): string {
    if (depth === 0 || known.length === 0 || this.chance(0.15))
      return known.length > 0 && this.chance(0.75) ? this.leaf(known) : this.literal();
    const inner = () => this.expression(known, depth - 1, functions);
    switch (this.below(9)) {
      case 0:
        return `(${this.one(UNARY)}${this.leaf(known)})`;
      case 1:
        return `(${inner()} ? ${inner()} : ${inner()})`;
      case 2:
        return `{${this.leaf(known)}, ${this.leaf(known)}}`;
      case 3:
        return `{${1 + this.below(3)}{${this.leaf(known)}}}`;
      case 4:
        return `$${this.one(['signed', 'unsigned'])}(${inner()})`;
      case 5:
        if (functions.length > 0) return `${this.one(functions)}(${inner()}, ${inner()})`;
        return `(${inner()} ${this.one(['/', '%'])} ${this.one(["3'd4", "2'd2", '8', "3'd3", '5'])})`;
      default: {
        const operator = this.one(BINARY);
        // A shift by as many places as a long number says is mostly nothing.
        const right = /[<>]{2}/.test(operator)
          ? this.one([...known.filter((k) => k.width < 4).map((k) => k.name), '1', '2'])
          : inner();
        return `(${inner()} ${operator} ${right})`;
      }
    }
  }

  private leaf(known: readonly Named[]): string {
    const { name, width } = this.one(known);
    if (width === 1 || this.chance(0.6)) return name;
    const low = this.below(width);
    switch (this.below(3)) {
      case 0:
        return `${name}[${low}]`;
      case 1:
        return `${name}[${low + this.below(width - low)}:${low}]`;
      default: {
        const index = known.filter((k) => 2 ** k.width <= width && !k.signed);
        return index.length > 0 ? `${name}[${this.one(index).name}]` : name;
      }
    }
  }

  /** Statements that assign variables; each is assigned before it is read. */
  statements(
    known: readonly Named[],
    targets: readonly Named[],
    sign: '=' | '<=',
    depth: number,
    functions: readonly string[],
  ): string {
    const assign = () => {
      const { name, width } = this.one(targets);
      const value = this.expression(known, 2, functions);
      const index = known.filter((k) => 2 ** k.width <= width && !k.signed);
      if (width > 1 && this.chance(0.25)) {
        const low = this.below(width);
        const place =
          index.length > 0 && this.chance(0.5)
            ? this.one(index).name
            : this.chance(0.5)
              ? `${low}`
              : `${width - 1}:${low}`;
        return `${name}[${place}] ${sign} ${value};`;
      }
      return `${name} ${sign} ${value};`;
    };
    const inner = () => this.statements(known, targets, sign, depth - 1, functions);
    const list = Array.from({ length: 1 + this.below(3) }, () => {
      if (depth === 0 || this.chance(0.4)) return assign();
      switch (this.below(5)) {
        case 0:
        case 1:
          return `if (${this.expression(known, 2)}) ${inner()}${this.chance(0.6) ? ` else ${inner()}` : ''}`;
        case 2: {
          const vector = known.filter((k) => k.width > 1 && k.width < 5);
          if (vector.length === 0) return assign();
          const { name, width } = this.one(vector);
          const labels = [
            ...new Set(Array.from({ length: 2 + this.below(4) }, () => this.below(2 ** width))),
          ];
          const how = this.one(['case', 'case', 'casez', 'casex']);
          const label = (value: number) => {
            const digits = value.toString(2).padStart(width, '0');
            return `${width}'b${how === 'case' || this.chance(0.5) ? digits : `?${digits.slice(1)}`}`;
          };
          const items = labels.map((value) => `${label(value)}: ${inner()}`);
          return `${how} (${name}) ${items.join(' ')} ${this.chance(0.7) ? `default: ${inner()}` : ''} endcase`;
        }
        case 3: {
          const { name, width } = this.one(targets);
          return `for (i = 0; i < ${width}; i = i + 1) ${name}[i] ${sign} ${this.expression(known, 1)}${this.chance(0.5) ? ' ^ (i == 1)' : ''};`.replace(
            width === 1 ? `${name}[i]` : '\0',
            name,
          );
        }
        default:
          return assign();
      }
    });
    return `begin ${list.join(' ')} end`;
  }

  function(name: string): string {
    const width = 1 + this.below(6);
    const [a, b] = [1, 2].map(() => 1 + this.below(5)) as [number, number];
    const signed = this.chance(0.3);
    const known: Named[] = [
      { name: 'p', width: a, signed },
      { name: 'q', width: b, signed: false },
    ];
    const target: Named = { name, width, signed };
    return `function ${signed ? 'signed ' : ''}[${width - 1}:0] ${name};
    input ${signed ? 'signed ' : ''}[${a - 1}:0] p; input [${b - 1}:0] q; integer i;
    begin ${name} = ${this.expression(known, 2)}; ${this.statements([...known, target], [target], '=', 1, [])} end
  endfunction`;
  }
}

/** A module of random processes. Every variable has a value from the start, so that the interpreter knows all. */
export function randomBehaviour(roll: () => number): RandomBehaviour {
  const w = new Writer(roll);
  const named = (name: string): Named => ({ name, width: 1 + w.below(6), signed: w.chance(0.3) });
  const range = ({ width, signed }: Named) =>
    `${signed ? 'signed ' : ''}${width > 1 || w.chance(0.3) ? `[${width - 1}:0] ` : ''}`;
  const vector = ({ width, signed }: Named) => `${signed ? 'signed ' : ''}[${width - 1}:0] `;
  const inputs = Array.from({ length: 2 + w.below(3) }, (_, i) => named(`in${i}`));
  const known = [...inputs];
  const items: string[] = [];
  const outputs: Named[] = [];
  const functions = Array.from({ length: w.below(2) }, (_, i) => `f${i}`);
  for (const f of functions) items.push(w.function(f));
  for (let i = 0; i < 1 + w.below(3); i++) {
    const wire = named(`w${i}`);
    items.push(`wire ${range(wire)}${wire.name} = ${w.expression(known, 3, functions)};`);
    known.push(wire);
    outputs.push(wire);
  }
  const isClocked = w.chance(0.6);
  if (isClocked) {
    const registers = Array.from({ length: 1 + w.below(3) }, (_, i) => named(`r${i}`));
    const isReset = w.chance(0.5);
    for (const r of registers) items.push(`reg ${vector(r)}${r.name} = ${w.below(2 ** r.width)};`);
    const body = w.statements([...known, ...registers], registers, '<=', 2, functions);
    const own = 'begin : b integer i; ';
    const reset = registers.map((r) => `${r.name} <= ${w.below(2 ** r.width)};`).join(' ');
    items.push(
      isReset
        ? `always @(posedge clk or posedge rst) if (rst) begin ${reset} end else ${own}${body} end`
        : `always @(posedge clk) ${w.chance(0.4) ? `if (rst) begin ${reset} end else ` : ''}${own}${body} end`,
    );
    known.push(...registers);
    outputs.push(...registers);
    const small = known.filter((k) => k.width < 4 && !k.signed);
    if (small.length > 0 && w.chance(0.3)) {
      const address = w.one(small);
      const cell = named('m');
      items.push(`reg ${vector(cell)}m [0:${2 ** address.width - 1}]; integer k;
  initial for (k = 0; k < ${2 ** address.width}; k = k + 1) m[k] = k * 3;
  always @(posedge clk) if (${w.expression(known, 1)}) m[${address.name}] <= ${w.expression(known, 1)};
  wire ${vector(cell)}mo = m[${w.one(small.filter((s) => s.width <= address.width)).name}];`);
      outputs.push({ ...cell, name: 'mo' });
    }
  }
  for (let i = 0; i < 1 + w.below(2); i++) {
    const y = named(`y${i}`);
    const z = named(`z${i}`);
    items.push(`reg ${vector(y)}${y.name}; reg ${vector(z)}${z.name};
  always @* begin : c${i} integer i; ${y.name} = ${w.expression(known, 2)}; ${z.name} = ${w.expression([...known, y], 1)}; ${w.statements([...known, y, z], [y, z], '=', 2, functions)} end`);
    outputs.push(y, z);
    known.push(y, z);
  }
  if (w.chance(0.3)) {
    const n = 2 + w.below(3);
    items.push(`wire [${n - 1}:0] g; genvar v;
  generate for (v = 0; v < ${n}; v = v + 1) begin : each assign g[v] = ${w.expression(known, 1)} ${w.one(['==', '>', '<'])} v; end endgenerate`);
    outputs.push({ name: 'g', width: n, signed: false });
  }
  const ports = [
    ...inputs.map((i) => `input ${range(i)}${i.name}`),
    'input clk',
    'input rst',
    ...outputs.map((o) => `output [${o.width - 1}:0] o_${o.name}`),
  ];
  const shown = outputs.map((o) => `assign o_${o.name} = ${o.name};`);
  return {
    text: `module top(${ports.join(', ')});\n  ${[...items, ...shown].join('\n  ')}\nendmodule\n`,
    inputs: inputs.map(({ name, width }) => [name, width] as const),
    outputs: outputs.map((o) => `o_${o.name}`),
    isClocked,
  };
}
