/*
 * Random modules of every construct of Verilog that is read, each with what it means by IEEE Std 1364-2005: a list of
 * functions that are evaluated one after the other, in binary. One file, to be
 * read from top to bottom as the reference that it is.
 */

type Bits = readonly boolean[];
/** Values of signals by name, the lowest bit first. */
export type Values = Record<string, Bits>;

interface Signal {
  readonly name: string;
  readonly width: number;
  /** Whether its range is written with the lowest bit on the left, `[0:3]`. */
  readonly isUpward: boolean;
}

/** An expression: its text, its own width, and its value where the context is as wide as given or wider (clause 5.4). */
interface Expression {
  readonly text: string;
  readonly width: number;
  readonly at: (values: Values, width: number) => Bits;
}

export interface RandomModule {
  readonly text: string;
  readonly inputs: readonly Signal[];
  readonly outputs: readonly Signal[];
  /** Values of registers at power-up. */
  readonly begin: Values;
  /** The values of all signals for those of inputs and registers. */
  readonly settle: (values: Values) => Values;
  /** What registers take, from the values before and after an input has changed. */
  readonly clock: (before: Values, after: Values) => Values;
}

const padded = (bits: Bits, width: number): Bits => Array.from({ length: width }, (_, i) => bits[i] ?? false);
const any = (bits: Bits) => bits.some(Boolean);
const parity = (bits: Bits) => bits.filter(Boolean).length % 2 === 1;
const numberOf = (bits: Bits) => bits.reduce((sum, b, i) => sum + (b ? 2 ** i : 0), 0);
export const bitsOfNumber = (value: number, width: number): Bits =>
  Array.from({ length: width }, (_, i) => Math.floor(value / 2 ** i) % 2 === 1);

const BITWISE: Readonly<Record<string, (a: boolean, b: boolean) => boolean>> = {
  '&': (a, b) => a && b,
  '|': (a, b) => a || b,
  '^': (a, b) => a !== b,
  '~^': (a, b) => a === b,
  '^~': (a, b) => a === b,
};
const REDUCED: Readonly<Record<string, (bits: Bits) => boolean>> = {
  '&': (bits) => bits.every(Boolean),
  '|': any,
  '^': parity,
  '~&': (bits) => !bits.every(Boolean),
  '~|': (bits) => !any(bits),
  '~^': (bits) => !parity(bits),
  '!': (bits) => !any(bits),
};
const COMPARED: Readonly<Record<string, (a: Bits, b: Bits) => boolean>> = {
  '==': (a, b) => a.every((bit, i) => bit === b[i]),
  '!=': (a, b) => a.some((bit, i) => bit !== b[i]),
};
const JOINED: Readonly<Record<string, (a: boolean, b: boolean) => boolean>> = {
  '&&': (a, b) => a && b,
  '||': (a, b) => a || b,
};

/** Gate primitives, over the bits at their inputs. */
const GATES: Readonly<Record<string, (bits: Bits) => boolean>> = {
  and: (bits) => bits.every(Boolean),
  nand: (bits) => !bits.every(Boolean),
  or: any,
  nor: (bits) => !any(bits),
  xor: parity,
  xnor: (bits) => !parity(bits),
};

class Writer {
  readonly lines: string[] = [];
  readonly signals: Signal[] = [];
  readonly rules: ((values: Values) => Values)[] = [];
  private count = 0;

  constructor(readonly roll: () => number) {}

  name = (letter: string) => `${letter}${this.count++}`;
  whole = (least: number, most: number) => least + Math.floor(this.roll() * (most - least + 1));
  one = <T>(of: readonly T[]): T => of[Math.floor(this.roll() * of.length)]!;
  isSo = (share = 0.5) => this.roll() < share;

  range = ({ width, isUpward }: Signal) =>
    width === 1 ? '' : isUpward ? `[0:${width - 1}] ` : `[${width - 1}:0] `;

  signal(letter: string, width = this.one([1, 1, 2, 4])): Signal {
    return { name: this.name(letter), width, isUpward: width > 1 && this.isSo(0.3) };
  }

