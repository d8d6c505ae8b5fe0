import type { Lesson } from '@/core/circuit/lesson';
import type { Read } from '@/core/formats/read-json';
import type { VerilogWork } from './verilog-worker';

/** Reads Verilog in a worker of its own: laying its sheets out may take a while. */
export async function verilogLesson(text: string, title: string): Promise<Read<Lesson>> {
  const worker = new Worker(new URL('./verilog-worker.ts', import.meta.url), { type: 'module' });
  try {
    const { wrap } = await import('comlink');
    return (await wrap<VerilogWork>(worker).read(text, title)) as Read<Lesson>;
  } finally {
    worker.terminate();
  }
}
