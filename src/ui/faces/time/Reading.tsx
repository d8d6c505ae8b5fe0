import { useState } from 'react';
import { type Measures, measure } from '@/core/timing/measure';
import type { Logic } from '@/core/values/logic';
import { wordText } from '@/core/values/radix';
import { frequencyText, PS_PER_SECOND, readDuration, timeText } from '@/core/values/time';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import type { LaneView } from './lanes';
import type { Why } from './why-changed';

/** A time that is typed, and run to or gone back to. */
function RunTo() {
  const session = useSession();
  const [text, setText] = useState('');
  const go = () => {
    if (!text.trim()) return;
    const time = readDuration(text);
    if (time === null) session.say(`“${text}” is no time: write 20 ns, 1.5 us, 2 s or 4 h 33 min.`, 'bad');
    else {
      session.time.runUntil({ is: 'time', time });
      setText('');
    }
  };
  return (
    <input
      className="mr-1 h-6 w-24 rounded-md border border-hairline bg-raised px-1.5"
      aria-label="Run to a time"
      placeholder="run to 2 us"
      {...hint('A time to run to, or to go back to: 20 ns, 1.5 us, 2 s')}
      value={text}
      maxLength={40}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') go();
        if (event.key === 'Escape') setText('');
      }}
    />
  );
}

interface Props {
  readonly lane: LaneView | null;
  readonly mark: number | null;
  readonly onMark: () => void;
  readonly onWhy: () => void;
  readonly why: Why | null;
  /** Whether the ruler counts clock cycles alone; null where there is no clock to count. */
  readonly inCycles: boolean | null;
  readonly onCycles: (inCycles: boolean) => void;
}

/** The value of a lane, and how long a single bit has it and repeats. */
function readingOf(lane: LaneView, values: Uint8Array, bit: Measures | null): string {
  const bits = lane.nets.map((net) => values[net] as Logic);
  const value = wordText(bits, bits.length === 1 ? 'binary' : lane.radix);
  const width = bit?.width == null ? '' : ` for ${timeText(bit.width)}`;
  if (bit?.period == null) return value + width;
  return `${value}${width} · period ${timeText(bit.period)} (${frequencyText(bit.frequency!)}) · duty ${+(100 * bit.duty!).toFixed(1)} %`;
}

const SMALL = 'cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft';

/** The readings at the moment: the time, the distance to the mark, and the value of the chosen lane. */
export function Reading({ lane, mark, onMark, onWhy, why, inCycles, onCycles }: Props) {
  const session = useSession();
  const moment = useSessionState((s) => s.cursor ?? s.now);
  const stores = useSessionState((s) => s.netlist.storage.length > 0);
  const playing = useSessionState((s) => s.playing);
  const values = useSessionState((s) => s.values);
  const apart = mark === null ? null : Math.abs(moment - mark);
  const bit = lane?.nets.length === 1 && !playing ? measure(session.trace, lane.nets[0]!, moment) : null;
  const time = playing ? 'running' : timeText(moment);
  const distance =
    apart !== null && !playing
      ? `${timeText(apart)} from the mark${apart > 0 ? ` (${frequencyText(PS_PER_SECOND / apart)})` : ''}`
      : '';
  const reading = lane && lane.nets.length > 0 ? readingOf(lane, values, bit) : '';
  return (
    <div className="shrink-0 border-t border-hairline px-3 py-1 text-sm" data-figure="none">
      <div className="flex flex-wrap items-center gap-x-3">
        {/* As high however much it says: the diagram above must not move. */}
        <p
          className="min-w-0 flex-[1_1_20rem] truncate"
          aria-live={playing ? 'off' : 'polite'}
          data-hint={[time, distance, lane && `${lane.name} ${reading}`].filter(Boolean).join(' · ')}
        >
          <span className="font-semibold tabular-nums">{time}</span>
          {distance && <span className="ml-3">{distance}</span>}
          {reading && (
            <span className="ml-3">
              <b>{lane!.name}</b> {reading}
            </span>
          )}
        </p>
        <span className="ml-auto flex items-center">
          {stores && (
            <button
              type="button"
              className={SMALL}
              {...hint(
                'Back to time 0 with a random value in each flip-flop: it shows why a reset is needed',
              )}
              onClick={() => session.time.restart(true)}
            >
              Shake
            </button>
          )}
          {inCycles !== null && (
            <button
              type="button"
              className={`${SMALL} ${inCycles ? 'bg-accent-soft' : ''}`}
              aria-pressed={inCycles}
              onClick={() => onCycles(!inCycles)}
              {...hint('The ruler counts clock cycles instead of time')}
            >
              Cycles
            </button>
          )}
          <RunTo />
          <button
            type="button"
            className={SMALL}
            onClick={onMark}
            {...hint('Sets a mark at the moment, to measure from (M)')}
          >
            {mark === null ? 'Mark' : 'No mark'}
          </button>
          <button
            type="button"
            className={SMALL}
            onClick={onWhy}
            {...hint('Why the chosen lane changed last, step by step (W)')}
          >
            Why?
          </button>
        </span>
      </div>
      {why && (
        <ol className="max-h-24 list-decimal overflow-auto pl-5" aria-label="Why it changed">
          {why.sentences.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ol>
      )}
    </div>
  );
}
