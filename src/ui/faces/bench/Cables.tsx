import type { BoardRun } from '@/core/bench/board-run';
import { stripOf } from '@/core/bench/holes';
import type { Board } from '@/core/circuit/board';
import { type Logic, ONE, X, Z } from '@/core/values/logic';
import type { Chosen } from './chosen';
import { holePoint, type Point, wirePath } from './layout';

interface Props {
  readonly board: Board;
  readonly devices: ReadonlyMap<string, Point>;
  readonly run: BoardRun;
  readonly chosen: Chosen;
  readonly wrong: ReadonlySet<string>;
  readonly lit: ReadonlySet<string>;
  /** A wire that is shown elsewhere now. */
  readonly hidden: string | null;
}

/** How the core of a cable shows its level: by weight and pattern as well as by colour. */
const CORES: Readonly<
  Record<Logic, { readonly stroke: string; readonly width: number; readonly dash?: string }>
> = {
  0: { stroke: 'var(--raised)', width: 1.6 },
  [ONE]: { stroke: 'var(--one)', width: 3.6 },
  [X]: { stroke: 'var(--unknown)', width: 3, dash: '2 4' },
  [Z]: { stroke: 'var(--raised)', width: 2, dash: '7 7' },
};

/** The wires: a casing in the wire's colour, and a core that carries the signal. */
export function Cables({ board, devices, run, chosen, wrong, lit, hidden }: Props) {
  const { nets } = run.electrical;
  const conflicts = run.conflicts();
  return (
    <g pointerEvents="none">
      {board.wires.map((wire) => {
        if (wire.id === hidden) return null;
        const [a, b] = [holePoint(wire.from, devices, board), holePoint(wire.to, devices, board)];
        if (!a || !b) return null;
        const net = nets.netOf(stripOf(wire.from)!);
        const isConflict = conflicts.has(net);
        const core = CORES[run.levelOf(net)];
        const d = wirePath(a, b);
        const isChosen = chosen?.is === 'wire' && chosen.id === wire.id;
        return (
          <g
            key={wire.id}
            data-wire={wire.id}
            data-lit={lit.has(wire.id) || undefined}
            fill="none"
            strokeLinecap="round"
          >
            {(isChosen || lit.has(wire.id) || wrong.has(wire.id)) && (
              <path
                d={d}
                stroke={wrong.has(wire.id) ? 'var(--bad)' : 'var(--accent)'}
                strokeWidth={11}
                opacity={0.35}
              />
            )}
            <path d={d} stroke={`var(--cable-${wire.colour})`} strokeWidth={6.5} />
            <path
              d={d}
              stroke={isConflict ? 'var(--bad)' : core.stroke}
              strokeWidth={isConflict ? 3.6 : core.width}
              strokeDasharray={isConflict ? '4 3' : core.dash}
            />
            {[a, b].map(({ x, y }) => (
              <circle
                key={`${x} ${y}`}
                cx={x}
                cy={y}
                r={4.2}
                fill={`var(--cable-${wire.colour})`}
                stroke="var(--raised)"
                strokeWidth={1}
              />
            ))}
          </g>
        );
      })}
    </g>
  );
}
