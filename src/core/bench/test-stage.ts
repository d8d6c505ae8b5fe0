import type { Board } from '../circuit/board';
import type { PackagePlan } from '../packages/plan';
import type { StageTest } from '../packages/stage-tests';
import { terminalRef } from '../packages/wiring';
import { type Logic, letterOf } from '../values/logic';
import { BoardRun } from './board-run';
import { spoken } from './electrical';

/** What a stage showed in its test. */
export interface StageResult {
  readonly stage: number;
  readonly steps: number;
  /** The first step at which a pin differs; undefined where all is right. */
  readonly failure?: {
    readonly step: number;
    readonly row?: number;
    readonly inputs: readonly Logic[];
    readonly pin: string;
    readonly message: string;
  };
}

/** Passes a stage through its rows, or its steps from power-up, and reads its pins. */
export function testStage(board: Board, plan: PackagePlan, { stage, steps }: StageTest): StageResult {
  const run = new BoardRun(board);
  const refs = plan.terminals.flatMap(({ direction }, i) => (direction === 'in' ? [terminalRef(i)] : []));
  for (const [i, step] of steps.entries()) {
    run.set(new Map(refs.map((ref, k) => [ref, step.inputs[k]!])));
    for (const [pin, wanted] of step.expected) {
      const is = run.levelAt(pin);
      if (is === wanted) continue;
      const where = step.row === undefined ? `step ${i + 1} from power-up` : `row ${step.row}`;
      const message = `${spoken([pin])} is ${SPOKEN[letterOf(is)]} in ${where}, and is to be ${SPOKEN[letterOf(wanted)]}.`;
      return {
        stage,
        steps: steps.length,
        failure: {
          step: i,
          ...(step.row === undefined ? {} : { row: step.row }),
          inputs: step.inputs,
          pin,
          message,
        },
      };
    }
  }
  return { stage, steps: steps.length };
}

const SPOKEN: Readonly<Record<string, string>> = { '0': '0', '1': '1', X: 'unknown', Z: 'open' };
