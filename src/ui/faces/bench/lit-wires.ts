import { boardNets, endsOf, pinStrips } from '@/core/bench/board-nets';
import type { Strip } from '@/core/bench/holes';
import type { Board } from '@/core/circuit/board';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import type { LitPins } from '@/ui/session/lit-pins';

/**
 * The wires of a board that are lit: those that end at a pin of a gate that is pointed at; of a wire of the list that is, the one
 * between its pins, or whatever joins them by another way.
 */
export function wiresAt(board: Board, { pins, ends }: LitPins): ReadonlySet<string> {
  if (pins.size === 0) return new Set();
  const strips = pinStrips(board);
  const at = new Set([...pins].flatMap((pin) => strips.get(pin) ?? []));
  const isPole = (strip: Strip) => strip === '+' || strip === '-';
  const those = (is: (a: Strip, b: Strip) => boolean) =>
    new Set(board.wires.filter((wire) => is(...endsOf(wire))).map(({ id }) => id));
  if (ends.length === 0) return those((a, b) => [a, b].some((strip) => at.has(strip) && !isPole(strip)));
  const between = those((a, b) => at.has(a) && at.has(b));
  const nets = boardNets(board);
  const [one, other] = [...at].map(nets.netOf);
  const isJoined = one !== undefined && one === other && !isPole(one);
  return between.size > 0 || !isJoined ? between : those((a) => nets.netOf(a) === one);
}

/** The ends of the planned wire that a wire of the board is, where it is one. */
export function endsOnBoard(board: Board, id: string, planned: SheetPlan | null): readonly string[] {
  const wire = board.wires.find((one) => one.id === id);
  if (!wire || !planned) return [];
  const strips = pinStrips(board);
  const [a, b] = endsOf(wire);
  const found = planned.wiring.wires.find(({ from, to }) => {
    const [x, y] = [strips.get(from), strips.get(to)];
    return (x === a && y === b) || (x === b && y === a);
  });
  return found ? [found.from, found.to] : [];
}
