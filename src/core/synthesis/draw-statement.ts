import { apply, type Edit } from '../circuit/edit';
import type { Point } from '../circuit/geometry';
import { type Lesson, sheetOf } from '../circuit/lesson';
import type { End, Params, Part, Sheet } from '../circuit/sheet';
import { tidy, tidySome } from '../drawing/editing/arrange';
import { connect, newPart } from '../drawing/editing/gestures';
import { portsFor } from '../drawing/editing/ports';
import { widthAt } from '../drawing/editing/remedies';
import { freePlace } from '../drawing/geometry/free-place';
import { footprintOf, pinOf, pinsOf } from '../drawing/geometry/placement';
import { wireNets } from '../drawing/geometry/wire-nets';
import { group } from '../drawing/routing/reroute';
import { namesOf } from '../logic/expression/expression';
import { blockParams } from '../netlist/blocks';
import { type BlockParams, readPins } from '../parts/block';
import { findKind, roleOf } from '../parts/catalogue';
import { readParams } from '../parts/params';
import { expectDone } from '../values/result';
import type { Call } from './call';
import { type Gate, gatesOf, late } from './gates-of-expression';
import { labelled, pinNamed, sourceNamed } from './names-on-sheet';
import { type Pieces, pieceWidth } from './pieces';
import { isDriven, isShown, isSwitch, redrive, replaceSwitch } from './redefine';
import type { Statement } from './statement';

/** Grid steps between columns, and between parts of one. */
const ACROSS = 10;
const DOWN = 2;
/** From so many gates on columns by level have more crossings than they need: a sheet of its own is laid out. */
const MANY = 7;

/** The drawing of a statement. */
export interface Drawn {
  readonly edit: Edit;
  /** The ids of the new parts, and of lamps and labels that are driven by them now. */
  readonly parts: readonly string[];
  /** Targets that were on the sheet: as a switch, or driven by something else. */
  readonly redefined: readonly { readonly name: string; readonly was: 'switch' | 'driven' }[];
}

/**
 * Draws a statement onto a sheet: the gates as they are written, from left to right, and a lamp or the named
 * input. Names are labels on the sheet; an unknown name becomes a switch. A target that is on the sheet already is redefined: a
 * switch is replaced, a lamp is driven by the new gates, and gates that lose their readers are removed.
 * @param at the place of the first input if there is none yet.
 */
export function drawStatement(lesson: Lesson, sheetId: string, statement: Statement, at: Point): Drawn {
  const pen = new Pen(lesson, sheetId);
  const inputs = [...pen.sheet.parts.values()].filter((p) => roleOf(p)?.role === 'input');
  const left = inputs.length ? Math.min(...inputs.map((p) => p.at.x)) : at.x;
  let below = inputs.length ? Math.max(...inputs.map((p) => Math.ceil(footprintOf(p).y1))) + 3 : at.y;
  const { pieces } = statement;
  const input = (name: string, width: number) => {
    if (labelled(pen.sheet, name)) return;
    const part = pen.place('switch', { width }, { x: left, y: below }, name);
    below = width === 1 ? below + 5 : Math.ceil(footprintOf(part).y1) + 3;
  };
  for (const piece of pieces.values()) if (piece.is === 'bits' && piece.isNew) input(piece.of, piece.width);
  if ('block' in statement) {
    for (const [i, name] of statement.reads.entries())
      if (!pieces.has(name) && !name.includes('.') && !/^[01]$/.test(name)) input(name, statement.widths[i]!);
    const wasEmpty = pen.sheet.parts.size === pen.parts.length;
    pen.use(statement, left);
    if (statement.count > 1) pen.tidyUp(wasEmpty);
    return pen.drawn();
  }
  const { width } = statement;
  const names = namesOf(statement.expression);
  // First the order given by the statement, then the order of appearance.
  for (const name of [...statement.order.filter((one) => names.includes(one)), ...names])
    if (!pieces.has(name) && !name.includes('.')) input(name, width);
  const { targets, expression } = statement;
  for (const name of namesOf(expression)) pen.takeApart(name, pieces);
  const isShared = lesson.settings.terms === 'shared';
  const written = gatesOf(expression, width, (name) => pen.inverseOf(name), isShared);
  const root = isShared ? pen.reused(written) : written;
  const gates: Gate[] = [];
  const gather = (gate: Gate | string) => {
    if (typeof gate === 'string' || gates.includes(gate)) return;
    gate.reads.forEach(gather);
    gates.push(gate);
  };
  gather(root);
  const wasEmpty = pen.sheet.parts.size === pen.parts.length;
  const begin = pen.rightOf(namesOf(expression), left);
  const drawn = pen.columns(late(gates), begin);
  const driver = typeof root === 'string' ? pen.sourceOf(root) : { part: drawn.get(root)!.id, port: 'Y' };
  for (const target of targets)
    pen.lead(driver, target, typeof root === 'string' ? 1 : root.level + 1, begin);
  if (gates.length >= MANY) pen.tidyUp(wasEmpty);
  return pen.drawn();
}

