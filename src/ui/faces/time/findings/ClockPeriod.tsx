import { useMemo, useState } from 'react';
import { stateName } from '@/core/netlist/netlist';
import { type WrongCapture, wrongCaptures } from '@/core/timing/captures';
import { clockEdges, periodOf } from '@/core/timing/clock-edges';
import { timingOf } from '@/core/timing/paths';
import { type RegisterTiming, registersOf } from '@/core/timing/registers';
import { letterOf } from '@/core/values/logic';
import { frequencyText, PS_PER_SECOND, timeText } from '@/core/values/time';
import type { Session } from '@/session/session';
import { hint } from '@/ui/controls/hint';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { nameOf } from './part-name';
import { sameBits } from './same-bits';
import { CELL, SMALL } from './styles';

/** The shortest clock period, the needs of each register, and wrong captures. */
export function ClockPeriod() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const point = useCrossHighlight((p) => p.light);
  const registers = useMemo(() => registersOf(netlist), [netlist]);
  const slowest = useMemo(() => timingOf(netlist).slowest, [netlist]);
  const [at, setAt] = useState(0);
  const period = periodOf(netlist);
  const worst = registers[0];
  const shown = registers[at] ?? worst;
  if (!worst)
    return (
      <p>
        No register feeds another, so nothing limits the clock.{' '}
        {slowest && (
          <>
            The slowest way through takes <b>{timeText(slowest.delayPs)}</b>:{' '}
            {slowest.through.map((p) => nameOf(session, p)).join(' → ')}.
          </>
        )}
      </p>
    );
  const wrong =
    wrongCaptures(
      netlist,
      session.trace,
      clockEdges(netlist, session.trace.begins, session.state.now).edges,
    ) ?? [];
  const storeOf = new Map([...netlist.storage].map((g, store) => [netlist.out[g]!, store]));
  const late = new Map<number, number>();
  for (const { net } of wrong) late.set(storeOf.get(net)!, (late.get(storeOf.get(net)!) ?? 0) + 1);
  const lines = sameBits(
    registers,
    (r) => nameOf(session, r.name),
    (r) => [r.neededPs, r.quickestPs, r.holdSlackPs, late.get(r.store)].join(' '),
  );
  return (
    <div className="flex flex-col gap-1.5">
      <p>
        Shortest period <b>{timeText(worst.neededPs)}</b>, at most{' '}
        <b>{frequencyText(PS_PER_SECOND / worst.neededPs)}</b>.
        {period !== null && (
          <>
            {' '}
            The clock has {timeText(period)}:{' '}
            {period >= worst.neededPs ? (
              <span className="text-good">{timeText(period - worst.neededPs)} to spare.</span>
            ) : (
              <b className="text-bad">{timeText(worst.neededPs - period)} too short.</b>
            )}
          </>
        )}
      </p>
      <Explained session={session} register={shown!} />
      {wrong.length > 0 && (
        <Wrong
          session={session}
          wrong={wrong}
          nameOf={(net) => nameOf(session, stateName(netlist, storeOf.get(net)!))}
        />
      )}
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink text-xs">
            <th className="py-0.5 text-left">Register</th>
            <th className={CELL}>needs</th>
            <th className={CELL}>slack</th>
            <th className={CELL}>quickest way</th>
            <th className={CELL}>hold slack</th>
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, 64).map(({ name, all: [r], all }) => (
            <tr
              key={r!.store}
              className={`cursor-pointer border-b border-hairline ${all.includes(shown!) ? 'bg-accent-soft' : ''}`}
              onClick={() => setAt(registers.indexOf(r!))}
              onPointerEnter={() =>
                point(new Set(all.flatMap((one) => one.steps.map((s) => s.part.split('/')[0]!))))
              }
              onPointerLeave={() => point(null)}
            >
              <th scope="row" className="py-0.5 text-left font-normal">
                <button type="button" className="cursor-pointer" onClick={() => setAt(registers.indexOf(r!))}>
                  {name}
                </button>
              </th>
              <td className={CELL}>
                {late.has(r!.store) && <span className="text-bad">{late.get(r!.store)} × wrong </span>}
                {timeText(r!.neededPs)}
              </td>
              <td
                className={`${CELL} ${period !== null && period < r!.neededPs ? 'font-bold text-bad' : ''}`}
              >
                {period === null ? '–' : timeText(period - r!.neededPs)}
              </td>
              <td className={CELL}>{timeText(r!.quickestPs)}</td>
              <td className={`${CELL} ${r!.holdSlackPs < 0 ? 'font-bold text-bad' : ''}`}>
                {timeText(r!.holdSlackPs)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Captures that were wrong because the data came too late, edge by edge. */
function Wrong({
  session,
  wrong,
  nameOf,
}: {
  session: Session;
  wrong: readonly WrongCapture[];
  nameOf: (net: number) => string;
}) {
  const byTime = [...new Set(wrong.map((w) => w.time))];
  return (
    <p>
      <b className="text-bad">Taken too early</b>, before the data was there, at{' '}
      {byTime.length === 1 ? 'one edge' : `${byTime.length} edges`}:
      {byTime.slice(0, 6).map((time) => {
        const own = wrong.filter((w) => w.time === time);
        const words = sameBits(
          own,
          (w) => nameOf(w.net),
          (w) => `took ${letterOf(w.taken)} where ${letterOf(w.due)} was due`,
        )
          .map(({ name, all: [w] }) => `${name} took ${letterOf(w!.taken)} where ${letterOf(w!.due)} was due`)
          .join(', ');
        return (
          <button
            key={time}
            type="button"
            className={SMALL}
            {...hint(words)}
            onClick={() => session.time.goToTime(time)}
          >
            {timeText(time)}
          </button>
        );
      })}
      {byTime.length > 6 && <span className="text-quiet">and later ones</span>}
    </p>
  );
}

/** The sum along the slowest way, in words and numbers. */
function Explained({ session, register }: { session: Session; register: RegisterTiming }) {
  const { steps, setupPs, dataPs, name, neededPs } = register;
  const light = useCrossHighlight((p) => p.light);
  return (
    <div
      onPointerEnter={() => light(new Set(steps.map((s) => s.part.split('/')[0]!)))}
      onPointerLeave={() => light(null)}
    >
      <p>
        From the clock edge on:{' '}
        {steps
          .map((s, i) => `${i === 0 ? '' : 'then '}${nameOf(session, s.part)} takes ${timeText(s.delayPs)}`)
          .join(', ')}
        {setupPs > 0 &&
          `; and ${nameOf(session, name)} wants its data ${timeText(setupPs)} before the next edge`}
        .
      </p>
      <p className="font-mono">
        {[...steps.map((s) => timeText(s.delayPs)), ...(setupPs > 0 ? [timeText(setupPs)] : [])].join(' + ')}{' '}
        = <b>{timeText(dataPs + setupPs)}</b>
        {neededPs > dataPs + setupPs && `, which half a period must hold: ${timeText(neededPs)}`}
      </p>
    </div>
  );
}
