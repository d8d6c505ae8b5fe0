import type { Expected, Task } from '../../../circuit/exercise';
import { findKind } from '../../../parts/catalogue';
import { done, refusal, within } from '../../../values/result';
import { type Infer, list, text, z } from '../../../values/schema';
import { type Check, check, wrongRowsText } from '../../check';
import { circuitContent } from '../../circuit-content';
import { AnyExpected, expectedContent, expectedKindOf } from '../../expected';
import { GivenCircuit } from '../../given-schema';
import { DRAWINGS, FREE } from '../../rules';
import { circuitAnswer, OpenSignals, signalsOf } from '../circuit-answer';
import type { TaskKind } from '../task-kind';
import { exceeded, Limits } from './limits';

const Asked = z.object({
  /** Kinds of part from the catalogue; switches and lamps can always be used. */
  parts: list(text(40), 200),
  drawing: z._default(z.enum(DRAWINGS), 'free'),
  /** Ids of tasks whose circuits may be used as blocks, as one part each. */
  blocks: z._default(list(text(40), 60), []),
  limits: z._default(Limits, {}),
  /** Inputs and outputs, where what is expected is sealed. */
  signals: z.optional(OpenSignals),
  /** The circuit that stands in for the student's as a block in later tasks; null for none. */
  standIn: z._default(z.nullable(GivenCircuit), null),
});
export type BuildAsked = Infer<typeof Asked>;
export type BuildTask = Task<BuildAsked, Expected>;

/** The kinds of part that a task lets be placed, besides those that always can be. */
export function partsAllowed(task: BuildTask): ReadonlySet<string> {
  const allowed = new Set(task.asked.parts);
  // An input that goes up and down by itself may be a clock.
  if (signalsOf(task).inputs.some((i) => i.period !== null)) allowed.add('clock');
  return allowed;
}

/** `2 AND, 1 NOT`, without the switches and lamps that are in each of them, and without notes. */
function partsText(found: Check): string {
  return found.parts
    .filter(({ kind }) => !findKind(kind)?.role && !findKind(kind)?.isNote)
    .map(({ kind, count }) => `${count} ${findKind(kind)?.name ?? kind}`)
    .join(', ');
}

/** A circuit is asked for: its rows or readings are held against what is expected. */
export const build = {
  kind: 'build',
  name: 'Build a circuit',
  says: 'The student draws a circuit that does what is wanted.',
  gistName: 'Parts used',
  asked: Asked,
  key: AnyExpected,
  answer: null,
  isDrawn: true,
  openPart: (task) => ({ ...task.asked, signals: signalsOf(task) }),
  withCircuits(task) {
    const { standIn } = task.asked;
    const circuit = standIn && circuitContent(standIn);
    if (circuit && !circuit.ok)
      return refusal(within('the circuit that stands in for the student’s', circuit.problem));
    const key = task.key && expectedContent(task.key);
    if (key && !key.ok) return key;
    return done({
      ...task,
      asked: { ...task.asked, standIn: circuit?.value ?? null },
      key: key ? key.value : task.key,
    });
  },
  standIn: ({ asked }) => asked.standIn,
  strange({ asked }) {
    const strange = asked.parts.find((kind) => !findKind(kind));
    return strange === undefined ? null : `it allows a part “${strange}”, which this Manege does not know`;
  },
  ...circuitAnswer,
  rules: (task) => ({
    ...FREE,
    parts: partsAllowed(task),
    drawing: task.asked.drawing,
    needsTime: signalsOf(task).isTimed,
  }),
  mark(task, { sheet, sheets, builtIn }) {
    const built = new Set(task.asked.blocks.flatMap(builtIn));
    const checked = check(sheet, task.key, partsAllowed(task), sheets, built);
    const over = exceeded(task.asked.limits, sheet, sheets, built);
    const found = {
      ...checked,
      complaints: [...checked.complaints, ...over],
      solved: over.length > 0 ? false : checked.solved,
    };
    const { word } = expectedKindOf(task.key).rows(task.key);
    return {
      right: found.right,
      of: found.rows,
      word,
      complaints: found.complaints,
      solved: found.solved,
      wrong: wrongRowsText(found, word),
      gist: partsText(found),
      detail: found,
    };
  },
} satisfies TaskKind<BuildAsked, Expected, null, Check>;