  /** A bit or a part of a signal, by its place from the lowest. */
  private selected({ name, width, isUpward }: Signal): Expression {
    const index = (place: number) => (isUpward ? width - 1 - place : place);
    const low = this.whole(0, width - 1);
    const high = this.isSo() ? low : this.whole(low, width - 1);
    const text = high === low ? `${name}[${index(low)}]` : `${name}[${index(high)}:${index(low)}]`;
    return {
      text,
      width: high - low + 1,
      at: (values, to) => padded(values[name]!.slice(low, high + 1), to),
    };
  }

  private indexed(signal: Signal): Expression | null {
    const by = this.one(this.signals.filter((s) => s.width === 1));
    if (signal.width < 2 || !by) return null;
    return {
      text: `${signal.name}[${by.name}]`,
      width: 1,
      at: (values, to) => {
        const index = values[by.name]![0] ? 1 : 0;
        return padded([values[signal.name]![signal.isUpward ? signal.width - 1 - index : index]!], to);
      },
    };
  }

  private literal(): Expression {
    const width = this.whole(1, 4);
    const value = this.whole(0, 2 ** width - 1);
    const text = this.one([
      `${width}'b${value.toString(2)}`,
      `${width}'h${value.toString(16)}`,
      `${width}'d${value}`,
      `${width}'o${value.toString(8)}`,
    ]);
    return { text, width, at: (_, to) => padded(bitsOfNumber(value, width), to) };
  }

  expression(depth = this.whole(0, 3)): Expression {
    const signal = this.one(this.signals);
    if (depth === 0) {
      const kind = this.whole(0, 5);
      if (kind === 0) return this.literal();
      if (kind === 1 && signal.width > 1) return this.selected(signal);
      const indexed = kind === 2 ? this.indexed(signal) : null;
      if (indexed) return indexed;
      return { text: signal.name, width: signal.width, at: (values, to) => padded(values[signal.name]!, to) };
    }
    const [a, b] = [this.expression(depth - 1), this.expression(depth - 1)];
    const width = Math.max(a.width, b.width);
    switch (this.whole(0, 8)) {
      case 0:
        return { text: `(~${a.text})`, width: a.width, at: (v, to) => a.at(v, to).map((bit) => !bit) };
      case 1: {
        const [sign, reduce] = this.one(Object.entries(REDUCED));
        return {
          text: `(${sign}${a.text})`,
          width: 1,
          at: (v, to) => padded([reduce(a.at(v, a.width))], to),
        };
      }
      case 2: {
        const [sign, compare] = this.one(Object.entries(COMPARED));
        return {
          text: `(${a.text} ${sign} ${b.text})`,
          width: 1,
          at: (v, to) => padded([compare(a.at(v, width), b.at(v, width))], to),
        };
      }
      case 3: {
        const [sign, join] = this.one(Object.entries(JOINED));
        return {
          text: `(${a.text} ${sign} ${b.text})`,
          width: 1,
          at: (v, to) => padded([join(any(a.at(v, a.width)), any(b.at(v, b.width)))], to),
        };
      }
      case 4: {
        const c = this.expression(depth - 1);
        return {
          text: `(${c.text} ? ${a.text} : ${b.text})`,
          width,
          at: (v, to) => (any(c.at(v, c.width)) ? a : b).at(v, to),
        };
      }
      case 5:
        if (a.width + b.width > 8) return a;
        return {
          text: `{${a.text}, ${b.text}}`,
          width: a.width + b.width,
          at: (v, to) => padded([...b.at(v, b.width), ...a.at(v, a.width)], to),
        };
      case 6: {
        const times = this.whole(1, 3);
        if (a.width * times > 8) return a;
        return {
          text: `{${times}{${a.text}}}`,
          width: a.width * times,
          at: (v, to) => padded(Array(times).fill(a.at(v, a.width)).flat(), to),
        };
      }
      default: {
        const [sign, of] = this.one(Object.entries(BITWISE));
        return {
          text: `(${a.text} ${sign} ${b.text})`,
          width,
          at: (v, to) => {
            const [x, y] = [a.at(v, to), b.at(v, to)];
            return x.map((bit, i) => of(bit, y[i]!));
          },
        };
      }
    }
  }