/** The name of the pin that is the opposite of another: `Q'` of `Q`. */
const oppositeOf = (port: string) => (port.endsWith("'") ? port.slice(0, -1) : `${port}'`);

/** The output of a NOT that reads an end already; null where there is none. */
function notOn(sheet: Sheet, source: End): End | null {
  const nets = wireNets(sheet);
  const net = 'part' in source ? nets.ofEnd(source) : nets.ofWire(source.wire);
  if (net === undefined) return null;
  for (const part of sheet.parts.values())
    if (part.kind === 'not' && nets.ofEnd({ part: part.id, port: 'A' }) === net)
      return { part: part.id, port: 'Y' };
  return null;
}

/** The gate of a sheet that is of a kind and reads the same ends already, in any order; null where none does. */
function gateOn(sheet: Sheet, { kind, params }: Gate, ends: readonly End[]): string | null {
  const nets = wireNets(sheet);
  const netOf = (end: End) => ('part' in end ? nets.ofEnd(end) : nets.ofWire(end.wire));
  const wanted = ends.map(netOf);
  if (wanted.includes(undefined)) return null;
  const read = wanted.sort().join();
  for (const part of sheet.parts.values()) {
    if (part.kind !== kind || (part.params.inverted as readonly number[] | undefined)?.length) continue;
    if (part.params.width !== params.width) continue;
    const inputs = pinsOf(part).filter((p) => p.port.direction === 'in');
    const own = inputs.map((p) => nets.ofEnd({ part: part.id, port: p.port.name }));
    if (own.length === ends.length && own.sort().join() === read) return part.id;
  }
  return null;
}

/** Grid steps from one slice to the next. */
const ROOM_OF_PIECE = 4;

/** Grid steps from one lamp to the next. */
const ROOM_OF_LAMP = 4;

/** Edits made one after the other, each on the sheet that the ones before leave. */
class Pen {
  readonly edits: Edit[] = [];
  readonly parts: string[] = [];
  private readonly redefined: Drawn['redefined'][number][] = [];
  private readonly led: string[] = [];
  /** The lowest grid line that is taken right of the inputs. */
  private floor: number | null = null;

  constructor(
    private lesson: Lesson,
    private readonly sheetId: string,
  ) {}

  get sheet(): Sheet {
    return sheetOf(this.lesson, this.sheetId)!;
  }

  drawn(): Drawn {
    const { sheet, edits, redefined } = this;
    return {
      edit: group(edits),
      parts: [...this.parts, ...this.led].filter((id) => sheet.parts.has(id)),
      redefined,
    };
  }

  make(edit: Edit | null): void {
    const applied = edit && apply(this.lesson, edit);
    if (!edit || !applied?.ok) return;
    this.lesson = applied.value;
    this.edits.push(edit);
  }

  place(kind: string, params: Params, at: Point, label = ''): Part {
    const entry = findKind(kind)!;
    const trial = newPart(this.sheet, entry, at, expectDone(readParams(entry, params)), label);
    const part = { ...trial, at: freePlace(this.sheet, trial) };
    this.make({ type: 'addPart', sheet: this.sheetId, part });
    this.parts.push(part.id);
    return part;
  }

  /** Ends that names of the statement's own stand for. */
  private readonly known = new Map<string, End>();

