'use client';

import { type RefObject, useState } from 'react';
import type { BoardRun } from '@/core/bench/board-run';
import type { WrongWire } from '@/core/bench/compare';
import { spoken } from '@/core/bench/electrical';
import { type Hole, stripOf } from '@/core/bench/holes';
import type { StageResult } from '@/core/bench/test-stage';
import type { Board } from '@/core/circuit/board';
import type { PlannedWire } from '@/core/packages/wiring';
import { letterOf } from '@/core/values/logic';
import { plainText } from '@/core/values/markup';
import { counted } from '@/core/values/wording';

interface Props {
  readonly line: RefObject<HTMLInputElement | null>;
  readonly board: Board;
  readonly run: BoardRun;
  readonly pointed: Hole | null;
  readonly next: PlannedWire | undefined;
  readonly wrong: readonly WrongWire[];
  readonly isDone: boolean;
  readonly result: StageResult | null;
  readonly problem: string;
  readonly readOnly: boolean;
  /** @returns whether the line was understood. */
  readonly onLine: (text: string) => boolean;
  readonly onMend: (wire: string) => void;
}

/** Messages of the board (faults, the next wire, connections of the pointed hole) and the line for typing. */
export function BenchFoot({
  line,
  board,
  run,
  pointed,
  next,
  wrong,
  isDone,
  result,
  problem,
  readOnly,
  onLine,
  onMend,
}: Props) {
  const [text, setText] = useState('');
  const problems = run.electrical.problems.filter(({ isSevere }) => isSevere);
  const severe = problems[0];
  const open = run.electrical.problems.filter(({ isSevere }) => !isSevere);
  const [first] = wrong;
  return (
    <div
      data-figure="none"
      className="flex shrink-0 flex-col gap-1 border-t border-hairline px-3 py-2 text-sm"
    >
      <div className="flex min-h-6 flex-wrap items-center gap-x-3 gap-y-1" role="status">
        {problem ? (
          <strong className="text-bad">{problem}</strong>
        ) : first ? (
          <>
            <strong className="text-bad">{first.message}</strong>
            {wrong.length > 1 && <span className="text-quiet">{wrong.length - 1} more</span>}
            {!readOnly && (
              <button type="button" className="button small" onClick={() => onMend(first.wire.id)}>
                Take it away
              </button>
            )}
          </>
        ) : result ? (
          result.failure ? (
            <strong className="text-bad">
              Stage {result.stage}: {result.failure.message}
            </strong>
          ) : (
            <>
              <strong className="text-good">
                Stage {result.stage} is right in {counted(result.steps, 'row')}.
              </strong>
              {next && <NextWire board={board} next={next} />}
            </>
          )
        ) : next ? (
          <NextWire board={board} next={next} />
        ) : isDone ? (
          <strong className="text-good">Everything is wired as the drawing has it.</strong>
        ) : null}
        {!problem && !first && severe && next?.stage !== 0 && (
          <span className="text-bad">{severe.message}</span>
        )}
      </div>
      <div className="flex items-center gap-3">
        {!readOnly && (
          <form
            className="flex flex-1 items-center"
            onSubmit={(event) => {
              event.preventDefault();
              if (text.trim() && onLine(text)) setText('');
            }}
          >
            <input
              ref={line}
              className="field max-w-96 py-0.5 font-mono"
              aria-label="Type for the board"
              placeholder="7408 · wire U1.3 U2.1 · lamp U3.6"
              value={text}
              onChange={(event) => setText(event.target.value)}
              onInput={(event) => setText(event.currentTarget.value)}
            />
          </form>
        )}
        <span className="ml-auto text-quiet">
          {pointed ? holeWords(run, pointed) : openWords(open.length)}
        </span>
      </div>
    </div>
  );
}

function NextWire({ board, next }: { board: Board; next: PlannedWire }) {
  return (
    <span>
      <strong>
        Next: {endName(board, next.from)} to {endName(board, next.to)}
      </strong>
      <span className="text-quiet"> · any hole of the column will do</span>
    </span>
  );
}

const openWords = (count: number) => (count > 0 ? counted(count, 'open input') : '');

/** What hangs on a hole, and its level. */
function holeWords(run: BoardRun, hole: Hole): string {
  const { nets } = run.electrical;
  const net = nets.netOf(stripOf(hole)!);
  const pins = nets.pinsOf(net).filter((end) => end !== '+' && end !== '-');
  const what = net === '+' ? 'plus' : net === '-' ? 'minus' : spoken(pins.slice(0, 4)) || 'nothing';
  const letter = letterOf(run.levelOf(net));
  const level = letter === 'Z' ? 'open' : letter === 'X' ? 'unknown' : letter;
  return `${hole}: ${what}${pins.length > 4 && net !== '+' && net !== '-' ? ' …' : ''} · ${level}`;
}

function endName(board: Board, end: string): string {
  if (end === '+') return 'plus';
  if (end === '-') return 'minus';
  const [ref, pin] = end.split('.');
  const device = board.devices.find((one) => one.ref === ref);
  return device ? plainText(device.label) || device.ref : `${ref} pin ${pin}`;
}
