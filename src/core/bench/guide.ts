import type { Board, BoardWire } from '../circuit/board';
import type { PackagePlan } from '../packages/plan';
import type { Wiring } from '../packages/wiring';
import type { Result } from '../values/result';
import { compareBoard } from './compare';
import { boardOfPlan, wireBetween } from './lay';

/*
 * Guided wiring: whether a board belongs to a plan, and laying its wires stage by stage.
 */

/** Whether the packages and devices of a board are those of the plan. */
export function fitsPlan(board: Board, plan: PackagePlan): boolean {
  const fresh = boardOfPlan(plan);
  const on = new Map(board.packages.map(({ ref, type }) => [ref, type]));
  const beside = new Set(board.devices.map(({ ref, label }) => `${ref} ${label}`));
  return (
    fresh.packages.every(({ ref, type }) => on.get(ref) === type) &&
    fresh.devices.every(({ ref, label }) => beside.has(`${ref} ${label}`))
  );
}

/**
 * The board with the wires of some stages laid that are not there yet. Stops at the first that finds no hole.
 * @param upTo the last stage that is laid.
 */
export function layWires(
  board: Board,
  wiring: Wiring,
  upTo: number,
): { board: Board; refusal?: Result<never> } {
  let now = board;
  for (;;) {
    const next = compareBoard(now, wiring).missing.find(({ stage }) => stage <= upTo);
    if (!next) return { board: now };
    const wire = wireBetween(now, next.from, next.to, next.colour);
    if (!wire.ok) return { board: now, refusal: wire };
    now = withWire(now, wire.value);
  }
}

export const withWire = (board: Board, wire: BoardWire): Board => ({
  ...board,
  wires: [...board.wires, wire],
});
