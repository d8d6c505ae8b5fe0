import type { Expected, Task } from '../../../circuit/exercise';
import { isPinEnd, type PinEnd, type Sheet, type Wire } from '../../../circuit/sheet';
import { wiringOf } from '../../../netlist/sheet-wiring';
import { faultOf, wireFaultOf } from '../../../parts/fault';
import { type Infer, text, whole, z } from '../../../values/schema';
import { counted } from '../../../values/wording';
import { sheetsGiven } from '../../begin';
import { type Check, check, EVERY_KIND, wrongRowsText } from '../../check';
import { ExpectedByRows, expectedKindOf } from '../../expected';
import { FREE, GIVEN } from '../../rules';
import type { TaskKind } from '../task-kind';
import { faultWords, nameOfPlace, rowsThatTell } from './inject';

const Asked = z.object({
  /** Whether the fault is only found, or repaired in the drawing. */
  does: z.enum(['find', 'repair']),
  /** Whether a row that shows it is asked for as well. */
  needsRow: z.boolean(),
  /** Whether wires and rows tell nothing before they are probed and tried. */
  isDark: z._default(z.boolean(), false),
});

const Key = z.object({
  /** The part that is at fault; null where it is a wire. */
  part: z.nullable(text(64)),
  wire: z._default(z.nullable(text(64)), null),
  /** What the circuit does without the fault. */
  wanted: ExpectedByRows,
});

const Answer = z.object({
  kind: z.literal('fault'),
  part: z.nullable(text(64)),
  wire: z._default(z.nullable(text(64)), null),
  row: z.nullable(whole(0, 2 ** 20)),
  /** Rows that had been tried on the circuit when this was answered; told, and never believed. */
  tried: whole(0, 2 ** 26),
  /** Wires that had been probed by then, likewise. */
  probed: z._default(whole(0, 2 ** 26), 0),
});

export type FaultAsked = Infer<typeof Asked>;
export type FaultKey = Infer<typeof Key>;
export type FaultAnswer = Infer<typeof Answer>;
export type FaultTask = Task<FaultAsked, FaultKey>;

/** What is found of an answer. */
export interface FaultCheck {
  /** Whether it is the part or the wire at fault; null where none is chosen. */
  readonly placeIsRight: boolean | null;
  /** Whether the row shows the fault; null where none is given. */
  readonly rowTells: boolean | null;
  /** The fault in words: `AND 2: its output is stuck at 0`. */
  readonly truth: string;
  /** The repaired circuit compared with the expectation; null where the fault is only to be found. */
  readonly repaired: Check | null;
}

/** The word for a unit of the expectation: `row` or `reading`. */
export const wordOf = ({ key }: FaultTask): string => expectedKindOf(key.wanted).rows(key.wanted).word;

/** The fault of a task in words: `AND 1: output stuck at 0`. */
export function truthOf({ given, key }: FaultTask): string {
  const [sheet] = sheetsGiven(given!);
  const wire = sheet!.wires.get(key.wire ?? '');
  const fault = wire ? wireFaultOf(wire) : faultOf(sheet!.parts.get(key.part!)!);
  return `${nameOfPlace(sheet!, key)}: ${fault ? faultWords(fault, sheet!) : 'it is at fault'}`;
}

/** The pin at which a wire does not arrive, where its cut end lies at one. */
const cutPin = ({ to }: Wire): PinEnd | null => (isPinEnd(to) ? to : null);

/**
 * Whether an answer names the place: the part or the wire; or what cannot be told from it, as an input that is open inside and
 * a wire that is cut before it, or two nets that touch.
 */
function isThePlace(sheet: Sheet, { key }: FaultTask, { part, wire }: FaultAnswer): boolean {
  if (part === key.part && wire === key.wire) return true;
  const named = sheet.wires.get(wire ?? '');
  if (key.wire === null) {
    const fault = faultOf(sheet.parts.get(key.part!)!);
    const ends = named ? [named.from, named.to] : [];
    return ends.some(
      (end) => isPinEnd(end) && end.part === key.part && fault?.is === 'open' && end.port === fault.port,
    );
  }
  const cut = sheet.wires.get(key.wire)!;
  if (wireFaultOf(cut)?.is === 'cut') return named === undefined && cutPin(cut)?.part === part;
  const netOf = (id: string) => wiringOf(sheet).groupOfWire(id)?.[0];
  return named !== undefined && netOf(named.id) === netOf(key.wire);
}

/** A circuit with one thing wrong inside it: where, and in which row it shows; or it is repaired. */
export const fault = {
  kind: 'fault',
  name: 'Find the fault',
  says: 'Something is wrong inside one part or wire of the given circuit. The student finds it, and a row that shows it.',
  gistName: 'Found',
  asked: Asked,
  key: Key,
  answer: Answer,
  unsealable: () => 'the fault is inside the given circuit, which has to run',
  strange(task) {
    if (!task.given) return 'it gives no circuit';
    const sheets = sheetsGiven(task.given);
    const { part, wire } = task.key;
    if (wire === null ? !sheets[0]!.parts.has(part ?? '') : !sheets[0]!.wires.has(wire))
      return 'the part at fault is not in its circuit';
    return rowsThatTell(sheets[0]!, sheets, task.key.wanted).length > 0
      ? null
      : 'its fault cannot be seen from outside';
  },
  expected: ({ key }) => key.wanted,
  said: ({ asked }, { gist, detail, wrong }) =>
    asked.does === 'repair'
      ? detail.repaired?.given.some((words) => [...words].join('').replaceAll('-', '') !== '')
        ? JSON.stringify(detail.repaired.given)
        : null
      : gist
        ? `${detail.placeIsRight} ${detail.rowTells} ${wrong ?? ''}`
        : null,
  rules: ({ asked, key }) => ({
    ...(asked.does === 'find' ? GIVEN : FREE),
    isDark: asked.isDark,
    isPuzzle: true,
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
    const hasPlace = Boolean(answer?.part ?? answer?.wire);
    const placeIsRight = answer && hasPlace ? isThePlace(faulty!, task, answer) : null;
    const tells = rowsThatTell(faulty!, [faulty!, ...others], key.wanted);
    const rowTells = answer?.row === null || answer?.row === undefined ? null : tells.includes(answer.row);
    const complaints: string[] = [];
    if (!hasPlace) complaints.push('No part or wire is chosen yet.');
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
          answer && placeIsRight === false && `${nameOfPlace(faulty!, answer)} is sound`,
          rowTells === false && `${word} ${answer!.row} does not show it`,
        ]
          .filter(Boolean)
          .join('; ') || null,
      gist:
        answer && hasPlace
          ? [
              nameOfPlace(faulty!, answer),
              answer.row !== null && `${word} ${answer.row}`,
              answer.tried > 0 && `${counted(answer.tried, word)} tried`,
              answer.probed > 0 && `${counted(answer.probed, 'wire')} probed`,
            ]
              .filter(Boolean)
              .join(', ')
          : '',
      detail: { placeIsRight, rowTells, truth, repaired: null },
    };
  },
} satisfies TaskKind<FaultAsked, FaultKey, FaultAnswer, FaultCheck>;
