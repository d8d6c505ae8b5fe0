'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { compareBoard } from '@/core/bench/compare';
import {
  addWire,
  changePackage,
  changeWire,
  colourFor,
  moveEnd,
  readBoardLine,
  removeDevice,
  removePackage,
  removeWires,
} from '@/core/bench/edit-board';
import { fitsPlan, layWires } from '@/core/bench/guide';
import { type Hole, stripOf } from '@/core/bench/holes';
import { boardOfPlan, wireBetween } from '@/core/bench/lay';
import { type StageResult, testStage } from '@/core/bench/test-stage';
import { BOARD_COLOURS, type Board, EMPTY_BOARD } from '@/core/circuit/board';
import { sheetOf } from '@/core/circuit/lesson';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import { type Problem, type Result, sentence } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { boardOf, setBoard } from '@/session/changes/board';
import { told } from '@/session/told';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useLitPins } from '@/ui/session/lit-pins';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { useSheetPlan } from '@/ui/session/sheet-plan';
import { BenchFoot } from './BenchFoot';
import { useBenchRing } from './BenchRing';
import { BoardMenu } from './BoardMenu';
import { type BoardActions, BoardView } from './BoardView';
import type { Chosen } from './chosen';
import { boardWidth, drawingHeight } from './layout';
import { endsOnBoard, wiresAt } from './lit-wires';
import { useBoardRun } from './useBoardRun';

const SMALL =
  'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft disabled:cursor-default disabled:text-quiet disabled:hover:bg-transparent';

/** Sizes of the drawing: at the least its numbers can be read, and it scrolls. */
const LEAST_SCALE = 1;
const MOST_SCALE = 2.2;

/** The wiring board of the sheet: what is on it runs, and is held against the drawing. */
export function BenchFace() {
  const { planned } = useSheetPlan();
  const own = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.board);
  const board = own ?? EMPTY_BOARD;
  const isEmpty = board.packages.length === 0 && board.devices.length === 0 && board.wires.length === 0;
  return (
    <section className="pane" aria-label="Bench">
      {isEmpty ? <EmptyBench planned={planned} /> : <Bench board={board} planned={planned} />}
    </section>
  );
}

function EmptyBench({ planned }: { planned: SheetPlan | null }) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  const isAlone = useSessionState((s) => s.rules.guide === 'none');
  const count = planned?.plan.packages.length ?? 0;
  const place = () => planned && told(setBoard(session, boardOfPlan(planned.plan), 'the board'));
  return (
    <>
      <Bar className="pane-head">
        <h2 className="font-semibold">Bench</h2>
      </Bar>
      <div className="flex flex-col items-start gap-3 p-5">
        <p className="max-w-prose text-quiet">
          A wiring board to build the circuit on: packages across the trench, a wire from hole to hole,
          switches and lamps beside it. It runs while you wire it.
        </p>
        <div className="flex flex-wrap gap-2">
          {!isAlone && (
            <button type="button" className="button main" disabled={readOnly || count === 0} onClick={place}>
              {count === 0 ? 'Place the packages' : `Place ${counted(count, 'package')} of the drawing`}
            </button>
          )}
          <button
            type="button"
            className="button"
            disabled={readOnly}
            onClick={() => {
              const first = readBoardLine(EMPTY_BOARD, 'switch');
              if (first.ok) told(setBoard(session, first.value.board, 'the board'));
            }}
          >
            Begin with an empty board
          </button>
        </div>
      </div>
    </>
  );
}

