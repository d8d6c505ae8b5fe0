/** The mark: a ring of beads, one of them lit. */
export function Mark({ size = 28 }: { size?: number }) {
  const beads = [0, 1, 2, 3, 4, 5].map((i) => {
    const angle = (i * Math.PI) / 3 - Math.PI / 3;
    return {
      x: (16 + 8 * Math.cos(angle)).toFixed(2),
      y: (16 + 8 * Math.sin(angle)).toFixed(2),
      lit: i === 0,
    };
  });
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
      <circle cx="16" cy="16" r="13.5" fill="none" stroke="var(--accent)" strokeWidth="3" />
      {beads.map((b) => (
        <circle
          key={`${b.x} ${b.y}`}
          cx={b.x}
          cy={b.y}
          r={b.lit ? 2.6 : 2.1}
          fill={b.lit ? 'var(--one)' : 'var(--accent)'}
        />
      ))}
    </svg>
  );
}
