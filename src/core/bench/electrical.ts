import type { Board, BoardPackage } from '../circuit/board';
import type { Part, Sheet, Wire } from '../circuit/sheet';
import { findKind } from '../parts/catalogue';
import { findPackage } from '../parts/packages';
import type { PackagePin } from '../parts/packages/package-type';
import { defaultParams } from '../parts/params';
import { type BoardNets, boardNets } from './board-nets';
import { DEVICE_PINS, isDisplay, isInput, type Strip, typeOf } from './holes';

/*
 * What a board is electrically: a circuit of whole packages that the engine runs as it runs every sheet, and what is wrong with
 * it that no wire shows. A package without its supply is not in the circuit, so its outputs are open.
 */

/** Something about the board that a person has to see to. */
export interface BoardProblem {
  readonly code:
    | 'no-supply'
    | 'reversed'
    | 'short'
    | 'outputs-joined'
    | 'open-input'
    | 'open-ttl'
    | 'bare-lamp'
    | 'pole-driven';
  readonly message: string;
  /** Pins and designators that it is about. */
  readonly at: readonly string[];
  /** Whether something is destroyed or does not work; otherwise it is to be known. */
  readonly isSevere: boolean;
}

export interface ElectricalBoard {
  /** The circuit, with a switch and a lamp for each device, called as it is. */
  readonly sheet: Sheet;
  readonly nets: BoardNets;
  /** Where the engine finds the value of a net: a pin of a part of the sheet; undefined where nothing of the circuit is on it. */
  probeOf(net: Strip): { readonly part: string; readonly port: string } | undefined;
  readonly problems: readonly BoardProblem[];
}

const OUT: ReadonlySet<PackagePin['use']> = new Set(['out']);

export function electricalBoard(board: Board): ElectricalBoard {
  return new Reading(board).read();
}

interface PinOnBoard {
  readonly end: string;
  readonly ref: string;
  readonly pin: PackagePin;
  readonly net: Strip;
}

class Reading {
  private readonly nets: BoardNets;
  private readonly parts = new Map<string, Part>();
  private readonly wires = new Map<string, Wire>();
  private readonly problems: BoardProblem[] = [];
  /** The pin of the circuit by which each net is first known. */
  private readonly anchors = new Map<Strip, { part: string; port: string }>();

  constructor(private readonly board: Board) {
    this.nets = boardNets(board);
  }

  read(): ElectricalBoard {
    const { board, nets } = this;
    const isShort = nets.netOf('+') === nets.netOf('-');
    if (isShort)
      this.tell('short', 'Plus and minus are joined: the supply is short-circuited.', ['+', '-'], true);
    const isOn = board.isOn && !isShort;
    if (isOn) {
      this.place('plus', 'constant', { value: 1 });
      this.hang('plus', 'Y', nets.netOf('+'));
      this.place('minus', 'constant', { value: 0 });
      this.hang('minus', 'Y', nets.netOf('-'));
    }
    const live = board.packages.filter((one) => this.isSupplied(one, isOn));
    for (const one of live) this.placePackage(one);
    this.placeDevices(isOn);
    const pins = live.flatMap((one) => this.pinsOf(one));
    if (isOn) {
      this.tellJoined(pins);
      this.tellOpen(pins);
    }
    return {
      sheet: { id: 'board', name: 'Board', parts: this.parts, wires: this.wires },
      nets,
      probeOf: (net) => this.anchors.get(net),
      problems: this.problems,
    };
  }

  private tell(code: BoardProblem['code'], message: string, at: readonly string[], isSevere: boolean): void {
    this.problems.push({ code, message, at, isSevere });
  }

  private place(id: string, kind: string, params: Part['params'], label = '', rank = 0): void {
    this.parts.set(id, {
      id,
      kind,
      at: { x: 30 * this.parts.size, y: 0 },
      turn: 0,
      label,
      rank,
      params: { ...defaultParams(findKind(kind)!), ...params },
    });
  }

  /** Joins a pin of the circuit to whatever hangs on a net. */
  private hang(part: string, port: string, net: Strip): void {
    const anchor = this.anchors.get(net);
    if (!anchor) {
      this.anchors.set(net, { part, port });
      return;
    }
    const id = `w${this.wires.size + 1}`;
    this.wires.set(id, { id, from: anchor, to: { part, port }, course: [] });
  }

  private isSupplied(one: BoardPackage, isOn: boolean): boolean {
    const type = typeOf(one);
    const isTurned = this.board.faults.some(
      (fault) => fault.is === 'turned package' && fault.ref === one.ref,
    );
    if (!type || isTurned) return false;
    const at = (use: PackagePin['use']) =>
      type.pins.filter((pin) => pin.use === use).map((pin) => this.nets.netOfPin(`${one.ref}.${pin.number}`));
    const [plus, minus] = [this.nets.netOf('+'), this.nets.netOf('-')];
    const [toPlus, toMinus] = [at('plus'), at('minus')];
    if (toPlus.every((net) => net === plus) && toMinus.every((net) => net === minus) && plus !== minus)
      return isOn;
    if (toPlus.every((net) => net === minus) && toMinus.every((net) => net === plus)) {
      this.tell(
        'reversed',
        `The supply of ${one.ref} is reversed. It gets hot and gives nothing.`,
        [one.ref],
        true,
      );
      return false;
    }
    const missing = type.pins.filter(
      ({ number, use }) =>
        (use === 'plus' && this.nets.netOfPin(`${one.ref}.${number}`) !== plus) ||
        (use === 'minus' && this.nets.netOfPin(`${one.ref}.${number}`) !== minus),
    );
    const names = missing.map(
      ({ name, number, use }) => `pin ${number} (${name}) to ${use === 'plus' ? 'plus' : 'minus'}`,
    );
    this.tell('no-supply', `${one.ref} has no supply: ${names.join(', ')}.`, [one.ref], true);
    return false;
  }

