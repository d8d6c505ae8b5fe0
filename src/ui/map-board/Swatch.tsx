/** Dashes by which loops are told apart besides their colour. */
const DASHES = ['none', '8 4', '2 4', '11 3 2 3', '5 3', '14 5'];
const COLOURS = 6;

/** How the loop with a number is dashed: those that share a colour have other dashes. */
export const dashOf = (index: number) => DASHES[(index + Math.floor(index / COLOURS)) % DASHES.length];

/** The colour of the loop with a number. */
export const colourOf = (index: number) => `var(--loop-${(index % COLOURS) + 1})`;

/** A stroke in the look of a loop, beside its product. */
export function Swatch({ index }: { index: number }) {
  return (
    <svg width="26" height="12" className="shrink-0" aria-hidden="true">
      <path
        d="M2 6H24"
        stroke={colourOf(index)}
        strokeWidth="3"
        strokeDasharray={dashOf(index)}
        strokeLinecap="round"
      />
    </svg>
  );
}
