import { glitchesOf } from '@/core/timing/measure';
import { timeText } from '@/core/values/time';
import { useSession } from '@/ui/session/session-context';
import type { LaneView } from '../lanes';
import { SMALL } from './styles';

interface Props {
  readonly lanes: readonly LaneView[];
  /** Pulses shorter than so many ps are marked. */
  readonly shorter: number | null;
  readonly onShorter: (ps: number | null) => void;
}

/** Pulses of the lanes that are shorter than a limit. */
export function ShortPulses({ lanes, shorter, onShorter }: Props) {
  const session = useSession();
  const limit = shorter ?? 20_000;
  const nets = lanes.flatMap((l) => l.nets);
  const all = glitchesOf(session.trace, nets, limit);
  const byLane = lanes
    .map((lane) => ({ lane, found: all.filter((g) => lane.nets.includes(g.net)) }))
    .filter(({ found }) => found.length > 0);
  return (
    <div className="flex flex-col gap-1">
      <label className="flex items-center gap-2">
        Pulses shorter than
        <input
          type="number"
          className="h-7 w-20 rounded-lg border border-hairline bg-raised px-1.5"
          aria-label="Shorter than, in ns"
          min={0.001}
          step="any"
          value={limit / 1000}
          onChange={(event) => {
            const ns = Number(event.target.value);
            if (ns > 0 && ns < 1e12) onShorter(Math.round(ns * 1000));
          }}
        />
        ns
        <input
          type="checkbox"
          checked={shorter !== null}
          onChange={(event) => onShorter(event.target.checked ? limit : null)}
          aria-label="Mark them in the diagram"
        />
        marked in the diagram
      </label>
      {byLane.length === 0 && <p className="text-quiet">There is none so far.</p>}
      <ul>
        {byLane.map(({ lane, found }) => (
          <li key={lane.key} className="flex flex-wrap items-baseline gap-x-2">
            <b>{lane.name}</b> {found.length === 1 ? 'one' : found.length}:
            {found.slice(0, 8).map((g) => (
              <button
                key={`${g.net} ${g.from}`}
                type="button"
                className={SMALL}
                onClick={() => session.time.goToTime(g.from)}
              >
                {timeText(g.to - g.from)} at {timeText(g.from)}
              </button>
            ))}
            {found.length > 8 && <span className="text-quiet">and {found.length - 8} more</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
