import { readBoardLine, removeWires } from '@/core/bench/edit-board';
import { layWires } from '@/core/bench/guide';
import { boardOfPlan } from '@/core/bench/lay';
import { sheetPlan } from '@/core/packages/sheet-plan';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import type { LitPins } from '@/ui/session/lit-pins';
import { endsOnBoard, wiresAt } from './lit-wires';

const { sheet } = interlock();
const planned = sheetPlan(sheet, []);
const { board } = layWires(boardOfPlan(planned.plan), planned.wiring, Number.POSITIVE_INFINITY);
const pointedAt = (...ends: string[]): LitPins => ({
  isPart: () => false,
  pins: new Set(ends),
  ends,
  isWire: () => false,
});

test('each wire of the plan lights the one on the board that it is, and that one tells it', () => {
  for (const { from, to } of planned.wiring.wires) {
    const lit = [...wiresAt(board, pointedAt(from, to))];
    expect(lit).toHaveLength(1);
    expect(new Set(endsOnBoard(board, lit[0]!, planned))).toEqual(new Set([from, to]));
  }
});

test('a wire that is not laid lights nothing, and one that goes another way lights its net', () => {
  const { from, to } = planned.wiring.wires.find(({ stage }) => stage > 0)!;
  const [laid] = wiresAt(board, pointedAt(from, to));
  const without = removeWires(board, new Set([laid!]));
  expect(wiresAt(without, pointedAt(from, to)).size).toBe(0);
  let detour = without;
  for (const line of [`wire ${from} a30`, `wire b30 ${to}`])
    detour = expectDone(readBoardLine(detour, line)).board;
  expect(wiresAt(detour, pointedAt(from, to)).size).toBeGreaterThanOrEqual(2);
});

test('a gate lights the wires at its pins, without the whole supply', () => {
  const [first] = planned.plan.packages;
  const unit = first!.units.find(({ parts }) => parts.length > 0)!;
  const pins = new Set([...unit.pins.keys()].map((pin) => `${first!.ref}.${pin}`));
  const lit = wiresAt(board, { ...pointedAt(), pins });
  expect(lit.size).toBeGreaterThanOrEqual(pins.size);
  expect(lit.size).toBeLessThan(board.wires.length / 2);
});

test('what is no wire of the plan has no ends there', () => {
  expect(endsOnBoard(board, 'w999', planned)).toEqual([]);
  expect(endsOnBoard(board, board.wires[0]!.id, null)).toEqual([]);
});
