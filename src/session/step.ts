import { hasClock, isTimed } from './moment';
import type { Session } from './session';

/** Moves one step forward or back: half a period of a clock, the next event, or a row. */
export function stepMoment(session: Session, back = false): void {
  const { netlist, lesson } = session.state;
  if (hasClock(netlist)) {
    if (back) session.time.stepHalfBack();
    else session.time.stepHalf();
  } else if (isTimed(netlist, lesson.settings.delays)) session.time.stepEvent(back);
  else session.stepRow(back ? -1 : 1);
}
