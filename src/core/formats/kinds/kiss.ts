import type { Format } from '../format';
import { asLesson, NETLIST } from '../netlists/as-format';

export const KISS_FORMAT: Format = {
  id: 'kiss',
  noun: 'a state table (KISS2)',
  endings: ['.kiss2', '.kiss'],
  kin: NETLIST.kin,
  mimeType: 'text/plain',
  read: {
    at: NETLIST.readAt,
    isSlow: true,
    load: async () => {
      const { readKiss } = await import('../netlists/kiss');
      return ({ text }, { title, laidOut }) => asLesson(readKiss(text, title, laidOut));
    },
  },
  write: {
    at: ['command line'],
    load: async () => {
      const [{ writeKiss }, { compile }, { machineOf }] = await Promise.all([
        import('../netlists/kiss'),
        import('../../netlist/compile'),
        import('../../states/machine'),
      ]);
      return ({ lesson, sheet }) => {
        const machine = machineOf(compile(sheet, lesson.sheets));
        return machine.ok ? writeKiss(machine.value) : machine;
      };
    },
  },
};
