import type { Lesson } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';
import type { VerilogWork } from './verilog-worker';
import { workerJob } from './worker-job';

const start = () => new Worker(new URL('./verilog-worker.ts', import.meta.url), { type: 'module' });

/** Reads Verilog; laying its sheets out may take a while. */
export const verilogLesson = (text: string, title: string): Promise<Result<Lesson>> =>
  workerJob<VerilogWork, Result<Lesson>>(start, (work) => work.read(text, title)).result;
