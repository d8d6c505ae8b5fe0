import type { BoardRun } from '@/core/bench/board-run';
import { DEVICE_PINS, isDisplay, isInput } from '@/core/bench/holes';
import type { Board, BoardDevice } from '@/core/circuit/board';
import { letterOf, ONE } from '@/core/values/logic';
import { plainText } from '@/core/values/markup';
import type { Chosen } from './chosen';
import { holePoint, MOST_LABEL, type Point } from './layout';

interface Props {
  readonly board: Board;
  readonly places: ReadonlyMap<string, Point>;
  readonly run: BoardRun;
  readonly chosen: Chosen;
}

/** The bars of a display, a at the top and on clockwise, g in the middle, about its middle. */
const BARS = ['M-7 -16H7', 'M9 -14V-2', 'M9 2V14', 'M-7 16H7', 'M-9 2V14', 'M-9 -14V-2', 'M-7 0H7'];

/** Switches, buttons, clocks, lamps and displays beside the board. */
export function Devices({ board, places, run, chosen }: Props) {
  return (
    <>
      {board.devices.map((device) => {
        const at = places.get(device.ref)!;
        const isChosen = chosen?.is === 'device' && chosen.id === device.ref;
        const level = run.levelAt(`${device.ref}.1`);
        const label = plainText(device.label) || device.ref;
        const drives = isInput(device);
        return (
          <g key={device.ref} data-device={device.ref}>
            {DEVICE_PINS[device.kind].map((pin) => {
              const hole = holePoint(`${device.ref}.${pin}`, places, board)!;
              return (
                <g key={pin}>
                  <line
                    x1={hole.x}
                    x2={hole.x}
                    y1={hole.y}
                    y2={at.y - 16}
                    stroke="var(--ink)"
                    strokeWidth={2}
                  />
                  <circle
                    cx={hole.x}
                    cy={hole.y}
                    r={4.5}
                    fill="var(--paper)"
                    stroke="var(--ink)"
                    strokeWidth={2}
                  />
                </g>
              );
            })}
            {isDisplay(device) ? (
              <g transform={`translate(${at.x} ${at.y})`}>
                <rect
                  x={-26}
                  y={-20}
                  width={52}
                  height={44}
                  rx={4}
                  fill="var(--raised)"
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
                {BARS.map((d, i) => {
                  const lit = run.levelAt(`${device.ref}.${'abcdefg'[i]}`) === ONE;
                  return (
                    <path
                      key={d}
                      d={d}
                      stroke={lit ? 'var(--one)' : 'var(--hairline)'}
                      strokeWidth={4}
                      strokeLinecap="round"
                    />
                  );
                })}
              </g>
            ) : (
              <circle
                cx={at.x}
                cy={at.y}
                r={15}
                fill={!drives && level === ONE ? 'var(--one)' : 'var(--raised)'}
                stroke={isChosen ? 'var(--accent)' : 'var(--ink)'}
                strokeWidth={isChosen ? 3.5 : 2.5}
                className={drives ? 'cursor-pointer' : undefined}
              />
            )}
            {drives && <Lever device={device} at={at} isOn={level === ONE} />}
            <text x={at.x} y={at.y + 33} textAnchor="middle" fontSize={14} fontWeight={700} fill="var(--ink)">
              {label.length > MOST_LABEL ? `${label.slice(0, MOST_LABEL - 1)}…` : label}
            </text>
            <text
              x={at.x}
              y={at.y + 50}
              textAnchor="middle"
              fontSize={13}
              className="font-mono"
              fill="var(--ink)"
            >
              {isDisplay(device) ? '' : letterOf(level)}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** How an input is moved, as its face shows it. */
const LEVERS: Readonly<Partial<Record<BoardDevice['kind'], 'wave' | 'knob'>>> = {
  clock: 'wave',
  button: 'knob',
};

function Lever({ device, at, isOn }: { device: BoardDevice; at: Point; isOn: boolean }) {
  if (LEVERS[device.kind] === 'wave')
    return (
      <path
        d={`M${at.x - 8} ${at.y + 4}h4v-8h8v8h4`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
        strokeLinejoin="round"
        pointerEvents="none"
      />
    );
  if (LEVERS[device.kind] === 'knob')
    return (
      <circle
        cx={at.x}
        cy={at.y}
        r={isOn ? 6 : 8}
        fill={isOn ? 'var(--one)' : 'var(--ink)'}
        pointerEvents="none"
      />
    );
  const to = isOn ? { x: at.x + 8, y: at.y - 8 } : { x: at.x - 8, y: at.y - 8 };
  return (
    <g pointerEvents="none">
      <circle cx={at.x} cy={at.y} r={4} fill="var(--ink)" />
      <line
        x1={at.x}
        y1={at.y}
        x2={to.x}
        y2={to.y}
        stroke="var(--ink)"
        strokeWidth={4}
        strokeLinecap="round"
      />
      {isOn && <circle cx={at.x} cy={at.y} r={18.5} fill="none" stroke="var(--one)" strokeWidth={2} />}
    </g>
  );
}
