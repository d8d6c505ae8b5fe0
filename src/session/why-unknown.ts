import { sheetOf } from '@/core/circuit/lesson';
import { isPinEnd } from '@/core/circuit/sheet';
import { pinsOf } from '@/core/drawing/geometry/placement';
import { kindOf, sheetInside, spokenName } from '@/core/parts/catalogue';
import { Run } from '@/core/simulate/run';
import { type UnknownStep, whyUnknown } from '@/core/timing/unknown';
import { type Logic, letterOf } from '@/core/values/logic';
import { done, type Result, refused } from '@/core/values/result';
import { timeText } from '@/core/values/time';
import { listed } from '@/core/values/wording';
import { freshRun } from './clockwork';
import type { Session } from './session';

/** Parts on the way that are told one by one. */
const MOST_TOLD = 6;

/** Why something on the sheet is unknown, in a sentence, and the parts of the shown sheet on the way to the source. */
export interface WhyUnknown {
  readonly text: string;
  readonly parts: ReadonlySet<string>;
  /** Whether its cause is over, so that it is known once the run begins anew with the inputs as they are now. */
  readonly isEndedByPowerUp: boolean;
}

const isUnknown = (value: number | undefined) => value !== undefined && value > 1;

/** The unknown net at what is selected: of one part its outputs before its inputs, or of a wire. */
function unknownAtSelection({ state, sheet }: Session): { name: string; net: number } | null {
  const { selection, view, values } = state;
  const [id] = selection.parts;
  const part = selection.parts.size === 1 ? sheet.parts.get(id!) : undefined;
  if (part) {
    const pins = pinsOf(part).map((p) => p.port);
    for (const port of [
      ...pins.filter((p) => p.direction === 'out'),
      ...pins.filter((p) => p.direction === 'in'),
    ]) {
      const net = view.netsOfPin(part.id, port.name)?.find((n) => isUnknown(values[n]));
      if (net !== undefined) return { name: spokenName(part), net };
    }
    return null;
  }
  const [wireId] = selection.wires;
  const wire = selection.parts.size === 0 ? sheet.wires.get(wireId ?? '') : undefined;
  const net = wire && view.netsOfWire(wire.id)?.find((n) => isUnknown(values[n]));
  if (!wire || net === undefined) return null;
  const from = isPinEnd(wire.from) ? sheet.parts.get(wire.from.part) : undefined;
  return { name: from ? `the wire from ${spokenName(from)}` : 'the wire', net };
}

/** The unknown net that is selected; refused where none is. */
export function unknownSelected(session: Session): Result<{ readonly name: string; readonly net: number }> {
  const found = unknownAtSelection(session);
  return found ? done(found) : refused('known', 'select a part or a wire that is X or floats first');
}

/** Explains what is selected, if it is X or Z at the moment; runs the circuit anew from power-up to see whether that ends it. */
export function whyIsItUnknown(session: Session): Result<WhyUnknown> {
  if (session.state.rules.isPuzzle) return refused('puzzle', 'to find out why is what this task asks of you');
  const selected = unknownSelected(session);
  if (!selected.ok) return selected;
  const found = selected.value;
  const { state, trace } = session;
  const moment = state.cursor ?? state.now;
  const steps = whyUnknown(state.netlist, trace, found.net, moment);
  const last = steps.at(-1);
  if (!last) return refused('known', 'it is known by now');
  const letter = letterOf(state.values[found.net] as Logic);
  const took = steps.findLast((step) => step.why === 'took');
  const way = [
    ...new Set(steps.slice(0, -1).flatMap((s) => (s.part === null ? [] : [nameOf(session, s.part)]))),
  ];
  const fresh = new Run(state.netlist, freshRun(state.lesson, state.on));
  // While its cause goes on, the next edge would take it again.
  const isGoingOn = took !== undefined && isUnknown(trace.valueAt(last.net, moment));
  const isEndedByPowerUp = !isGoingOn && !isUnknown(fresh.values[found.net]);
  const text = [
    `${found.name} is ${letter} because ${endText(session, steps, last)}.`,
    way.length > 1 && `It comes by way of ${listed(way.slice(0, MOST_TOLD).reverse())}.`,
    took?.part && `${nameOf(session, took.part)} took it at ${timeText(took.time)}.`,
    isEndedByPowerUp && 'That is over by now: going back to power-up ends it.',
  ];
  const inside = state.path.length === 0 ? '' : `${state.path.join('/')}/`;
  const parts = steps.flatMap(({ part }) =>
    part?.startsWith(inside) ? [part.slice(inside.length).split('/')[0]!] : [],
  );
  return done({
    text: text.filter(Boolean).join(' '),
    parts: new Set(parts.filter((id) => session.sheet.parts.has(id))),
    isEndedByPowerUp,
  });
}

function endText(session: Session, steps: readonly UnknownStep[], { why, part, net }: UnknownStep): string {
  const name = part === null ? '' : nameOf(session, part);
  switch (why) {
    case 'open':
      return openText(session, steps.at(-2)?.part ?? null, net);
    case 'off':
      return part === null ? 'all that could drive it has let go' : `${name} has let go of its wire`;
    case 'fight':
      return 'two outputs drive it against each other';
    case 'loop':
      return `the loop through ${name} comes to no value`;
    case 'given':
      return name ? `${name} gives it so` : 'an input gives it so';
    case 'power-up':
      return `${name} has been unknown since power-up: set or clear it, or let the lesson begin at 0`;
    case 'timing':
      return `the data of ${name} changed too near to the clock edge`;
    default:
      return `${name} passes it on`;
  }
}

/** The input that is open, of the part that reads it. */
function openText(session: Session, reader: string | null, net: number): string {
  const { netlist, lesson, rootId } = session.state;
  const path = reader?.split('/') ?? [];
  const id = path.at(-1);
  let sheet = sheetOf(lesson, rootId);
  for (const block of path.slice(0, -1)) {
    const part = sheet?.parts.get(block);
    sheet = part && sheetInside(part, lesson.sheets);
  }
  const part = id === undefined ? undefined : sheet?.parts.get(id);
  const view = path.length > 1 ? netlist.at(path.slice(0, -1).join('/')) : netlist;
  const port =
    part &&
    kindOf(part)
      .ports(part.params)
      .find((p) => view?.netsOfPin(part.id, p.name)?.includes(net));
  return part && port ? `nothing drives ${port.name} of ${nameOf(session, reader!)}` : 'nothing drives it';
}

/** A part by the names of the blocks that lead to it and its own. */
function nameOf({ state }: Session, path: string): string {
  let sheet = sheetOf(state.lesson, state.rootId);
  const names: string[] = [];
  for (const id of path.split('/')) {
    const part = sheet?.parts.get(id);
    if (!part) return [...names, id].join(' / ');
    names.push(spokenName(part));
    sheet = sheetInside(part, state.lesson.sheets);
  }
  return names.join(' / ');
}