  /** The value that a signal takes from an expression: the context is as wide as the wider of the two. */
  valueOf(signal: Signal, from: Expression): (values: Values) => Bits {
    const width = Math.max(signal.width, from.width);
    return (values) => from.at(values, width).slice(0, signal.width);
  }

  known(signal: Signal, rule: (values: Values) => Bits): void {
    this.rules.push((values) => ({ [signal.name]: rule(values) }));
    this.signals.push(signal);
  }

  /** A bit that can stand at a terminal of a gate. */
  terminal(): Expression {
    const signal = this.one(this.signals);
    const bit = signal.width === 1 ? 0 : this.whole(0, signal.width - 1);
    const index = signal.isUpward ? signal.width - 1 - bit : bit;
    const text = signal.width === 1 ? signal.name : `${signal.name}[${index}]`;
    return { text, width: 1, at: (values) => [values[signal.name]![bit]!] };
  }

  delay(): string {
    return this.one(['', '', '#5 ', '#(3, 4) ', '#(1:2:3) ']);
  }

  assign(): void {
    const to = this.signal('w');
    const from = this.expression();
    const word = this.one(['wire', 'wire', 'tri']);
    if (this.isSo()) this.lines.push(`${word} ${this.range(to)}${to.name} = ${from.text};`);
    else this.lines.push(`${word} ${this.range(to)}${to.name};`, `assign ${to.name} = ${from.text};`);
    this.known(to, this.valueOf(to, from));
  }

  gates(): void {
    const to = this.signal('g', 1);
    const [word, of] = this.one(Object.entries(GATES));
    const inputs = Array.from({ length: this.whole(1, 4) }, () => this.terminal());
    const name = this.isSo() ? ` ${this.name('u')}` : '';
    this.lines.push(
      `wire ${to.name};`,
      `${word} ${this.delay()}${name}(${[to.name, ...inputs.map((i) => i.text)].join(', ')});`,
    );
    this.known(to, (values) => [of(inputs.map((i) => i.at(values, 1)[0]!))]);
  }

  /** Inverters and buffers with several outputs. */
  inverters(): void {
    const outputs = Array.from({ length: this.whole(1, 3) }, () => this.signal('n', 1));
    const from = this.terminal();
    const isNot = this.isSo();
    const names = outputs.map(({ name }) => name);
    this.lines.push(
      `wire ${names.join(', ')};`,
      `${isNot ? 'not' : 'buf'} (${[...names, from.text].join(', ')});`,
    );
    for (const to of outputs) this.known(to, (values) => [from.at(values, 1)[0] !== isNot]);
  }

  /** Two three-state drivers of one wire that take turns: as gates, or as conditions with a branch of z. */
  threeState(): void {
    const to = this.signal('t', 1);
    const [a, b, on] = [this.terminal(), this.terminal(), this.terminal()];
    const turned = this.isSo();
    this.lines.push(`${this.one(['wire', 'tri'])} ${to.name};`);
    if (this.isSo())
      this.lines.push(
        `${turned ? 'notif1' : 'bufif1'} (${to.name}, ${a.text}, ${on.text});`,
        `${turned ? 'notif0' : 'bufif0'} (${to.name}, ${b.text}, ${on.text});`,
      );
    else {
      const sign = turned ? '~' : '';
      this.lines.push(
        `assign ${to.name} = ${on.text} ? ${sign}${a.text} : 1'bz;`,
        `assign ${to.name} = ${on.text} ? 1'bz : ${sign}${b.text};`,
      );
    }
    this.known(to, (values) => [(on.at(values, 1)[0] ? a : b).at(values, 1)[0] !== turned]);
  }

  /** A wire that is driven now and then, and else pulled. */
  pulled(): void {
    const to = this.signal('p', 1);
    const [a, on] = [this.terminal(), this.terminal()];
    const isUp = this.isSo();
    this.lines.push(
      `wire ${to.name};`,
      `bufif1 (${to.name}, ${a.text}, ${on.text});`,
      `${isUp ? 'pullup' : 'pulldown'} (${to.name});`,
    );
    this.known(to, (values) => [on.at(values, 1)[0] ? a.at(values, 1)[0]! : isUp]);
  }

