'use client';

import { useEffect, useRef } from 'react';
import { PS_PER_SECOND, timeText } from '@/core/values/time';
import { fittingPace, hasClock } from '@/session/moment';
import { AS_FAST } from '@/session/state';
import { stepMoment } from '@/session/step';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** The time with its controls: pace, steps, and back to the beginning. */
export function TimeMoment() {
  const session = useSession();
  const playing = useSessionState((s) => s.playing);
  const now = useSessionState((s) => s.now);
  const cursor = useSessionState((s) => s.cursor);
  const pace = useSessionState((s) => s.pace);
  const behind = useSessionState((s) => s.behind);
  const usual = useSessionState((s) => fittingPace(s.netlist, s.lesson.settings.delays));
  const clocked = useSessionState((s) => hasClock(s.netlist));
  const last = useRef(0);

  useEffect(() => {
    if (!playing) return;
    last.current = performance.now();
    let frame = requestAnimationFrame(function step(time) {
      session.time.tick(time - last.current);
      last.current = time;
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, session]);

  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be a row of a bar in every browser
    <div
      className="flex h-11 items-center gap-1 rounded-full border border-hairline bg-paper pr-3 pl-1.5"
      role="group"
      aria-label="The moment"
    >
      <button
        type="button"
        className="icon-button size-9 rounded-full bg-accent text-on-accent hover:!bg-accent"
        onClick={() => session.time.play(!playing)}
        aria-label={playing ? 'Pause' : 'Run'}
        {...hint(playing ? 'Pause' : 'Run')}
      >
        <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true" fill="currentColor">
          {playing ? <path d="M2 1h3.5v12H2zM8.5 1H12v12H8.5z" /> : <path d="M3 1l10 6-10 6z" />}
        </svg>
      </button>
      <Step
        label={clocked ? 'Back half a period' : 'Back to the previous event'}
        go={() => stepMoment(session, true)}
        back
      />
      <Step
        label={clocked ? 'Forward half a period' : 'Forward to the next event'}
        go={() => stepMoment(session)}
      />
      <span className="min-w-20 text-center font-semibold tabular-nums" {...hint('Time of the moment')}>
        {timeText(playing ? roundedTime(now, pace) : (cursor ?? now))}
      </span>
      {cursor !== null ? (
        <button type="button" className="button small" onClick={() => session.time.goToTime(now)}>
          Back to now
        </button>
      ) : (
        <label className="flex items-center gap-1.5 text-sm text-quiet" data-way={6}>
          <span data-way={1}>Pace</span>
          <select
            className="h-8 rounded-lg border border-hairline bg-raised px-1 text-ink"
            value={pace}
            onChange={(event) => session.time.setPace(Number(event.target.value))}
          >
            {paces(pace, usual).map((p) => (
              <option key={p} value={p}>
                {p >= AS_FAST ? 'as fast as it goes' : `${timeText(p)} a second`}
              </option>
            ))}
          </select>
        </label>
      )}
      <button
        type="button"
        className="icon-button"
        onClick={() => session.time.restart()}
        aria-label="Back to power-up"
        {...hint('Back to power-up')}
      >
        ↺
      </button>
      {behind > 100 && (
        <span className="text-xs whitespace-nowrap text-bad" {...hint('How far it is behind its pace')}>
          {behind > 10_000 ? Math.round(behind / 1000) : (behind / 1000).toFixed(1)} s late
        </span>
      )}
    </div>
  );
}

function Step({ label, go, back }: { label: string; go: () => void; back?: boolean }) {
  return (
    <button
      type="button"
      className="icon-button"
      onClick={go}
      aria-label={label}
      {...hint(`${label} (${back ? '←' : '→'})`)}
    >
      <HalfPeriod back={back} />
    </button>
  );
}

/** Half a period of a clock with an arrow on or back. */
function HalfPeriod({ back }: { back?: boolean | undefined }) {
  return (
    <svg
      width="20"
      height="16"
      viewBox="0 0 20 16"
      aria-hidden="true"
      transform={back ? 'scale(-1 1)' : undefined}
    >
      <path d="M1 13h2.5V3H9v10h2" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <path d="M12.5 4.5v7l6-3.5z" fill="currentColor" />
    </svg>
  );
}

/** No more digits than the eye can follow at that pace. */
function roundedTime(time: number, pace: number): number {
  const grain = pace >= AS_FAST ? 1 : 10 ** Math.floor(Math.log10(Math.max(1, pace / 50)));
  return Math.round(time / grain) * grain;
}

function paces(now: number, usual: number): number[] {
  const base = Math.min(now === AS_FAST ? usual : now, PS_PER_SECOND);
  return [
    ...new Set([base / 10, base / 4, base / 2, base, base * 2, base * 4, base * 100, now, AS_FAST]),
  ].sort((a, b) => a - b);
}
