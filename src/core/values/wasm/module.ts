/*
 * A writer of WebAssembly modules (WebAssembly Core Specification 2.0, chapter 5), limited to 128-bit words and to what is
 * needed around them; whole numbers of 32 bits are written by the expressions of scalar.ts, those of 64 by the ones of long.ts.
 */

const I32 = 0x7f;
const I64 = 0x7e;
const V128 = 0x7b;
const SIMD = 0xfd;

/** Instructions of one function body. */
export class Code {
  private bytes = new Uint8Array(1024);
  private length = 0;

  /** Makes room for so many bytes more. */
  private room(count: number): void {
    if (this.length + count <= this.bytes.length) return;
    const grown = new Uint8Array(2 * this.bytes.length + count);
    grown.set(this.bytes);
    this.bytes = grown;
  }

  byte(...values: number[]): this {
    this.room(values.length);
    for (let i = 0; i < values.length; i++) this.bytes[this.length++] = values[i]!;
    return this;
  }

  /** One byte, without the list that `byte` is given. */
  private one(value: number): this {
    if (this.length === this.bytes.length) this.room(1);
    this.bytes[this.length++] = value;
    return this;
  }

  /** An instruction on 128-bit words. */
  private simd(value: number): this {
    return this.one(SIMD).one(value);
  }

  append(other: Code): this {
    const { content } = other;
    this.room(content.length);
    this.bytes.set(content, this.length);
    this.length += content.length;
    return this;
  }

  /** An unsigned number in LEB128. */
  number(value: number): this {
    if (value < 0x80) return this.one(value);
    this.room(5);
    let rest = value;
    for (; rest >= 0x80; rest >>>= 7) this.bytes[this.length++] = (rest & 0x7f) | 0x80;
    this.bytes[this.length++] = rest;
    return this;
  }

  localGet(index: number): this {
    return this.one(0x20).number(index);
  }
  localSet(index: number): this {
    return this.one(0x21).number(index);
  }
  /** A signed constant of at most 31 bits. */
  i32(value: number): this {
    this.byte(0x41);
    let rest = value | 0;
    for (;;) {
      const low = rest & 0x7f;
      rest >>= 7;
      if ((rest === 0 && !(low & 0x40)) || (rest === -1 && low & 0x40)) return this.byte(low);
      this.byte(low | 0x80);
    }
  }
  i32Add(): this {
    return this.one(0x6a);
  }
  i32Sub(): this {
    return this.one(0x6b);
  }
  i32And(): this {
    return this.one(0x71);
  }
  i32ShrU(): this {
    return this.one(0x76);
  }
  i32LtU(): this {
    return this.one(0x49);
  }
  /** How many of the lowest bits are 0; 32 for 0. */
  i32Ctz(): this {
    return this.one(0x68);
  }
  i32GeU(): this {
    return this.one(0x4f);
  }
  /** Does `body` where the i32 on the stack is not 0. */
  when(body: () => void): this {
    this.byte(0x04, 0x40);
    body();
    return this.one(0x0b);
  }
  call(index: number): this {
    return this.one(0x10).number(index);
  }
  /** Repeats `body` while it leaves a nonzero i32. */
  loop(body: () => void): this {
    this.byte(0x03, 0x40);
    body();
    return this.byte(0x0d, 0x00, 0x0b);
  }

  load(offset: number): this {
    return this.simd(0x00).one(0x04).number(offset);
  }
  store(offset: number): this {
    return this.simd(0x0b).one(0x04).number(offset);
  }
  /** Four lanes of 32 bits. */
  lanes(values: readonly [number, number, number, number]): this {
    this.simd(0x0c);
    for (let i = 0; i < 4; i++) for (let bit = 0; bit < 32; bit += 8) this.one((values[i]! >>> bit) & 0xff);
    return this;
  }
  splat(): this {
    return this.simd(0x11);
  }
  not(): this {
    return this.simd(0x4d);
  }
  and(): this {
    return this.simd(0x4e);
  }
  /** The first and not the second. */
  andNot(): this {
    return this.simd(0x4f);
  }
  or(): this {
    return this.simd(0x50);
  }
  xor(): this {
    return this.simd(0x51);
  }
  /** Of three words the bits of the first where the third is 1, else of the second. */
  select(): this {
    return this.simd(0x52);
  }

  /** Ones in each byte. */
  popcnt8(): this {
    return this.simd(0x62);
  }
  /** The sums of neighbouring bytes, as eight lanes; and of neighbouring lanes of 16 bits, as four. */
  pairs8(): this {
    return this.simd(0x7d);
  }
  pairs16(): this {
    return this.simd(0x7f);
  }
  /** Adds lanes of 32 bits. */
  add32(): this {
    return this.byte(SIMD, 0xae, 0x01);
  }

  get content(): Uint8Array {
    return this.bytes.subarray(0, this.length);
  }
}

export interface WasmFunction {
  /** Parameters, all i32. */
  readonly parameters: number;
  readonly i32Locals: number;
  /** Behind those of 32 bits. */
  readonly i64Locals?: number;
  readonly v128Locals: number;
  readonly code: Code;
}

/** A module of functions without results over one imported memory (`env.memory`); the last is exported as `run`. */
export function moduleOf(functions: readonly WasmFunction[], pages: number): Uint8Array<ArrayBuffer> {
  const out = new Code().byte(0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00);
  const section = (id: number, content: Code) => {
    out.byte(id).number(content.content.length);
    out.append(content);
  };
  const types = new Code().number(functions.length);
  const indices = new Code().number(functions.length);
  const bodies = new Code().number(functions.length);
  for (const [i, f] of functions.entries()) {
    types.byte(0x60).number(f.parameters);
    for (let p = 0; p < f.parameters; p++) types.byte(I32);
    types.number(0);
    indices.number(i);
    const body = new Code();
    const groups = [
      [f.i32Locals, I32],
      [f.i64Locals ?? 0, I64],
      [f.v128Locals, V128],
    ].filter(([count]) => count! > 0);
    body.number(groups.length);
    for (const [count, type] of groups) body.number(count!).byte(type!);
    body.append(f.code);
    body.byte(0x0b);
    bodies.number(body.content.length);
    bodies.append(body);
  }
  section(1, types);
  const name = (text: string) => [text.length, ...[...text].map((c) => c.charCodeAt(0))];
  section(
    2,
    new Code()
      .number(1)
      .byte(...name('env'), ...name('memory'), 0x02, 0x00)
      .number(pages),
  );
  section(3, indices);
  section(
    7,
    new Code()
      .number(1)
      .byte(...name('run'), 0x00)
      .number(functions.length - 1),
  );
  section(10, bodies);
  return out.content.slice();
}