  supply(): void {
    const to = this.signal('s', 1);
    const isOne = this.isSo();
    this.lines.push(`${isOne ? 'supply1' : 'supply0'} ${to.name};`);
    this.known(to, () => [isOne]);
  }

  /** Logic as a block: one value, another under a condition. */
  combinational(): void {
    const to = this.signal('c');
    const [first, second, condition] = [this.expression(), this.expression(), this.expression(1)];
    const [a, b] = [this.valueOf(to, first), this.valueOf(to, second)];
    this.lines.push(`reg ${this.range(to)}${to.name};`);
    if (this.isSo())
      this.lines.push(
        `always @* begin ${to.name} = ${first.text}; if (${condition.text}) ${to.name} = ${second.text}; end`,
      );
    else
      this.lines.push(
        `always @(*) if (${condition.text}) ${to.name} = ${second.text}; else ${to.name} = ${first.text};`,
      );
    this.known(to, (values) => (any(condition.at(values, condition.width)) ? b : a)(values));
  }

  /** An instance of the module `inner`, its parameter by name, by position, or left as it is. */
  instance(): void {
    const to = this.signal('i', 2);
    const [x, y] = [this.terminal(), this.terminal()];
    const [given, value] = this.one([
      ['', 0],
      ['#(.TURN(1)) ', 1],
      ['#(1) ', 1],
      ['#(.TURN(2 - 2)) ', 0],
    ] as const);
    const ports = this.isSo()
      ? `.x(${x.text}), .y(${y.text}), .z(${to.name})`
      : `${x.text}, ${y.text}, ${to.name}`;
    this.lines.push(`wire ${this.range(to)}${to.name};`, `inner ${given}${this.name('u')}(${ports});`);
    this.known(to, (values) => {
      const [a, b] = [x.at(values, 1)[0]!, y.at(values, 1)[0]!];
      return [(a && b) !== (value === 1), a !== b];
    });
  }
}

/** `inner` in both styles of ports. */
const INNER = [
  `module inner #(parameter TURN = 0) (input x, y, output [1:0] z);
  localparam ON = TURN;
  assign z[0] = (x & y) ^ ON, z[1] = x ^ y;
endmodule`,
  `module inner (x, y, z);
  parameter TURN = 0;
  input x, y;
  output [1:0] z;
  wire both;
  and (both, x, y);
  assign z = {x ^ y, TURN ? ~both : both};
endmodule`,
];

interface Register {
  readonly signal: Signal;
  readonly begin: Bits;
  readonly next: (before: Values, after: Values) => Bits;
}

/** A register on either edge, with enable, and with an asynchronous clear or set or both. */
function register(w: Writer): Register {
  const signal = w.signal('q');
  const { name, width } = signal;
  const begin = bitsOfNumber(w.whole(0, 2 ** width - 1), width);
  const isRising = w.isSo(0.7);
  const [from, enable] = [w.expression(), w.expression(1)];
  const taken = w.valueOf(signal, from);
  const isEnabled = w.isSo();
  const clear = w.one(['none', 'clr', 'clr', 'set', 'both']);
  const reset = bitsOfNumber(clear === 'set' || w.isSo(0.3) ? 2 ** width - 1 : 0, width);
  const resetText = `${width}'d${numberOf(reset)}`;
  w.lines.push(`reg ${w.range(signal)}${name};`, `initial ${name} = ${width}'d${numberOf(begin)};`);
  const edges = [isRising ? 'posedge clk' : 'negedge clk'];
  const body = `${isEnabled ? `if (${enable.text}) ` : ''}${name} <= ${from.text};`;
  let text = body;
  if (clear === 'clr') {
    edges.push('negedge rst_n');
    text = `if (!rst_n) ${name} <= ${resetText}; else ${body}`;
  } else if (clear === 'set') {
    edges.push('posedge set');
    text = `if (set) begin ${name} <= ${resetText}; end else begin ${body} end`;
  } else if (clear === 'both') {
    edges.push('negedge rst_n', 'posedge preset');
    text = `if (~rst_n) ${name} <= ${width}'d0; else if (preset) ${name} <= ${width}'d${2 ** width - 1}; else ${body}`;
  }
  w.lines.push(`always @(${edges.join(w.isSo() ? ' or ' : ', ')}) ${text}`);
  const on = (values: Values, of: string) => values[of]![0]!;
  return {
    signal,
    begin,
    next: (before, after) => {
      if (clear === 'clr' && !on(after, 'rst_n')) return reset;
      if (clear === 'set' && on(after, 'set')) return reset;
      if (clear === 'both' && !on(after, 'rst_n')) return bitsOfNumber(0, width);
      if (clear === 'both' && on(after, 'preset')) return bitsOfNumber(2 ** width - 1, width);
      const isEdge = on(before, 'clk') !== on(after, 'clk') && on(after, 'clk') === isRising;
      if (!isEdge || (isEnabled && !any(enable.at(after, enable.width)))) return after[name]!;
      return taken(after);
    },
  };
}

