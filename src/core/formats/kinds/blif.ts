import { netlistFormat, powerUpOf } from '../netlists/as-format';

export const BLIF_FORMAT = netlistFormat({
  id: 'blif',
  noun: 'a netlist (BLIF)',
  endings: ['.blif'],
  loadReader: async () => (await import('../netlists/blif')).readBlif,
  loadWriter: async () => {
    const [{ writeBlif }, { compile }] = await Promise.all([
      import('../netlists/blif'),
      import('../../netlist/compile'),
    ]);
    return ({ lesson, sheet }) => writeBlif(compile(sheet, lesson.sheets), sheet.name, powerUpOf(lesson));
  },
});
