import { netlistFormat } from '../netlists/as-format';

export const PLA_FORMAT = netlistFormat({
  id: 'pla',
  noun: 'a table of products (PLA)',
  endings: ['.pla'],
  loadReader: async () => (await import('../netlists/pla')).readPla,
  loadWriter: async () => {
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
});
