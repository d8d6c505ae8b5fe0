import { render } from '@testing-library/react';
import { act } from 'react';
import { courseOf } from '@/core/drawing/geometry/placement';
import { stretchesOf } from '@/core/simulate/stretches';
import { letterOf } from '@/core/values/logic';
import type { Session } from '@/session/session';
import { paint } from '@/ui/drawing/canvas/painter';
import { PLAIN } from '@/ui/drawing/canvas/scene';
import { sceneOf } from '@/ui/drawing/canvas/scene-of';
import { PartsList } from '@/ui/drawing/PartsList';
import { StateTableGrid } from '@/ui/faces/table/StateTableGrid';
import { TableGrid } from '@/ui/faces/table/TableGrid';
import { lanesOf } from '@/ui/faces/time/lanes';
import { MomentBar } from '@/ui/lesson/MomentBar';
import { SessionProvider, useSessionState } from '@/ui/session/session-context';
import { NAMED, RecordedPath, RecordingCanvas } from './canvas-stub';

/** A row of a grid as it is shown. */
export interface ShownRow {
  readonly row: number;
  readonly isLive: boolean;
  readonly cells: readonly string[];
}

/** What the faces show of a session, each read from what it draws. */
export interface FacesRead {
  /** Letters of the wires by the colours in which they are painted; `-` for a bus. */
  readonly wires: ReadonlyMap<string, string>;
  readonly table: readonly ShownRow[] | null;
  readonly tableHeads: readonly string[];
  readonly states: readonly ShownRow[] | null;
  readonly stateHeads: readonly string[];
  readonly moment: string;
  /** What is said of each part. */
  readonly words: ReadonlyMap<string, string>;
  /** Letters of each lane of the diagram at the moment, the highest bit first. */
  readonly lanes: ReadonlyMap<string, string>;
  /** The row that a truth table on the sheet marks; null where there is none. */
  readonly noted: number | null;
}

const LETTERS: Readonly<Record<string, string>> = {
  zero: '0',
  one: '1',
  unknown: 'X',
  undriven: 'Z',
  conflict: 'X',
  ink: '-',
};
/** A view that holds all that random gestures place. */
const WIDE = { width: 60_000, height: 60_000 };
const FAR = { x: -2000, y: -2000, scale: 1 };

function Table() {
  const table = useSessionState((s) => s.table);
  const stores = useSessionState((s) => s.netlist.storage.length > 0);
  if (table.state === 'ready')
    return <TableGrid table={table.table} asNumbers={false} only={null} onChange={null} />;
  return stores ? <StateTableGrid /> : null;
}

/** The faces of a session, shown for as long as a test reads them. */
export class Faces {
  private readonly shown: ReturnType<typeof render>;

  constructor(private readonly session: Session) {
    globalThis.Path2D ??= RecordedPath as unknown as typeof Path2D;
    globalThis.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    this.shown = render(
      <SessionProvider value={session}>
        <PartsList onStep={() => {}} onAct={() => {}} />
        <Table />
        <MomentBar />
      </SessionProvider>,
    );
  }

  /** Does something with the session, and lets the faces follow. */
  do<T>(work: () => T): T {
    let result!: T;
    act(() => {
      result = work();
    });
    return result;
  }

  close(): void {
    this.shown.unmount();
  }

  read(): FacesRead {
    const { session } = this;
    const { state } = session;
    const { container } = this.shown;
    const grid = (name: string) => container.querySelector(`[role="grid"][aria-label="${name}"]`);
    const table = grid('Truth table');
    const states = grid('State table');
    const words = [...container.querySelectorAll('[data-part]')].map(
      (e) => [e.getAttribute('data-part')!, e.textContent!] as const,
    );
    const at = state.cursor ?? state.now;
    const lanes = lanesOf(state.netlist, session.sheet.time, state.lesson.settings.buses);
    const nets = lanes.map((lane) => lane.nets);
    const stretches = stretchesOf(session.trace, nets, at, at + 1, 1);
    return {
      wires: this.wires(),
      table: table && rowsIn(table),
      tableHeads: headsIn(table),
      states: states && rowsIn(states),
      stateHeads: headsIn(states),
      moment: container.querySelector('[aria-label="The moment"]')?.textContent ?? '',
      words: new Map(words),
      lanes: new Map(
        lanes.map(({ key }, i) => [
          key,
          [...(stretches[i]![0]?.bits ?? [])].reverse().map(letterOf).join(''),
        ]),
      ),
      noted: sceneOf(state).table?.()?.at ?? null,
    };
  }

  private wires(): Map<string, string> {
    const { state } = this.session;
    const scene = sceneOf(state);
    const canvas = new RecordingCanvas();
    paint(canvas.context, WIDE, FAR, scene, PLAIN, NAMED);
    const found = new Map<string, string>();
    for (const wire of scene.sheet.wires.values()) {
      const points = courseOf(scene.sheet, wire);
      if (points.length < 2) continue;
      const colours = canvas.strokes.get(RecordingCanvas.key(points[0]!, points[1]!)) ?? [];
      found.set(wire.id, [...new Set(colours.map((c) => LETTERS[c] ?? '?'))].join(''));
    }
    return found;
  }
}

function rowsIn(grid: Element): ShownRow[] {
  return [...grid.querySelectorAll('[data-row]')].map((row) => ({
    row: Number(row.getAttribute('data-row')),
    isLive: row.hasAttribute('data-live'),
    cells: [...row.querySelectorAll('[role="gridcell"]')].map((cell) => cell.textContent!),
  }));
}

const headsIn = (grid: Element | null) =>
  [...(grid?.querySelectorAll('[role="columnheader"]') ?? [])].map((head) => head.textContent!);
