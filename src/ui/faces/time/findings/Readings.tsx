import { useState } from 'react';
import { clockEdges, clockOf } from '@/core/timing/clock-edges';
import { csvFile, tsvLine } from '@/core/values/csv';
import { type Logic, letterOf } from '@/core/values/logic';
import { wordText } from '@/core/values/radix';
import { justBefore, timeText } from '@/core/values/time';
import { load } from '@/loading/load';
import { copyAndSay } from '@/session/page-clipboard';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { useSession, useSessionState } from '@/ui/session/session-context';
import type { LaneView } from '../lanes';
import { SMALL } from './styles';

interface Props {
  readonly lanes: readonly LaneView[];
  readonly onPicture: (kind: 'svg' | 'png') => void;
}

const MOST_ROWS = 2000;

/** The run as a table: a row a clock cycle, as things stand just before the edge, or a row a change. */
export function Readings({ lanes, onPicture }: Props) {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const title = useSessionState((s) => s.lesson.title);
  const [per, setPer] = useState<'cycle' | 'change'>(clockOf(netlist) ? 'cycle' : 'change');
  const signals = lanes.filter((l) => l.nets.length > 0);
  const { trace } = session;
  const times: number[] = [];
  if (per === 'cycle') {
    const { edges } = clockEdges(netlist, trace.begins, session.state.now);
    times.push(...edges.slice(0, MOST_ROWS).map(justBefore));
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
    copyAndSay(
      session,
      [heading, ...rows.map((r) => [r.head, ...r.cells])].map(tsvLine).join('\n'),
      `${rows.length} rows are on the clipboard.`,
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
            saveFile(fileName(title, '.csv'), csvFile(cells), 'text/csv');
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
