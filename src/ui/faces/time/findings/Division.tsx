import { clockOf, periodOf } from '@/core/timing/clock-edges';
import { divisionOf } from '@/core/timing/division';
import { frequencyText, PS_PER_SECOND, timeText } from '@/core/values/time';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { nameOf } from './part-name';
import { CELL } from './styles';

/** How each stage divides the clock, as computed and as measured. */
export function Division() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const delays = useSessionState((s) => s.lesson.settings.delays);
  const clock = clockOf(netlist);
  const period = periodOf(netlist);
  if (!clock || period === null) return <p className="text-quiet">Let a clock run for a while first.</p>;
  const stages = divisionOf(netlist, session.trace, clock.source, period, delays === 'parts');
  if (stages.length === 0)
    return <p className="text-quiet">No register here is clocked by the clock directly.</p>;
  const text = (ps: number | null) => (ps === null ? 'not yet' : timeText(ps));
  return (
    <table className="w-full text-[13px]">
      <thead>
        <tr className="border-b border-ink text-xs">
          <th className="py-0.5 text-left">Stage</th>
          <th className={CELL}>by</th>
          <th className={CELL}>frequency</th>
          <th className={CELL}>period</th>
          <th className={CELL}>measured</th>
          <th className={CELL}>first rise</th>
          <th className={CELL}>measured</th>
        </tr>
      </thead>
      <tbody>
        {stages.map(({ name, periods, computed, measured }) => (
          <tr key={name} className="border-b border-hairline">
            <th scope="row" className="py-0.5 text-left font-normal">
              {nameOf(session, name)}
            </th>
            <td className={CELL}>{periods}</td>
            <td className={CELL}>{frequencyText(PS_PER_SECOND / computed.period)}</td>
            <td className={CELL}>{timeText(computed.period)}</td>
            <td className={`${CELL} ${differs(measured.period, computed.period)}`}>
              {text(measured.period)}
            </td>
            <td className={CELL}>{timeText(computed.firstRise)}</td>
            <td className={`${CELL} ${differs(measured.firstRise, computed.firstRise)}`}>
              {text(measured.firstRise)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const differs = (measured: number | null, computed: number) =>
  measured !== null && measured !== computed ? 'font-bold text-bad' : measured === null ? 'text-quiet' : '';
