import type { Lesson } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';
import type { VerilogWork } from './verilog-worker';

/** Reads Verilog in a worker of its own: laying its sheets out may take a while. */
export async function verilogLesson(text: string, title: string): Promise<Result<Lesson>> {
  const worker = new Worker(new URL('./verilog-worker.ts', import.meta.url), { type: 'module' });
  try {
    const { wrap } = await import('comlink');
    return (await wrap<VerilogWork>(worker).read(text, title)) as Result<Lesson>;
  } finally {
    worker.terminate();
  }
}
