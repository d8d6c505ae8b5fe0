import { sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { drivenClocks } from '@/core/simulate/drive';
import { netsTold } from '@/session/nets-told';
import type { SessionState } from '@/session/state';
import type { Scene } from './scene';
import { truthLook } from './truth-look';

/** The scene of an open lesson, with another version of the sheet while a gesture goes on. */
export function sceneOf(state: SessionState, sheet: Sheet = sheetOf(state.lesson, state.sheetId)!): Scene {
  const { view, values, conflicts, path, lesson } = state;
  const around = path.length === 0 ? '' : `${path.join('/')}/`;
  const on = around
    ? new Set([...state.on].flatMap((key) => (key.startsWith(around) ? [key.slice(around.length)] : [])))
    : state.on;
  const { symbols, crossings, buses } = lesson.settings;
  const table = () => truthLook(state);
  // A stimulus drives the sheet that runs, not those inside it.
  const drivenAs = around ? undefined : drivenClocks(sheet);
  return {
    sheet,
    netlist: view,
    values,
    conflicts,
    on,
    standard: symbols,
    crossings,
    buses,
    table,
    isStill: state.rules.still !== null,
    told: netsTold(state),
    ...(drivenAs && { drivenAs }),
  };
}
