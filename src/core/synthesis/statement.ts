import { apply, type Edit } from '../circuit/edit';
import type { Point } from '../circuit/geometry';
import {
  type End,
  type Lesson,
  type Params,
  type Part,
  type PinEnd,
  type Sheet,
  sheetOf,
} from '../circuit/lesson';
import { connect, newPart } from '../drawing/editing/gestures';
import { portsFor } from '../drawing/editing/ports';
import { widthAt } from '../drawing/editing/remedies';
import { footprintOf, pinOf, pinsOf } from '../drawing/geometry/placement';
import { wireNets } from '../drawing/geometry/wire-nets';
import { group } from '../drawing/routing/reroute';
import { type Expression, namesOf } from '../logic/expression/expression';
import { limitFanIn } from '../logic/expression/limit-fan-in';
import { readExpression } from '../logic/expression/read-expression';
import { excerptAt } from '../logic/specification/spec-formulas';
import { blockParams } from '../netlist/blocks';
import { declaredInputs, declaredOutputs } from '../netlist/declared';
import { readPins } from '../parts/block';
import { boundaryOf, findKind, roleOf } from '../parts/catalogue';
import { MOST_GATE_INPUTS } from '../parts/gates';
import { readParams } from '../parts/params';
import { done, expectDone, type Result, refused } from '../values/result';

/**
 * A typed statement, `Sum = A xor B` or `Sum, Carry = half adder(A, B)`: the driven names and their driver.
 */
export type Statement =
  | {
      /** A name, or a part and its pin: `Q1.T`. */
      readonly target: string;
      readonly expression: Expression;
      /** Bits of each operand. */
      readonly width: number;
    }
  | { readonly targets: readonly string[]; readonly block: Sheet; readonly reads: readonly string[] };

/** Whether a text is meant as a statement. */
export const isStatement = (text: string) => text.includes('=');

/** Names that an expression may use on a sheet: the labels that are there. */
function labelsOn(sheet: Sheet): string[] {
  return [...sheet.parts.values()].map((p) => p.label).filter(Boolean);
}

const CALL = /^\s*([^()=]+?)\s*\(([^()]*)\)\s*$/;
const split = (text: string) =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean);

export function readStatement(lesson: Lesson, sheetId: string, text: string): Result<Statement> {
  const sheet = sheetOf(lesson, sheetId)!;
  const at = text.indexOf('=');
  const call = CALL.exec(text.slice(at + 1));
  const block =
    call && lesson.sheets.find((s) => s.id !== sheetId && s.name.toLowerCase() === call[1]!.toLowerCase());
  if (block) return readCall(block, split(text.slice(0, at)), split(call[2]!));
  const target = text.slice(0, at).trim();
  const said = text.slice(at + 1);
  const sign = /[:<>!+\-*/^&|]$/.exec(target)?.[0] ?? (said.startsWith('=') ? '=' : null);
  if (sign) {
    const name = target.replace(/[\s:<>!+\-*/^&|]+$/, '');
    return refused(
      'other-sign',
      `write = alone: ${name || 'Y'} = ${said.replace(/^=/, '').trim() || 'A and B'}`,
    );
  }
  if (!target) return refused('no-name', 'before the = stands a name: Sum = A xor B');
  if (target.length > 40) return refused('name-too-long', 'the name before the = is longer than 40 letters');
  const read = readExpression(said, labelsOn(sheet));
  if (!read.ok) {
    const { code, message, place } = read.problem;
    return refused(code, `${excerptAt(said, place.offset)}: ${message}`, { offset: at + 1 + place.offset });
  }
  const stray = namesOf(read.value.expression).find((name) => name.includes('.') && !pinOfName(sheet, name));
  if (stray) return refused('no-such-pin', `there is no pin ${stray} on this sheet`);
  const [part, port] = pinNamed(sheet, target);
  if (part && !port) return refused('no-such-pin', `${part.label} has no input ${target.split('.')[1]}`);
  const dotted = /^(.+)\.([^.]+)$/.exec(target);
  if (dotted && !part && !labelled(sheet, target))
    return refused(
      'no-such-part',
      `nothing is called ${dotted[1]} on this sheet: place the part first, then ${target} is its input`,
    );
  const { expression } = read.value;
  const width = widthOf(sheet, said, target, expression);
  return width.ok ? done({ target, expression, width: width.value }) : width;
}

/**
 * The bits of the operands of an expression, all of them alike; names that are new take as many as the others have.
 * Refuses a sum that is meant with numbers: a + is an OR.
 */
