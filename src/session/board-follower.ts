import { BoardRun } from '@/core/bench/board-run';
import { isInput } from '@/core/bench/holes';
import type { Board } from '@/core/circuit/board';
import { type Logic, ONE, ZERO } from '@/core/values/logic';
import type { Session } from './session';

/** Changes of inputs that are passed to a board at once; of more the last ones count. */
const MOST_CHANGES = 20_000;

/**
 * The board of a sheet as it runs beside it. Its switches follow the inputs of the sheet that have their names, through every change
 * up to the moment that is shown; the others are put by hand. What it stores goes on through changes of its wires, and begins anew
 * where the moment is an earlier one.
 */
export class BoardFollower {
  run: BoardRun;
  /** Levels of the switches that no input of the sheet has the name of, by their designators. */
  private readonly own = new Map<string, Logic>();
  /** The moment up to which it has followed, in ps. */
  private moment: number;
  private values: SessionValues;

  constructor(
    private readonly session: Session,
    private board: Board,
  ) {
    this.run = new BoardRun(board);
    this.values = session.state.values;
    this.moment = this.session.time.run.trace.begins;
    this.catchUp();
  }

  /** Goes on with another board. */
  take(board: Board): void {
    if (board === this.board) return;
    this.board = board;
    this.run = new BoardRun(board, this.run);
    this.settle();
  }

  /** Goes on to the moment that the sheet shows now. @returns whether anything may have changed. */
  follow(): boolean {
    const { values } = this.session.state;
    if (values === this.values) return false;
    this.values = values;
    this.catchUp();
    return true;
  }

  /** Turns a switch that no input of the sheet has the name of. @returns whether it is such a one. */
  turn(ref: string): boolean {
    const device = this.board.devices.find((one) => one.ref === ref);
    if (!device || !isInput(device) || this.netOf(device.label) !== undefined) return false;
    this.own.set(ref, this.own.get(ref) === ONE ? ZERO : ONE);
    this.settle();
    return true;
  }

  private netOf(label: string): number | undefined {
    return this.session.state.netlist.inputColumns.find(({ name }) => name === label)?.nets[0];
  }

  private catchUp(): void {
    const { cursor, now } = this.session.state;
    const { trace } = this.session.time.run;
    const to = cursor ?? now;
    if (to < this.moment) {
      this.run = new BoardRun(this.board);
      this.moment = trace.begins;
    }
    if (to > this.moment) {
      const driven = this.driven();
      const lanes = trace.window(
        driven.map(({ net }) => net),
        Math.max(this.moment, trace.begins),
        to,
      );
      const changes = lanes
        .flatMap((lane, i) => lane.slice(1).map((change) => ({ ...change, ref: driven[i]!.ref })))
        .sort((a, b) => a.time - b.time)
        .slice(-MOST_CHANGES);
      for (let i = 0; i < changes.length; ) {
        const { time } = changes[i]!;
        const levels = new Map<string, Logic>();
        for (; changes[i]?.time === time; i++) levels.set(changes[i]!.ref, changes[i]!.value);
        this.run.set(levels);
      }
      this.moment = to;
    }
    this.settle();
  }

  /** The switches that inputs of the sheet have the names of. */
  private driven(): { readonly ref: string; readonly net: number }[] {
    return this.board.devices.filter(isInput).flatMap(({ ref, label }) => {
      const net = this.netOf(label);
      return net === undefined ? [] : [{ ref, net }];
    });
  }

  /** Puts all switches to where they are at the moment. */
  private settle(): void {
    const { values } = this.session.state;
    const levels = this.board.devices.filter(isInput).map(({ ref, label }): [string, Logic] => {
      const net = this.netOf(label);
      return [ref, net === undefined ? (this.own.get(ref) ?? ZERO) : (values[net] as Logic)];
    });
    this.run.set(new Map(levels));
  }
}

type SessionValues = Session['state']['values'];