function Bench({ board, planned }: { board: Board; planned: SheetPlan | null }) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  const { run, turn } = useBoardRun(board);
  const guide = useSessionState((s) => s.rules.guide) ?? 'lays';
  const [chosen, setChosen] = useState<Chosen>(null);
  const [pointed, setPointed] = useState<Hole | null>(null);
  // What was said of a board holds for that board alone.
  const [saying, setSaying] = useState<{ board: Board; result?: StageResult; problem?: Problem } | null>(
    null,
  );
  const result = saying?.board === board ? saying.result : undefined;
  const problem = saying?.board === board ? saying.problem : undefined;
  const line = useRef<HTMLInputElement>(null);
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const light = useCrossHighlight((p) => p.light);
  const lightEnds = useCrossHighlight((p) => p.lightEnds);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setSize(entry!.contentRect));
    observer.observe(room.current!);
    return () => observer.disconnect();
  }, []);
  useEffect(
    () => () => {
      light(null);
      lightEnds([]);
    },
    [light, lightEnds],
  );
  const fits =
    guide !== 'none' && planned !== null && planned.plan.packages.length > 0 && fitsPlan(board, planned.plan);
  const lit = useLitPins(fits ? planned : null);
  const litWires = useMemo(() => wiresAt(board, lit), [board, lit]);
  const compared = useMemo(
    () => (planned && fits ? compareBoard(board, planned.wiring) : null),
    [board, planned, fits],
  );
  const next = compared?.missing[0];
  const nextWire = useMemo(
    () => (next ? wireBetween(board, next.from, next.to, next.colour) : null),
    [board, next],
  );
  const laid = compared ? compared.isLaid.filter(Boolean).length : board.wires.length;
  const stage = next?.stage ?? 0;
  const before = next
    ? stage - 1
    : Math.max(0, ...(planned?.wiring.stages.map(({ number }) => number) ?? []));
  const testable = planned?.tests.filter((test) => test.stage <= before).at(-1);

  const change = (made: Result<Board>, what: string) => {
    if (made.ok) told(setBoard(session, made.value, what));
    else setSaying({ board: boardOf(session), problem: made.problem });
  };
  const lay = (upTo: number) => {
    if (!planned) return;
    const { board: after, refusal } = layWires(board, planned.wiring, upTo);
    if (after !== board) told(setBoard(session, after, 'the wires laid'));
    if (refusal && !refusal.ok) setSaying({ board: boardOf(session), problem: refusal.problem });
  };
  const layNext = () => {
    if (!nextWire) return;
    change(
      nextWire.ok ? addWire(board, nextWire.value.from, nextWire.value.to, nextWire.value.colour) : nextWire,
      'the wire',
    );
  };
  const test = () => {
    if (!planned || !testable) return;
    const found = testStage(board, planned.plan, testable);
    setSaying({ board, result: found });
    if (found.failure?.row !== undefined) session.goToRow(found.failure.row);
  };
  const actions: BoardActions = {
    addWire: (from, to) =>
      change(
        addWire(boardOf(session), from, to, colourFor(boardOf(session), stripOf(from), stripOf(to))),
        'the wire',
      ),
    moveEnd: (id, end, hole) => change(moveEnd(boardOf(session), id, end, hole), 'the end of a wire'),
    movePackage: (ref, column) => change(changePackage(boardOf(session), ref, { column }), `move ${ref}`),
    remove: ({ is, id }) => {
      const now = boardOf(session);
      const after =
        is === 'wire'
          ? removeWires(now, new Set([id]))
          : is === 'package'
            ? removePackage(now, id)
            : removeDevice(now, id);
      setChosen(null);
      change({ ok: true, value: after }, is === 'wire' ? 'take a wire away' : `take ${id} away`);
    },
    flip: (ref) => {
      const label = board.devices.find((one) => one.ref === ref)?.label;
      const column = session.state.netlist.inputColumns.find(({ name }) => name === label);
      if (column) session.flip(column.part, column.bit);
      else if (!turn(ref)) setChosen({ is: 'device', id: ref });
    },
    choose: (to) => {
      setChosen(to);
      lightEnds(to?.is === 'wire' ? endsOnBoard(board, to.id, planned) : []);
      const part = to?.is === 'package' ? planned?.plan.packages.find(({ ref }) => ref === to.id) : undefined;
      light(part && fits ? new Set(part.units.flatMap(({ parts }) => parts)) : null);
    },
    point: (hole) => {
      setPointed(hole);
      light(
        hole && fits
          ? partsAt(planned, run.electrical.nets.pinsOf(run.electrical.nets.netOf(stripOf(hole)!)))
          : null,
      );
    },
    type: (letter) => {
      const field = line.current;
      if (!field) return;
      field.focus();
      field.value = letter;
      field.dispatchEvent(new Event('input', { bubbles: true }));
    },
  };
  const family = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.chips?.family ?? '74HC');
  const { hands, ring, over } = useBenchRing({
    board,
    family,
    onPlace: change,
    onType: actions.type,
    onClosed: () => room.current?.querySelector('svg')?.focus({ preventScroll: true }),
  });
  const fitted = Math.min(size.width / boardWidth(board), size.height / drawingHeight(board));
  const scale = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, fitted || 1));
  const chosenWire = chosen?.is === 'wire' ? board.wires.find(({ id }) => id === chosen.id) : undefined;
  return (
    <>
      <Bar className="pane-head">
        <h2 className="font-semibold">Bench</h2>
        <span className="head-note" data-way={2}>
          {compared && planned
            ? `${laid} of ${counted(planned.wiring.wires.length, 'wire')}`
            : counted(board.wires.length, 'wire')}
        </span>
        <span className="ml-auto" />
        {chosenWire && (
          <label className="flex items-center gap-1.5 whitespace-nowrap">
            Colour
            <select
              className="field w-auto py-0.5"
              value={chosenWire.colour}
              disabled={readOnly}
              onChange={(event) =>
                change(
                  {
                    ok: true,
                    value: changeWire(board, chosenWire.id, {
                      colour: event.target.value as Board['wires'][number]['colour'],
                    }),
                  },
                  'the colour of a wire',
                )
              }
            >
              {BOARD_COLOURS.map((colour) => (
                <option key={colour}>{colour}</option>
              ))}
            </select>
          </label>
        )}
        {chosen?.is === 'package' && !readOnly && (
          <button
            type="button"
            className={SMALL}
            onClick={() => {
              const was = board.packages.find(({ ref }) => ref === chosen.id);
              if (was) change(changePackage(board, was.ref, { turned: !was.turned }), `turn ${was.ref}`);
            }}
          >
            Turn {chosen.id}
          </button>
        )}
        {chosen && !readOnly && (
          <button type="button" className={SMALL} onClick={() => actions.remove(chosen)}>
            Take away
          </button>
        )}
        <label className="flex items-center gap-1.5 whitespace-nowrap">
          <input
            type="checkbox"
            checked={board.isOn}
            disabled={readOnly}
            onChange={(event) =>
              change({ ok: true, value: { ...board, isOn: event.target.checked } }, 'the supply')
            }
          />
          Supply
        </label>
        <Fold way={1} label="More for the bench">
          {compared && guide === 'lays' && !readOnly && (
            <>
              <button type="button" className={SMALL} disabled={!next} onClick={layNext}>
                Lay the next
              </button>
              <button type="button" className={SMALL} disabled={!next} onClick={() => lay(stage)}>
                {next && stage === 0 ? 'Lay the supply' : 'Lay this stage'}
              </button>
              <button
                type="button"
                className={SMALL}
                disabled={!next}
                onClick={() => lay(Number.POSITIVE_INFINITY)}
              >
                Lay all
              </button>
            </>
          )}
          {compared && (
            <button
              type="button"
              className={SMALL}
              disabled={!testable}
              {...hint(testable ? false : 'A stage can be tested once its wires are laid')}
              onClick={test}
            >
              {testable ? `Test stage ${testable.stage}` : 'Test this stage'}
            </button>
          )}
          {planned && planned.plan.packages.length > 0 && guide !== 'none' && !fits && !readOnly && (
            <button
              type="button"
              className={SMALL}
              {...hint('The board has other packages than the plan of the drawing')}
              onClick={() => change({ ok: true, value: boardOfPlan(planned.plan) }, 'the board')}
            >
              Place the drawing’s packages
            </button>
          )}
        </Fold>
        <BoardMenu
          board={board}
          planned={planned}
          room={room}
          onChange={(after, what) => change({ ok: true, value: after }, what)}
        />
      </Bar>
      <div ref={over} className="relative flex min-h-0 flex-1 flex-col">
        <div ref={room} className="min-h-0 flex-1 overflow-auto bg-paper p-1">
          <BoardView
            board={board}
            run={run}
            chosen={chosen}
            actions={actions}
            readOnly={readOnly}
            next={nextWire?.ok ? nextWire.value : null}
            wrong={new Set(compared?.wrong.map(({ wire }) => wire.id))}
            scale={scale}
            isLit={(ref, pin) => lit.pins.has(`${ref}.${pin}`)}
            lit={litWires}
            ring={hands}
          />
        </div>
        {ring}
      </div>
      <BenchFoot
        line={line}
        board={board}
        run={run}
        pointed={pointed}
        next={next}
        wrong={compared?.wrong ?? []}
        isDone={compared?.isRight ?? false}
        result={result ?? null}
        problem={problem ? sentence(problem) : ''}
        readOnly={readOnly}
        onLine={(text) => {
          const read = readBoardLine(boardOf(session), text);
          if (read.ok) change({ ok: true, value: read.value.board }, read.value.what);
          else setSaying({ board: boardOf(session), problem: read.problem });
          return read.ok;
        }}
        onMend={(wrong) => {
          const now = boardOf(session);
          change({ ok: true, value: removeWires(now, new Set([wrong])) }, 'take a wire away');
        }}
      />
    </>
  );
}

/** The drawn parts whose units are at some pins. */
function partsAt(planned: SheetPlan | null, pins: readonly string[]): ReadonlySet<string> | null {
  const parts = new Set<string>();
  for (const end of pins) {
    const [ref, number] = end.split('.');
    const one = planned?.plan.packages.find((p) => p.ref === ref);
    for (const unit of one?.units ?? [])
      if (unit.pins.has(Number(number))) for (const part of unit.parts) parts.add(part);
  }
  return parts.size > 0 ? parts : null;
}
