'use client';

import { testedBy } from '@/core/packages/lists';
import type { StageTest } from '@/core/packages/stage-tests';
import type { PlannedWire, Wiring } from '@/core/packages/wiring';
import { plainText } from '@/core/values/markup';
import { counted } from '@/core/values/wording';

/** The wires in the order in which they are laid, stage by stage, each with what tests it. */
export function WireList({ wiring, tests }: { wiring: Wiring; tests: readonly StageTest[] }) {
  const stages = [...new Set(wiring.wires.map(({ stage }) => stage))];
  if (stages.length === 0) return null;
  return (
    <div className="border-t border-hairline px-4 py-3">
      <h3 className="mb-2 font-semibold">{counted(wiring.wires.length, 'wire')}</h3>
      {stages.map((stage) => {
        const test = tests.find((one) => one.stage === stage);
        return (
          <section key={stage} className="mb-3" aria-label={nameOf(stage)}>
            <h4 className="flex items-baseline gap-3 text-sm">
              <strong>{nameOf(stage)}</strong>
              {test && <span className="text-quiet">test: {testedBy(test)}</span>}
            </h4>
            <ul className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(13.5rem,1fr))] gap-x-4 gap-y-0.5 text-sm">
              {wiring.wires
                .filter((wire) => wire.stage === stage)
                .map((wire) => (
                  <Line key={`${wire.from} ${wire.to}`} wire={wire} />
                ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

const nameOf = (stage: number) => (stage === 0 ? 'Supply and unused inputs' : `Stage ${stage}`);

function Line({ wire: { from, to, net, colour, why } }: { wire: PlannedWire }) {
  return (
    <li className="flex items-center gap-2">
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

const pole = (end: string) => (end === '-' ? '−' : end);