  /** The driver of a name; for a lamp, the driver of the lamp. */
  sourceOf(name: string): End {
    return this.known.get(name) ?? sourceNamed(this.sheet, name)!;
  }

  /** The name of what is the opposite of another already: the other output of a flip-flop, or a NOT on its wire. */
  inverseOf(name: string): string | null {
    const { sheet } = this;
    const source = this.sourceOf(name);
    if (!source) return null;
    const found = `not ${name}`;
    if (this.known.has(found)) return found;
    const twin = 'part' in source && pinOf(sheet, source.part, oppositeOf(source.port));
    const not = twin ? null : notOn(sheet, source);
    const end = twin && twin.port.direction === 'out' ? { part: twin.part, port: twin.port.name } : not;
    if (!end) return null;
    this.known.set(found, end);
    return found;
  }

  /** Gates with those left out that are on the sheet already: names of these stand in their places. */
  reused(root: Gate | string): Gate | string {
    const done = new Map<Gate, Gate | string>();
    const reuse = (gate: Gate | string): Gate | string => {
      if (typeof gate === 'string') return gate;
      const known = done.get(gate);
      if (known !== undefined) return known;
      const reads = gate.reads.map(reuse);
      const names = reads.filter((r) => typeof r === 'string');
      const there =
        names.length === reads.length && names.length > 0
          ? gateOn(
              this.sheet,
              gate,
              names.map((n) => this.sourceOf(n)),
            )
          : null;
      const now = there === null ? { ...gate, reads } : `gate ${there}`;
      if (there !== null) this.known.set(`gate ${there}`, { part: there, port: 'Y' });
      done.set(gate, now);
      return now;
    };
    return reuse(root);
  }

  /**
   * Places the slice or the join that a piece of the statement stands for, to the right of what it comes from.
   * @param off how far below that, in grid steps.
   */
  takeApart(name: string, pieces: Pieces, off = 0): void {
    const piece = pieces.get(name);
    if (!piece || this.known.has(name)) return;
    const of = piece.is === 'bits' ? [piece.of] : piece.of;
    if (piece.is === 'bits' && pieceWidth(piece) === piece.width) {
      this.takeApart(piece.of, pieces, off);
      this.known.set(name, this.sourceOf(piece.of));
      return;
    }
    for (const [i, one] of of.entries())
      this.takeApart(one, pieces, ROOM_OF_PIECE * (i - (of.length - 1) / 2));
    const ends = of.map((one) => this.sourceOf(one));
    const right = Math.max(...ends.map((end) => ('part' in end ? this.rightEdgeOf(end.part) : end.at.x)));
    const y = Math.round(off + ends.reduce((sum, end) => sum + this.heightOf(end), 0) / ends.length);
    if (piece.is === 'joined') {
      this.known.set(name, this.joined(ends, { x: right + 8, y }));
      return;
    }
    const { width, high, low } = piece;
    const part = this.place('slice', { width, high, low }, { x: right + 4, y });
    this.make(connect(this.sheet, ends[0]!, { part: part.id, port: pinsOf(part)[0]!.port.name }));
    this.known.set(name, { part: part.id, port: 'Y' });
  }

  private rightEdgeOf(part: string): number {
    return Math.ceil(footprintOf(this.sheet.parts.get(part)!).x1);
  }

  private heightOf(end: End): number {
    return 'part' in end ? (pinOf(this.sheet, end.part, end.port)?.at.y ?? 0) : end.at.y;
  }

  /** The left edges of the columns: all operands are to the left of them. */
  rightOf(names: readonly string[], left: number): number {
    const xs = names.map((name) => {
      const end = this.sourceOf(name);
      const part = 'part' in end ? this.sheet.parts.get(end.part) : undefined;
      return part && roleOf(part)?.role !== 'input' ? Math.ceil(footprintOf(part).x1) : left;
    });
    return Math.max(left, ...xs.map((x) => x - 2));
  }

