import { type Lane, NO_TIME_SETUP, type TimeSetup } from '@/core/circuit/time-setup';
import type { Netlist, Terminal } from '@/core/netlist/netlist';
import { spokenText } from '@/core/values/markup';
import type { Radix } from '@/core/values/radix';

/** A lane as it is drawn. */
export interface LaneView {
  readonly key: string;
  readonly name: string;
  /** The name with its marks for subscripts and bars, as it is painted. */
  readonly marked: string;
  /** The inputs and outputs that it shows, that with the highest bits first; none for a caption. */
  readonly of: readonly string[];
  /** Their nets, the least significant first. */
  readonly nets: readonly number[];
  readonly isInput: boolean;
  readonly radix: Radix;
  readonly stairs: boolean;
  /** How many times as high as others it is. */
  readonly height: number;
}

/**
 * The lanes of a sheet from top to bottom: as they were arranged, then new ones, inputs first.
 * @param inner signals within the sheet: they have lanes only where these were asked for.
 */
export function lanesOf(
  netlist: Netlist,
  plan: TimeSetup | undefined,
  radix: Radix,
  inner: readonly Terminal[] = [],
): LaneView[] {
  const { lanes, hidden } = plan ?? NO_TIME_SETUP;
  const terminals = new Map([...netlist.inputs, ...netlist.outputs].map((t) => [t.part, t]));
  const all = new Map([...inner.map((t) => [t.part, t] as const), ...terminals]);
  const inputs = new Set(netlist.inputs.map((t) => t.part));
  const placed = new Set([...hidden, ...lanes.flatMap((l) => l.of)]);
  const rest = [...terminals.keys()]
    .filter((part) => !placed.has(part))
    .map((part): Lane => ({ of: [part], name: '' }));
  return [...lanes, ...rest].flatMap((lane): LaneView[] => {
    const shown = lane.of.map((part) => all.get(part)).filter((t): t is Terminal => t !== undefined);
    if (shown.length === 0 && (lane.of.length > 0 || lane.name === '')) return [];
    return [
      {
        key: lane.of.join('+') || `“${lane.name}”`,
        name: lane.name || shown.map((t) => spokenText(t.name)).join(' '),
        marked: lane.name || shown.map((t) => t.name).join(' '),
        of: lane.of,
        nets: [...shown].reverse().flatMap((t) => t.nets),
        isInput: shown.length > 0 && shown.every((t) => inputs.has(t.part)),
        radix: lane.radix ?? radix,
        stairs: lane.stairs ?? false,
        height: lane.height ?? 1,
      },
    ];
  });
}

/** The lanes as they are kept, from how they are shown. */
export const kept = (lanes: readonly LaneView[], radix: Radix): Lane[] =>
  lanes.map((l) => ({
    of: [...l.of],
    name: l.of.length === 1 ? '' : l.name,
    ...(l.radix === radix ? {} : { radix: l.radix }),
    ...(l.stairs ? { stairs: true } : {}),
    ...(l.height > 1 ? { height: l.height } : {}),
  }));

/** The name of several lanes together: the common part of their names, without the numbers behind it. */
export function nameOfGroup(names: readonly string[]): string {
  let common = names[0] ?? '';
  for (const name of names) while (!name.startsWith(common)) common = common.slice(0, -1);
  return common.replace(/[\s_[\d]+$/, '') || 'Number';
}

/** Lanes made into one number in the place of the first, by the numbers behind their names the highest bit first. */
export function grouped(lanes: readonly LaneView[], chosen: ReadonlySet<string>): LaneView[] {
  const members = lanes.filter((l) => chosen.has(l.key) && l.nets.length > 0);
  const weight = (l: LaneView) => Number(/(\d+)\D*$/.exec(l.name)?.[1] ?? Number.NaN);
  const isNumbered = members.every((l) => !Number.isNaN(weight(l)));
  const ordered = isNumbered ? [...members].sort((a, b) => weight(b) - weight(a)) : members;
  const of = ordered.flatMap((l) => l.of);
  const name = nameOfGroup(ordered.map((l) => l.name));
  const group: LaneView = {
    key: of.join('+'),
    name,
    marked: name,
    of,
    nets: [...ordered].reverse().flatMap((l) => l.nets),
    isInput: members.every((l) => l.isInput),
    radix: 'unsigned',
    stairs: false,
    height: 1,
  };
  const first = lanes.indexOf(members[0]!);
  return lanes.flatMap((l, i) => (i === first ? [group] : members.includes(l) ? [] : [l]));
}

/** A number taken apart into its inputs and outputs again. */
export function apart(lanes: readonly LaneView[], key: string, signals: readonly Terminal[]): LaneView[] {
  return lanes.flatMap((lane) => {
    if (lane.key !== key) return [lane];
    return lane.of.flatMap((part) => {
      const t = signals.find((one) => one.part === part);
      return t
        ? [
            {
              ...lane,
              key: part,
              name: spokenText(t.name),
              marked: t.name,
              of: [part],
              nets: t.nets,
              stairs: false,
            },
          ]
        : [];
    });
  });
}

/** Lanes with one of them moved to another place. */
export function moved(lanes: readonly LaneView[], key: string, to: number): LaneView[] {
  const one = lanes.find((l) => l.key === key);
  if (!one) return [...lanes];
  const rest = lanes.filter((l) => l !== one);
  return [...rest.slice(0, to), one, ...rest.slice(to)];
}

/** The arrangement with lanes taken away: inputs and outputs are hidden, other signals are merely not asked for any more. */
export function without(
  lanes: readonly LaneView[],
  keys: ReadonlySet<string>,
  netlist: Netlist,
  hidden: readonly string[],
): { readonly lanes: readonly LaneView[]; readonly hidden: readonly string[] } {
  const terminals = new Set([...netlist.inputs, ...netlist.outputs].map((t) => t.part));
  const gone = lanes.filter((l) => keys.has(l.key)).flatMap((l) => l.of);
  return {
    lanes: lanes.filter((l) => !keys.has(l.key)),
    hidden: [...hidden, ...gone.filter((part) => terminals.has(part))],
  };
}

/** The arrangement with a lane for each of some more signals, as the last ones. */
export function withSignals(
  lanes: readonly LaneView[],
  signals: readonly Terminal[],
  radix: Radix,
): LaneView[] {
  const added = signals.map(
    ({ part, name, nets }): LaneView => ({
      key: part,
      name: spokenText(name),
      marked: name,
      of: [part],
      nets,
      isInput: false,
      radix,
      stairs: false,
      height: 1,
    }),
  );
  return [...lanes, ...added];
}
