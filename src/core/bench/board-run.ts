import type { Board } from '../circuit/board';
import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { conflictsOf } from '../simulate/conflicts';
import { Run } from '../simulate/run';
import { type Logic, Z } from '../values/logic';
import { type ElectricalBoard, electricalBoard } from './electrical';
import type { Strip } from './holes';

/** Runs a board: it settles after each change of a switch, and its storage keeps its state. */
export class BoardRun {
  readonly electrical: ElectricalBoard;
  private readonly netlist: Netlist;
  private readonly run: Run;

  /** @param before the run before the board was changed; its stored states are taken over. */
  constructor(board: Board, before?: BoardRun) {
    this.electrical = electricalBoard(board);
    this.netlist = compile(this.electrical.sheet);
    this.run = new Run(this.netlist, { delays: 'zero', ...(before ? { held: before.run.held() } : {}) });
  }

  /** Puts switches, by their designators, to levels. */
  set(levels: ReadonlyMap<string, Logic>): void {
    const changes = this.netlist.inputs.flatMap(({ part, nets }): [number, Logic][] => {
      const level = levels.get(part);
      return level === undefined || this.run.values[nets[0]!] === level ? [] : [[nets[0]!, level]];
    });
    if (changes.length > 0) this.run.set(changes);
  }

  /** The level of a net of the board; Z where nothing of the circuit is on it. */
  levelOf(net: Strip): Logic {
    const probe = this.electrical.probeOf(net);
    const at = probe && this.netlist.netsOfPin(probe.part, probe.port)?.[0];
    return at === undefined ? Z : (this.run.values[at] as Logic);
  }

  /** The level at a pin: `U1.3`. */
  levelAt(end: string): Logic {
    const net = this.electrical.nets.netOfPin(end);
    return net === undefined ? Z : this.levelOf(net);
  }

  /** Nets that are driven to 0 and 1 at once. */
  conflicts(): ReadonlySet<Strip> {
    const found = new Set(conflictsOf(this.netlist, this.run.values).map(({ net }) => net));
    if (found.size === 0) return new Set();
    const { nets } = this.electrical;
    return new Set(
      nets.nets.filter((net) => {
        const probe = this.electrical.probeOf(net);
        const at = probe && this.netlist.netsOfPin(probe.part, probe.port)?.[0];
        return at !== undefined && found.has(at);
      }),
    );
  }
}
