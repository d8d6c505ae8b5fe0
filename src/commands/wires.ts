import { nearestOnCourse } from '@/core/circuit/geometry';
import { WIRE_COLOURS, type WireColour } from '@/core/circuit/sheet';
import { courseOf } from '@/core/drawing/geometry/placement';
import { toSheet } from '@/core/drawing/geometry/viewport';
import type { Result } from '@/core/values/result';
import {
  colourWires,
  pinProbe,
  pullSelected,
  rerouteSelected,
  straightenSelected,
} from '@/session/changes/wires';
import { selectNet, selectPartsOnNet } from '@/session/select';
import type { Command } from './command';
import { all, canEdit, oneWire, onlyWires, someWires } from './conditions';
import type { EditorContext } from './context';
import { pointedPixel } from './place';

/** Pins a probe to the selected wire, at the point nearest to the pointer. */
function probeHere(context: EditorContext): Result<undefined> {
  const { session, drawing } = context;
  const [wire] = session.state.selection.wires;
  const there = session.sheet.wires.get(wire!)!;
  const pixel = pointedPixel(context);
  const at = nearestOnCourse(courseOf(session.sheet, there), toSheet(drawing.view(), pixel.x, pixel.y));
  return pinProbe(session, wire!, { x: Math.round(at.x), y: Math.round(at.y) });
}

const COLOURS: readonly Command[] = [...WIRE_COLOURS, undefined].map((colour: WireColour | undefined) => ({
  id: `wire.colour-${colour ?? 'none'}`,
  name: colour ?? 'No colour',
  group: 'colour',
  swatch: colour ?? 'none',
  words: 'wire colour mark',
  undoName: 'colour',
  when: all(canEdit, someWires),
  run: ({ session }) => colourWires(session, colour),
}));

const PULLS: readonly Command[] = (
  [
    ['left', 'ArrowLeft', -1, 0],
    ['right', 'ArrowRight', 1, 0],
    ['up', 'ArrowUp', 0, -1],
    ['down', 'ArrowDown', 0, 1],
  ] as const
).map(([name, key, x, y]) => ({
  id: `wire.pull-${name}`,
  name: `Pull ${name}`,
  group: 'wire',
  keys: [key],
  help: 'pull the selected wire aside',
  words: 'move segment nudge',
  undoName: 'move a wire',
  when: all(canEdit, oneWire),
  run: ({ session }) => pullSelected(session, { x, y }),
}));

/** Commands for the selected wires. */
export const WIRES: readonly Command[] = [
  {
    id: 'wire.probe',
    name: 'Pin a probe here',
    group: 'wire',
    words: 'measure watch',
    undoName: 'pin a probe',
    when: all(canEdit, someWires),
    run: probeHere,
  },
  {
    id: 'wire.select-net',
    name: 'Select its whole net',
    group: 'wire',
    gesture: 'double click',
    when: someWires,
    run: ({ session }) => selectNet(session),
  },
  {
    id: 'wire.select-parts',
    name: 'Select the parts on it',
    group: 'wire',
    when: someWires,
    run: ({ session }) => selectPartsOnNet(session),
  },
  {
    id: 'wire.straighten',
    name: 'Straighten',
    group: 'wire',
    undoName: 'straighten',
    when: all(canEdit, someWires),
    run: ({ session }) => straightenSelected(session),
  },
  {
    id: 'wire.reroute',
    name: 'Reroute',
    group: 'wire',
    words: 'route again',
    undoName: 'reroute',
    when: all(canEdit, someWires),
    run: ({ session }) => rerouteSelected(session),
  },
  {
    id: 'wire.move-end',
    name: 'Move an end …',
    group: 'wire',
    keys: ['/'],
    help: 'wires the selected part, or moves an end of the selected wires, by words',
    words: 'reconnect',
    when: all(canEdit, onlyWires),
    run: ({ session, drawing }) => drawing.open({ is: 'ends', wires: [...session.state.selection.wires] }),
  },
  ...PULLS,
  ...COLOURS,
];