function widthOf(sheet: Sheet, said: string, target: string, expression: Expression): Result<number> {
  const names = namesOf(expression);
  const isSum = said.includes('+');
  const known = names.flatMap((name) => {
    const source = sourceNamed(sheet, name);
    return source ? [{ name, width: widthAt(sheet, source) }] : [];
  });
  const wide = known.find((k) => k.width > 1);
  if (isSum && wide)
    return refused(
      'or-of-numbers',
      `${wide.name} has ${wide.width} bits, and + is “or” here. To add, place an adder: type adder ${wide.width}. For “or”, write or`,
    );
  if (isSum && names.includes(target))
    return refused(
      'feeds-itself',
      `+ is “or” here, and ${target} would feed itself. To add up, place an adder and a register: type adder 8, then register 8`,
    );
  if (!wide) return done(1);
  const other = known.find((k) => k.width !== wide.width);
  if (other)
    return refused(
      'unequal-widths',
      `${wide.name} has ${wide.width} bits and ${other.name} ${other.width === 1 ? 'one' : other.width}: a gate takes inputs of equal widths`,
    );
  if (hasConstant(expression))
    return refused(
      'bit-beside-bus',
      `0 and 1 are single bits here, and ${wide.name} has ${wide.width}: place a constant of ${wide.width} bits and give it a name`,
    );
  return done(wide.width);
}

const hasConstant = (e: Expression): boolean =>
  e.op === 'constant' || (e.op === 'not' ? hasConstant(e.of) : e.op !== 'name' && e.of.some(hasConstant));

/** The end from which a name is read; undefined where nothing is called so yet. */
function sourceNamed(sheet: Sheet, name: string): End | undefined {
  const pinned = pinOfName(sheet, name);
  if (pinned) return pinned;
  const part = labelled(sheet, name);
  if (!part) return undefined;
  const pins = pinsOf(part);
  const pin = pins.find((p) => p.port.direction === 'out') ?? pins[0];
  return pin && { part: part.id, port: pin.port.name };
}

/** A block used like a function: its inputs in brackets, its outputs before the =, both in their order. */
function readCall(block: Sheet, targets: readonly string[], reads: readonly string[]): Result<Statement> {
  const after = withPorts(block);
  const [inputs, outputs] = [declaredInputs(after), declaredOutputs(after)].map((list) =>
    list.filter((p) => boundaryOf(p) && p.label),
  );
  const wrong = (said: number, wanted: readonly Part[], what: string): string | null =>
    said === wanted.length
      ? null
      : `“${block.name}” has ${wanted.length} ${what}: ${wanted.map((p) => p.label).join(', ') || 'none'}`;
  const problem =
    wrong(reads.length, inputs!, wanted(inputs!, 'input')) ??
    wrong(targets.length, outputs!, wanted(outputs!, 'output'));
  return problem ? refused('other-ports', problem) : done({ targets, block, reads });
}

const wanted = (list: readonly unknown[], word: string) => (list.length === 1 ? word : `${word}s`);

/** A sheet with ports in place of its switches and lamps. */
function withPorts(sheet: Sheet): Sheet {
  const parts = new Map(sheet.parts);
  for (const edit of portsFor(sheet))
    if (edit.type === 'changePart') parts.set(edit.id, { ...parts.get(edit.id)!, ...edit.change });
  return { ...sheet, parts };
}

/** The pin that `H1.Sum` names. */
function pinOfName(sheet: Sheet, name: string): PinEnd | null {
  const dot = name.lastIndexOf('.');
  const part = dot > 0 ? labelled(sheet, name.slice(0, dot)) : undefined;
  const wanted = name.slice(dot + 1).toLowerCase();
  const pin = part && pinsOf(part).find((p) => p.port.name.toLowerCase() === wanted);
  return part && pin ? { part: part.id, port: pin.port.name } : null;
}

/** The part and its input that `Q1.T` names; neither where no part is called so. */
function pinNamed(sheet: Sheet, target: string): [Part | undefined, string | undefined] {
  const dot = target.lastIndexOf('.');
  if (dot <= 0) return [undefined, undefined];
  const part = labelled(sheet, target.slice(0, dot));
  const wanted = target.slice(dot + 1).toLowerCase();
  const pin =
    part && pinsOf(part).find((p) => p.port.direction === 'in' && p.port.name.toLowerCase() === wanted);
  return [part, pin?.port.name];
}

