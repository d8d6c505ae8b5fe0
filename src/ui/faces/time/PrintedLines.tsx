import { useEffect, useRef } from 'react';
import type { Stimulus } from '@/core/circuit/time-setup';
import { timeText } from '@/core/values/time';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { SMALL } from './findings/styles';

/** What a test bench printed, beside the run of the circuit under it: a press on a line leads to its moment. */
export function PrintedLines({ stimulus }: { readonly stimulus: Stimulus }) {
  const session = useSession();
  const moment = useSessionState((s) => s.cursor ?? s.now);
  const { printed = [], until = 0, name } = stimulus;
  const at = printed.findLastIndex(({ time }) => time <= moment);
  const current = useRef<HTMLLIElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever another line is the current one
  useEffect(() => {
    current.current?.scrollIntoView({ block: 'nearest' });
  }, [at]);
  return (
    <section
      className="flex max-h-[35%] shrink-0 flex-col border-t border-hairline text-sm"
      aria-label="Printed"
    >
      <p className="flex items-baseline gap-2 px-3 pt-1">
        <b>Printed by {name}</b>
        {moment < until && (
          <button
            type="button"
            className={SMALL}
            onClick={() => session.time.runUntil({ is: 'time', time: until })}
          >
            Run to its end, {timeText(until)}
          </button>
        )}
      </p>
      <ol className="min-h-12 overflow-y-auto px-1.5 pb-1">
        {printed.map(({ time, text }, i) => (
          <li key={i} ref={i === at ? current : undefined}>
            <button
              type="button"
              className={`flex w-full cursor-pointer items-baseline gap-3 rounded-md px-1.5 text-left hover:bg-accent-soft ${
                time > moment ? 'text-quiet' : ''
              } ${i === at ? 'bg-accent-soft' : ''}`}
              onClick={() => session.time.runUntil({ is: 'time', time })}
            >
              <span className="w-20 shrink-0 text-right text-quiet tabular-nums">{timeText(time)}</span>
              <span className="font-mono whitespace-pre-wrap">{text || '\u00a0'}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
