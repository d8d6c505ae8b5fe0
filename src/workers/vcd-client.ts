import type { DumpedSignal } from '@/core/formats/vcd';
import type { Result } from '@/core/values/result';
import type { NetsInDump, VcdWork } from './vcd-worker';

/** Reads a value change dump in a worker of its own, as far as it is about a circuit's signals. */
export async function dumpOf(text: string, signals: readonly DumpedSignal[]): Promise<Result<NetsInDump>> {
  const worker = new Worker(new URL('./vcd-worker.ts', import.meta.url), { type: 'module' });
  try {
    const { wrap } = await import('comlink');
    return (await wrap<VcdWork>(worker).read(text, signals)) as Result<NetsInDump>;
  } finally {
    worker.terminate();
  }
}