function labelled(sheet: Sheet, name: string): Part | undefined {
  const parts = [...sheet.parts.values()];
  const same = (p: Part) => p.label.toLowerCase() === name.toLowerCase();
  return (
    parts.find((p) => p.label === name && drives(p)) ??
    parts.find((p) => p.label === name) ??
    parts.find((p) => same(p) && drives(p)) ??
    parts.find(same)
  );
}

const drives = (part: Part) => pinsOf(part).some((p) => p.port.direction === 'out');

/** A gate to be drawn: its kind, its operands, and its distance from the inputs. */
interface Gate {
  readonly kind: string;
  readonly params: Params;
  readonly reads: readonly (Gate | string)[];
  readonly level: number;
}

/** The gates of an expression, a NOT of a name only once, a NOT of a gate as the inverting gate; none with too many inputs. */
function gatesOf(expression: Expression, width: number): Gate | string {
  const nots = new Map<string, Gate>();
  const level = (reads: readonly (Gate | string)[]) =>
    1 + Math.max(0, ...reads.map((r) => (typeof r === 'string' ? 0 : r.level)));
  const INVERSE: Record<string, string> = {
    and: 'nand',
    or: 'nor',
    xor: 'xnor',
    nand: 'and',
    nor: 'or',
    xnor: 'xor',
  };
  const make = (e: Expression): Gate | string => {
    switch (e.op) {
      case 'name':
        return e.name;
      case 'constant':
        return { kind: 'constant', params: { value: e.value }, reads: [], level: 0 };
      case 'not': {
        const inner = make(e.of);
        if (typeof inner === 'string') {
          let not = nots.get(inner);
          if (!not) {
            not = { kind: 'not', params: { width }, reads: [inner], level: 1 };
            nots.set(inner, not);
          }
          return not;
        }
        const turned = INVERSE[inner.kind];
        if (turned) return { ...inner, kind: turned };
        return inner.kind === 'not'
          ? inner.reads[0]!
          : { kind: 'not', params: { width }, reads: [inner], level: level([inner]) };
      }
      default: {
        const reads = e.of.map(make);
        return { kind: e.op, params: { inputs: reads.length, width }, reads, level: level(reads) };
      }
    }
  };
  return make(limitFanIn(expression, MOST_GATE_INPUTS));
}

/**
 * Gates in columns as far to the right as their readers allow, so that a product without a NOT stands with
 * the others.
 */
function late(gates: readonly Gate[]): ReadonlyMap<Gate, number> {
  const levels = new Map<Gate, number>();
  for (const gate of [...gates].reverse()) {
    const readers = gates.filter((g) => g.reads.includes(gate)).map((g) => levels.get(g)!);
    levels.set(gate, readers.length ? Math.min(...readers) - 1 : gate.level);
  }
  return levels;
}

/** Grid steps between columns, and between parts of one. */
const ACROSS = 10;
const DOWN = 2;

/**
 * Draws a statement onto a sheet: the gates as they are written, from left to right, and a lamp or the named
 * input. Names are labels on the sheet; an unknown name becomes a switch.
 * @param at the place of the first input if there is none yet.
 * @returns the edit and the ids of the new parts.
 */
export function drawStatement(
  lesson: Lesson,
  sheetId: string,
  statement: Statement,
  at: Point,
): { readonly edit: Edit; readonly parts: readonly string[] } {
  const pen = new Pen(lesson, sheetId);
  const inputs = [...pen.sheet.parts.values()].filter((p) => roleOf(p)?.role === 'input');
  const left = inputs.length ? Math.min(...inputs.map((p) => p.at.x)) : at.x;
  let below = inputs.length ? Math.max(...inputs.map((p) => Math.ceil(footprintOf(p).y1))) + 3 : at.y;
  const width = 'block' in statement ? 1 : statement.width;
  for (const name of 'block' in statement ? statement.reads : namesOf(statement.expression))
    if (!name.includes('.') && !labelled(pen.sheet, name)) {
      pen.place('switch', { width }, { x: left, y: below }, name);
      below += 5;
    }
  if ('block' in statement) {
    pen.use(statement.block, statement.reads, statement.targets, pen.rightOf(statement.reads, left));
    return { edit: group(pen.edits), parts: pen.parts };
  }
  const { target, expression } = statement;
  const root = gatesOf(expression, width);
  const gates: Gate[] = [];
  const gather = (gate: Gate | string) => {
    if (typeof gate === 'string' || gates.includes(gate)) return;
    gate.reads.forEach(gather);
    gates.push(gate);
  };
  gather(root);
  const begin = pen.rightOf(namesOf(expression), left);
  const drawn = pen.columns(late(gates), begin);
  const driver = typeof root === 'string' ? pen.sourceOf(root) : { part: drawn.get(root)!.id, port: 'Y' };
  pen.lead(driver, target, typeof root === 'string' ? 1 : root.level + 1, begin);
  return { edit: group(pen.edits), parts: pen.parts };
}

