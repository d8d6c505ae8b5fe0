'use client';

import { testedBy } from '@/core/packages/lists';
import type { StageTest } from '@/core/packages/stage-tests';
import type { PlannedWire, Wiring } from '@/core/packages/wiring';
import { plainText } from '@/core/values/markup';
import { counted } from '@/core/values/wording';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import type { LitPins } from '@/ui/session/lit-pins';

/** The wires in the order in which they are laid, stage by stage, each with what tests it. */
export function WireList({
  wiring,
  tests,
  lit,
}: {
  wiring: Wiring;
  tests: readonly StageTest[];
  lit: LitPins;
}) {
  const stages = [...new Set(wiring.wires.map(({ stage }) => stage))];
  if (stages.length === 0) return null;
  return (
    <div className="border-t border-hairline px-4 py-3">
      <h3 className="mb-2 font-semibold">{counted(wiring.wires.length, 'wire')}</h3>
      {stages.map((stage) => {
        const test = tests.find((one) => one.stage === stage);
        return (
          <section key={stage} className="mb-3" aria-label={stageName(stage)}>
            <h4 className="flex items-baseline gap-3 text-sm">
              <strong>{stageName(stage)}</strong>
              {test && <span className="text-quiet">test: {testedBy(test)}</span>}
            </h4>
            <ul className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))] gap-x-4 gap-y-0.5 text-sm">
              {wiring.wires
                .filter((wire) => wire.stage === stage)
                .map((wire) => (
                  <Line key={`${wire.from} ${wire.to}`} wire={wire} isLit={lit.isWire(wire)} />
                ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

export const stageName = (stage: number) => (stage === 0 ? 'Supply and unused inputs' : `Stage ${stage}`);

/** A wire of the list; while it is pointed at, its pins light up, and its cable on the board. */
function Line({ wire: { from, to, net, colour, why }, isLit }: { wire: PlannedWire; isLit: boolean }) {
  const lightEnds = useCrossHighlight((p) => p.lightEnds);
  return (
    <li
      className={`flex items-center gap-2 rounded-md px-1 ${isLit ? 'bg-accent-soft font-semibold' : ''}`}
      data-lit={isLit || undefined}
      onPointerEnter={() => lightEnds([from, to])}
      onPointerLeave={() => lightEnds([])}
    >
      <span
        className="h-2.5 w-2.5 shrink-0 rounded-full"
        style={{ background: `var(--cable-${colour})` }}
        title={colour}
      />
      <span className="font-mono whitespace-nowrap">
        {pole(from)} – {pole(to)}
      </span>
      <span className="truncate text-quiet">
        {why ?? (net === '+' || net === '-' || net === from ? '' : plainText(net))}
      </span>
    </li>
  );
}

export const pole = (end: string) => (end === '-' ? '−' : end);
