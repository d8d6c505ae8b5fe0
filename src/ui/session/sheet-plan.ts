import { useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { PinNotes } from '@/core/drawing/geometry/pin-notes';
import { pinNotesOf } from '@/core/packages/pin-notes';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import type { SessionState } from '@/session/state';
import { planner } from '@/workers/plan-client';
import { arePinsNoted } from './noted-pins';
import { useSessionState } from './session-context';

/** The plan of the sheet that runs, shared by the faces that show it; made in a worker. */
interface Planned {
  /** The sheet of which the plan is; its plan may be of an earlier version. */
  readonly sheetId: string | null;
  readonly sheet: Sheet | null;
  /** The other sheets of the lesson, which it may use as blocks. */
  readonly others: readonly Sheet[];
  readonly planned: SheetPlan | null;
  readonly isWorking: boolean;
}

const NOTHING: Planned = { sheetId: null, sheet: null, others: [], planned: null, isWorking: false };
const store = createStore<Planned>(() => NOTHING);

/** Whether two versions of a sheet have the same plan: nothing but places, names of notes and the board differs. */
const samePlan = (a: Sheet, b: Sheet) => a.parts === b.parts && a.wires === b.wires && a.chips === b.chips;

let job: { cancel: () => void } | null = null;
let users = 0;

function follow(sheet: Sheet, sheets: readonly Sheet[]): void {
  const now = store.getState();
  const others = sheets.filter((one) => one !== sheet);
  const sameInside =
    others.length === now.others.length && others.every((one, i) => samePlan(one, now.others[i]!));
  if (now.sheet && now.sheetId === sheet.id && sameInside && samePlan(now.sheet, sheet)) return;
  job?.cancel();
  const isSame = now.sheetId === sheet.id;
  store.setState({ sheetId: sheet.id, sheet, others, isWorking: true, ...(isSame ? {} : { planned: null }) });
  const begun = planner(sheet, sheets);
  job = begun;
  begun.result.then(
    (planned) => {
      if (job === begun) store.setState({ planned, isWorking: false });
    },
    () => {
      if (job === begun) store.setState({ isWorking: false });
    },
  );
}

/**
 * The plan of the sheet that runs, kept up to date while somebody looks at it.
 * @param isWanted without it nothing is planned.
 */
export function useSheetPlan(isWanted = true): {
  readonly planned: SheetPlan | null;
  readonly isWorking: boolean;
} {
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const sheets = useSessionState((s) => s.lesson.sheets);
  useEffect(() => {
    if (!isWanted) return;
    users++;
    return () => {
      users--;
      if (users > 0) return;
      job?.cancel();
      job = null;
      store.setState(NOTHING);
    };
  }, [isWanted]);
  useEffect(() => {
    if (isWanted) follow(sheet, sheets);
  }, [isWanted, sheet, sheets]);
  const planned = useStore(store, (s) => (s.sheetId === sheet.id ? s.planned : null));
  const isWorking = useStore(store, (s) => s.isWorking);
  return { planned, isWorking };
}

/** Designators and pin numbers of the running sheet, once it is planned. */
export function usePinNotes(): PinNotes | undefined {
  const { planned } = useSheetPlan();
  return useMemo(() => planned && pinNotesOf(planned.plan), [planned]) ?? undefined;
}

/** The pins of the shown sheet for a picture that is made now, if they are noted. */
export async function pinNotesNow(state: SessionState): Promise<PinNotes | undefined> {
  if (!arePinsNoted(state)) return undefined;
  const { lesson, rootId } = state;
  return pinNotesOf((await planner(sheetOf(lesson, rootId)!, lesson.sheets).result).plan);
}
