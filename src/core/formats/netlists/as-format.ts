import type { Lesson } from '../../circuit/lesson';
import { mapped, type Result } from '../../values/result';
import type { FileContent, Format } from '../format';

/** What the formats of netlists have in common. */
export const NETLIST: Pick<Format, 'kin' | 'mimeType'> & {
  readonly readAt: NonNullable<Format['read']>['at'];
} = {
  kin: 'a netlist',
  mimeType: 'text/plain',
  readAt: ['shelf', 'command line'],
};

export const asLesson = (read: Result<Lesson>): Result<FileContent> =>
  mapped(read, (lesson) => ({ is: 'lesson', lesson }));

/** What storage begins with in a lesson whose parts do not say. */
export const beginsAt = ({ settings }: Lesson): 0 | 1 | null =>
  settings.powerUp === 'X' ? null : settings.powerUp === '1' ? 1 : 0;

/** AIGER in one of its two forms. */
export const aiger = (isBinary: boolean): Format => ({
  id: isBinary ? 'aig' : 'aag',
  noun: isBinary ? 'an and-inverter graph (binary AIGER)' : 'an and-inverter graph (AIGER)',
  endings: [isBinary ? '.aig' : '.aag'],
  mimeType: isBinary ? 'application/octet-stream' : 'text/plain',
  isBinary,
  kin: NETLIST.kin,
  read: {
    at: NETLIST.readAt,
    isSlow: true,
    load: async () => {
      const { readAiger } = await import('./aiger');
      return ({ text }, { title, laidOut }) => asLesson(readAiger(text, title, laidOut));
    },
  },
  write: {
    at: ['command line'],
    load: async () => {
      const [{ writeAiger }, { compile }] = await Promise.all([
        import('./aiger'),
        import('../../netlist/compile'),
      ]);
      return ({ lesson, sheet }) => writeAiger(compile(sheet, lesson.sheets), isBinary, beginsAt(lesson));
    },
  },
});
