import { useEffect, useState } from 'react';
import type { BoardRun } from '@/core/bench/board-run';
import type { Board } from '@/core/circuit/board';
import { BoardFollower } from '@/session/board-follower';
import { useSession } from '@/ui/session/session-context';

/** The board as it runs, beside the sheet. */
export function useBoardRun(board: Board): {
  readonly run: BoardRun;
  /** Turns a switch that no input of the sheet has the name of. @returns whether it is such a one. */
  readonly turn: (ref: string) => boolean;
} {
  const session = useSession();
  const [follower] = useState(() => new BoardFollower(session, board));
  const [, setChanges] = useState(0);
  follower.take(board);
  useEffect(() => {
    const changed = () => setChanges((n) => n + 1);
    if (follower.follow()) changed();
    return session.store.subscribe(() => {
      if (follower.follow()) changed();
    });
  }, [session, follower]);
  return {
    run: follower.run,
    turn(ref) {
      const isTurned = follower.turn(ref);
      if (isTurned) setChanges((n) => n + 1);
      return isTurned;
    },
  };
}
