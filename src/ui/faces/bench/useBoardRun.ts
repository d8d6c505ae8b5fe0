import { useEffect, useMemo, useRef, useState } from 'react';
import { BoardRun } from '@/core/bench/board-run';
import type { Board } from '@/core/circuit/board';
import type { Logic } from '@/core/values/logic';
import type { SessionState } from '@/session/state';
import { useSession } from '@/ui/session/session-context';

/** The levels of the switches beside a board: as the inputs of the same name are at the moment. */
function levelsOf(board: Board, { netlist, values }: SessionState): Map<string, Logic> {
  const byName = new Map(netlist.inputColumns.map(({ name, nets }) => [name, nets[0]]));
  return new Map(
    board.devices.flatMap(({ ref, label }) => {
      const net = byName.get(label);
      return net === undefined ? [] : [[ref, values[net] as Logic] as const];
    }),
  );
}

/**
 * The board as it runs, beside the sheet: its switches follow the inputs of the sheet. What it stores goes on through changes of
 * its wires; it begins anew when the time of the sheet does.
 */
export function useBoardRun(board: Board): BoardRun {
  const session = useSession();
  const kept = useRef<{ run: BoardRun; starts: number } | null>(null);
  const [starts, setStarts] = useState(0);
  const [, setChanges] = useState(0);
  const run = useMemo(() => {
    const before = kept.current?.starts === starts ? kept.current.run : undefined;
    const made = new BoardRun(board, before);
    made.set(levelsOf(board, session.store.getState()));
    kept.current = { run: made, starts };
    return made;
  }, [board, starts, session]);
  useEffect(() => {
    let { values, now } = session.store.getState();
    return session.store.subscribe((state) => {
      if (state.values === values) return;
      if (state.now < now) setStarts((n) => n + 1);
      ({ values, now } = state);
      run.set(levelsOf(board, state));
      setChanges((n) => n + 1);
    });
  }, [board, run, session]);
  return run;
}
