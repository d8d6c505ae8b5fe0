import { type ComponentProps, useState } from 'react';
import { useSessionState } from '@/ui/session/session-context';
import type { LaneView } from '../lanes';
import { BesideRun } from './BesideRun';
import { ClockPeriod } from './ClockPeriod';
import { Division } from './Division';
import { Readings } from './Readings';
import { ShortPulses } from './ShortPulses';
import { SMALL } from './styles';

interface Props {
  readonly lanes: readonly LaneView[];
  /** Pulses shorter than so many ps are marked. */
  readonly shorter: number | null;
  readonly onShorter: (ps: number | null) => void;
  readonly beside: ComponentProps<typeof BesideRun>;
  readonly onPicture: (kind: 'svg' | 'png') => void;
  readonly onClose: () => void;
}

const TABS = {
  clock: 'Clock period',
  glitches: 'Short pulses',
  division: 'Division',
  readings: 'Readings',
  beside: 'Beside the run',
};
type Tab = keyof typeof TABS;

/** Findings about time: the clock period, short pulses, the division of the clock, and the run as a table. */
export function Findings({ lanes, beside, shorter, onShorter, onPicture, onClose }: Props) {
  const [tab, setTab] = useState<Tab>('clock');
  const netlist = useSessionState((s) => s.netlist);
  const delays = useSessionState((s) => s.lesson.settings.delays);
  // Read again when the run rests.
  useSessionState((s) => (s.playing ? -1 : s.now));
  return (
    <section
      data-figure="none"
      className="flex max-h-[52%] min-h-28 shrink flex-col gap-1.5 overflow-auto border-t-2 border-accent bg-paper px-3 py-2 text-sm"
      aria-label="Find out"
    >
      <header className="flex items-center">
        <div className="flex flex-wrap gap-1" role="tablist" aria-label="What follows">
          {(Object.keys(TABS) as Tab[]).map((one) => (
            <button
              key={one}
              type="button"
              role="tab"
              aria-selected={tab === one}
              className={`cursor-pointer rounded-md px-2 py-0.5 ${tab === one ? 'bg-accent-soft font-semibold text-accent' : 'hover:bg-accent-soft'}`}
              onClick={() => setTab(one)}
            >
              {TABS[one]}
            </button>
          ))}
        </div>
        <button type="button" className={`${SMALL} ml-auto`} onClick={onClose}>
          Close
        </button>
      </header>
      {tab === 'clock' && <ClockPeriod />}
      {tab === 'glitches' && <ShortPulses lanes={lanes} shorter={shorter} onShorter={onShorter} />}
      {tab === 'division' && <Division />}
      {tab === 'readings' && <Readings lanes={lanes} onPicture={onPicture} />}
      {tab === 'beside' && <BesideRun {...beside} />}
      {tab !== 'readings' && tab !== 'beside' && delays === 'zero' && (
        <p className="text-quiet">
          The circuit runs without delays now. Choose “own delays” above to see these times in the diagram
          {netlist.storage.length > 0 ? ', and captures that come too late' : ''}.
        </p>
      )}
    </section>
  );
}
