'use client';

import { useDeferredValue, useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { drawnLevels } from '@/core/netlist/levels';
import type { Netlist } from '@/core/netlist/netlist';
import { kindOf } from '@/core/parts/catalogue';
import { counted } from '@/core/values/wording';
import { useSessionState } from '@/ui/session/session-context';

const STORAGE_PLURALS: Readonly<Record<string, string>> = { latch: 'latches', memory: 'memories' };

/** How many gates, registers and levels of drawn parts the sheet has. */
export function Inventory() {
  // The circuit is shown first, and counted after it.
  const netlist = useDeferredValue(useSessionState((s) => s.netlist));
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another circuit comes with another netlist
  const { gates, storage, levels } = useMemo(() => inventoryOf(sheet, netlist), [sheet.id, netlist]);
  const words = [
    gates > 0 && counted(gates, 'gate'),
    ...[...storage].map(([name, count]) => counted(count, name, STORAGE_PLURALS[name])),
    gates > 0 && storage.size === 0 && netlist.looped.length === 0 && counted(levels, 'level'),
  ].filter(Boolean);
  return (
    <span className="head-note" data-way={1}>
      {words.join(' · ')}
    </span>
  );
}

function inventoryOf(sheet: Sheet, netlist: Netlist) {
  let gates = 0;
  const storage = new Map<string, number>();
  for (const part of sheet.parts.values()) {
    const { isGate, stores } = kindOf(part);
    if (isGate) gates++;
    if (stores) storage.set(stores, (storage.get(stores) ?? 0) + 1);
  }
  return { gates, storage, levels: drawnLevels(netlist) };
}