  /** Places gates in columns by level, each about as high as its operands, below everything on the sheet. */
  columns(levels: ReadonlyMap<Gate, number>, left: number): Map<Gate, Part> {
    const taken = [...this.sheet.parts.values()].filter((p) => footprintOf(p).x1 > left + 5);
    const floor = taken.length ? Math.max(...taken.map((p) => Math.ceil(footprintOf(p).y1))) + 2 : null;
    this.floor = floor;
    const drawn = new Map<Gate, Part>();
    const endOf = (read: Gate | string): End =>
      typeof read === 'string' ? this.sourceOf(read) : { part: drawn.get(read)!.id, port: 'Y' };
    const gates = [...levels.keys()].reverse();
    const most = Math.max(0, ...levels.values());
    for (let level = 0; level <= most; level++) {
      const column = gates
        .filter((g) => levels.get(g) === level)
        .map((gate) => {
          const heights = gate.reads.map((r) => this.heightOf(endOf(r)));
          return { gate, wished: heights.length ? heights.reduce((a, b) => a + b, 0) / heights.length : 0 };
        })
        .sort((a, b) => a.wished - b.wished);
      let y = floor ?? Number.NEGATIVE_INFINITY;
      for (const { gate, wished } of column) {
        const entry = findKind(gate.kind)!;
        const trial = footprintOf(
          newPart(this.sheet, entry, { x: 0, y: 0 }, expectDone(readParams(entry, gate.params)), ''),
        );
        const top = Math.max(
          Math.round(wished),
          Number.isFinite(y) ? y - Math.floor(trial.y0) : Math.round(wished),
        );
        const part = this.place(gate.kind, gate.params, { x: left + ACROSS * (level + 1), y: top });
        drawn.set(gate, part);
        y = top + Math.ceil(trial.y1) + DOWN;
      }
    }
    for (const [gate, part] of drawn) {
      const pins = pinsOf(part).filter((p) => p.port.direction === 'in');
      for (const [i, read] of gate.reads.entries())
        this.make(connect(this.sheet, endOf(read), { part: part.id, port: pins[i]!.port.name }));
    }
    return drawn;
  }

  /** Draws a call: a block, or a row of them, wired to what it reads and led to its targets. */
  use({ block, reads, pieces, targets, widths, count, chain }: Call, at: number): void {
    for (const edit of portsFor(block)) this.make(edit);
    const params = blockParams(sheetOf(this.lesson, block.id)!);
    const all = new Map(pieces);
    for (const read of reads) {
      this.takeApart(read, all);
      if (!this.known.has(read) && /^[01]$/.test(read)) {
        const { id } = this.place('constant', { value: Number(read) }, { x: at, y: this.lowest() });
        this.known.set(read, { part: id, port: 'Y' });
      }
    }
    const left = this.rightOf(reads, at);
    const ends: End[][] = targets.map(() => []);
    /** What leads to an input of the n-th block. */
    const endFor = (n: number, input: number): End => {
      if (n > 0 && chain?.input === input) return ends[chain.output]![n - 1]!;
      const [read, own] = [reads[input]!, widths[input]!];
      const width = widthAt(this.sheet, this.sourceOf(read));
      if (width === own || count === 1) return this.sourceOf(read);
      const name = `${read} ${n}`;
      all.set(name, { is: 'bits', of: read, width, high: (n + 1) * own - 1, low: n * own, isNew: false });
      this.takeApart(name, all);
      return this.sourceOf(name);
    };
    let last: Part | null = null;
    for (let n = 0; n < count; n++) {
      const from = reads.map((_, input) => endFor(n, input));
      last = this.placeBlock(params, from, left);
      const outputs = readPins(params.outputs).map((pin) => pin.name);
      for (const [i, port] of outputs.entries()) ends[i]?.push({ part: last.id, port });
    }
    if (!last) return;
    const right = Math.max(...pinsOf(last).map((p) => p.at.x), last.at.x);
    // Lamps need more room than the pins that they are led from.
    const first = last.at.y - Math.floor((ROOM_OF_LAMP * (targets.length - 1)) / 2);
    for (const [i, target] of targets.entries()) {
      const own = ends[i]!;
      const isOne = count === 1 || chain?.output === i;
      const driver = isOne
        ? own.at(-1)!
        : this.joined([...own].reverse(), { x: right + 8, y: first + 8 * i });
      this.lead(driver, target, (right - left) / ACROSS + (isOne ? 0 : 2), left, first + ROOM_OF_LAMP * i);
    }
  }

