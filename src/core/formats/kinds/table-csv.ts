import { done, refused } from '../../values/result';
import type { Format } from '../format';

/** The truth table of a circuit. */
export const TABLE_FORMAT: Format = {
  id: 'table',
  noun: 'a truth table (CSV)',
  endings: ['.csv'],
  mimeType: 'text/csv',
  write: {
    at: ['command line'],
    load: async () => {
      const [{ compile }, { whyNoTable }, { tablePieces }, { pieceLines }] = await Promise.all([
        import('../../netlist/compile'),
        import('../../logic/table/truth-table'),
        import('../../logic/table/derive-table'),
        import('../../logic/table/table-text'),
      ]);
      return ({ lesson, sheet }) => {
        const netlist = compile(sheet, lesson.sheets);
        const reason = whyNoTable(netlist);
        if (reason) return refused('no-table', `it has no truth table: ${reason}`);
        return done(pieceLines(tablePieces(netlist), 'csv'));
      };
    },
  },
};
