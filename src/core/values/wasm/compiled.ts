/** A module that is the same for all that use it, compiled when it is first asked for. */
export class Compiled {
  private module: WebAssembly.Module | null | undefined;

  constructor(private readonly bytes: () => Uint8Array<ArrayBuffer>) {}

  /** The module; null where there is no WebAssembly. */
  get(): WebAssembly.Module | null {
    if (this.module === undefined)
      try {
        this.module = new WebAssembly.Module(this.bytes());
      } catch {
        this.module = null;
      }
    return this.module;
  }

  /** Compiles it aside, so that who asks for it first need not wait. */
  async prepare(): Promise<void> {
    if (this.module !== undefined) return;
    try {
      this.module = await WebAssembly.compile(this.bytes());
    } catch {
      this.module = null;
    }
  }
}

/** What such a module does with a memory. */
export function runOf(module: WebAssembly.Module, memory: WebAssembly.Memory): (at: number) => void {
  return new WebAssembly.Instance(module, { env: { memory } }).exports.run as (at: number) => void;
}

const PAGE = 1 << 16;

/** A memory of so many bytes at least, all 0. @throws RangeError where there is none left. */
export const memoryOf = (bytes: number): WebAssembly.Memory =>
  new WebAssembly.Memory({ initial: Math.ceil(bytes / PAGE) });

/** Makes a memory longer, if need be, so that it has so many bytes. */
export function growTo(memory: WebAssembly.Memory, bytes: number): void {
  const more = bytes - memory.buffer.byteLength;
  if (more > 0) memory.grow(Math.ceil(more / PAGE));
}
