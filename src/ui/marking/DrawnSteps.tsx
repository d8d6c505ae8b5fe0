'use client';

import type { EditFrame } from '@/core/exercise/edit-frames';

interface Props {
  /** How the sheet came about, the oldest first. */
  readonly frames: readonly EditFrame[];
  /** The number of the frame that is shown; null for the work as it was handed in. */
  readonly at: number | null;
  readonly onAt: (at: number | null) => void;
}

/** A walk through the steps in which a student has drawn a sheet. */
export function DrawnSteps({ frames, at, onAt }: Props) {
  const last = frames.length - 1;
  const now = at ?? last;
  const go = (to: number) => onAt(to >= last ? null : Math.max(0, to));
  return (
    <section
      className="flex flex-col gap-1 border-t border-hairline pt-3 text-sm"
      aria-label="How it was drawn"
    >
      <div className="flex items-center gap-2">
        <span className="font-semibold">How it was drawn</span>
        <span className="ml-auto text-quiet tabular-nums">
          step {now} of {last}
        </span>
      </div>
      <div className="flex items-center gap-1">
        <button
          type="button"
          className="icon-button"
          aria-label="Step before"
          disabled={now === 0}
          onClick={() => go(now - 1)}
        >
          ◂
        </button>
        <input
          type="range"
          className="min-w-0 flex-1"
          aria-label="Step of the drawing"
          aria-valuetext={`step ${now} of ${last}: ${frames[now]!.step || 'before all of them'}`}
          min={0}
          max={last}
          value={now}
          onChange={(event) => go(Number(event.target.value))}
        />
        <button
          type="button"
          className="icon-button"
          aria-label="Next step"
          disabled={now === last}
          onClick={() => go(now + 1)}
        >
          ▸
        </button>
      </div>
      <p className="truncate text-quiet">
        {at === null ? 'as it was handed in' : frames[now]!.step || 'before all of them'}
      </p>
    </section>
  );
}