  /** Places a block below all that is there right of the inputs, with an end wired to each of its inputs. */
  private placeBlock(params: BlockParams, from: readonly End[], left: number): Part {
    const taken = [...this.sheet.parts.values()].filter((p) => footprintOf(p).x1 > left + 5);
    const floor = taken.length ? Math.max(...taken.map((p) => Math.ceil(footprintOf(p).y1))) + 2 : null;
    this.floor = null;
    const heights = from.map((end) => this.heightOf(end));
    const middle = heights.length ? Math.round(heights.reduce((a, b) => a + b, 0) / heights.length) : 0;
    const entry = findKind('block')!;
    const trial = footprintOf(newPart(this.sheet, entry, { x: 0, y: 0 }, params, ''));
    const y = Math.max(middle, floor === null ? middle : floor - Math.floor(trial.y0));
    const part = this.place('block', params, { x: left + ACROSS + Math.ceil(-trial.x0) + 4, y });
    const inputs = readPins(params.inputs).map((pin) => pin.name);
    for (const [i, end] of from.entries())
      this.make(connect(this.sheet, end, { part: part.id, port: inputs[i]! }));
    return part;
  }

  /** One bus of several ends, that with the highest bits first. */
  private joined(ends: readonly End[], at: Point): End {
    const part = this.place('join', { widths: ends.map((end) => widthAt(this.sheet, end)) }, at);
    const inputs = pinsOf(part).filter((p) => p.port.direction === 'in');
    for (const [i, end] of ends.entries())
      this.make(connect(this.sheet, end, { part: part.id, port: inputs[i]!.port.name }));
    return { part: part.id, port: 'Y' };
  }

  /** A line below everything on the sheet. */
  private lowest(): number {
    return Math.max(0, ...[...this.sheet.parts.values()].map((p) => Math.ceil(footprintOf(p).y1))) + 3;
  }

  /** Lays out the parts drawn here. @param isAll lays out all other parts of the sheet as well. */
  tidyUp(isAll: boolean): void {
    this.make(
      isAll ? tidy(this.lesson, this.sheetId) : tidySome(this.lesson, this.sheetId, new Set(this.parts)),
    );
  }

  /** Leads a driver to the target of the statement: a pin, an output that is there, or a new lamp. */
  lead(driver: End, target: string, level: number, left: number, height: number | null = null): void {
    const [part, port] = pinNamed(this.sheet, target);
    if (part && port) {
      this.make(connect(this.sheet, driver, { part: part.id, port }));
      return;
    }
    const called = [...this.sheet.parts.values()].filter((p) => p.label === target);
    // Of several net labels, one stands at what drives them all.
    const shown = called.filter(isShown);
    const shows = shown.find((p) => isDriven(this.sheet, p)) ?? shown[0];
    const before = called.find(isSwitch);
    if (before && !('part' in driver && driver.part === before.id)) {
      if (!this.parts.includes(before.id)) this.redefined.push({ name: target, was: 'switch' });
      replaceSwitch(this, before, driver);
    }
    const y = height ?? this.heightOf(driver);
    const end = {
      x: Math.round(left + ACROSS * (level + 1)),
      y: Math.max(y, this.floor ?? y),
    };
    if (shows) {
      if (redrive(this, shows, driver, end)) this.redefined.push({ name: target, was: 'driven' });
      this.led.push(shows.id);
      return;
    }
    if (/^\p{Ll}/u.test(target)) {
      // A name with a small initial is an intermediate signal: a name for the wire.
      const width = widthAt(this.sheet, driver);
      const label = this.place(
        'label',
        { width },
        { x: Math.round(left + ACROSS * (level + 0.5)), y },
        target,
      );
      this.make(connect(this.sheet, driver, { part: label.id, port: 'A' }));
      return;
    }
    const lamp = this.place('lamp', { width: widthAt(this.sheet, driver) }, end, target);
    this.make(connect(this.sheet, driver, { part: lamp.id, port: pinsOf(lamp)[0]!.port.name }));
  }
}
