import type { Task } from '../../../circuit/exercise';
import { SignalName } from '../../../circuit/signal-name';
import { type Infer, list, moment, text, whole, z } from '../../../values/schema';
import { timeText } from '../../../values/time';
import { counted } from '../../../values/wording';
import { GIVEN, SCRATCH } from '../../rules';
import { blanked, caredFor, withDontCares } from '../dont-cares';
import { type TaskKind, wrongIn } from '../task-kind';

/** Cells of a lane, at most: what is drawn by hand on one screen. */
export const MOST_CELLS = 48;
const MOST_LANES = 24;

const Levels = z.string().check(z.regex(/^[01x]{1,48}$/, 'a lane holds only 0, 1 and x'));

const Asked = z.object({
  /** Time of a cell in ps: half a period of the clock, or a delay. */
  cell: moment(),
  cells: whole(2, MOST_CELLS),
  /** Lanes in their order: those with levels are given, the others are drawn. */
  lanes: z
    .array(z.object({ name: SignalName, levels: z.nullable(Levels) }))
    .check(z.minLength(1, 'at least one lane is needed'), z.maxLength(MOST_LANES)),
  /** Whether the given circuit stands still until the lanes are drawn. */
  isPredicted: z.boolean(),
});

const Key = z.object({
  /** The wanted levels of the lanes that are drawn, in their order; `x` where either will do. */
  lanes: list(Levels, MOST_LANES),
});

const Answer = z.object({
  kind: z.literal('diagram'),
  /** By the lanes that are drawn: 0 and 1, and a dot where nothing is drawn yet. */
  lanes: list(text(MOST_CELLS), MOST_LANES),
  isFinal: z.boolean(),
});

export type DiagramAsked = Infer<typeof Asked>;
export type DiagramKey = Infer<typeof Key>;
export type DiagramAnswer = Infer<typeof Answer>;
export type DiagramTask = Task<DiagramAsked, DiagramKey>;

export const NOT_DRAWN = '.';

/** The lanes that are drawn. */
export const lanesAsked = ({ lanes }: DiagramAsked) => lanes.filter(({ levels }) => levels === null);

/** The answer with every cell that there is, dots where nothing is drawn. */
export function drawn({ asked }: DiagramTask, answer: DiagramAnswer | null): DiagramAnswer {
  const lanes = lanesAsked(asked).map((_, lane) =>
    Array.from({ length: asked.cells }, (_, cell) => {
      const level = answer?.lanes[lane]?.[cell];
      return level === '0' || level === '1' ? level : NOT_DRAWN;
    }).join(''),
  );
  return { kind: 'diagram', lanes, isFinal: answer?.isFinal ?? false };
}

/** A stretch of a lane in which the wanted level stays: its first cell, and the one behind its last. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The spans of a lane; cells in which either will do belong to none. */
export function spansOf(levels: string): Span[] {
  const spans: Span[] = [];
  for (let from = 0; from < levels.length; ) {
    let to = from + 1;
    while (to < levels.length && levels[to] === levels[from]) to++;
    if (levels[from] !== 'x') spans.push({ from, to });
    from = to;
  }
  return spans;
}

/** For each lane that is drawn its spans, and whether each is right. */
export interface DiagramCheck {
  readonly spans: readonly (readonly (Span & { readonly isRight: boolean })[])[];
  readonly answer: DiagramAnswer;
}

/** Wrong spans that are told one by one. */
const MOST_NAMED = 4;

/** Lanes of a timing diagram are drawn on a grid, and checked span by span. */
export const diagram = {
  kind: 'diagram',
  name: 'Complete a diagram',
  says: 'The student draws lanes of a timing diagram on a grid of half periods, or of delays.',
  gistName: 'Lanes',
  asked: Asked,
  key: Key,
  answer: Answer,
  strange({ asked, key }) {
    const open = lanesAsked(asked);
    if (open.length === 0) return 'no lane is left to be drawn';
    const twice = asked.lanes.find(({ name }, i) => asked.lanes.findIndex((l) => l.name === name) !== i);
    if (twice) return `the name ${twice.name} stands twice`;
    if (asked.cell <= 0) return 'a cell of it takes no time';
    if (key.lanes.length !== open.length)
      return `it has ${key.lanes.length} wanted lanes where ${open.length} are needed`;
    const all = [...asked.lanes.flatMap(({ levels }) => levels ?? []), ...key.lanes];
    return all.some((levels) => levels.length !== asked.cells) ? `a lane has not ${asked.cells} cells` : null;
  },
  hashed: {
    blank: ({ key }) => ({ lanes: key.lanes.map(blanked) }),
    wanted: ({ key }) => key.lanes.join(),
    given: ({ key }, { detail }) =>
      detail.answer.lanes.map((levels, i) => withDontCares(key.lanes[i]!, levels)).join(),
    bits: ({ key }) => caredFor(key.lanes.join('')),
  },
  said: (_, { gist, detail }) => (gist ? detail.answer.lanes.join() : null),
  wrongUnits: (_, { gist, detail }) =>
    gist ? wrongIn(detail.spans.flat().map(({ isRight }) => isRight)) : [],
  unitName({ asked, key }, unit) {
    const names = lanesAsked(asked).map(({ name }) => name);
    const all = key.lanes.flatMap((levels, lane) => spansOf(levels).map((span) => ({ ...span, lane })));
    const span = all[unit];
    if (!span) return '';
    const { lane, from, to } = span;
    return `${names[lane]} from ${timeText(from * asked.cell)} to ${timeText(to * asked.cell)}`;
  },
  rules: ({ asked, given }, answer) => ({
    ...(given ? GIVEN : SCRATCH),
    still:
      given && asked.isPredicted && !answer?.isFinal
        ? 'the circuit stands still until you have drawn the lanes and pressed “Observe”'
        : null,
    needsTime: true,
  }),
  mark(task, { answer }) {
    const { asked, key } = task;
    const mine = drawn(task, answer);
    const spans = key.lanes.map((levels, lane) =>
      spansOf(levels).map((span) => ({
        ...span,
        isRight: mine.lanes[lane]!.slice(span.from, span.to) === levels.slice(span.from, span.to),
      })),
    );
    const all = spans.flat();
    const right = all.filter(({ isRight }) => isRight).length;
    const open = mine.lanes.join('').split(NOT_DRAWN).length - 1;
    const cells = asked.cells * key.lanes.length;
    const names = lanesAsked(asked).map(({ name }) => name);
    const wrong = spans.flatMap((lane, i) =>
      lane.flatMap(({ isRight, from, to }) =>
        isRight ? [] : [`${names[i]} from ${timeText(from * asked.cell)} to ${timeText(to * asked.cell)}`],
      ),
    );
    return {
      right,
      of: all.length,
      word: 'span',
      complaints:
        open === cells
          ? ['Nothing is drawn yet.']
          : open > 0
            ? [`${counted(open, 'cell is', 'cells are')} not drawn yet.`]
            : [],
      solved: right === all.length,
      wrong:
        open === cells || wrong.length === 0
          ? null
          : `${wrong.slice(0, MOST_NAMED).join(', ')}${wrong.length > MOST_NAMED ? ' …' : ''}`,
      gist: open === cells ? '' : mine.lanes.map((levels, i) => `${names[i]} ${levels}`).join(', '),
      detail: { spans, answer: mine },
    };
  },
} satisfies TaskKind<DiagramAsked, DiagramKey, DiagramAnswer, DiagramCheck>;