/** Grid steps from one lamp to the next. */
const ROOM_OF_LAMP = 4;

/** Edits made one after the other, each on the sheet that the ones before leave. */
class Pen {
  readonly edits: Edit[] = [];
  readonly parts: string[] = [];
  /** The lowest grid line that is taken right of the inputs. */
  private floor: number | null = null;

  constructor(
    private lesson: Lesson,
    private readonly sheetId: string,
  ) {}

  get sheet(): Sheet {
    return sheetOf(this.lesson, this.sheetId)!;
  }

  private make(edit: Edit | null): void {
    const applied = edit && apply(this.lesson, edit);
    if (!edit || !applied?.ok) return;
    this.lesson = applied.value;
    this.edits.push(edit);
  }

  place(kind: string, params: Params, at: Point, label = ''): Part {
    const entry = findKind(kind)!;
    const part = newPart(this.sheet, entry, at, expectDone(readParams(entry, params)), label);
    this.make({ type: 'addPart', sheet: this.sheetId, part });
    this.parts.push(part.id);
    return part;
  }

  /** The driver of a name; for a lamp, the driver of the lamp. */
  sourceOf(name: string): End {
    return sourceNamed(this.sheet, name)!;
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

  /** Places a block below all that is there right of the inputs, and wires it. */
  use(block: Sheet, reads: readonly string[], targets: readonly string[], left: number): void {
    for (const edit of portsFor(block)) this.make(edit);
    const params = blockParams(sheetOf(this.lesson, block.id)!);
    const taken = [...this.sheet.parts.values()].filter((p) => footprintOf(p).x1 > left + 5);
    const floor = taken.length ? Math.max(...taken.map((p) => Math.ceil(footprintOf(p).y1))) + 2 : null;
    this.floor = null;
    const heights = reads.map((name) => this.heightOf(this.sourceOf(name)));
    const middle = heights.length ? Math.round(heights.reduce((a, b) => a + b, 0) / heights.length) : 0;
    const entry = findKind('block')!;
    const trial = footprintOf(newPart(this.sheet, entry, { x: 0, y: 0 }, params, ''));
    const y = Math.max(middle, floor === null ? middle : floor - Math.floor(trial.y0));
    const part = this.place('block', params, { x: left + ACROSS + Math.ceil(-trial.x0) + 4, y });
    const pins = (direction: 'in' | 'out') => pinsOf(part).filter((p) => p.port.direction === direction);
    const named = (list: string) => readPins(list).map((p) => p.name);
    const inputs = named(params.inputs as string);
    for (const [i, name] of reads.entries())
      this.make(connect(this.sheet, this.sourceOf(name), { part: part.id, port: inputs[i]! }));
    const outputs = named(params.outputs as string);
    const right = Math.max(...pins('out').map((p) => p.at.x), part.at.x);
    // Lamps need more room than the pins that they are led from.
    const first = part.at.y - Math.floor((ROOM_OF_LAMP * (targets.length - 1)) / 2);
    for (const [i, target] of targets.entries())
      this.lead(
        { part: part.id, port: outputs[i]! },
        target,
        (right - left) / ACROSS,
        left,
        first + ROOM_OF_LAMP * i,
      );
  }

  /** Leads a driver to the target of the statement: a pin, a waiting output, or a new lamp. */
  lead(driver: End, target: string, level: number, left: number, height: number | null = null): void {
    const [part, port] = pinNamed(this.sheet, target);
    if (part && port) {
      this.make(connect(this.sheet, driver, { part: part.id, port }));
      return;
    }
    const nets = wireNets(this.sheet);
    const waiting = [...this.sheet.parts.values()].find(
      (p) =>
        p.label === target &&
        roleOf(p)?.role === 'output' &&
        nets.ofEnd({ part: p.id, port: pinsOf(p)[0]!.port.name }) === undefined,
    );
    const y = height ?? this.heightOf(driver);
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
    const lamp =
      waiting ??
      this.place(
        'lamp',
        { width: widthAt(this.sheet, driver) },
        { x: Math.round(left + ACROSS * (level + 1)), y: Math.max(y, this.floor ?? y) },
        target,
      );
    this.make(connect(this.sheet, driver, { part: lamp.id, port: pinsOf(lamp)[0]!.port.name }));
  }
}
