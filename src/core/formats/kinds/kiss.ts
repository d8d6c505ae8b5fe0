import { netlistFormat } from '../netlists/as-format';

export const KISS_FORMAT = netlistFormat({
  id: 'kiss',
  noun: 'a state table (KISS2)',
  endings: ['.kiss2', '.kiss'],
  loadReader: async () => (await import('../netlists/kiss')).readKiss,
  loadWriter: async () => {
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
});