  private pinsOf(one: BoardPackage): PinOnBoard[] {
    return typeOf(one)!.pins.flatMap((pin) => {
      const end = `${one.ref}.${pin.number}`;
      const isSignal = pin.use === 'in' || pin.use === 'out' || pin.use === 'both';
      return isSignal ? [{ end, ref: one.ref, pin, net: this.nets.netOfPin(end)! }] : [];
    });
  }

  private placePackage(one: BoardPackage): void {
    const dead = this.board.faults.flatMap((fault) =>
      fault.is === 'dead unit' && fault.ref === one.ref ? [fault.unit] : [],
    );
    this.place(one.ref, 'package', { type: one.type });
    const deadPins = new Set(
      typeOf(one)!.units.flatMap(({ letter, pins }) =>
        dead.includes(letter)
          ? [...pins.values()].filter(({ use }) => use === 'out').map(({ number }) => number)
          : [],
      ),
    );
    for (const { pin, net } of this.pinsOf(one)) {
      if (pin.use === 'out' && typeOf(one)!.isOpenCollector && this.nets.pinsOf(net).length > 1) {
        // Its pull-up resistor is in the list of parts, and taken to be there.
        this.place(`${one.ref}r${pin.number}`, 'pull', { to: 'up' });
        this.hang(`${one.ref}r${pin.number}`, 'A', net);
      }
      // The output of a dead unit is at minus, whatever its inputs are.
      if (!deadPins.has(pin.number)) this.hang(one.ref, pin.name, net);
      else {
        this.place(`${one.ref}d${pin.number}`, 'constant', { value: 0 });
        this.hang(`${one.ref}d${pin.number}`, 'Y', net);
      }
    }
  }

  private placeDevices(isOn: boolean): void {
    for (const [rank, { ref, kind, label, bare }] of this.board.devices.entries()) {
      if (isInput({ kind })) {
        // Without a supply a switch gives nothing.
        if (!isOn) continue;
        this.place(ref, 'switch', {}, label || ref, rank);
        this.hang(ref, 'Y', this.nets.netOfPin(`${ref}.1`)!);
        continue;
      }
      for (const pin of DEVICE_PINS[kind]) {
        const net = this.nets.netOfPin(`${ref}.${pin}`)!;
        this.place(
          `${ref}.${pin}`,
          'lamp',
          {},
          isDisplay({ kind }) ? `${label || ref}.${pin}` : label || ref,
          rank,
        );
        this.hang(`${ref}.${pin}`, 'A', net);
        if (bare && this.nets.pinsOf(net).length > 1)
          this.tell(
            'bare-lamp',
            `Lamp ${label || ref} has no resistor: it and the output that drives it get too much current.`,
            [ref],
            true,
          );
      }
    }
  }

  /** Outputs that are joined to one another, to a switch or to the supply. */
  private tellJoined(pins: readonly PinOnBoard[]): void {
    const byNet = new Map<Strip, string[]>();
    const drive = (net: Strip, end: string) => byNet.set(net, [...(byNet.get(net) ?? []), end]);
    for (const { end, pin, net, ref } of pins) {
      const one = this.board.packages.find((p) => p.ref === ref)!;
      if (OUT.has(pin.use) && !typeOf(one)!.isOpenCollector) drive(net, end);
    }
    for (const { ref, kind } of this.board.devices)
      if (isInput({ kind })) drive(this.nets.netOfPin(`${ref}.1`)!, ref);
    for (const [net, ends] of byNet) {
      if (net === '+' || net === '-') {
        const pole = net === '+' ? 'plus' : 'minus';
        const outputs = ends.filter((end) => end.includes('.'));
        if (outputs.length > 0)
          this.tell(
            'pole-driven',
            `${spoken(outputs)} ${verb(outputs)} joined to ${pole}: an output must not be.`,
            outputs,
            true,
          );
      } else if (ends.length > 1)
        this.tell('outputs-joined', `${spoken(ends)} drive the same net: only one may.`, ends, true);
    }
  }

  /** Inputs that nothing drives, of packages that are used: unknown in CMOS, 1 in TTL. */
  private tellOpen(pins: readonly PinOnBoard[]): void {
    const driven = new Set<Strip>([this.nets.netOf('+'), this.nets.netOf('-')]);
    for (const { pin, net } of pins) if (pin.use !== 'in') driven.add(net);
    for (const { ref, kind } of this.board.devices)
      if (isInput({ kind })) driven.add(this.nets.netOfPin(`${ref}.1`)!);
    const open = pins.filter(({ pin, net }) => pin.use === 'in' && !driven.has(net));
    const isTtl = ({ ref }: PinOnBoard) =>
      findPackage(this.board.packages.find((p) => p.ref === ref)!.type)!.family === '74LS';
    for (const { end, ref, pin, net } of open.filter(isTtl)) {
      this.place(`${ref}p${pin.number}`, 'pull', { to: 'up' });
      this.hang(`${ref}p${pin.number}`, 'A', net);
      this.tell('open-ttl', `${spoken([end])} is open: it reads 1, and is easily disturbed.`, [end], false);
    }
    for (const { end } of open.filter((pin) => !isTtl(pin)))
      this.tell('open-input', `${spoken([end])} is open: what it reads is unknown.`, [end], false);
  }
}

/** `U1 pin 3 and U2 pin 6`. */
export function spoken(ends: readonly string[]): string {
  const words = ends.map((end) => {
    const [ref, pin] = end.split('.');
    return pin && ref!.startsWith('U') ? `${ref} pin ${pin}` : ref!;
  });
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

const verb = (ends: readonly string[]) => (ends.length === 1 ? 'is' : 'are');
