import type { Box, Point } from '@/core/circuit/geometry';
import type { End, Settings, Sheet, Symbols } from '@/core/circuit/sheet';
import type { Guide } from '@/core/drawing/editing/arrange';
import type { PinNotes } from '@/core/drawing/geometry/pin-notes';
import { changedIds } from '@/core/drawing/geometry/spatial-index';
import type { SheetNets } from '@/core/netlist/netlist';
import type { TableLook } from '@/core/parts/shape';
import { type Logic, Z, ZERO } from '@/core/values/logic';
import type { Radix } from '@/core/values/radix';

/** How a signal is drawn: its value, two drivers against each other, or several bits together. */
export type Signal = Logic | 'conflict' | 'bus' | 'dark';

/** The content of the sheet at the moment. */
export interface Scene {
  readonly sheet: Sheet;
  readonly netlist: SheetNets;
  readonly values: Uint8Array;
  readonly conflicts: ReadonlySet<number>;
  readonly standard: Symbols;
  readonly crossings: Settings['crossings'];
  /** How values of buses are written along their wires; not at all without it. */
  readonly buses?: Radix;
  /** Buttons that are held, by part. */
  readonly on: ReadonlySet<string>;
  /** The captions of clocks that a stimulus drives, by part. */
  readonly drivenAs?: ReadonlyMap<string, string>;
  /** Designators and numbers of pins, where they are shown. */
  readonly notes?: PinNotes | undefined;
  /** The sheet's truth table, for notes that show it. */
  readonly table?: (() => TableLook | null) | undefined;
  /** Whether the circuit stands still: nothing is told of its signals. */
  readonly isStill?: boolean;
  /** The nets that tell their signals, where not all of them do. */
  readonly told?: ReadonlySet<number> | null;
  /** Limits painting to some of the sheet: the objects that a gesture drags, or the rest. */
  readonly some?: { readonly of: DraggedObjects; readonly lifted: boolean };
}

/** The objects that a gesture has changed so far, compared with the sheet on which it began. */
export interface DraggedObjects {
  readonly from: Sheet;
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
}

/** The objects that a gesture changes, now or earlier: only they have to be painted again. */
export function draggedObjects(from: Sheet, to: Sheet, before: DraggedObjects | null): DraggedObjects {
  const parts = changedIds(from.parts, to.parts);
  const wires = changedIds(from.wires, to.wires);
  const known = before?.from === from ? before : null;
  const within = (ids: ReadonlySet<string>, all: ReadonlySet<string>) => [...ids].every((id) => all.has(id));
  if (known && within(parts, known.parts) && within(wires, known.wires)) return known;
  return {
    from,
    parts: new Set([...parts, ...(known?.parts ?? [])]),
    wires: new Set([...wires, ...(known?.wires ?? [])]),
  };
}

let lastMove: { readonly of: DraggedObjects; readonly to: Sheet; readonly by: Point | null } | null = null;

/** The one step by which all dragged objects were moved, in grid steps; null where each went its own way, or became another. */
export function commonMove(of: DraggedObjects, to: Sheet): Point | null {
  if (lastMove?.of !== of || lastMove.to !== to) lastMove = { of, to, by: moveOf(of, to) };
  return lastMove.by;
}

function moveOf({ from, parts, wires }: DraggedObjects, to: Sheet): Point | null {
  let by: Point | null = null;
  const isMoved = (was: Point, is: Point): boolean => {
    by ??= { x: is.x - was.x, y: is.y - was.y };
    return is.x - was.x === by.x && is.y - was.y === by.y;
  };
  for (const id of parts) {
    const [was, is] = [from.parts.get(id), to.parts.get(id)];
    if (!was || !is || !isMoved(was.at, is.at)) return null;
    if (was.turn !== is.turn || was.mirrored !== is.mirrored || was.params !== is.params) return null;
  }
  for (const id of wires) {
    const [was, is] = [from.wires.get(id), to.wires.get(id)];
    if (!was || !is || was.course.length !== is.course.length) return null;
    // Where an end stays behind, the wire changes its course.
    const goesAlong = (end: End) => ('part' in end ? parts.has(end.part) : wires.has(end.wire));
    if (!goesAlong(was.from) || !goesAlong(was.to)) return null;
    for (let i = 0; i < was.course.length; i++) if (!isMoved(was.course[i]!, is.course[i]!)) return null;
  }
  return by;
}

/** Whether a part or a wire is to be painted. */
export function isPainted({ some }: Scene, what: 'parts' | 'wires', id: string): boolean {
  return !some || some.of[what].has(id) === some.lifted;
}

/** The gesture that is under way. */
export interface Overlay {
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  readonly hover: { readonly part?: string; readonly wire?: string; readonly pin?: Point } | null;
  /** Parts that make the product that another face points at. */
  readonly lit: ReadonlySet<string>;
  /** Wires that are being drawn. */
  readonly wirePreview: readonly (readonly Point[])[];
  readonly box: Box | null;
  /** Lines with which a part being moved is in line. */
  readonly guides: readonly Guide[];
  /** The line from which everything is being moved away. */
  readonly border: { readonly axis: 'across' | 'down'; readonly at: number } | null;
  /** Where pins will be joined. */
  readonly touches: readonly Point[];
  /** Places of pins with a complaint; one that is not grave is merely open. */
  readonly problems: readonly { readonly at: Point; readonly grave: boolean }[];
  readonly grid: boolean;
  /** The objects that a gesture moves. */
  readonly dragged: DraggedObjects | null;
}

export const PLAIN: Overlay = {
  parts: new Set(),
  wires: new Set(),
  hover: null,
  lit: new Set(),
  wirePreview: [],
  box: null,
  guides: [],
  border: null,
  touches: [],
  problems: [],
  grid: false,
  dragged: null,
};

function signalAt(scene: Scene, net: number | undefined): Signal {
  if (scene.isStill) return ZERO;
  if (net === undefined) return Z;
  if (scene.told && !scene.told.has(net)) return 'dark';
  return scene.conflicts.has(net) ? 'conflict' : (scene.values[net] as Logic);
}

/** The signal of a wire or a pin by its nets. A bus is one strong line of ink, but for a conflict on one of its bits. */
export function signalOf(scene: Scene, nets: readonly number[] | undefined): Signal {
  if (!nets || nets.length < 2) return signalAt(scene, nets?.[0]);
  return nets.some((net) => scene.conflicts.has(net) && scene.told?.has(net) !== false) ? 'conflict' : 'bus';
}
