import type { PackageType } from '../parts/packages/package-type';
import { csvFile } from '../values/csv';
import { counted } from '../values/wording';
import { dataSheet, type PackagePlan } from './plan';
import type { StageTest } from './stage-tests';
import { terminalRef, type Wiring } from './wiring';

/*
 * The lists of a plan that are taken to the bench: the parts, and the wires in the order in which they are laid.
 */

export interface PartsLine {
  readonly count: number;
  readonly part: string;
  /** What it is there for: designators, names of signals. */
  readonly where: string;
}

/** Everything that is needed: packages, resistors, switches and lamps. */
export function partsList({ packages, terminals }: PackagePlan): PartsLine[] {
  const byName = new Map<string, string[]>();
  for (const { ref, name } of packages) byName.set(name, [...(byName.get(name) ?? []), ref]);
  const named = (test: (by: string) => boolean, direction: 'in' | 'out') =>
    terminals.flatMap((t, i) =>
      t.direction === direction && test(t.by) ? [`${t.label} (${terminalRef(i)})`] : [],
    );
  const switches = named((by) => by !== 'button' && by !== 'clock', 'in');
  const buttons = named((by) => by === 'button', 'in');
  const clocks = named((by) => by === 'clock', 'in');
  const lamps = named(() => true, 'out');
  const pullUps = packages.flatMap(({ ref, name, units }) =>
    dataSheet({ name }).isOpenCollector
      ? units.flatMap(({ pins, parts }) =>
          parts.length === 0
            ? []
            : dataSheet({ name }).pins.flatMap(({ number, use }) =>
                use === 'out' && pins.has(number) ? [`${ref}.${number}`] : [],
              ),
        )
      : [],
  );
  const line = (where: readonly string[], part: string): PartsLine[] =>
    where.length === 0 ? [] : [{ count: where.length, part, where: where.join(', ') }];
  return [
    ...[...byName].sort(([a], [b]) => (a < b ? -1 : 1)).flatMap(([name, refs]) => line(refs, name)),
    ...line(
      packages.map(({ ref }) => ref),
      'capacitor 100 nF, across the supply of each package',
    ),
    ...line(switches, 'switch'),
    ...line(buttons, 'push button'),
    ...line([...switches, ...buttons], 'resistor 10 kΩ, from the switch to minus'),
    ...line(clocks, 'clock source'),
    ...line(lamps, 'lamp (LED)'),
    ...line(lamps, 'resistor 1 kΩ, in series with the lamp'),
    ...line(pullUps, 'resistor 4.7 kΩ, from the output to plus'),
  ];
}

const WIRES_HEADING = ['stage', 'from', 'to', 'net', 'colour', 'note'];

const wireRows = ({ wires }: Wiring): string[][] =>
  wires.map(({ stage, from, to, net, colour, why }) => [String(stage), from, to, net, colour, why ?? '']);

/** The rows that test a stage, as numbers of the truth table or as how many steps from power-up. */
export function testedBy({ steps }: StageTest): string {
  const rows = steps.flatMap(({ row }) => (row === undefined ? [] : [row]));
  return rows.length > 0 ? `rows ${rows.join(', ')}` : `${counted(steps.length, 'step')} from power-up`;
}

/** The parts list and the wires as CSV, a blank line between. */
export function planCsv(plan: PackagePlan, wiring: Wiring): string {
  const parts = partsList(plan).map(({ count, part, where }) => [String(count), part, where]);
  return `${csvFile([['count', 'part', 'where'], ...parts])}\n${csvFile([WIRES_HEADING, ...wireRows(wiring)])}`;
}

const markdownRow = (cells: readonly string[]) =>
  `| ${cells.map((c) => c.replaceAll('|', '\\|')).join(' | ')} |`;
const markdownTable = (heading: readonly string[], rows: readonly (readonly string[])[]) =>
  [markdownRow(heading), markdownRow(heading.map(() => '---')), ...rows.map(markdownRow)].join('\n');

/** Packages, parts and wires as Markdown, stage by stage. */
export function planMarkdown(
  title: string,
  plan: PackagePlan,
  wiring: Wiring,
  tests: readonly StageTest[],
): string {
  const parts = partsList(plan).map(({ count, part, where }) => [String(count), part, where]);
  const stages = [...new Set(wiring.wires.map(({ stage }) => stage))];
  const tables = stages.map((stage) => {
    const rows = wireRows({ ...wiring, wires: wiring.wires.filter((wire) => wire.stage === stage) });
    const test = tests.find((one) => one.stage === stage);
    const head = stage === 0 ? 'Supply' : `Stage ${stage}`;
    const told = test ? `\n\nTest it by ${testedBy(test)}.` : '';
    return `## ${head}\n\n${markdownTable(
      WIRES_HEADING.slice(1),
      rows.map((row) => row.slice(1)),
    )}${told}`;
  });
  return [`# ${title}`, '## Parts', markdownTable(['count', 'part', 'where'], parts), ...tables, ''].join(
    '\n\n',
  );
}

/** The plan as the command line gives it. */
export function planJson(plan: PackagePlan, wiring: Wiring, tests: readonly StageTest[]) {
  const isSmallest = plan.atLeast === plan.packages.length;
  return {
    packages: plan.packages.map(({ ref, name: type, units }) => ({
      ref,
      type,
      units: units
        .filter(({ parts }) => parts.length > 0)
        .map(({ letter, parts, sort, way, pins }) => ({
          part: parts.join(' '),
          unit: letter,
          kind: sort,
          way,
          pins: Object.fromEntries(
            dataSheet({ name: type })
              .pins.filter(({ number }) => pins.has(number))
              .map(({ name, number }) => [
                unitPinName(dataSheet({ name: type }), letter, number) ?? name,
                number,
              ]),
          ),
        })),
    })),
    terminals: plan.terminals.map(({ label, direction }, i) => ({
      ref: terminalRef(i),
      pin: 1,
      label,
      direction,
    })),
    wires: wiring.wires,
    spares: plan.packages.flatMap(({ ref, name: type, units }) =>
      units.filter(({ parts }) => parts.length === 0).map(({ letter }) => ({ ref, type, unit: letter })),
    ),
    proof: isSmallest ? 'smallest' : 'bound',
    atLeast: plan.atLeast,
    lacking: Object.fromEntries(plan.lacking),
    unplaced: plan.unplaced,
    parts: partsList(plan),
    stages: wiring.stages.map(({ number, units, pins }) => ({
      stage: number,
      units: units.map(({ ref, letter }) => `${ref}.${letter}`),
      pins,
      rows:
        tests
          .find(({ stage }) => stage === number)
          ?.steps.flatMap(({ row }) => (row === undefined ? [] : [row])) ?? [],
    })),
  };
}

function unitPinName(type: PackageType, letter: string, number: number) {
  const unit = type.units.find((one) => one.letter === letter);
  return [...(unit?.pins ?? [])].find(([, pin]) => pin.number === number)?.[0];
}
