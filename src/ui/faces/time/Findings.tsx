import { type ComponentProps, useMemo, useState } from 'react';
import { stateName } from '@/core/netlist/netlist';
import { spokenName } from '@/core/parts/catalogue';
import { type WrongCapture, wrongCaptures } from '@/core/timing/captures';
import { clockEdges, clockOf, periodOf } from '@/core/timing/clock-edges';
import { divisionOf } from '@/core/timing/division';
import { frequencyText, glitchesOf } from '@/core/timing/measure';
import { timingOf } from '@/core/timing/paths';
import { type RegisterTiming, registersOf } from '@/core/timing/registers';
import { type Logic, letterOf } from '@/core/values/logic';
import { wordText } from '@/core/values/radix';
import { timeText } from '@/core/values/time';
import { load } from '@/loading/load';
import type { Session } from '@/session/session';
import { fileName, saveFile } from '@/ui/controls/files';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { BesideRun } from './BesideRun';
import type { LaneView } from './lanes';

interface Props {
  readonly lanes: readonly LaneView[];
  /** Pulses shorter than so many ps are marked. */
  readonly shorter: number | null;
  readonly onShorter: (ps: number | null) => void;
  readonly beside: ComponentProps<typeof BesideRun>;
  readonly onPicture: (kind: 'svg' | 'png') => void;
  readonly onClose: () => void;
}

const TABS = {
  clock: 'Clock period',
  glitches: 'Short pulses',
  division: 'Division',
  readings: 'Readings',
  beside: 'Beside the run',
};
type Tab = keyof typeof TABS;

const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';
const CELL = 'px-2 py-0.5 text-right tabular-nums';

/** What follows from the delays: the clock period, short pulses, what divides the clock, and the run as a table. */
export function Findings({ lanes, beside, shorter, onShorter, onPicture, onClose }: Props) {
  const [tab, setTab] = useState<Tab>('clock');
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const delays = useSessionState((s) => s.lesson.settings.delays);
  // Read anew when the run rests.
  useSessionState((s) => (s.playing ? -1 : s.now));
  return (
    <section
      className="flex max-h-[52%] shrink-0 flex-col gap-1.5 overflow-auto border-t-2 border-accent bg-paper px-3 py-2 text-sm"
      aria-label="Find out"
    >
      <header className="flex items-center">
        <div className="flex flex-wrap gap-1" role="tablist" aria-label="What follows">
          {(Object.keys(TABS) as Tab[]).map((one) => (
            <button
              key={one}
              type="button"
              role="tab"
              aria-selected={tab === one}
              className={`cursor-pointer rounded-md px-2 py-0.5 ${tab === one ? 'bg-accent-soft font-semibold text-accent' : 'hover:bg-accent-soft'}`}
              onClick={() => setTab(one)}
            >
              {TABS[one]}
            </button>
          ))}
        </div>
        <button type="button" className={`${SMALL} ml-auto`} onClick={onClose}>
          Close
        </button>
      </header>
      {tab === 'clock' && <ClockPeriod session={session} />}
      {tab === 'glitches' && <ShortPulses lanes={lanes} shorter={shorter} onShorter={onShorter} />}
      {tab === 'division' && <Division />}
      {tab === 'readings' && <Readings lanes={lanes} onPicture={onPicture} />}
      {tab === 'beside' && <BesideRun {...beside} />}
      {tab !== 'readings' && tab !== 'beside' && delays === 'zero' && (
        <p className="text-quiet">
          The circuit runs without delays now. Choose “own delays” above to see these times in the diagram
          {netlist.storage.length > 0 ? ', and captures that come too late' : ''}.
        </p>
      )}
    </section>
  );
}

/** A part by the name that people know it by. */
function nameOf(session: Session, path: string): string {
  const [, first, rest] = /^([A-Za-z0-9_-]+)(.*)$/.exec(path) ?? ['', path, ''];
  const part = session.sheet.parts.get(first!);
  return `${part ? spokenName(part) : first}${rest!.replaceAll('/', ' / ')}`;
}

