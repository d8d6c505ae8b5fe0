import type { Edit } from '../circuit/edit';
import { boundingBox } from '../circuit/geometry';
import type { Params, Part, Sheet, Wire } from '../circuit/sheet';
import { footprintOf } from '../drawing/geometry/placement';
import { layOut } from '../drawing/layout/lay-out';
import { group } from '../drawing/routing/reroute';
import type { Expression } from '../logic/expression/expression';
import { limitFanIn } from '../logic/expression/limit-fan-in';
import { written } from '../logic/expression/notation';
import { findKind, kindOf, roleOf } from '../parts/catalogue';
import { defaultParams } from '../parts/params';

/** A function to be drawn: its name, and the gates as they are written. */
export interface Drawn {
  readonly name: string;
  readonly expression: Expression;
}

export interface DrawOptions {
  /** Most inputs of one gate; gates with more become trees. */
  readonly mostInputs?: number;
  /** Whether logic shared by two outputs is built once. */
  readonly isShared?: boolean;
}

/**
 * A sheet with a circuit that does the functions: a switch for each input, the gates as they are written, a lamp for
 * each output; laid out from left to right.
 * @param inputs in declared order; those that no function reads are there as well.
 */
export function drawFunctions(
  id: string,
  name: string,
  inputs: readonly string[],
  functions: readonly Drawn[],
  options: DrawOptions = {},
): Sheet {
  return layOut(unplacedCircuit(id, name, inputs, functions, options));
}

/** The same with no part in its place yet, and no wire laid. */
export function unplacedCircuit(
  id: string,
  name: string,
  inputs: readonly string[],
  functions: readonly Drawn[],
  { mostInputs = 8, isShared = true }: DrawOptions = {},
): Sheet {
  const builder = new Builder();
  for (const [rank, label] of inputs.entries()) builder.input(label, rank);
  for (const [rank, { name: label, expression }] of functions.entries()) {
    if (!isShared) builder.forget();
    const driver = builder.signal(limitFanIn(expression, Math.max(2, mostInputs)));
    builder.output(label, driver, rank);
  }
  return { id, name, parts: builder.parts, wires: builder.wires };
}

/** A pin that drives a net. */
interface Driver {
  readonly part: string;
  readonly port: string;
}

/** Puts circuits together of gates as they are written, with no part in its place yet, and no wire laid. */
export class Builder {
  readonly parts = new Map<string, Part>();
  readonly wires = new Map<string, Wire>();
  private readonly counts = new Map<string, number>();
  /** What gives a signal, by how that is written. */
  private built = new Map<string, Driver>();
  private readonly sources = new Map<string, Driver>();
  private readonly inverses = new Map<string, Driver>();

  place(kind: string, params: Params, label: string, rank: number): string {
    const count = (this.counts.get(kind) ?? 0) + 1;
    this.counts.set(kind, count);
    const id = `${kind}${count}`;
    const own = { ...defaultParams(findKind(kind)!), ...params };
    this.parts.set(id, { id, kind, at: { x: 0, y: 0 }, turn: 0, label, rank, params: own });
    return id;
  }

  join(from: Driver, part: string, port: string): void {
    const id = `w${this.wires.size + 1}`;
    this.wires.set(id, { id, from, to: { part, port }, course: [] });
  }

  input(label: string, rank: number): void {
    this.source(label, { part: this.place('switch', {}, label, rank), port: 'Y' });
  }

  /** A name for expressions to read. @param inverse drives the opposite value, if something does. */
  source(name: string, driver: Driver, inverse?: Driver): void {
    this.sources.set(name, driver);
    if (inverse) this.inverses.set(name, inverse);
  }

  output(label: string, driver: Driver, rank: number): void {
    this.join(driver, this.place('lamp', {}, label, rank), 'A');
  }

  /** Builds everything again from here on. */
  forget(): void {
    this.built = new Map();
  }

  /** What gives an expression. @throws RangeError for a name that is no source. */
  signal(e: Expression): Driver {
    if (e.op === 'name') {
      const source = this.sources.get(e.name);
      if (!source) throw new RangeError(`${e.name} is no input`);
      return source;
    }
    const inverse = e.op === 'not' && e.of.op === 'name' ? this.inverses.get(e.of.name) : undefined;
    if (inverse) return inverse;
    const key = written(e, 'words');
    const known = this.built.get(key);
    if (known) return known;
    const made = this.gate(e);
    this.built.set(key, made);
    return made;
  }

