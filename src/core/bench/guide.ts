import type { Board, BoardWire } from '../circuit/board';
import type { PackagePlan } from '../packages/plan';
import type { PlannedWire, Wiring } from '../packages/wiring';
import type { Result } from '../values/result';
import { compareBoard } from './compare';
import { boardOfPlan, wireBetween } from './lay';

/*
 * Guided wiring: the next wire of the plan that is not laid yet, and laying wires by itself.
 */

/** The board with what a plan needs and it does not have yet: packages by their designators, switches and lamps. */
export function withPartsOf(board: Board | undefined, plan: PackagePlan): Board {
  const fresh = boardOfPlan(plan);
  if (!board || (board.packages.length === 0 && board.wires.length === 0)) return fresh;
  const isSame = (a: Board, b: Board) =>
    a.packages.map(({ ref, type }) => ref + type).join() ===
    b.packages.map(({ ref, type }) => ref + type).join();
  return isSame(board, fresh) ? { ...board, devices: fresh.devices } : board;
}

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

/** The wire that comes next, or undefined where all are laid. */
export const nextOf = (board: Board, wiring: Wiring): PlannedWire | undefined =>
  compareBoard(board, wiring).missing[0];

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
