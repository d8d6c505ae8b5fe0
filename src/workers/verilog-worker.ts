import { expose } from 'comlink';
import type { Lesson } from '@/core/circuit/lesson';
import { readVerilog } from '@/core/formats/verilog/read';
import type { Result } from '@/core/values/result';

const work = {
  read(text: string, title: string): Result<Lesson> {
    return readVerilog(text, title, { laidOut: true, everyRoot: true });
  },
};

export type VerilogWork = typeof work;

expose(work);
