import { blockCycle, holdsItself } from '../../netlist/blocks';
import { done, mapped, refused } from '../../values/result';
import type { Format } from '../format';

export const VERILOG_FORMAT: Format = {
  id: 'verilog',
  noun: 'Verilog',
  endings: ['.v'],
  mimeType: 'text/plain',
  read: {
    at: ['shelf', 'command line'],
    isSlow: true,
    load: async () => {
      const { readVerilog } = await import('../verilog/read');
      return ({ text }, { title, module, laidOut, everything, includes, tell }) =>
        mapped(
          readVerilog(text, title, { module, laidOut, everyRoot: everything ?? false, includes, tell }),
          (lesson) => ({
            is: 'lesson',
            lesson,
          }),
        );
    },
  },
  write: {
    at: ['sheet', 'command line'],
    load: async () => {
      const { writeVerilog } = await import('../verilog/write');
      return ({ lesson, sheet }) => {
        const cycle = blockCycle(lesson.sheets, sheet);
        if (cycle)
          return refused('block-cycle', `${holdsItself('module', cycle)}. Take one of these blocks away`);
        return done([writeVerilog(lesson, sheet).trimEnd()]);
      };
    },
  },
};
