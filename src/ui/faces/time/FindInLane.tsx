import { useState } from 'react';
import { type SearchTarget, search } from '@/core/timing/search';
import { type Logic, ONE, ZERO } from '@/core/values/logic';
import { readWord } from '@/core/values/radix';
import { timeText } from '@/core/values/time';
import { hint } from '@/ui/controls/hint';
import { useSession } from '@/ui/session/session-context';
import type { LaneView } from './lanes';

/** Leads to the next or the last change, edge or value of a lane. */
export function FindInLane({ lane, shorter }: { lane: LaneView; shorter: number }) {
  const session = useSession();
  const [what, setWhat] = useState<SearchTarget['is']>('change');
  const [value, setValue] = useState('1');
  const width = lane.nets.length;
  const find = (back: boolean) => {
    const bits = readWord(value, width);
    if (what === 'value' && !bits) {
      session.say(`“${value}” is no number that fits ${width} bits.`, 'bad');
      return;
    }
    const wanted: SearchTarget =
      what === 'value' ? { is: what, bits: bits! } : what === 'pulse' ? { is: what, shorter } : { is: what };
    const time = search(session.trace, lane.nets, wanted, session.state.cursor ?? session.state.now, back);
    if (time === null)
      session.say(
        back
          ? 'None was found before the moment.'
          : 'None was found after the moment, as far as the run goes.',
      );
    else session.time.goToTime(time);
  };
  /** Runs on until the lane matches the search. */
  const runOn = () => {
    const values: Logic[] | null = what === 'value' ? readWord(value, width) : [what === 'fall' ? ZERO : ONE];
    if (values) session.time.runUntil({ is: 'values', nets: lane.nets, values });
    else session.say(`“${value}” is no number that fits ${width} bits.`, 'bad');
  };
  return (
    <div className="flex flex-wrap items-center justify-end gap-1.5">
      <select
        className="field h-8 w-auto min-w-28 flex-1"
        aria-label="What is looked for"
        value={what}
        onChange={(event) => setWhat(event.target.value as SearchTarget['is'])}
      >
        <option value="change">change</option>
        {width === 1 && <option value="rise">rising edge</option>}
        {width === 1 && <option value="fall">falling edge</option>}
        {width > 1 && <option value="value">value</option>}
        <option value="pulse">pulse under {timeText(shorter)}</option>
      </select>
      {what === 'value' && (
        <input
          className="field h-8 w-14 font-mono"
          aria-label="Value that is looked for"
          value={value}
          maxLength={70}
          onFocus={(event) => event.currentTarget.select()}
          onChange={(event) => setValue(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && find(event.shiftKey)}
        />
      )}
      <button
        type="button"
        className="button small"
        onClick={() => find(true)}
        aria-label="Find the one before"
      >
        ◂
      </button>
      <button
        type="button"
        className="button small"
        onClick={() => find(false)}
        aria-label="Find the next one"
      >
        ▸
      </button>
      {(what === 'value' || what === 'rise' || what === 'fall') && (
        <button type="button" className="button small" onClick={runOn} {...hint('Runs on until it comes')}>
          Run until
        </button>
      )}
    </div>
  );
}
