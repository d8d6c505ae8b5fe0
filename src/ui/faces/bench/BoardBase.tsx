import { memo } from 'react';
import { columnsOf, LOWER_ROWS, UPPER_ROWS } from '@/core/bench/holes';
import type { Board } from '@/core/circuit/board';
import { BOARD_HEIGHT, columnX, NUMBERS_Y, PITCH, RAILS, rowY } from './layout';

/** The uppermost row of each half. */
const HALVES = ['j', 'e'] as const;

/** The empty board: rails, half columns and holes, with the numbers of columns. */
export const BoardBase = memo(function BoardBase({ board }: { board: Board }) {
  const columns = columnsOf(board);
  const right = columnX(columns);
  const numbered = Array.from({ length: columns }, (_, i) => i + 1);
  const rails = [
    [RAILS['T+'], '+'],
    [RAILS['T-'], '−'],
    [RAILS['B+'], '+'],
    [RAILS['B-'], '−'],
  ] as const;
  return (
    <g>
      <rect
        x={8}
        y={8}
        width={right + 36}
        height={BOARD_HEIGHT - 16}
        rx={14}
        fill="var(--raised)"
        stroke="var(--hairline)"
        strokeWidth={1.5}
      />
      <defs>
        {HALVES.map((row) => (
          <pattern
            key={row}
            id={`holes-${row}`}
            width={PITCH}
            height={PITCH}
            patternUnits="userSpaceOnUse"
            x={columnX(1) - PITCH / 2}
            y={rowY(row) - PITCH / 2}
          >
            <circle cx={PITCH / 2} cy={PITCH / 2} r={2.4} fill="var(--quiet)" opacity={0.55} />
          </pattern>
        ))}
      </defs>
      {rails.map(([y, pole]) => (
        <g key={y}>
          <rect
            x={columnX(1) - 10}
            y={y - 9}
            width={right - columnX(1) + 20}
            height={18}
            rx={9}
            fill={pole === '+' ? 'var(--rail-plus)' : 'var(--rail-minus)'}
          />
          <text
            x={28}
            y={y + 5}
            textAnchor="middle"
            fontSize={16}
            fontWeight={700}
            fill={pole === '+' ? 'var(--cable-red)' : 'var(--ink)'}
          >
            {pole}
          </text>
          {numbered.map((column) =>
            column % 6 === 0 ? null : (
              <circle key={column} cx={columnX(column)} cy={y} r={2.4} fill="var(--quiet)" opacity={0.55} />
            ),
          )}
        </g>
      ))}
      {numbered.map((column) => (
        <g key={column}>
          {HALVES.map((row) => (
            <rect
              key={row}
              x={columnX(column) - 8}
              y={rowY(row) - 9}
              width={16}
              height={4 * PITCH + 18}
              rx={8}
              fill="var(--board-strip)"
            />
          ))}
          {(column === 1 || column % 5 === 0) && (
            <text
              x={columnX(column)}
              y={NUMBERS_Y}
              textAnchor="middle"
              fontSize={12}
              className="font-mono"
              fill="var(--quiet)"
            >
              {column}
            </text>
          )}
        </g>
      ))}
      {HALVES.map((row) => (
        <rect
          key={row}
          x={columnX(1) - PITCH / 2}
          y={rowY(row) - PITCH / 2}
          width={columns * PITCH}
          height={5 * PITCH}
          fill={`url(#holes-${row})`}
        />
      ))}
      <rect
        x={9}
        y={rowY('f') + 18}
        width={right + 26}
        height={rowY('e') - rowY('f') - 36}
        fill="var(--board-strip)"
      />
      {[...LOWER_ROWS, ...UPPER_ROWS].map((row) => (
        <text
          key={row}
          x={30}
          y={rowY(row) + 4}
          textAnchor="middle"
          fontSize={12}
          className="font-mono"
          fill="var(--quiet)"
        >
          {row}
        </text>
      ))}
      {Array.from({ length: board.boards - 1 }, (_, i) => (
        <line
          key={i}
          x1={columnX((i + 1) * board.columns) + PITCH / 2}
          x2={columnX((i + 1) * board.columns) + PITCH / 2}
          y1={16}
          y2={BOARD_HEIGHT - 16}
          stroke="var(--hairline)"
          strokeWidth={2}
        />
      ))}
    </g>
  );
});
