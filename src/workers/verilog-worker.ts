import { expose } from 'comlink';
import type { Lesson } from '@/core/circuit/lesson';
import type { Read } from '@/core/formats/read-json';
import { readVerilog } from '@/core/formats/verilog/read';

const work = {
  read(text: string, title: string): Read<Lesson> {
    return readVerilog(text, title, { laidOut: true, everyRoot: true });
  },
};

export type VerilogWork = typeof work;

expose(work);
