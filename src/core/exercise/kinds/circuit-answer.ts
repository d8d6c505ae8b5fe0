import type { Expected, Task } from '../../circuit/exercise';
import { SignalName } from '../../circuit/signal-name';
import { type Infer, list, whole, z } from '../../values/schema';
import type { Check } from '../check';
import { expectedKindOf } from '../expected';
import { mistakeInWords } from '../wrong-in-words';
import { caredFor, withDontCares } from './dont-cares';
import { type Mark, type TaskKind, wrongIn } from './task-kind';

const Signals = list(z.object({ name: SignalName, width: whole(1, 64), period: z.nullable(z.number()) }), 64);

/** Inputs and outputs, where what is expected is sealed. */
export const OpenSignals = z.object({ inputs: Signals, outputs: Signals, isTimed: z.boolean() });
export type OpenSignals = Infer<typeof OpenSignals>;

/** A task answered with a circuit, drawn or wired. The answer is compared with the expected behaviour. */
export type CircuitTask<Q = unknown> = Task<Q, Expected>;

/** The inputs and outputs of a task, and whether time runs: as far as they are open where the rest is sealed. */
export function signalsOf({
  asked,
  key,
}: CircuitTask<{ readonly signals?: OpenSignals | undefined }>): OpenSignals {
  if (asked.signals) return asked.signals;
  const { inputs, outputs } = expectedKindOf(key).signals(key);
  return { inputs: [...inputs], outputs: [...outputs], isTimed: expectedKindOf(key).isTimed(key) };
}

/** The wanted words of each output, row by row. */
function wantedWords(key: Expected): string[][] {
  const { outputs, rows, output } = expectedKindOf(key).rows(key);
  return outputs.map((_, o) => Array.from({ length: rows }, (_, row) => output(o, row)));
}

/** What kinds of task have in common whose answer is a circuit. */
export const circuitAnswer = {
  hashed: {
    whyNot: ({ key }: CircuitTask) =>
      expectedKindOf(key).blank
        ? null
        : 'a circuit can only be proved the same where the wanted one is known',
    blank: ({ key }: CircuitTask) => expectedKindOf(key).blank!(key),
    wanted: ({ key }: CircuitTask) => wantedWords(key).flat().join(),
    given: ({ key }: CircuitTask, { complaints, detail }: Mark<Check>) =>
      complaints.length > 0
        ? null
        : wantedWords(key)
            .flatMap((words, o) => words.map((wanted, row) => withDontCares(wanted, detail.given[o]![row]!)))
            .join(),
    bits: ({ key }: CircuitTask) => caredFor(wantedWords(key).flat().join('')),
  },
  said: (_: CircuitTask, { detail, gist }: Mark<Check>) =>
    gist ? JSON.stringify([detail.given, detail.difference?.given ?? null, detail.complaints]) : null,
  mistake: ({ key }: CircuitTask, { detail }: Mark<Check>) => mistakeInWords(key, detail),
  wrongUnits: (_: CircuitTask, { detail }: Mark<Check>) =>
    detail.parts.length > 0 && !detail.difference ? wrongIn(detail.rowIsRight) : [],
  unitName: ({ key }: CircuitTask, row: number) => `${expectedKindOf(key).rows(key).word} ${row}`,
  expected: ({ key }: CircuitTask) => key,
} satisfies Partial<TaskKind<never, Expected, null, Check>>;