function ClockPeriod({ session }: { session: Session }) {
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
  return (
    <div className="flex flex-col gap-1.5">
      <p>
        Shortest period <b>{timeText(worst.neededPs)}</b>, at most{' '}
        <b>{frequencyText(1e12 / worst.neededPs)}</b>.
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
          {registers.slice(0, 64).map((r, i) => (
            <tr
              key={r.store}
              className={`cursor-pointer border-b border-hairline ${r === shown ? 'bg-accent-soft' : ''}`}
              onClick={() => setAt(i)}
              onPointerEnter={() => point(new Set(r.steps.map((s) => s.part.split('/')[0]!)))}
              onPointerLeave={() => point(null)}
            >
              <th scope="row" className="py-0.5 text-left font-normal">
                <button type="button" className="cursor-pointer" onClick={() => setAt(i)}>
                  {nameOf(session, r.name)}
                </button>
              </th>
              <td className={CELL}>
                {late.has(r.store) && <span className="text-bad">{late.get(r.store)} × wrong </span>}
                {timeText(r.neededPs)}
              </td>
              <td className={`${CELL} ${period !== null && period < r.neededPs ? 'font-bold text-bad' : ''}`}>
                {period === null ? '–' : timeText(period - r.neededPs)}
              </td>
              <td className={CELL}>{timeText(r.quickestPs)}</td>
              <td className={`${CELL} ${r.holdSlackPs < 0 ? 'font-bold text-bad' : ''}`}>
                {timeText(r.holdSlackPs)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What was taken wrongly because it came too late, edge by edge. */
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
        const words = own
          .map((w) => `${nameOf(w.net)} took ${letterOf(w.taken)} where ${letterOf(w.due)} was due`)
          .join(', ');
        return (
          <button
            key={time}
            type="button"
            className={SMALL}
            title={words}
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

function ShortPulses({ lanes, shorter, onShorter }: Pick<Props, 'lanes' | 'shorter' | 'onShorter'>) {
  const session = useSession();
  const limit = shorter ?? 20_000;
  const nets = lanes.flatMap((l) => l.nets);
  const all = glitchesOf(session.trace, nets, limit);
  const byLane = lanes
    .map((lane) => ({ lane, found: all.filter((g) => lane.nets.includes(g.net)) }))
    .filter(({ found }) => found.length > 0);
  return (
    <div className="flex flex-col gap-1">
      <label className="flex items-center gap-2">
        Pulses shorter than
        <input
          type="number"
          className="h-7 w-20 rounded-lg border border-hairline bg-raised px-1.5"
          aria-label="Shorter than, in ns"
          min={0.001}
          step="any"
          value={limit / 1000}
          onChange={(event) => {
            const ns = Number(event.target.value);
            if (ns > 0 && ns < 1e12) onShorter(Math.round(ns * 1000));
          }}
        />
        ns
        <input
          type="checkbox"
          checked={shorter !== null}
          onChange={(event) => onShorter(event.target.checked ? limit : null)}
          aria-label="Mark them in the diagram"
        />
        marked in the diagram
      </label>
      {byLane.length === 0 && <p className="text-quiet">There is none so far.</p>}
      <ul>
        {byLane.map(({ lane, found }) => (
          <li key={lane.key} className="flex flex-wrap items-baseline gap-x-2">
            <b>{lane.name}</b> {found.length === 1 ? 'one' : found.length}:
            {found.slice(0, 8).map((g) => (
              <button
                key={`${g.net} ${g.from}`}
                type="button"
                className={SMALL}
                onClick={() => session.time.goToTime(g.from)}
              >
                {timeText(g.to - g.from)} at {timeText(g.from)}
              </button>
            ))}
            {found.length > 8 && <span className="text-quiet">and {found.length - 8} more</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Division() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const delays = useSessionState((s) => s.lesson.settings.delays);
  const clock = clockOf(netlist);
  const period = periodOf(netlist);
  const net = clock?.source.net;
  const rise = net === undefined ? null : session.trace.changeAfter(new Set([net]), session.trace.begins);
  if (net === undefined || period === null || rise === null)
    return <p className="text-quiet">Let a clock run for a while first.</p>;
  const isUp = session.trace.valueAt(net, rise) === 1;
  const stages = divisionOf(
    netlist,
    session.trace,
    { net, period, firstRise: isUp ? rise : rise + period / 2 },
    delays === 'parts',
  );
  if (stages.length === 0)
    return <p className="text-quiet">No register here is clocked by the clock directly.</p>;
  const text = (ps: number | null) => (ps === null ? 'not yet' : timeText(ps));
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-ink text-xs">
          <th className="py-0.5 text-left">Stage</th>
          <th className={CELL}>divides by</th>
          <th className={CELL}>frequency</th>
          <th className={CELL}>period</th>
          <th className={CELL}>measured</th>
          <th className={CELL}>first rise</th>
          <th className={CELL}>measured</th>
        </tr>
      </thead>
      <tbody>
        {stages.map(({ part, periods, computed, measured }) => (
          <tr key={part} className="border-b border-hairline">
            <th scope="row" className="py-0.5 text-left font-normal">
              {nameOf(session, part)}
            </th>
            <td className={CELL}>{periods}</td>
            <td className={CELL}>{frequencyText(1e12 / computed.period)}</td>
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

const MOST_ROWS = 2000;

/** A cell of a CSV file (RFC 4180): in quotes where it has a comma, a quote or a space in it. */
const csvCell = (text: string) => (/[",\s]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** The run as a table: a row a clock cycle, as things stand just before the edge, or a row a change. */
function Readings({ lanes, onPicture }: Pick<Props, 'lanes' | 'onPicture'>) {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const title = useSessionState((s) => s.lesson.title);
  const [per, setPer] = useState<'cycle' | 'change'>(clockOf(netlist) ? 'cycle' : 'change');
  const signals = lanes.filter((l) => l.nets.length > 0);
  const { trace } = session;
  const times: number[] = [];
  if (per === 'cycle') {
    const { edges } = clockEdges(netlist, trace.begins, session.state.now);
    times.push(...edges.slice(0, MOST_ROWS).map((t) => t - 1));
  } else {
    const nets = new Set(signals.flatMap((l) => l.nets));
    for (
      let at: number | null = trace.begins;
      at !== null && times.length < MOST_ROWS;
      at = trace.changeAfter(nets, at)
    )
      times.push(at);
  }
  const text = (lane: LaneView, values: Uint8Array) =>
    lane.nets.length === 1
      ? letterOf(values[lane.nets[0]!] as Logic)
      : wordText(
          lane.nets.map((net) => values[net] as Logic),
          lane.radix,
        );
  const rows = times.map((time, i) => {
    const values = trace.stateAt(time);
    return {
      time,
      head: per === 'cycle' ? String(i + 1) : timeText(time),
      cells: signals.map((l) => text(l, values)),
    };
  });
  const heading = [per === 'cycle' ? 'cycle' : 'time', ...signals.map((l) => l.name)];
  const copy = () =>
    navigator.clipboard
      .writeText([heading, ...rows.map((r) => [r.head, ...r.cells])].map((r) => r.join('\t')).join('\n'))
      .then(
        () => session.say(`${rows.length} rows are on the clipboard.`),
        () => session.say('This browser does not let pages write to the clipboard.', 'bad'),
      );
  const saveDump = async () => {
    const { signalsOf, writeVcd } = await load('the VCD writer', () => import('@/core/formats/vcd'));
    const { lesson, rootId, now } = session.state;
    const sheet = lesson.sheets.find((s) => s.id === rootId)!;
    const dump = writeVcd(trace, signalsOf(netlist, sheet, lesson.sheets), now);
    saveFile(fileName(title, '.vcd'), [...dump].join('\n'));
  };
  return (
    <div className="flex min-h-0 flex-col gap-1.5">
      <p className="flex flex-wrap items-center gap-2">
        <select
          className="h-7 rounded-lg border border-hairline bg-raised px-1"
          aria-label="A row for each"
          value={per}
          onChange={(event) => setPer(event.target.value as typeof per)}
        >
          <option value="cycle">a row a clock cycle</option>
          <option value="change">a row a change</option>
        </select>
        <button type="button" className={SMALL} onClick={() => void copy()}>
          Copy for a spreadsheet
        </button>
        <button
          type="button"
          className={SMALL}
          onClick={() => {
            const cells = [heading, ...rows.map((r) => [r.head, ...r.cells])];
            saveFile(
              fileName(title, '.csv'),
              cells.map((r) => r.map(csvCell).join(',')).join('\n'),
              'text/csv',
            );
          }}
        >
          Save as CSV
        </button>
        <button type="button" className={SMALL} onClick={() => void saveDump()}>
          Save as VCD
        </button>
        <button type="button" className={SMALL} onClick={() => onPicture('svg')}>
          Save as SVG
        </button>
        <button type="button" className={SMALL} onClick={() => onPicture('png')}>
          PNG
        </button>
        {rows.length === MOST_ROWS && <span className="text-quiet">the first {MOST_ROWS} rows</span>}
      </p>
      {rows.length === 0 ? (
        <p className="text-quiet">Nothing has run yet.</p>
      ) : (
        <div className="max-h-52 overflow-auto">
          <table className="w-full text-center font-mono">
            <thead className="sticky top-0 bg-paper font-sans">
              <tr className="border-b border-ink text-xs">
                {heading.map((name, i) => (
                  <th key={i} className="px-2 py-0.5">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr
                  key={row.time}
                  className="cursor-pointer border-b border-hairline hover:bg-accent-soft"
                  onClick={() => session.time.goToTime(row.time)}
                >
                  <td className="text-quiet">{row.head}</td>
                  {row.cells.map((cell, i) => (
                    <td key={i}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
