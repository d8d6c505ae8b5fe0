import type { Point } from '@/core/circuit/geometry';
import { within } from '@/ui/controls/within';

/** Words at the pointer: a problem, or the value of a wire. */
export interface Tip extends Point {
  readonly text: string;
  readonly isProblem: boolean;
}

export function PointerTip({ tip, room }: { tip: Tip; room: { width: number; height: number } }) {
  const [width, height] = tip.isProblem ? [300, 110] : [200, 40];
  return (
    <p
      role="status"
      className={
        tip.isProblem
          ? 'pointer-events-none absolute z-20 w-72 rounded-lg border border-bad bg-raised px-3 py-2 text-sm shadow-lg'
          : 'pointer-events-none absolute z-20 w-max rounded-lg border border-hairline bg-raised px-2 py-0.5 font-mono text-sm shadow'
      }
      style={{
        left: within(tip.x + 14, 8, room.width - width),
        top: within(tip.y + 14, 8, room.height - height),
      }}
    >
      {tip.text}
    </p>
  );
}
