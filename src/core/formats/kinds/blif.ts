import type { Format } from '../format';
import { asLesson, beginsAt, NETLIST } from '../netlists/as-format';

export const BLIF_FORMAT: Format = {
  id: 'blif',
  noun: 'a netlist (BLIF)',
  endings: ['.blif'],
  kin: NETLIST.kin,
  mimeType: 'text/plain',
  read: {
    at: NETLIST.readAt,
    isSlow: true,
    load: async () => {
      const { readBlif } = await import('../netlists/blif');
      return ({ text }, { title, laidOut }) => asLesson(readBlif(text, title, laidOut));
    },
  },
  write: {
    at: ['command line'],
    load: async () => {
      const [{ writeBlif }, { compile }] = await Promise.all([
        import('../netlists/blif'),
        import('../../netlist/compile'),
      ]);
      return ({ lesson, sheet }) => writeBlif(compile(sheet, lesson.sheets), sheet.name, beginsAt(lesson));
    },
  },
};
