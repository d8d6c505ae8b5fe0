import { spokenName } from '@/core/parts/catalogue';
import { type Cause, chainOf, type Edge } from '@/core/timing/cause';
import { letterOf } from '@/core/values/logic';
import { spokenText } from '@/core/values/markup';
import { timeText } from '@/core/values/time';
import type { Session } from '@/session/session';
import type { Arrow } from './diagram';
import type { LaneView } from './lanes';

/** Why a signal changed: a sentence for each step back, the parts on the way, and arrows where lanes show it. */
export interface Why {
  readonly sentences: readonly string[];
  readonly parts: ReadonlySet<string>;
  arrows(lanes: readonly LaneView[]): readonly Arrow[];
}

const MOST_SENTENCES = 12;

export function whyOf(session: Session, effect: Edge): Why {
  const { netlist, lesson } = session.state;
  const chain = chainOf(netlist, lesson.settings.delays, session.trace, effect);
  const names = namesOfNets(session);
  const said = ({ net, value }: Edge) => {
    const name = names.get(net) ?? 'a signal';
    return value === 1 ? `${name} rose` : value === 0 ? `${name} fell` : `${name} became ${letterOf(value)}`;
  };
  const sentences = chain.map((step): string => {
    const { effect: is, causes } = step;
    if (step.part === null) return `${said(is)} at ${timeText(is.time)}: it is an input.`;
    const first = causes[0];
    if (!first) return `${said(is)} at ${timeText(is.time)}; what made it do so is no longer known.`;
    const ago = is.time - first.time;
    const when = ago === 0 ? 'in the same instant' : `${timeText(ago)} earlier`;
    const by = causes.map((c) => said(c));
    const all = by.length > 1 ? `${by.slice(0, -1).join(', ')} and ${by.at(-1)}` : by[0];
    return `${said(is)} at ${timeText(is.time)} because ${all} ${when}.`;
  });
  return {
    // Names of signals keep their first letter; names of parts begin with a capital.
    sentences: sentences
      .slice(0, MOST_SENTENCES)
      .map((s) => s.replace(/^[at](?=he output of | signal )/, (c) => c.toUpperCase())),
    parts: new Set(chain.flatMap(({ part }) => (part === null ? [] : [part.split('/')[0]!]))),
    arrows: (lanes) => arrowsOf(chain, lanes),
  };
}

/** From each change that a lane shows to the next one that a lane shows, over those between. */
function arrowsOf(chain: readonly Cause[], lanes: readonly LaneView[]): Arrow[] {
  const laneOf = new Map(lanes.flatMap((l, i) => l.nets.map((net) => [net, i] as const)));
  const seen = chain.flatMap(({ effect }) => {
    const lane = laneOf.get(effect.net);
    return lane === undefined ? [] : [{ lane, time: effect.time }];
  });
  return seen.slice(0, -1).flatMap((to, i) => {
    const from = seen[i + 1]!;
    return from.lane === to.lane && from.time === to.time ? [] : [{ from, to }];
  });
}

/** The name of each net: that of an input or output, or of the part that drives it. */
function namesOfNets(session: Session): ReadonlyMap<number, string> {
  const { netlist } = session.state;
  const names = new Map<number, string>();
  for (let g = 0; g < netlist.out.length; g++) {
    const path = netlist.partName(netlist.owner[g]!);
    const part = session.sheet.parts.get(path.split('/')[0]!);
    names.set(netlist.out[g]!, part ? `the output of ${spokenName(part)}` : path);
  }
  for (const column of [...netlist.outputColumns, ...netlist.inputColumns])
    names.set(column.nets[0], spokenText(column.name));
  return names;
}
