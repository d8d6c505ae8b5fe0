'use client';

import { DropdownMenu } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';
import { faultWords, possibleFaults, withHiddenFault } from '@/core/bench/faults';
import { columnsOf, widthOf } from '@/core/bench/holes';
import { BOARD_SIZES, type Board, MOST_BOARDS } from '@/core/circuit/board';
import { sheetOf } from '@/core/circuit/lesson';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import { fileName } from '@/ui/controls/save-file';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { printBoard, saveBoardPng, saveBoardSvg } from './board-picture';

interface Props {
  readonly board: Board;
  readonly planned: SheetPlan | null;
  /** What holds the drawing of the board. */
  readonly room: RefObject<HTMLDivElement | null>;
  readonly onChange: (board: Board, what: string) => void;
}

/** What is done with the board as a whole. */
export function BoardMenu({ board, planned, room, onChange }: Props) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  // What is hidden in the board of a task is for the student to find.
  const isTask = useSessionState((s) => s.rules.guide !== null);
  const name = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.name);
  const svg = () => room.current?.querySelector('svg') ?? null;
  /** Does something with the drawing; a failure is said. */
  const draw = (work: (of: SVGSVGElement) => void | Promise<void>) => {
    const found = svg();
    if (!found) return;
    Promise.resolve(work(found)).catch((error: Error) =>
      session.say(`That did not work: ${error.message}.`, 'bad'),
    );
  };
  const used = Math.max(
    0,
    ...board.packages.map((one) => one.column + widthOf(one) - 1),
    ...usedColumns(board),
  );
  const item = (words: ReactNode, onSelect: () => void, disabled = false) => (
    <DropdownMenu.Item className="menu-item" disabled={disabled} onSelect={onSelect}>
      {words}
    </DropdownMenu.Item>
  );
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft">
        Board
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
          {!readOnly && (
            <>
              {BOARD_SIZES.filter((size) => size !== board.columns).map((columns) => (
                <DropdownMenu.Item
                  key={columns}
                  className="menu-item"
                  disabled={columns * board.boards < used}
                  onSelect={() => onChange({ ...board, columns }, `a board of ${columns} columns`)}
                >
                  {columns} columns
                </DropdownMenu.Item>
              ))}
              {item(
                'One board more',
                () => onChange({ ...board, boards: board.boards + 1 }, 'another board'),
                board.boards >= MOST_BOARDS,
              )}
              {item(
                'One board fewer',
                () => onChange({ ...board, boards: board.boards - 1 }, 'one board fewer'),
                board.boards === 1 || columnsOf({ ...board, boards: board.boards - 1 }) < used,
              )}
              <DropdownMenu.Separator className="my-1 border-t border-hairline" />
              {item(
                'Take all wires away',
                () => onChange({ ...board, wires: [] }, 'the wires of the board'),
                board.wires.length === 0,
              )}
              {!isTask &&
                item(
                  'Hide a fault',
                  () => {
                    const after = withHiddenFault(board, planned?.plan ?? null, Math.random());
                    if (after) onChange(after, 'a hidden fault');
                  },
                  possibleFaults(board, planned?.plan ?? null).length <= board.faults.length,
                )}
              {!isTask &&
                board.faults.length > 0 &&
                item('Tell and mend the fault', () => {
                  onChange({ ...board, faults: [] }, 'the faults mended');
                  session.say(board.faults.map((fault) => faultWords(board, fault)).join(' '));
                })}
              <DropdownMenu.Separator className="my-1 border-t border-hairline" />
            </>
          )}
          {item('Save as SVG', () => draw((of) => saveBoardSvg(of, fileName(name, '-board.svg'))))}
          {item('Save as PNG', () => draw((of) => saveBoardPng(of, fileName(name, '-board.png'))))}
          {item('Print with the list of wires', () =>
            draw((of) => printBoard(of, name, planned?.wiring ?? null)),
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Columns in which wires end. */
const usedColumns = ({ wires }: Board): number[] =>
  wires.flatMap(({ from, to }) =>
    [from, to].flatMap((hole) => (hole.startsWith('X') ? [] : [Number(/\d+$/.exec(hole)![0])])),
  );
