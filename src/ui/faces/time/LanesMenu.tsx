import { Popover } from 'radix-ui';
import type { Terminal } from '@/core/netlist/netlist';
import { spokenText } from '@/core/values/markup';
import { hint } from '@/ui/controls/hint';
import type { LaneView } from './lanes';

interface Props {
  readonly lanes: readonly LaneView[];
  /** All signals that a lane can be made of: inputs and outputs first, then those within the sheet. */
  readonly signals: readonly Terminal[];
  readonly onShow: (signals: readonly Terminal[]) => void;
  readonly onHide: (lane: LaneView) => void;
}

/** Which signals have a lane, in a menu at the head of their names. */
export function LanesMenu({ lanes, signals, onShow, onHide }: Props) {
  const laned = new Set(lanes.flatMap((l) => l.of));
  const missing = signals.filter((s) => !laned.has(s.part));
  const row = (key: string, name: string, isShown: boolean, change: () => void) => (
    <label key={key} className="flex min-w-0 items-center gap-1.5">
      <input
        type="checkbox"
        className="size-4 shrink-0 accent-accent"
        checked={isShown}
        onChange={() => change()}
      />
      <span className="truncate">{name}</span>
    </label>
  );
  return (
    <Popover.Root>
      <Popover.Trigger
        className="cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft"
        {...hint('Which signals have a lane: inputs, outputs, and all with a label')}
      >
        Lanes
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu flex w-80 flex-col gap-2 p-3 text-sm"
          sideOffset={4}
          align="end"
          collisionPadding={8}
          aria-label="Lanes"
        >
          <p className="font-semibold">
            Lanes <span className="font-normal text-quiet">for everything that has a label</span>
          </p>
          <div className="grid max-h-72 grid-cols-2 gap-x-3 gap-y-1 overflow-auto">
            {lanes
              .filter((l) => l.of.length > 0)
              .map((lane) => row(lane.key, lane.name, true, () => onHide(lane)))}
            {missing.map((signal) =>
              row(signal.part, spokenText(signal.name), false, () => onShow([signal])),
            )}
          </div>
          {missing.length > 1 && missing.length <= MOST_AT_ONCE && (
            <button type="button" className="button small self-start" onClick={() => onShow(missing)}>
              Show all
            </button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** So many lanes at most are shown by one press. */
const MOST_AT_ONCE = 40;
