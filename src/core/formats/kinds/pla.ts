import type { Format } from '../format';
import { asLesson, NETLIST } from '../netlists/as-format';

export const PLA_FORMAT: Format = {
  id: 'pla',
  noun: 'a table of products (PLA)',
  endings: ['.pla'],
  kin: NETLIST.kin,
  mimeType: 'text/plain',
  read: {
    at: NETLIST.readAt,
    isSlow: true,
    load: async () => {
      const { readPla } = await import('../netlists/pla');
      return ({ text }, { title, laidOut }) => asLesson(readPla(text, title, laidOut));
    },
  },
  write: {
    at: ['command line'],
    load: async () => {
      const [{ writePla }, { compile }, { whyNoTable }, { deriveTable }, { refusal, within }] =
        await Promise.all([
          import('../netlists/pla'),
          import('../../netlist/compile'),
          import('../../logic/table/truth-table'),
          import('../../logic/table/derive-table'),
          import('../../values/result'),
        ]);
      return ({ lesson, sheet }) => {
        const netlist = compile(sheet, lesson.sheets);
        const reason = whyNoTable(netlist);
        return reason ? refusal(within('it has no truth table', reason)) : writePla(deriveTable(netlist));
      };
    },
  },
};
