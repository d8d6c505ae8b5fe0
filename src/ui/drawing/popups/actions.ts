import { WIRE_COLOURS, type WireColour } from '@/core/circuit/lesson';
import { sheetIdInside } from '@/core/parts/catalogue';
import type { Result } from '@/core/values/result';
import {
  alignSelected,
  distributeSelected,
  mirrorSelected,
  spreadFromSelected,
  tidySheet,
} from '@/session/changes/arrange';
import { blockOfSelection } from '@/session/changes/block';
import { duplicateSelected } from '@/session/changes/clipboard';
import { removeSelected, turnSelected } from '@/session/changes/parts';
import { colourWires, rerouteSelected, straightenSelected } from '@/session/changes/wires';
import { selectAll, selectNet, selectPartsOnNet, selectWires } from '@/session/select';
import type { Session } from '@/session/session';

/** One thing that can be done with what is selected. */
export interface Action {
  readonly name: string;
  /** The key that does the same. */
  readonly key?: string;
  readonly run: () => unknown;
}

export interface ActionGroup {
  readonly title: string;
  readonly actions: readonly Action[];
  /** Shown as small buttons in rows rather than as lines. */
  readonly small?: boolean;
}

/** What the rest of the drawing opens for an action. */
export interface ActionSurroundings {
  openSettings(): void;
  openRepeat(): void;
  openOwn(part: string): void;
  openWire(part: string): void;
  openEnds(wires: readonly string[]): void;
  enter(part: string): void;
  /** Pins a probe to the selected wire, where it was pointed at. */
  pinProbe(): Result<undefined>;
}

/** What can be done with what is selected, or with the sheet where nothing is. */
export function actionsFor(session: Session, around: ActionSurroundings): ActionGroup[] {
  const { selection, readOnly } = session.state;
  const parts = [...selection.parts];
  const only = parts.length === 1 ? session.sheet.parts.get(parts[0]!) : undefined;
  const enter: Action[] =
    only && sheetIdInside(only) !== undefined
      ? [{ name: 'Go inside', key: 'Enter', run: () => around.enter(only.id) }]
      : [];
  if (readOnly) return enter.length ? [{ title: 'Part', actions: enter }] : [];
  const groups: ActionGroup[] = [];
  if (parts.length > 0) groups.push(partDeeds(session, around, parts, enter));
  if (parts.length > 1) groups.push(orderDeeds(session, parts.length));
  if (parts.length > 0)
    groups.push({
      title: 'Room',
      small: true,
      actions: [
        { name: 'Wider', key: 'Alt →', run: () => spreadFromSelected(session, 'across', 2) },
        { name: 'Closer', key: 'Alt ←', run: () => spreadFromSelected(session, 'across', -2) },
        { name: 'Down', key: 'Alt ↓', run: () => spreadFromSelected(session, 'down', 2) },
        { name: 'Up', key: 'Alt ↑', run: () => spreadFromSelected(session, 'down', -2) },
      ],
    });
  if (selection.wires.size > 0) groups.push(...wireDeeds(session, around));
  if (parts.length === 0 && selection.wires.size === 0)
    groups.push({
      title: 'Sheet',
      actions: [
        { name: 'Tidy the whole sheet', run: () => tidySheet(session) },
        { name: 'Select everything', key: 'Ctrl A', run: () => selectAll(session) },
      ],
    });
  else
    groups.push({
      title: 'Take away',
      actions: [
        { name: 'Remove', key: 'Delete', run: () => removeSelected(session) },
        ...(parts.length > 0
          ? [{ name: 'Remove, wires go on', key: 'Shift Delete', run: () => removeSelected(session, true) }]
          : []),
      ],
    });
  return groups;
}

function partDeeds(
  session: Session,
  around: ActionSurroundings,
  parts: readonly string[],
  enter: readonly Action[],
): ActionGroup {
  const wire: Action[] =
    parts.length === 1
      ? [
          { name: 'Wire it to …', key: '/', run: () => around.openWire(parts[0]!) },
          { name: 'Select its wires', run: () => selectWires(session) },
          { name: 'Its own table', key: '?', run: () => around.openOwn(parts[0]!) },
        ]
      : [];
  return {
    title: parts.length === 1 ? 'Part' : `${parts.length} parts`,
    actions: [
      ...enter,
      { name: 'Label and settings', key: 'F2', run: () => around.openSettings() },
      ...wire,
      { name: 'Turn', key: ']', run: () => turnSelected(session) },
      { name: 'Turn back', key: '[', run: () => turnSelected(session, -1) },
      { name: 'Mirror left to right', key: '|', run: () => mirrorSelected(session, 'across') },
      { name: 'Mirror top to bottom', key: '_', run: () => mirrorSelected(session, 'down') },
      { name: 'Duplicate', key: 'Ctrl D', run: () => duplicateSelected(session) },
      { name: 'Repeat …', run: () => around.openRepeat() },
      { name: 'Make a block of it', run: () => blockOfSelection(session) },
    ],
  };
}

function orderDeeds(session: Session, count: number): ActionGroup {
  const lines: Action[] = (['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const).map((edge) => ({
    name: edge[0]!.toUpperCase() + edge.slice(1),
    run: () => alignSelected(session, edge),
  }));
  const gaps: Action[] =
    count > 2
      ? [
          { name: 'Even across', run: () => distributeSelected(session, 'across') },
          { name: 'Even down', run: () => distributeSelected(session, 'down') },
        ]
      : [];
  return {
    title: 'Line up',
    small: true,
    actions: [...lines, ...gaps, { name: 'Straight wires', run: () => straightenSelected(session) }],
  };
}

function wireDeeds(session: Session, around: ActionSurroundings): ActionGroup[] {
  const colours = [...WIRE_COLOURS, undefined].map(
    (colour: WireColour | undefined): Action => ({
      name: colour ?? 'none',
      run: () => colourWires(session, colour),
    }),
  );
  return [
    {
      title: 'Wire',
      actions: [
        { name: 'Pin a probe here', run: () => around.pinProbe() },
        { name: 'Select its whole net', key: 'double click', run: () => selectNet(session) },
        { name: 'Select the parts on it', run: () => selectPartsOnNet(session) },
        { name: 'Straighten', run: () => straightenSelected(session) },
        { name: 'Lay anew', run: () => rerouteSelected(session) },
        { name: 'Move an end …', key: '/', run: () => around.openEnds([...session.state.selection.wires]) },
      ],
    },
    { title: 'Mark with a colour', small: true, actions: colours },
  ];
}
