import {
  alignSelected,
  distributeSelected,
  spreadFromSelected,
  tidySelected,
} from '@/session/changes/arrange';
import { straightenSelected } from '@/session/changes/wires';
import type { Command } from './command';
import { all, canEdit, someParts, threeParts, twoParts } from './conditions';

const LINES: readonly Command[] = (['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const).map(
  (edge) => ({
    id: `order.${edge}`,
    name: edge[0]!.toUpperCase() + edge.slice(1),
    group: 'order',
    words: 'align line up edge',
    undoName: 'align',
    when: all(canEdit, twoParts),
    run: ({ session }) => alignSelected(session, edge),
  }),
);

const GAPS: readonly Command[] = (['across', 'down'] as const).map((axis) => ({
  id: `order.even-${axis}`,
  name: `Even ${axis}`,
  group: 'order',
  words: 'distribute space gaps',
  undoName: 'space',
  when: all(canEdit, threeParts),
  run: ({ session }) => distributeSelected(session, axis),
}));

const ROOM = [
  ['Wider', 'across', 2, 'ArrowRight'],
  ['Closer', 'across', -2, 'ArrowLeft'],
  ['Down', 'down', 2, 'ArrowDown'],
  ['Up', 'down', -2, 'ArrowUp'],
] as const;

/** Order and room among the selected parts. */
export const ARRANGE: readonly Command[] = [
  ...LINES,
  ...GAPS,
  {
    id: 'order.tidy',
    name: 'Tidy these parts',
    group: 'order',
    words: 'layout arrange clean selection',
    undoName: 'tidy',
    when: all(canEdit, twoParts),
    run: ({ session }) => tidySelected(session),
  },
  {
    id: 'order.straight-wires',
    name: 'Straight wires',
    group: 'order',
    undoName: 'straighten',
    when: all(canEdit, twoParts),
    run: ({ session }) => straightenSelected(session),
  },
  ...ROOM.map(
    ([name, axis, by, key]): Command => ({
      id: `room.${name.toLowerCase()}`,
      name,
      group: 'room',
      keys: [`Alt+${key}`],
      help: 'makes room, or closes a gap, beside the selected parts',
      words: 'space gap spread',
      undoName: 'make room',
      when: all(canEdit, someParts),
      run: ({ session }) => spreadFromSelected(session, axis, by),
    }),
  ),
];
