import type { Box, Point } from '@/core/circuit/geometry';
import type { Settings, Sheet } from '@/core/circuit/lesson';
import type { Guide } from '@/core/drawing/arrange';
import type { SheetNets } from '@/core/netlist/netlist';
import type { TableLook } from '@/core/parts/shape';
import { type Logic, Z } from '@/core/values/logic';
import type { Radix } from '@/core/values/radix';

/** How a signal is drawn: its value, two drivers against each other, or several bits together. */
export type Signal = Logic | 'conflict' | 'bus';

/** What is on the sheet at the moment. */
export interface Scene {
  readonly sheet: Sheet;
  readonly netlist: SheetNets;
  readonly values: Uint8Array;
  readonly conflicts: ReadonlySet<number>;
  readonly standard: 'distinctive' | 'rectangular';
  readonly crossings: Settings['crossings'];
  /** How values of buses are written along their wires; not at all without it. */
  readonly buses?: Radix;
  /** Buttons that are held, by part. */
  readonly on: ReadonlySet<string>;
  /** The sheet's truth table, for notes that show it. */
  readonly table?: (() => TableLook | null) | undefined;
}

/** What the hand is doing on it. */
export interface Overlay {
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
  readonly hover: { readonly part?: string; readonly wire?: string; readonly pin?: Point } | null;
  /** Wires that are being drawn. */
  readonly rubber: readonly (readonly Point[])[];
  readonly box: Box | null;
  /** Lines with which a part being moved is in line. */
  readonly guides: readonly Guide[];
  /** The line from which everything is being moved away. */
  readonly border: { readonly axis: 'across' | 'down'; readonly at: number } | null;
  /** Where pins will be joined. */
  readonly touches: readonly Point[];
  /** Places of pins with a complaint; one that is not grave is merely loose. */
  readonly trouble: readonly { readonly at: Point; readonly grave: boolean }[];
  readonly grid: boolean;
}

export const PLAIN: Overlay = {
  parts: new Set(),
  wires: new Set(),
  hover: null,
  rubber: [],
  box: null,
  guides: [],
  border: null,
  touches: [],
  trouble: [],
  grid: false,
};

function signalAt(scene: Scene, net: number | undefined): Signal {
  if (net === undefined) return Z;
  return scene.conflicts.has(net) ? 'conflict' : (scene.values[net] as Logic);
}

/** The signal of a wire or a pin by its nets. A bus is one strong line of ink, but for a conflict on one of its bits. */
export function signalOf(scene: Scene, nets: readonly number[] | undefined): Signal {
  if (!nets || nets.length < 2) return signalAt(scene, nets?.[0]);
  return nets.some((net) => scene.conflicts.has(net)) ? 'conflict' : 'bus';
}
