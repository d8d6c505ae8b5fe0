import type { Lesson } from '../../circuit/lesson';
import { mapped, type Result } from '../../values/result';
import type { Format, Writer } from '../format';

/** Reads the text of a netlist as a lesson. */
type NetlistReader = (text: string, title: string, laidOut: boolean) => Result<Lesson>;

interface NetlistFormat extends Pick<Format, 'id' | 'noun' | 'endings' | 'isBinary'> {
  readonly loadReader: () => Promise<NetlistReader>;
  readonly loadWriter: () => Promise<Writer>;
}

/** A format of netlists: read on the shelf and on the command line, written on the command line. */
export const netlistFormat = ({ loadReader, loadWriter, ...format }: NetlistFormat): Format => ({
  ...format,
  kin: 'a netlist',
  mimeType: format.isBinary ? 'application/octet-stream' : 'text/plain',
  read: {
    at: ['shelf', 'command line'],
    isSlow: true,
    load: async () => {
      const read = await loadReader();
      return ({ text }, { title, laidOut }) =>
        mapped(read(text, title, laidOut), (lesson) => ({ is: 'lesson', lesson }));
    },
  },
  write: { at: ['command line'], load: loadWriter },
});

/** The power-up value of storage in a lesson, where a part does not say; null for unknown. */
export const powerUpOf = ({ settings }: Lesson): 0 | 1 | null =>
  settings.powerUp === 'X' ? null : settings.powerUp === '1' ? 1 : 0;

/** AIGER in one of its two forms. */
export const aiger = (isBinary: boolean): Format =>
  netlistFormat({
    id: isBinary ? 'aig' : 'aag',
    noun: isBinary ? 'an and-inverter graph (binary AIGER)' : 'an and-inverter graph (AIGER)',
    endings: [isBinary ? '.aig' : '.aag'],
    isBinary,
    loadReader: async () => (await import('./aiger')).readAiger,
    loadWriter: async () => {
      const [{ writeAiger }, { compile }] = await Promise.all([
        import('./aiger'),
        import('../../netlist/compile'),
      ]);
      return ({ lesson, sheet }) => writeAiger(compile(sheet, lesson.sheets), isBinary, powerUpOf(lesson));
    },
  });
