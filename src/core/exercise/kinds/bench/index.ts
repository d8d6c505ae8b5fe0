import { withBusTerminals } from '../../../bench/bus-terminals';
import { type ElectricalBoard, electricalBoard, spoken } from '../../../bench/electrical';
import { type Board, EMPTY_BOARD } from '../../../circuit/board';
import type { Expected } from '../../../circuit/exercise';
import { isCalled, numberText } from '../../../packages/units';
import { findPackage } from '../../../parts/packages';
import { done } from '../../../values/result';
import { type Infer, list, text, whole, z } from '../../../values/schema';
import { counted } from '../../../values/wording';
import { type Check, check, EVERY_KIND, wrongRowsText } from '../../check';
import { AnyExpected, expectedContent, expectedKindOf } from '../../expected';
import { FREE, GIVEN, GUIDES } from '../../rules';
import { type CircuitTask, circuitAnswer, OpenSignals, signalsOf } from '../circuit-answer';
import type { TaskKind } from '../task-kind';

const Asked = z.object({
  /** Whether the drawing is given and wired, or only its function is. */
  does: z.enum(['wire', 'build']),
  guide: z._default(z.enum(GUIDES), 'shows'),
  /** The packages that there are; null where there are enough of each. */
  stock: z._default(z.nullable(list(z.object({ type: text(12), count: whole(0, 10_000) }), 200)), null),
  /** Packages at most; null for any number. */
  most: z._default(z.nullable(whole(0, 200)), null),
  /** Inputs and outputs, where what is expected is sealed. */
  signals: z.optional(OpenSignals),
});
export type BenchAsked = Infer<typeof Asked>;
export type BenchTask = CircuitTask<BenchAsked>;

/** How many packages of each type are on the board, in the order in which they stand. */
export function packagesOn({ packages }: Board): ReadonlyMap<string, number> {
  const on = new Map<string, number>();
  for (const { type } of packages) on.set(type, (on.get(type) ?? 0) + 1);
  return on;
}

/** The packages on a board that the task does not have, and more than it allows, as sentences. */
function beyondStock(board: Board, { stock, most }: BenchAsked): string[] {
  const said: string[] = [];
  const on = packagesOn(board);
  const types = [...on.keys()].map((type) => findPackage(type)!);
  for (const { type, count } of stock ?? []) {
    const those = types.filter((one) => isCalled(one, type));
    const used = those.reduce((sum, { name }) => sum + on.get(name)!, 0);
    if (used > count)
      said.push(
        `${used} × ${numberText(type)} ${used === 1 ? 'is' : 'are'} on the board, and the drawer has ${count || 'none'}.`,
      );
  }
  if (stock)
    for (const one of types)
      if (!stock.some(({ type }) => isCalled(one, type)))
        said.push(`${one.name} is on the board, and the drawer has none.`);
  const count = board.packages.length;
  if (most !== null && count > most)
    said.push(`It has ${counted(count, 'package')}, and ${most} ${most === 1 ? 'is' : 'are'} allowed.`);
  return said;
}

/** Open inputs that are told by name. */
const MOST_OPEN = 4;

/** Inputs that hang open, as one sentence; null where there is none. */
function openInputs({ problems }: ElectricalBoard, code: 'open-input' | 'open-ttl'): string | null {
  const open = problems.filter((one) => one.code === code).flatMap(({ at }) => at);
  if (open.length === 0) return null;
  const more = open.length - MOST_OPEN;
  const ends = more > 0 ? `${spoken(open.slice(0, MOST_OPEN))} and ${more} more` : spoken(open);
  const [is, reads] = open.length === 1 ? ['is', 'it reads'] : ['are', 'they read'];
  const why =
    code === 'open-ttl' ? `${reads} 1 and may be disturbed` : 'tie what is not used to plus or minus';
  return `${ends} ${is} open: ${why}.`;
}

/** Sentences about everything that is wrong with a board apart from its rows. */
function complaintsOf(board: Board, electrical: ElectricalBoard, asked: BenchAsked): string[] {
  if (board.packages.length === 0) return ['No package is on the board yet.'];
  return [
    ...(board.isOn ? [] : ['The supply is off.']),
    ...electrical.problems.filter(({ isSevere }) => isSevere).map(({ message }) => message),
    ...[openInputs(electrical, 'open-input') ?? []].flat(),
    ...beyondStock(board, asked),
  ];
}

/** What is on a board, in one line. */
function boardText(board: Board): string {
  const on = [...packagesOn(board)].map(([type, n]) => (n === 1 ? type : `${n} × ${type}`));
  if (on.length === 0 && board.wires.length === 0) return '';
  return [...on, counted(board.wires.length, 'wire')].join(', ');
}

/** A circuit is wired on the board. Its outputs are checked against the expected ones, and its supply and packages as well. */
export const bench = {
  kind: 'bench',
  name: 'Wire it on the board',
  says: 'The student wires the circuit on a wiring board, from the drawing or from its function alone.',
  gistName: 'On the board',
  asked: Asked,
  key: AnyExpected,
  answer: null,
  ...circuitAnswer,
  unsealable: ({ asked }) =>
    asked.does === 'wire' ? 'the drawing that is to be wired tells what it does' : null,
  withCircuits(task) {
    const key = task.key && expectedContent(task.key);
    if (key && !key.ok) return key;
    return done({ ...task, key: key ? key.value : task.key });
  },
  strange: ({ asked, given }) =>
    asked.does === 'wire' && !given ? 'it gives no drawing that could be wired' : null,
  openPart: (task) => ({ ...task.asked, signals: signalsOf(task) }),
  rules: (task) => ({
    ...(task.asked.does === 'wire' ? GIVEN : FREE),
    guide: task.asked.guide,
    needsTime: signalsOf(task).isTimed,
  }),
  mark(task, { sheet }) {
    const board = sheet.board ?? EMPTY_BOARD;
    const electrical = electricalBoard(board);
    const circuit = withBusTerminals(electrical.sheet, expectedKindOf(task.key).signals(task.key));
    const found = check(circuit, task.key, EVERY_KIND);
    const told = complaintsOf(board, electrical, task.asked);
    const complaints = board.packages.length === 0 ? told : [...told, ...found.complaints];
    const detail = {
      ...found,
      complaints,
      solved: complaints.length > 0 && found.solved !== null ? false : found.solved,
    };
    const { word } = expectedKindOf(task.key).rows(task.key);
    return {
      right: detail.right,
      of: detail.rows,
      word,
      complaints,
      solved: detail.solved,
      wrong: wrongRowsText(detail, word),
      remark: openInputs(electrical, 'open-ttl') ?? undefined,
      gist: boardText(board),
      detail,
    };
  },
} satisfies TaskKind<BenchAsked, Expected, null, Check>;
