'use client';

import type { EChartsCoreOption } from 'echarts/core';
import { useMemo } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import {
  type Bin,
  binned,
  checksMade,
  type GatesUsed,
  gatesUsed,
  MOST_MORE,
  type WrongCell,
  wrongCells,
} from '@/core/exercise/standing';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { counted } from '@/core/values/wording';
import { Chart, type ChartColours } from './Chart';
import { pointsOfRow, type Row } from './marked-row';
import type { WrongAt } from './view';

interface Props {
  /** The latest hand-in of each student. */
  readonly rows: readonly Row[];
  readonly exercise: Exercise;
  readonly marks: ClassMarks;
  /** Lists the hand-ins in which one of some rows or readings is wrong. */
  readonly onWrong: (at: WrongAt) => void;
}

const MOST_BINS = 16;

/** How the class stands, as charts; each has its numbers as a table. */
export function ClassCharts({ rows, exercise, marks, onWrong }: Props) {
  const { tasks } = exercise;
  const points = useMemo(() => rows.map((row) => pointsOfRow(row, marks).sure), [rows, marks]);
  const all = tasks.reduce((sum, task) => sum + task.points, 0);
  const open = useMemo(() => rows.filter((row) => pointsOfRow(row, marks).open > 0).length, [rows, marks]);
  const wrong = useMemo(() => wrongCells(tasks, rows), [tasks, rows]);
  const gates = useMemo(() => gatesUsed(tasks, rows), [tasks, rows]);
  const checks = useMemo(() => checksMade(tasks, rows), [tasks, rows]);
  const minutes = useMemo(
    () => rows.flatMap(({ handIn }) => (handIn.seconds > 0 ? [handIn.seconds / 60] : [])),
    [rows],
  );
  const nameOf = (task: number) => (tasks.length > 1 ? `${task + 1} ${tasks[task]!.title}` : tasks[0]!.title);
  return (
    <section aria-label="The class" className="grid items-start gap-4 lg:grid-cols-2">
      <Histogram
        title="Points"
        says={`${counted(rows.length, 'student')}, of ${counted(all, 'point')}${open > 0 ? `; ${open} not marked to the end` : ''}`}
        unit="points"
        bins={binned(points, all, MOST_BINS)}
      />
      <WrongMap cells={wrong} nameOf={nameOf} onWrong={onWrong} students={rows.length} />
      {gates.length > 0 && <Gates gates={gates} nameOf={nameOf} />}
      {minutes.length > 0 && (
        <Histogram
          title="Time"
          says={`minutes at work, of ${counted(minutes.length, 'student')}`}
          unit="minutes"
          bins={binned(minutes, Math.max(...minutes), MOST_BINS)}
        />
      )}
      {checks.length > 0 && (
        <Chart
          title="Checks"
          says="pressed before handing in: the student in the middle, and the one with most"
          height={70 + 34 * checks.length}
          option={({ ink, quiet, hairline, accent, soft }) => ({
            grid: { left: 150, right: 40, top: 8, bottom: 28 },
            xAxis: {
              type: 'value',
              minInterval: 1,
              splitLine: { lineStyle: { color: hairline } },
              axisLabel: { color: quiet },
            },
            yAxis: taskAxis(
              checks.map(({ task }) => nameOf(task)),
              ink,
              hairline,
            ),
            series: [
              {
                type: 'bar',
                data: checks.map((c) => c.median),
                itemStyle: { color: accent },
                label: { show: true, position: 'right', color: ink },
              },
              {
                type: 'bar',
                data: checks.map((c) => c.most),
                itemStyle: { color: soft, borderColor: accent },
                label: { show: true, position: 'right', color: ink },
              },
            ],
          })}
        >
          <Table
            heads={['task', 'in the middle', 'most']}
            rows={checks.map(({ task, median, most }) => [nameOf(task), median, most])}
          />
        </Chart>
      )}
    </section>
  );
}

const taskAxis = (names: readonly string[], ink: string, hairline: string) => ({
  type: 'category',
  inverse: true,
  data: names,
  axisTick: { show: false },
  axisLine: { lineStyle: { color: hairline } },
  axisLabel: { color: ink, width: 135, overflow: 'truncate' },
});

const binName = ({ from, to }: Bin): string => (to - from === 1 ? String(from) : `${from} to ${to}`);

interface HistogramProps {
  readonly title: string;
  readonly says: string;
  readonly unit: string;
  readonly bins: readonly Bin[];
}

function Histogram({ title, says, unit, bins }: HistogramProps) {
  const option = ({ ink, quiet, hairline, accent }: ChartColours): EChartsCoreOption => ({
    grid: { left: 36, right: 12, top: 24, bottom: 44 },
    xAxis: {
      type: 'category',
      data: bins.map(binName),
      name: unit,
      nameLocation: 'middle',
      nameGap: 28,
      nameTextStyle: { color: quiet },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: quiet } },
      axisLabel: { color: quiet },
    },
    yAxis: {
      type: 'value',
      minInterval: 1,
      splitLine: { lineStyle: { color: hairline } },
      axisLabel: { color: quiet },
    },
    series: [
      {
        type: 'bar',
        barCategoryGap: '12%',
        data: bins.map(({ count }) => count),
        itemStyle: { color: accent },
        label: { show: true, position: 'top', color: ink, formatter: hidesNone },
      },
    ],
  });
  return (
    <Chart title={title} says={says} height={240} option={option}>
      <Table heads={[unit, 'students']} rows={bins.map((bin) => [binName(bin), bin.count])} />
    </Chart>
  );
}

