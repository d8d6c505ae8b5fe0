import type { Expected, Task } from '../../../circuit/exercise';
import { PLACEABLE } from '../../../parts/catalogue';
import { faultOf } from '../../../parts/fault';
import { type Infer, text, whole, z } from '../../../values/schema';
import { counted } from '../../../values/wording';
import { sheetsGiven } from '../../begin';
import { type Check, check, wrongRowsText } from '../../check';
import { ExpectedByRows, expectedKindOf } from '../../expected';
import { FREE, GIVEN } from '../../rules';
import type { TaskKind } from '../task-kind';
import { faultWords, nameOfPart, rowsThatTell } from './inject';

const Asked = z.object({
  /** Whether the fault is only found, or repaired in the drawing. */
  does: z.enum(['find', 'repair']),
  /** Whether a row that shows it is asked for as well. */
  needsRow: z.boolean(),
});

const Key = z.object({
  /** The part that is at fault. */
  part: text(64),
  /** What the circuit does without the fault. */
  wanted: ExpectedByRows,
});

const Answer = z.object({
  kind: z.literal('fault'),
  part: z.nullable(text(64)),
  row: z.nullable(whole(0, 2 ** 20)),
  /** Rows that had been tried on the circuit when this was answered; told, and never believed. */
  tried: whole(0, 2 ** 26),
});

export type FaultAsked = Infer<typeof Asked>;
export type FaultKey = Infer<typeof Key>;
export type FaultAnswer = Infer<typeof Answer>;
export type FaultTask = Task<FaultAsked, FaultKey>;

/** What is found of an answer. */
export interface FaultCheck {
  /** Whether it is the part at fault; null where none is chosen. */
  readonly placeIsRight: boolean | null;
  /** Whether the row shows the fault; null where none is given. */
  readonly rowTells: boolean | null;
  /** The fault in words: `AND 2: its output is stuck at 0`. */
  readonly truth: string;
  /** The repaired circuit held against what is wanted; null where it is only to be found. */
  readonly repaired: Check | null;
}

const EVERY_KIND: ReadonlySet<string> = new Set(PLACEABLE.map(({ kind }) => kind));

/** The word for a unit of what is wanted: `row` or `reading`. */
export const wordOf = ({ key }: FaultTask): string => expectedKindOf(key.wanted).rows(key.wanted).word;

function truthOf({ given, key }: FaultTask): string {
  const [sheet] = sheetsGiven(given!);
  const fault = faultOf(sheet!.parts.get(key.part)!);
  return `${nameOfPart(sheet!, key.part)}: ${fault ? faultWords(fault) : 'it is at fault'}`;
}

/** A circuit with one thing wrong inside it: where, and in which row it shows; or it is repaired. */
export const fault = {
  kind: 'fault',
  name: 'Find the fault',
  says: 'Something is wrong inside one part of the given circuit. The student finds the part, and a row that shows it.',
  gistName: 'Found',
  asked: Asked,
  key: Key,
  answer: Answer,
  unsealable: () => 'the fault is inside the given circuit, which has to run',
  strange(task) {
    if (!task.given) return 'it gives no circuit';
    const sheets = sheetsGiven(task.given);
    if (!sheets[0]!.parts.has(task.key.part)) return 'the part at fault is not in its circuit';
    return rowsThatTell(sheets[0]!, sheets, task.key.wanted).length > 0
      ? null
      : 'its fault cannot be seen from outside';
  },
  expected: ({ key }) => key.wanted,
  rules: ({ asked, key }) => ({
    ...(asked.does === 'find' ? GIVEN : FREE),
    needsTime: expectedKindOf(key.wanted).isTimed(key.wanted),
  }),
  mark(task, { sheet, sheets, answer }) {
    const { asked, key, given } = task;
    const word = wordOf(task);
    const truth = truthOf(task);
    if (asked.does === 'repair') {
      const repaired = check(sheet, key.wanted as Expected, EVERY_KIND, sheets);
      return {
        right: repaired.right,
        of: repaired.rows,
        word,
        complaints: repaired.complaints,
        solved: repaired.solved,
        wrong: wrongRowsText(repaired, word),
        gist: repaired.solved ? 'repaired' : 'not repaired',
        detail: { placeIsRight: null, rowTells: null, truth, repaired },
      };
    }
    const [faulty, ...others] = sheetsGiven(given!);
    const placeIsRight = answer?.part ? answer.part === key.part : null;
    const tells = rowsThatTell(faulty!, [faulty!, ...others], key.wanted);
    const rowTells = answer?.row === null || answer?.row === undefined ? null : tells.includes(answer.row);
    const complaints: string[] = [];
    if (!answer?.part) complaints.push('No part is chosen yet.');
    if (asked.needsRow && rowTells === null) complaints.push(`No ${word} is chosen yet.`);
    const right = (placeIsRight ? 1 : 0) + (asked.needsRow && rowTells ? 1 : 0);
    const of = asked.needsRow ? 2 : 1;
    return {
      right,
      of,
      word: 'answer',
      complaints,
      solved: right === of,
      wrong:
        [
          answer?.part && placeIsRight === false && `${nameOfPart(faulty!, answer.part)} is sound`,
          rowTells === false && `${word} ${answer!.row} does not show it`,
        ]
          .filter(Boolean)
          .join('; ') || null,
      gist: answer?.part
        ? [
            nameOfPart(faulty!, answer.part),
            answer.row !== null && `${word} ${answer.row}`,
            answer.tried > 0 && `${counted(answer.tried, word)} tried`,
          ]
            .filter(Boolean)
            .join(', ')
        : '',
      detail: { placeIsRight, rowTells, truth, repaired: null },
    };
  },
} satisfies TaskKind<FaultAsked, FaultKey, FaultAnswer, FaultCheck>;
