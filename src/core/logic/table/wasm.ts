/*
 * A writer of WebAssembly modules, limited to straight-line code over 128-bit words (WebAssembly Core
 * Specification 2.0, chapter 5).
 */

const I32 = 0x7f;
const V128 = 0x7b;
const SIMD = 0xfd;

/** Instructions of one function body. */
export class Code {
  private bytes = new Uint8Array(1024);
  private length = 0;

  byte(...values: number[]): this {
    if (this.length + values.length > this.bytes.length) {
      const grown = new Uint8Array(2 * this.bytes.length + values.length);
      grown.set(this.bytes);
      this.bytes = grown;
    }
    for (const v of values) this.bytes[this.length++] = v;
    return this;
  }

  /** An unsigned number in LEB128. */
  number(value: number): this {
    let rest = value;
    while (rest >= 0x80) {
      this.byte((rest & 0x7f) | 0x80);
      rest >>>= 7;
    }
    return this.byte(rest);
  }

  localGet(index: number): this {
    return this.byte(0x20).number(index);
  }
  localSet(index: number): this {
    return this.byte(0x21).number(index);
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
    return this.byte(0x6a);
  }
  i32Sub(): this {
    return this.byte(0x6b);
  }
  i32And(): this {
    return this.byte(0x71);
  }
  i32ShrU(): this {
    return this.byte(0x76);
  }
  i32LtU(): this {
    return this.byte(0x49);
  }
  call(index: number): this {
    return this.byte(0x10).number(index);
  }
  /** Repeats `body` while it leaves a nonzero i32. */
  loop(body: () => void): this {
    this.byte(0x03, 0x40);
    body();
    return this.byte(0x0d, 0x00, 0x0b);
  }

  load(offset: number): this {
    return this.byte(SIMD, 0x00, 0x04).number(offset);
  }
  store(offset: number): this {
    return this.byte(SIMD, 0x0b, 0x04).number(offset);
  }
  /** Four lanes of 32 bits. */
  lanes(values: readonly [number, number, number, number]): this {
    this.byte(SIMD, 0x0c);
    for (const v of values) this.byte(v & 0xff, (v >>> 8) & 0xff, (v >>> 16) & 0xff, v >>> 24);
    return this;
  }
  splat(): this {
    return this.byte(SIMD, 0x11);
  }
  not(): this {
    return this.byte(SIMD, 0x4d);
  }
  and(): this {
    return this.byte(SIMD, 0x4e);
  }
  /** The first and not the second. */
  andNot(): this {
    return this.byte(SIMD, 0x4f);
  }
  or(): this {
    return this.byte(SIMD, 0x50);
  }
  xor(): this {
    return this.byte(SIMD, 0x51);
  }
  /** Of three words the bits of the first where the third is 1, else of the second. */
  select(): this {
    return this.byte(SIMD, 0x52);
  }

  get content(): Uint8Array {
    return this.bytes.subarray(0, this.length);
  }
}

export interface WasmFunction {
  /** Parameters, all i32. */
  readonly parameters: number;
  readonly i32Locals: number;
  readonly v128Locals: number;
  readonly code: Code;
}

/** A module of functions without results over one imported memory (`env.memory`); the last is exported as `run`. */
export function moduleOf(functions: readonly WasmFunction[], pages: number): Uint8Array<ArrayBuffer> {
  const out = new Code().byte(0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00);
  const section = (id: number, content: Code) => {
    out.byte(id).number(content.content.length);
    append(out, content);
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
      [f.v128Locals, V128],
    ].filter(([count]) => count! > 0);
    body.number(groups.length);
    for (const [count, type] of groups) body.number(count!).byte(type!);
    append(body, f.code);
    body.byte(0x0b);
    bodies.number(body.content.length);
    append(bodies, body);
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

function append(to: Code, from: Code): void {
  for (const b of from.content) to.byte(b);
}