const hidesNone = ({ value }: { value: unknown }): string => {
  const count = Array.isArray(value) ? value[2] : value;
  return count ? String(count) : '';
};

/** A map of counts: a line for each task; the darker and the larger the number, the more students. */
function mapOption(
  names: readonly string[],
  columns: readonly string[],
  cells: readonly (readonly [x: number, y: number, count: number])[],
  axis: string,
): (colours: ChartColours) => EChartsCoreOption {
  const most = Math.max(1, ...cells.map(([, , count]) => count));
  return ({ ink, quiet, hairline, accent, paper }) => ({
    grid: { left: 150, right: 12, top: 8, bottom: 44 },
    xAxis: {
      type: 'category',
      data: columns,
      name: axis,
      nameLocation: 'middle',
      nameGap: 28,
      nameTextStyle: { color: quiet },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: hairline } },
      axisLabel: { color: quiet },
    },
    yAxis: taskAxis(names, ink, hairline),
    visualMap: { show: false, min: 0, max: most, dimension: 2, inRange: { color: [paper, accent] } },
    series: [
      {
        type: 'heatmap',
        data: cells.map(([x, y, count]) => ({
          value: [x, y, count],
          label: { color: count > most / 2 ? paper : ink },
        })),
        label: { show: true, formatter: hidesNone },
        itemStyle: { borderColor: hairline, borderWidth: 1 },
      },
    ],
  });
}

interface WrongMapProps {
  readonly cells: readonly (readonly WrongCell[])[];
  readonly nameOf: (task: number) => string;
  readonly students: number;
  readonly onWrong: (at: WrongAt) => void;
}

function WrongMap({ cells, nameOf, students, onWrong }: WrongMapProps) {
  const lines = cells.filter((line) => line.length > 0);
  const flat = lines.flatMap((line, y) => line.map((cell, x) => ({ cell, x, y })));
  const columns = Math.max(0, ...lines.map((line) => line.length));
  const option = mapOption(
    lines.map((line) => nameOf(line[0]!.task)),
    Array.from({ length: columns }, (_, x) => String(x)),
    flat.map(({ cell, x, y }) => [x, y, cell.count]),
    'row, reading or span; long tables in steps',
  );
  if (lines.length === 0) return null;
  const worst = flat
    .map(({ cell }) => cell)
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.count - a.count);
  return (
    <Chart
      title="Where it goes wrong"
      says={`of ${students} hand-ins; a press lists them`}
      height={70 + 34 * lines.length}
      option={option}
      onPress={(item) => flat[item] && onWrong(flat[item].cell)}
    >
      {worst.length === 0 && <p className="text-quiet">Nothing is wrong in any of them.</p>}
      <ul className="flex flex-col gap-1">
        {worst.map((cell) => (
          <li key={`${cell.task} ${cell.from}`}>
            <button
              type="button"
              className="cursor-pointer text-left underline decoration-hairline underline-offset-4 hover:decoration-accent"
              onClick={() => onWrong(cell)}
            >
              {nameOf(cell.task)}, {cell.name}: wrong in {cell.count}
            </button>
          </li>
        ))}
      </ul>
    </Chart>
  );
}

function Gates({
  gates,
  nameOf,
}: {
  readonly gates: readonly GatesUsed[];
  readonly nameOf: (task: number) => string;
}) {
  const furthest = Math.max(...gates.map(({ more }) => more.findLastIndex((count) => count > 0)));
  const columns = Array.from({ length: furthest + 1 }, (_, n) =>
    n === 0 ? 'smallest' : n === MOST_MORE ? `+${n} or more` : `+${n}`,
  );
  const option = mapOption(
    gates.map(({ task, smallest }) => `${nameOf(task)}: ${smallest}`),
    columns,
    gates.flatMap(({ more }, y) => more.slice(0, columns.length).map((count, x) => [x, y, count] as const)),
    'gates more than the smallest right circuit of the class',
  );
  return (
    <Chart
      title="Gates"
      says="in right circuits, blocks as what is inside them"
      height={70 + 34 * gates.length}
      option={option}
    >
      <Table
        heads={['task', 'smallest', ...columns]}
        rows={gates.map(({ task, smallest, more }) => [
          nameOf(task),
          smallest,
          ...more.slice(0, columns.length),
        ])}
      />
    </Chart>
  );
}

function Table({
  heads,
  rows,
}: {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}) {
  return (
    <table className="text-left tabular-nums">
      <thead>
        <tr>
          {heads.map((head) => (
            <th key={head} scope="col" className="pr-4 font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([first, ...rest]) => (
          <tr key={first} className="border-t border-hairline">
            <th scope="row" className="pr-4 font-normal">
              {first}
            </th>
            {rest.map((cell, i) => (
              <td key={i} className="pr-4">
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
