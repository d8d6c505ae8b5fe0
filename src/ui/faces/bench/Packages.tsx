import type { BoardRun } from '@/core/bench/board-run';
import { typeOf, widthOf } from '@/core/bench/holes';
import type { Board } from '@/core/circuit/board';
import type { Chosen } from './chosen';
import { legPoint, packageBox } from './layout';

interface Props {
  readonly board: Board;
  readonly chosen: Chosen;
  readonly run: BoardRun;
  readonly isLit: (ref: string, pin: number) => boolean;
}

/** The packages across the trench, as flat outlines with their notch, their number and those of their pins. */
export function Packages({ board, chosen, run, isLit }: Props) {
  const troubled = new Set(
    run.electrical.problems.filter(({ isSevere }) => isSevere).flatMap(({ at }) => at),
  );
  return (
    <>
      {board.packages.map((one) => {
        const box = packageBox(one);
        const isChosen = chosen?.is === 'package' && chosen.id === one.ref;
        const stroke = troubled.has(one.ref) ? 'var(--bad)' : isChosen ? 'var(--accent)' : 'var(--ink)';
        const middle = box.y + box.height / 2;
        const notch = one.turned ? box.x + box.width : box.x;
        return (
          <g key={one.ref} data-package={one.ref}>
            {typeOf(one)?.pins.map(({ number }) => {
              const { x, y } = legPoint(one, number);
              const lit = isLit(one.ref, number);
              return (
                <rect
                  key={number}
                  x={x - 4.5}
                  y={y < middle ? y - 5 : y - 9}
                  width={9}
                  height={14}
                  rx={2}
                  fill={lit ? 'var(--accent)' : 'var(--ink)'}
                />
              );
            })}
            <rect
              x={box.x}
              y={box.y}
              width={box.width}
              height={box.height}
              rx={5}
              fill={isChosen ? 'var(--accent-soft)' : 'var(--raised)'}
              stroke={stroke}
              strokeWidth={isChosen || troubled.has(one.ref) ? 3 : 2}
              className="cursor-grab"
            />
            <path
              d={
                one.turned
                  ? `M${notch} ${middle - 6}a6 6 0 0 0 0 12`
                  : `M${notch} ${middle - 6}a6 6 0 0 1 0 12`
              }
              fill="var(--paper)"
              stroke={stroke}
              strokeWidth={2}
            />
            {typeOf(one)?.pins.map(({ number }) => {
              const { x, y } = legPoint(one, number);
              const lit = isLit(one.ref, number);
              return (
                <text
                  key={number}
                  x={x}
                  y={y < middle ? box.y + 13 : box.y + box.height - 4}
                  textAnchor="middle"
                  fontSize={12.5}
                  fontWeight={lit ? 700 : 400}
                  className="font-mono"
                  fill={lit ? 'var(--accent)' : 'var(--ink)'}
                  pointerEvents="none"
                >
                  {number}
                </text>
              );
            })}
            <text
              x={box.x + (widthOf(one) * 22) / 2}
              y={middle + 4.5}
              textAnchor="middle"
              fontSize={13}
              fontWeight={700}
              fill="var(--ink)"
              pointerEvents="none"
            >
              {one.ref} {one.type}
            </text>
          </g>
        );
      })}
    </>
  );
}
