import type { PartKind } from '@/core/parts/part-kind';
import { remember, remembered } from '@/loading/page-memory';

const KEY = 'manege-recent';
/** How many parts stand nearest in the ring. */
export const RECENT = 6;

interface Slot {
  readonly name: string;
  /** When it was last used, counted. */
  readonly used: number;
}

const nameOf = (kind: PartKind) => kind.typed[0]!;

function read(): Slot[] {
  try {
    const kept: unknown = JSON.parse(remembered(KEY) ?? '[]');
    if (!Array.isArray(kept)) return [];
    return kept
      .filter((s): s is Slot => typeof s?.name === 'string' && typeof s?.used === 'number')
      .slice(0, RECENT);
  } catch {
    return [];
  }
}

/**
 * Remembers that a part was placed. A part keeps its slot for as long as it is used, so users can learn the
 * slots.
 */
export function noteRecent(kind: PartKind): void {
  const slots = read();
  const used = 1 + Math.max(0, ...slots.map((s) => s.used));
  const entry = { name: nameOf(kind), used };
  const known = slots.findIndex((s) => s.name === entry.name);
  if (known !== -1) slots[known] = entry;
  else if (slots.length < RECENT) slots.push(entry);
  else {
    const oldest = slots.reduce((least, s, i) => (s.used < slots[least]!.used ? i : least), 0);
    slots[oldest] = entry;
  }
  remember(KEY, JSON.stringify(slots));
}

/** The same parts in another order: those placed before come first, the latest of them at the top. */
export function lastPlacedFirst(kinds: readonly PartKind[]): PartKind[] {
  const used = new Map(read().map((slot) => [slot.name, slot.used]));
  const of = (kind: PartKind) => used.get(nameOf(kind)) ?? 0;
  return [...kinds].sort((a, b) => of(b) - of(a));
}

/** The parts that were placed last, each in its slot, if they can be placed here. */
export function recentKinds(kinds: readonly PartKind[]): (PartKind | null)[] {
  return read().map((s) => kinds.find((k) => nameOf(k) === s.name) ?? null);
}
