import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Terminal } from '@/core/netlist/netlist';
import { RADICES, type Radix } from '@/core/values/radix';
import { hint } from '@/ui/controls/hint';
import { FindInLane } from './FindInLane';
import { apart, grouped, type LaneView, moved } from './lanes';

interface Props {
  readonly lanes: readonly LaneView[];
  readonly chosen: readonly LaneView[];
  /** All signals that a lane can be made of. */
  readonly signals: readonly Terminal[];
  /** The pixel from the top at which the lane begins, and how high it is. */
  readonly place: { readonly top: number; readonly height: number };
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  /** The keys go back to the diagram. */
  readonly onBack: () => void;
  readonly onArrange: (lanes: readonly LaneView[]) => void;
  readonly onHide: () => void;
  /** Pulses shorter than so many ps are looked for as short ones. */
  readonly shorter: number;
}

const WORDS: Record<Radix, string> = {
  binary: 'binary',
  hexadecimal: 'hexadecimal',
  unsigned: 'decimal',
  signed: "two's complement",
};

const HEIGHTS = ['usual height', 'twice as high', '3 times as high', '4 times as high'];
const ROW = 'flex items-center gap-1.5';
const ACTION = 'button small flex-1';

/** All that can be done with the chosen lanes, in a menu at the lane that was chosen last. */
export function LaneMenu({ lanes, chosen, signals, place, open, onOpen, onBack, ...hands }: Props) {
  const { onArrange, onHide, shorter } = hands;
  const keys = new Set(chosen.map((l) => l.key));
  const [only] = chosen.length === 1 ? chosen : [];
  const name = only ? only.name : `${chosen.length} lanes`;
  const change = (part: Partial<LaneView>) =>
    onArrange(lanes.map((l) => (keys.has(l.key) ? { ...l, ...part } : l)));
  const at = only ? lanes.indexOf(only) : -1;
  const andClose = (act: () => void) => () => {
    onOpen(false);
    act();
  };
  return (
    <Popover.Root open={open} onOpenChange={onOpen}>
      <Popover.Trigger
        className="icon-button absolute left-1.5 size-6 bg-raised text-sm"
        style={{ top: place.top + Math.max(0, place.height / 2 - 12) }}
        aria-label={`What can be done with ${name}`}
        {...hint('What can be done with the lane (Enter)')}
      >
        ⋯
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu flex w-72 flex-col gap-2 p-3 text-sm"
          side="left"
          align="start"
          sideOffset={10}
          collisionPadding={8}
          aria-label={name}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            onBack();
          }}
        >
          <p className="font-semibold">{name}</p>
          {!only && (
            <button
              type="button"
              className="button small"
              {...hint('The chosen lanes as one number (G)')}
              onClick={andClose(() => onArrange(grouped(lanes, keys)))}
            >
              Group as one number
            </button>
          )}
          {only && only.nets.length > 1 && (
            <div className={ROW}>
              <select
                className="field h-8 min-w-0 flex-1"
                aria-label="Radix of the lane"
                value={only.radix}
                onChange={(event) => change({ radix: event.target.value as Radix })}
              >
                {RADICES.map((radix) => (
                  <option key={radix} value={radix}>
                    {WORDS[radix]}
                  </option>
                ))}
              </select>
              <button
                type="button"
                className="button small"
                aria-pressed={only.stairs}
                onClick={() => change({ stairs: !only.stairs })}
              >
                {only.stairs ? 'As digits' : 'As a staircase'}
              </button>
            </div>
          )}
          {only && only.nets.length > 0 && (
            <select
              className="field h-8"
              aria-label="Height of the lane"
              value={only.height}
              onChange={(event) => change({ height: Number(event.target.value) })}
            >
              {HEIGHTS.map((words, i) => (
                <option key={words} value={i + 1}>
                  {words}
                </option>
              ))}
            </select>
          )}
          <div className={ROW}>
            {only && (
              <>
                <button
                  type="button"
                  className={ACTION}
                  disabled={at === 0}
                  onClick={() => onArrange(moved(lanes, only.key, at - 1))}
                >
                  Up
                </button>
                <button
                  type="button"
                  className={ACTION}
                  disabled={at === lanes.length - 1}
                  onClick={() => onArrange(moved(lanes, only.key, at + 1))}
                >
                  Down
                </button>
              </>
            )}
            {only && only.of.length > 1 && (
              <button
                type="button"
                className={ACTION}
                onClick={andClose(() => onArrange(apart(lanes, only.key, signals)))}
              >
                Apart
              </button>
            )}
            <button type="button" className={ACTION} {...hint('Hides it (H)')} onClick={andClose(onHide)}>
              Hide
            </button>
          </div>
          {only && <Caption lanes={lanes} at={at} onArrange={onArrange} />}
          {only && only.nets.length > 0 && (
            <fieldset className="border-t border-hairline pt-2">
              <legend className="sr-only">Look for something on the lane</legend>
              <FindInLane lane={only} shorter={shorter} />
            </fieldset>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A line with words above a lane. */
function Caption({
  lanes,
  at,
  onArrange,
}: {
  lanes: readonly LaneView[];
  at: number;
  onArrange: Props['onArrange'];
}) {
  const [text, setText] = useState('');
  const put = () => {
    setText('');
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
      className="field h-8"
      aria-label="Caption above the lane"
      placeholder="a caption above this lane"
      maxLength={60}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={put}
      onKeyDown={(event) => {
        if (event.key === 'Enter') put();
      }}
    />
  );
}
