import type { DumpedSignal } from '@/core/formats/vcd';
import type { Result } from '@/core/values/result';
import type { NetsInDump, VcdWork } from './vcd-worker';
import { workerJob } from './worker-job';

const start = () => new Worker(new URL('./vcd-worker.ts', import.meta.url), { type: 'module' });

/** Reads a value change dump, limited to a circuit's signals. */
export const dumpOf = (text: string, signals: readonly DumpedSignal[]): Promise<Result<NetsInDump>> =>
  workerJob<VcdWork, Result<NetsInDump>>(start, (work) => work.read(text, signals)).result;