  private gate(e: Exclude<Expression, { op: 'name' }>): Driver {
    if (e.op === 'constant') return { part: this.place('constant', { value: e.value }, '', 0), port: 'Y' };
    const reads = (e.op === 'not' ? [e.of] : e.of).map((of) => this.signal(of));
    if (reads.length === 1 && e.op !== 'not') return reads[0]!;
    const id = this.place(e.op, e.op === 'not' ? {} : { inputs: reads.length }, '', 0);
    const part = this.parts.get(id)!;
    const ports = kindOf(part)
      .ports(part.params)
      .filter((p) => p.direction === 'in');
    for (const [i, from] of reads.entries()) this.join(from, id, ports[i]!.name);
    return { part: id, port: 'Y' };
  }
}

/**
 * The edit that replaces the content of a sheet by a drawn circuit. Notes stay; a one-bit input or output
 * with the same name stays the same part, so a key bound to it and its tried rows stay as well.
 */
export function replaceCircuit(sheet: Sheet, circuit: Sheet): Edit {
  const isNote = (part: Part) => kindOf(part).isNote === true;
  const old = [...sheet.parts.values()].filter((p) => !isNote(p));
  const notes = [...sheet.parts.values()].filter(isNote);
  const taken = new Set(notes.map((p) => p.id));
  const ids = new Map<string, string>();
  const keeps = (part: Part): Part | undefined =>
    old.find(
      (p) =>
        p.label === part.label &&
        roleOf(p)?.role === roleOf(part)?.role &&
        roleOf(part) !== undefined &&
        kindOf(p).ports(p.params).length === 1 &&
        kindOf(p).ports(p.params)[0]!.width === 1 &&
        kindOf(p).ports(p.params)[0]!.name === kindOf(part).ports(part.params)[0]!.name,
    );
  // The new circuit begins in the upper left corner of the old one; else below the notes.
  const [before, drawn] = [old, [...circuit.parts.values()]].map((list) =>
    boundingBox(list.map(footprintOf)),
  );
  const above = boundingBox(notes.map(footprintOf));
  const corner = before ?? (above ? { x0: above.x0, y0: above.y1 + 3 } : { x0: 0, y0: 0 });
  const by = { x: Math.round(corner.x0 - (drawn?.x0 ?? 0)), y: Math.round(corner.y0 - (drawn?.y0 ?? 0)) };
  const parts = drawn ? [...circuit.parts.values()] : [];
  const kept = new Map(parts.map((p) => [p.id, keeps(p)]));
  for (const part of kept.values()) if (part) taken.add(part.id);
  const fresh = (id: string) => {
    let made = id;
    for (let n = 2; taken.has(made); n++) made = `${id}_${n}`;
    taken.add(made);
    return made;
  };
  for (const part of parts) ids.set(part.id, kept.get(part.id)?.id ?? fresh(part.id));
  const shift = (p: { x: number; y: number }) => ({ x: p.x + by.x, y: p.y + by.y });
  const end = (e: Wire['from']): Wire['from'] =>
    'part' in e ? { ...e, part: ids.get(e.part)! } : { wire: e.wire, at: shift(e.at) };
  return group([
    ...[...sheet.wires.keys()].map((id): Edit => ({ type: 'removeWire', sheet: sheet.id, id })),
    ...old.map((p): Edit => ({ type: 'removePart', sheet: sheet.id, id: p.id })),
    ...parts.map((p): Edit => {
      const was = kept.get(p.id);
      const part: Part = {
        ...(was ?? p),
        id: ids.get(p.id)!,
        at: shift(p.at),
        turn: 0,
        rank: p.rank,
        mirrored: undefined,
      };
      return { type: 'addPart', sheet: sheet.id, part };
    }),
    ...[...circuit.wires.values()].map(
      (w): Edit => ({
        type: 'addWire',
        sheet: sheet.id,
        wire: { ...w, from: end(w.from), to: end(w.to), course: w.course.map(shift) },
      }),
    ),
  ]);
}