/** A latch: `if` without `else`. */
function latch(w: Writer): Register {
  const signal = w.signal('l');
  const from = w.expression();
  const open = w.terminal();
  const taken = w.valueOf(signal, from);
  w.lines.push(
    `reg ${w.range(signal)}${signal.name};`,
    `initial ${signal.name} = 0;`,
    `always @* if (${open.text}) ${signal.name} = ${from.text};`,
  );
  return {
    signal,
    begin: bitsOfNumber(0, signal.width),
    next: (_, after) => (open.at(after, 1)[0] ? taken(after) : after[signal.name]!),
  };
}

/**
 * A random module `top`.
 * @param roll gives numbers in [0, 1).
 */
export function randomModule(roll: () => number): RandomModule {
  const w = new Writer(roll);
  const single = (name: string): Signal => ({ name, width: 1, isUpward: false });
  const controls = ['clk', 'rst_n', 'set'].map(single);
  const inputs = [...controls, single('a'), single('b'), w.signal('m', 4), w.signal('k', 2)];
  w.signals.push(...inputs.slice(1));
  // A preset that waits for the end of a clear, as a flip-flop's does.
  w.lines.push('wire preset;', 'assign preset = set & rst_n;');
  w.rules.push((values) => ({ preset: [values.set![0]! && values.rst_n![0]!] }));
  const registers: Register[] = [];
  const made = [
    () => w.assign(),
    () => w.assign(),
    () => w.gates(),
    () => w.inverters(),
    () => w.threeState(),
    () => w.pulled(),
    () => w.supply(),
    () => w.combinational(),
    () => w.instance(),
    () => registers.push(register(w)),
    () => registers.push(register(w)),
    () => registers.push(latch(w)),
  ];
  for (let i = w.whole(3, 10); i > 0; i--) {
    w.one(made)();
    const last = registers.at(-1)?.signal;
    if (last && !w.signals.includes(last)) w.signals.push(last);
  }
  const outputs = w.signals.slice(inputs.length - 1).map((from) => {
    const to = { ...w.signal('y', from.width), isUpward: false };
    w.lines.push(`assign ${to.name} = ${from.name};`);
    w.rules.push((values) => ({ [to.name]: values[from.name]! }));
    return to;
  });
  const ports = (way: string, signals: readonly Signal[]) =>
    signals.map((s) => `${way} ${w.range(s)}${s.name}`);
  const all = [...inputs, ...outputs].map(({ name }) => name).join(', ');
  const heading = w.isSo()
    ? `module top (${[...ports('input', inputs), ...ports('output', outputs)].join(', ')});`
    : `module top (${all});\n  ${[...ports('input', inputs), ...ports('output', outputs)].join(';\n  ')};`;
  return {
    text: `\`timescale 1ns / 1ps\n${w.one(INNER)}\n${heading}\n  ${w.lines.join('\n  ')}\nendmodule\n`,
    inputs,
    outputs,
    begin: Object.fromEntries(registers.map(({ signal, begin }) => [signal.name, begin])),
    settle: (values) => {
      const known = { ...values };
      for (const rule of w.rules) Object.assign(known, rule(known));
      return known;
    },
    clock: (before, after) =>
      Object.fromEntries(registers.map(({ signal, next }) => [signal.name, next(before, after)])),
  };
}
