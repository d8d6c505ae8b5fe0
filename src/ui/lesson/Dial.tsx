/** Most rows that are beads; with more, the dial is an arc that says how far one has come. */
const MOST_BEADS = 16;

/** A longer number does not fit into the ring; it stands beside it. */
const LARGEST_SHOWN = 9999;

interface Props {
  readonly rows: number;
  readonly row: number;
  readonly tried: ReadonlyMap<number, string>;
  readonly size: number;
}

/** The moment's dial: a bead for each row, filled once it was tried, the live one lit. */
export function Dial({ rows, row, tried, size }: Props) {
  const middle = size / 2;
  const ring = middle - 6;
  const beads = rows <= MOST_BEADS;
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      style={{ width: `${size / 15}rem`, height: `${size / 15}rem` }}
      aria-hidden="true"
      className="shrink-0"
    >
      {beads ? (
        Array.from({ length: rows }, (_, i) => {
          const angle = (i / rows) * 2 * Math.PI;
          const x = middle + ring * Math.sin(angle);
          const y = middle - ring * Math.cos(angle);
          return (
            <circle
              key={i}
              cx={x.toFixed(2)}
              cy={y.toFixed(2)}
              r={i === row ? 4.6 : rows > 10 ? 2.4 : 3}
              fill={i === row ? 'var(--one)' : tried.has(i) ? 'var(--ink)' : 'var(--raised)'}
              stroke="var(--ink)"
              strokeWidth="1.2"
            />
          );
        })
      ) : (
        <>
          <circle cx={middle} cy={middle} r={ring} fill="none" stroke="var(--hairline)" strokeWidth="4" />
          <circle
            cx={middle}
            cy={middle}
            r={ring}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="4"
            strokeDasharray={`${((tried.size / rows) * 2 * Math.PI * ring).toFixed(1)} 999`}
            transform={`rotate(-90 ${middle} ${middle})`}
          />
        </>
      )}
      {row <= LARGEST_SHOWN && (
        <text
          x={middle}
          y={middle + 4.5}
          textAnchor="middle"
          fontSize={row > 999 ? 9 : 13}
          fontWeight="700"
          fill="var(--ink)"
          className="font-mono"
        >
          {row}
        </text>
      )}
    </svg>
  );
}
