import type { Board, BoardFault } from '../circuit/board';
import type { PackagePlan } from '../packages/plan';
import { spoken } from './electrical';

/*
 * Faults that are hidden in a board to be found by probing: nothing that is drawn tells of them, nor does the comparison with the
 * drawing, only the levels.
 */

/** Every fault that the board can have: a used unit that is dead, its package the wrong way round, a signal wire that does not conduct. */
export function possibleFaults(board: Board, plan: PackagePlan | null): BoardFault[] {
  const units = (plan?.packages ?? []).flatMap(({ ref, units: own }) =>
    board.packages.some((one) => one.ref === ref)
      ? own
          .filter(({ parts }) => parts.length > 0)
          .map(({ letter }): BoardFault => ({ is: 'dead unit', ref, unit: letter }))
      : [],
  );
  const turned = [...new Set(units.flatMap((fault) => (fault.is === 'dead unit' ? [fault.ref] : [])))].map(
    (ref): BoardFault => ({ is: 'turned package', ref }),
  );
  const isRail = (hole: string) => /^[TB]/.test(hole);
  const wires = board.wires
    .filter(({ from, to }) => !isRail(from) && !isRail(to))
    .map(({ id }): BoardFault => ({ is: 'broken wire', wire: id }));
  return [...units, ...turned, ...wires];
}

/** The board with one more fault. @param die a number in [0, 1) that chooses it. */
export function withHiddenFault(board: Board, plan: PackagePlan | null, die: number): Board | null {
  const isThere = (fault: BoardFault) =>
    board.faults.some((one) => JSON.stringify(one) === JSON.stringify(fault));
  const possible = possibleFaults(board, plan).filter((fault) => !isThere(fault));
  const chosen = possible[Math.floor(die * possible.length)];
  return chosen ? { ...board, faults: [...board.faults, chosen] } : null;
}

/** A fault in words, for whoever gives up or has found it. */
export function faultWords(board: Board, fault: BoardFault): string {
  if (fault.is === 'dead unit') return `Unit ${fault.unit} of ${fault.ref} is dead: its outputs stay at 0.`;
  if (fault.is === 'turned package')
    return `${fault.ref} stands the wrong way round: its supply is reversed, and it gives nothing.`;
  const wire = board.wires.find(({ id }) => id === fault.wire);
  return wire
    ? `The wire from ${hole(wire.from)} to ${hole(wire.to)} is broken inside.`
    : 'A wire was broken that is gone.';
}

const hole = (text: string) => (text.startsWith('X') ? spoken([text]) : text);
