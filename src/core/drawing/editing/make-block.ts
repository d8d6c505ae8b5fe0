import { apply, type Edit } from '../../circuit/edit';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { type End, freshId, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { blockParams } from '../../netlist/blocks';
import { blockKindOf } from '../../parts/block';
import { boundaryOf, findKind, kindOf, spokenName } from '../../parts/catalogue';
import { defaultParams } from '../../parts/params';
import { done, type Problem, type Result, refusal, refused } from '../../values/result';
import { pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { layOut } from '../layout/lay-out';
import { connect, newPart, remove } from './gestures';

interface NetPin {
  readonly part: string;
  readonly port: string;
  readonly drives: boolean;
  readonly width: number;
}

/** The edit that makes a block; the new sheet and the block by their ids. */
export interface MadeBlock {
  readonly edit: Edit;
  readonly sheet: string;
  readonly block: string;
}

/**
 * Makes a block of some parts of a sheet: they move to a sheet of their own, cut wires become ports, and a
 * block takes their place. One step of undo.
 */
export function makeBlock(
  lesson: Lesson,
  sheetId: string,
  ids: ReadonlySet<string>,
  name: string,
): Result<MadeBlock> {
  const sheet = sheetOf(lesson, sheetId)!;
  const inside = [...ids].map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
  if (inside.length === 0) return refused('nothing-selected', 'no part is selected');
  const outer = inside.find((p) => boundaryOf(p));
  if (outer)
    return refused('port-selected', `${spokenName(outer)} is a port of this sheet and must stay on it`);

  const torn = inside.find(
    (p) =>
      kindOf(p).joinsByLabel &&
      [...sheet.parts.values()].some((o) => o.kind === p.kind && o.label === p.label && !ids.has(o.id)),
  );
  if (torn)
    return refused(
      'label-torn',
      `net label ${torn.label} would be torn from those of its name outside; select all of them, or none`,
    );

  const nets = netsOf(sheet);
  const cut = nets
    .map((pins) => ({
      within: pins.filter((p) => ids.has(p.part)),
      without: pins.filter((p) => !ids.has(p.part)),
    }))
    .filter(({ within, without }) => within.length > 0 && without.length > 0);
  if (cut.length === 0)
    return refused('no-ports', 'no wire leads out of the selection, so the block would have no ports');

  // The sheet inside: the parts unchanged, each net routed again, a port for each cut net.
  const id = freshId(new Set(lesson.sheets.map((s) => s.id)), 'sheet');
  const names = new Set<string>();
  const kind = findKind('port')!;
  const parts = new Map(inside.map((p) => [p.id, p]));
  const wires = new Map<string, Wire>();
  const join = (from: End, to: End) => {
    const wire = `w${wires.size + 1}`;
    wires.set(wire, { id: wire, from, to, course: [] });
  };
  const ports: { label: string; pins: (typeof cut)[number] }[] = [];
  for (const pins of nets.map((all) => all.filter((p) => ids.has(p.part)))) {
    const border = cut.find((c) => c.within[0] && pins.some((p) => same(p, c.within[0]!)));
    const source = pins.find((p) => p.drives) ?? pins[0];
    if (!source) continue;
    const end = ({ part, port }: NetPin): End => ({ part, port });
    for (const other of pins) if (other !== source && !border) join(end(source), end(other));
    if (!border) continue;
    const out = pins.some((p) => p.drives);
    const label = freshName(names, border, sheet, out);
    const port: Part = {
      id: freshId(parts, 'port'),
      kind: kind.kind,
      at: { x: 0, y: 0 },
      turn: 0,
      label,
      rank: ports.length,
      params: { ...defaultParams(kind), direction: out ? 'out' : 'in', width: source.width },
    };
    parts.set(port.id, port);
    ports.push({ label, pins: border });
    const portEnd: End = { part: port.id, port: out ? 'A' : 'Y' };
    if (out) {
      join(end(source), portEnd);
      for (const other of pins) if (other !== source) join(end(source), end(other));
    } else for (const other of pins) join(portEnd, end(other));
  }
  const made: Sheet = layOut({ id, name, parts, wires });

  // The sheet outside, edit by edit: each wire is routed around the parts that are there by then.
  const edits: Edit[] = [];
  let now = lesson;
  let problem: Problem | null = null;
  const make = (edit: Edit | null) => {
    if (!edit || problem) return;
    const applied = apply(now, edit);
    if (!applied.ok) {
      problem = applied.problem;
      return;
    }
    edits.push(edit);
    now = applied.value;
  };
  const here = () => sheetOf(now, sheetId)!;
  make({ type: 'addSheet', sheet: made, at: lesson.sheets.length });
  const joined = wireNets(sheet);
  const cutNets = new Set(cut.map(({ within }) => joined.ofEnd(within[0]!)));
  const loose = new Set([...sheet.wires.keys()].filter((w) => cutNets.has(joined.ofWire(w))));
  make(remove(here(), ids, loose));
  const middle = {
    x: Math.round(inside.reduce((sum, p) => sum + p.at.x, 0) / inside.length),
    y: Math.round(inside.reduce((sum, p) => sum + p.at.y, 0) / inside.length),
  };
  const block = newPart(here(), blockKindOf(name, blockParams(made)), middle, blockParams(made), '');
  make({ type: 'addPart', sheet: sheetId, part: block });
  for (const { label, pins } of ports) {
    const own: End = { part: block.id, port: label };
    const driver = pins.without.find((p) => p.drives);
    const source: End = driver ? { part: driver.part, port: driver.port } : own;
    if (driver) make(connect(here(), source, own));
    for (const other of pins.without)
      if (other !== driver) make(connect(here(), source, { part: other.part, port: other.port }));
  }
  if (problem) return refusal(problem);
  return done({ edit: { type: 'group', edits }, sheet: id, block: block.id });
}

const same = (a: NetPin, b: NetPin) => a.part === b.part && a.port === b.port;

/** Pins connected by wires, for each net that has any. */
function netsOf(sheet: Sheet): NetPin[][] {
  const nets = wireNets(sheet);
  const byNet = new Map<number, NetPin[]>();
  for (const part of sheet.parts.values())
    for (const { port } of pinsOf(part)) {
      const net = nets.ofEnd({ part: part.id, port: port.name });
      if (net === undefined) continue;
      const pin = { part: part.id, port: port.name, drives: port.direction === 'out', width: port.width };
      byNet.set(net, [...(byNet.get(net) ?? []), pin]);
    }
  return [...byNet.values()];
}

/** A port is named after the part outside if that has a label, else after the pin inside. */
function freshName(
  names: Set<string>,
  { within, without }: { within: readonly NetPin[]; without: readonly NetPin[] },
  sheet: Sheet,
  out: boolean,
): string {
  const outside = without.find((p) => p.drives !== out && sheet.parts.get(p.part)!.label) ?? null;
  const inside = within.find((p) => p.drives === out) ?? within[0]!;
  const base = outside
    ? sheet.parts.get(outside.part)!.label
    : `${sheet.parts.get(inside.part)!.label || inside.part}_${inside.port}`;
  // Commas part the names of a block's pins.
  const plain =
    base
      .replaceAll(/[,[\]]/g, ' ')
      .trim()
      .slice(0, 40) || 'P';
  let name = plain;
  for (let n = 2; names.has(name); n++) name = `${plain}${n}`;
  names.add(name);
  return name;
}
