import { useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { type SearchTarget, search } from '@/core/timing/search';
import { type Logic, ONE, ZERO } from '@/core/values/logic';
import { RADICES, type Radix, readWord } from '@/core/values/radix';
import { timeText } from '@/core/values/time';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { apart, grouped, type LaneView, moved } from './lanes';

interface Props {
  readonly lanes: readonly LaneView[];
  readonly chosen: readonly LaneView[];
  readonly onArrange: (lanes: readonly LaneView[], hidden?: readonly string[]) => void;
  readonly onChosen: (keys: ReadonlySet<string>) => void;
  /** Pulses shorter than so many ps are looked for as short ones. */
  readonly shorter: number;
}

const SMALL =
  'cursor-pointer rounded-md border border-hairline px-1.5 whitespace-nowrap hover:bg-accent-soft disabled:opacity-50';
const FIELD = 'h-7 min-w-0 rounded-lg border border-hairline bg-raised px-1';
const WORDS: Record<Radix, string> = {
  binary: 'binary',
  hexadecimal: 'hexadecimal',
  unsigned: 'decimal',
  signed: "two's complement",
};

const HEIGHTS = ['usual height', 'twice as high', '3 times as high', '4 times as high'];

/** The actions for the chosen lanes. */
export function LaneBar({ lanes, chosen, onArrange, onChosen, shorter }: Props) {
  const netlist = useSessionState((s) => s.netlist);
  const hidden = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time?.hidden) ?? [];
  const keys = new Set(chosen.map((l) => l.key));
  const [only] = chosen.length === 1 ? chosen : [];
  const change = (part: Partial<LaneView>) =>
    onArrange(lanes.map((l) => (keys.has(l.key) ? { ...l, ...part } : l)));
  const at = only ? lanes.indexOf(only) : -1;
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-1.5 border-b border-hairline bg-paper px-3 py-1 text-sm">
      {chosen.length > 1 && (
        <button type="button" className={SMALL} onClick={() => onArrange(grouped(lanes, keys))}>
          Group as one number
        </button>
      )}
      {only && only.nets.length > 1 && (
        <>
          <select
            className={FIELD}
            aria-label="Radix of the lane"
            value={only.radix}
            onChange={(event) => {
              change({ radix: event.target.value as Radix });
              onChosen(keys);
            }}
          >
            {RADICES.map((radix) => (
              <option key={radix} value={radix}>
                {WORDS[radix]}
              </option>
            ))}
          </select>
          <button
            type="button"
            className={SMALL}
            aria-pressed={only.stairs}
            onClick={() => change({ stairs: !only.stairs })}
          >
            {only.stairs ? 'As digits' : 'As a staircase'}
          </button>
        </>
      )}
      {only && only.nets.length > 0 && (
        <select
          className={FIELD}
          aria-label="Height of the lane"
          {...hint('Height of the lane')}
          value={only.height}
          onChange={(event) => {
            change({ height: Number(event.target.value) });
            onChosen(keys);
          }}
        >
          {HEIGHTS.map((words, i) => (
            <option key={words} value={i + 1}>
              {words}
            </option>
          ))}
        </select>
      )}
      {only && only.of.length > 1 && (
        <button type="button" className={SMALL} onClick={() => onArrange(apart(lanes, only.key, netlist))}>
          Apart
        </button>
      )}
      {only && (
        <>
          <button
            type="button"
            className={SMALL}
            disabled={at === 0}
            onClick={() => onArrange(moved(lanes, only.key, at - 1))}
          >
            Up
          </button>
          <button
            type="button"
            className={SMALL}
            disabled={at === lanes.length - 1}
            onClick={() => onArrange(moved(lanes, only.key, at + 1))}
          >
            Down
          </button>
        </>
      )}
      <button
        type="button"
        className={SMALL}
        onClick={() =>
          onArrange(
            lanes.filter((l) => !keys.has(l.key)),
            [...hidden, ...chosen.flatMap((l) => l.of)],
          )
        }
      >
        Hide
      </button>
      {hidden.length > 0 && (
        <button type="button" className={SMALL} onClick={() => onArrange(lanes, [])}>
          Show {hidden.length} hidden
        </button>
      )}
      {only && <Caption lanes={lanes} at={at} onArrange={onArrange} />}
      {only && only.nets.length > 0 && <Find lane={only} shorter={shorter} />}
    </div>
  );
}

function Caption({
  lanes,
  at,
  onArrange,
}: {
  lanes: readonly LaneView[];
  at: number;
  onArrange: Props['onArrange'];
}) {
  const [text, setText] = useState<string | null>(null);
  if (text === null)
    return (
      <button
        type="button"
        className={SMALL}
        onClick={() => setText('')}
        {...hint('A caption above this lane')}
      >
        Caption
      </button>
    );
  const put = () => {
    setText(null);
    const name = text.trim();
    if (!name || lanes.some((l) => l.key === `“${name}”`)) return;
    const caption: LaneView = {
      ...lanes[at]!,
      key: `“${name}”`,
      name,
      of: [],
      nets: [],
      stairs: false,
      height: 1,
    };
    onArrange([...lanes.slice(0, at), caption, ...lanes.slice(at)]);
  };
  return (
    <input
      className={`${FIELD} w-32`}
      aria-label="Caption above the lane"
      autoFocus
      maxLength={60}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={put}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setText(null);
      }}
    />
  );
}

/** Leads to the next or the last change, edge or value of a lane. */
function Find({ lane, shorter }: { lane: LaneView; shorter: number }) {
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
    <span className="ml-auto flex items-center gap-1">
      <select
        className={FIELD}
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
          className={`${FIELD} w-16 font-mono`}
          aria-label="Value that is looked for"
          value={value}
          maxLength={70}
          onChange={(event) => setValue(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && find(event.shiftKey)}
        />
      )}
      <button type="button" className={SMALL} onClick={() => find(true)} aria-label="Find the one before">
        ◂
      </button>
      <button type="button" className={SMALL} onClick={() => find(false)} aria-label="Find the next one">
        ▸
      </button>
      {(what === 'value' || what === 'rise' || what === 'fall') && (
        <button type="button" className={SMALL} onClick={runOn} {...hint('Runs on until it comes')}>
          Run until
        </button>
      )}
    </span>
  );
}
